"""A page as one HTML file that needs nothing else."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from html import escape
from importlib.resources import files
from pathlib import Path

from jinja2 import Environment, PackageLoader, StrictUndefined

from fendra.core.errors import PageError
from fendra.core.quoting import script_json
from fendra.core.shown import brief
from fendra.core.version import VERSION
from fendra.page.data import Look, PageData
from fendra.whole import write_text

MOST_BYTES = 40_000_000
"""A larger file takes browsers long to open, and phones may not open it at all."""
CELL_PX = 640
"""How high a page is in a notebook's cell."""


@dataclass(frozen=True)
class Page:
    """A page. html: all of it. path: its file; None if it was not written.

    In a notebook it shows itself in its cell.
    """

    html: str
    title: str
    path: Path | None = None

    def __repr__(self) -> str:
        where = f"written to {self.path}" if self.path else "not written"
        return brief("Page", self.title, f"{len(self.html) // 1024:,} KB", where)

    def _repr_html_(self) -> str:
        """The page in a frame of its own."""
        return (
            f'<iframe title="{escape(self.title)}" srcdoc="{escape(self.html)}" '
            f'sandbox="allow-scripts" style="width:100%;height:{CELL_PX}px;border:0"></iframe>'
        )


def make_page(looks: Sequence[Look], path: Path | None = None) -> Page:
    """Make a page of one look, or of two side by side. path: the file to write, if any.

    Raises PageError if it would be too large, FileError if it cannot be written.
    """
    title = " and ".join(dict.fromkeys(look.name for look in looks))
    told = PageData(version=VERSION, title=title, looks=[*looks])
    environment = Environment(
        loader=PackageLoader("fendra.page", "."), autoescape=True, undefined=StrictUndefined
    )
    html = environment.get_template("page.html.j2").render(
        title=title,
        data=script_json(told.model_dump(mode="json")),
        script=_built("page.js"),
        style=_built("page.css"),
        licences=_built("licences.txt"),
    )
    size = len(html.encode())
    if size > MOST_BYTES:
        raise PageError(
            f"the page of '{title}' would have {size / 1000000.0:.0f} MB, and the "
            f"limit is {MOST_BYTES / 1000000.0:.0f} MB. Leave the tape out, cut it, "
            "or make a page of fewer LEDs."
        )
    return Page(html, title, None if path is None else write_text(path, html))


def _built(name: str) -> str:
    """A file that was built of web/."""
    return (files("fendra.page") / "built" / name).read_text(encoding="utf-8")
