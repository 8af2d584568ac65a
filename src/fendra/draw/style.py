"""What the pictures share: colours, text sizes, and how a Matplotlib figure becomes a file."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import TYPE_CHECKING, Any

from fendra.core.errors import FileError
from fendra.files.whole import write_whole

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

NIGHT = "#0c0e13"
"""Background of everything that shows lit LEDs."""
PANEL = "#151922"
BODY = "#3a4252"
"""Outline of the thing itself."""
FAINT = "#6f7a8c"
TEXT = "#e4e8ef"

LINE_COLOURS = ("#4cc3ff", "#ffb454", "#9ee06a", "#ff7ac6", "#b79cff", "#ffe066")
"""One a data line, told apart on the dark background; they repeat after the last."""

FIGURE_SIZE = (12.8, 8.0)
DPI = 100


def line_colour(number: int) -> str:
    """The colour of a data line."""
    return LINE_COLOURS[number % len(LINE_COLOURS)]


def new_figure(size: tuple[float, float] = FIGURE_SIZE) -> Figure:
    """An empty dark figure that needs no screen."""
    from matplotlib.figure import Figure

    return Figure(figsize=size, dpi=DPI, facecolor=NIGHT)


def darken(ax: Axes) -> None:
    """Give axes the dark look."""
    ax.set_facecolor(PANEL)
    ax.tick_params(colors=FAINT, labelsize=8, length=3)
    for spine in ax.spines.values():
        spine.set_color(BODY)
    for label in (ax.xaxis.label, ax.yaxis.label):
        label.set_color(TEXT)


FIGURE_KINDS = {".png": "png", ".svg": "svg", ".pdf": "pdf"}


def kind_of(path: str | Path, kinds: Mapping[str, str]) -> str:
    """The kind of picture that a file's ending stands for. Raises FileError, naming the endings."""
    kind = kinds.get(Path(path).suffix.lower())
    if kind is None:
        *first, last = kinds
        raise FileError(f"'{path}' has no ending for this picture: {', '.join(first)} or {last}")
    return kind


def save_figure(figure: Figure, path: str | Path) -> Path:
    """Write a figure as its ending says; whole, or not at all. Raises FileError."""
    kind = kind_of(path, FIGURE_KINDS)
    settings: dict[str, Any] = {"dpi": DPI, "facecolor": figure.get_facecolor(), "format": kind}
    return write_whole(path, lambda beside: figure.savefig(beside, **settings))
