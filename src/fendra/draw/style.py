"""The style that all pictures share: colours, text sizes, and how a figure becomes a file."""

from __future__ import annotations

import warnings
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, Any

from fendra.core.errors import FileError
from fendra.core.names import listed
from fendra.whole import write_whole

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

FIGURE_SIZE = (12.8, 8.0)
DPI = 100


@dataclass(frozen=True)
class Ink:
    """The colours of a picture.

    night: background; panel: of axes; body: outline of the thing itself; lines: one for each data
    line, repeated after the last. warn: a limit, and everything beyond it. plus, ground, data:
    wires.
    """

    night: str
    panel: str
    body: str
    faint: str
    text: str
    lines: tuple[str, ...]
    warn: str
    plus: str
    ground: str
    data: str


DARK = Ink(
    "#0c0e13", "#151922", "#3a4252", "#6f7a8c", "#e4e8ef",
    ("#4cc3ff", "#ffb454", "#9ee06a", "#ff7ac6", "#b79cff", "#ffe066"),
    "#ff5f56", "#ff5f56", "#9aa4b5", "#9ee06a",
)  # fmt: skip
"""On which light shows."""

PAPER = Ink(
    "#ffffff", "#ffffff", "#b9c0cb", "#5d6675", "#14181f",
    ("#0070b8", "#b86200", "#3d8200", "#b8197f", "#6542c4", "#8a6d00"),
    "#c81e1e", "#c81e1e", "#14181f", "#2f7d1f",
)  # fmt: skip
"""For the printer."""

_ink: ContextVar[Ink] = ContextVar("ink", default=DARK)


def ink() -> Ink:
    """The colours that are drawn with."""
    return _ink.get()


@contextmanager
def inked(chosen: Ink) -> Iterator[None]:
    """Draw with other colours inside the block."""
    token = _ink.set(chosen)
    try:
        yield
    finally:
        _ink.reset(token)


@contextmanager
def plain_text() -> Iterator[None]:
    """Draw texts as they are: Matplotlib's own little language between dollars is off.

    Every function that draws on axes runs within this, since names and units may be a stranger's.
    """
    from matplotlib import rc_context

    with rc_context({"text.parse_math": False}):
        yield


def ink_for(ax: Axes) -> Ink:
    """The colours that can be read on the user's axes."""
    from matplotlib.colors import to_rgb

    return DARK if sum(to_rgb(ax.get_facecolor())) < 1.5 else PAPER


def line_colour(number: int) -> str:
    """The colour of a data line."""
    return ink().lines[number % len(ink().lines)]


def new_figure(size: tuple[float, float] = FIGURE_SIZE) -> Figure:
    """An empty figure that needs no screen."""
    from matplotlib.figure import Figure

    return Figure(figsize=size, dpi=DPI, facecolor=ink().night)


def new_axes() -> Axes:
    """Axes that fill an empty figure."""
    ax = new_figure((12.8, 5.0)).add_axes((0.07, 0.12, 0.9, 0.78))
    dress(ax)
    return ax


def dress(ax: Axes) -> None:
    """Give axes the look of the colours that are drawn with."""
    ax.set_facecolor(ink().panel)
    ax.tick_params(colors=ink().faint, labelsize=8, length=3)
    for spine in ax.spines.values():
        spine.set_color(ink().body)
    for label in (ax.xaxis.label, ax.yaxis.label):
        label.set_color(ink().text)


PACKED = 4
"""How hard PNGs are packed, of 9: a little larger than usual, and in two thirds of the time."""

FIGURE_KINDS = {".png": "png", ".svg": "svg", ".pdf": "pdf"}


def format_of(path: str | Path, kinds: Mapping[str, str]) -> str:
    """The kind of picture for a file's ending. Raises FileError, naming the endings."""
    kind = kinds.get(Path(path).suffix.lower())
    if kind is None:
        raise FileError(f"'{path}' has no ending for this picture: {listed([*kinds], 'or')}")
    return kind


def save_figure(figure: Figure, path: str | Path) -> Path:
    """Write a figure as its ending says; whole, or not at all. Raises FileError."""
    kind = format_of(path, FIGURE_KINDS)
    settings: dict[str, Any] = {"dpi": DPI, "facecolor": figure.get_facecolor(), "format": kind}
    if kind == "png":
        settings["pil_kwargs"] = {"compress_level": PACKED}

    return write_whole(path, lambda beside: write_figure(figure, beside, **settings))


def write_figure(figure: Figure, target: Any, **settings: Any) -> None:
    """Let Matplotlib write a figure. Letters that its font lacks are drawn as boxes, unsaid."""
    from matplotlib.text import Text

    for text in figure.findobj(Text):
        assert isinstance(text, Text)
        text.set_parse_math(False)
    with warnings.catch_warnings():
        warnings.filterwarnings("ignore", "Glyph .* missing from")
        figure.savefig(target, **settings)


def png_of(figure: Any) -> bytes:
    """A figure as the bytes of a PNG."""
    from io import BytesIO

    held = BytesIO()
    write_figure(figure, held, format="png", dpi=DPI, facecolor=figure.get_facecolor())
    return held.getvalue()
