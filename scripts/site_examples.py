"""Docstrings on the site: their examples become blocks of code."""

from __future__ import annotations

import re
from typing import Any

import griffe

EXAMPLE = re.compile(r"^>>> .*?(?=\n\n|\Z)", re.S | re.M)


class Examples(griffe.Extension):
    """Puts each doctest into a fence, since Markdown takes `>>>` for a quotation."""

    def on_instance(self, *, obj: griffe.Object, **_: Any) -> None:
        if obj.docstring is not None:
            obj.docstring.value = EXAMPLE.sub(r"```pycon\n\g<0>\n```", obj.docstring.value)
