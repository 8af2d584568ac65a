"""Matplotlib for commands: imported without the docstrings that it writes for itself."""

from __future__ import annotations

import sys


def lean_import() -> None:
    """Keep Matplotlib from writing docstrings when it is imported next: half of its import is that.

    For Fendra's own commands, which never show them; a notebook's stay. If a version has another
    name for it, the import only takes longer.
    """
    if "matplotlib.figure" not in sys.modules:
        from matplotlib.artist import Artist

        Artist._update_set_signature_and_docstring = classmethod(lambda _: None)  # type: ignore[attr-defined]
