"""Words on the map: data-in of lines, names and addresses of parts, numbers along the chain."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.layout.table import PartRow
from fendra.core.names import counted
from fendra.draw import style
from fendra.draw.labels import Board

if TYPE_CHECKING:
    from matplotlib.axes import Axes

    from fendra.draw.map_drawing import MapDrawing


_LABEL_PT, _NUMBER_PT = 9.0, 6.5
_EVERY, _SELDOM, _MANY = 10, 100, 3000
"""Addresses from number to number; and above how many LEDs they are fewer."""

_MOST_SOLID = 4000


def draw_labels(drawing: MapDrawing, ax: Axes) -> None:
    """Data-in first, then names, then numbers, each only if there is room."""
    figure = ax.get_figure(root=True)
    assert figure is not None
    px = figure.dpi / 72
    leds = np.asarray(ax.transData.transform(drawing.points))
    pieces = _drawn_lines(drawing)
    faint = [np.zeros((0, 2)), *map(ax.transData.transform, pieces)]
    solid = leds[:: max(len(leds) // _MOST_SOLID, 1)]
    within = np.array(ax.get_window_extent().extents)
    board = Board(within, solid, np.concatenate(faint))
    width, height = within[2:] - within[:2]
    for x, y in ((0.0, 0.0), (0.9, 0.0)):  # the scale bar and the arrow to the front
        corner = within[:2] + np.array([x * width, y * height])
        size = np.array([0.25 * width, 0.08 * height])
        board.boxes.append(np.concatenate([corner, corner + size]))
    lit = [part for part in drawing.drawn() if part.kind != "copy"]
    for number, line in enumerate(drawing.design.line):
        first = next((part for part in lit if part.line == number), None)
        if first is not None:
            pin = line.pin or line.name
            texts = (f"data in  {pin}", pin)
            _label(
                ax, board, leds[first.leds][:1], texts, style.line_colour(number), px, is_plate=True
            )
    left_out = 0
    for part in drawing.drawn():
        texts = (f"{part.name}\n{addresses(part)}", addresses(part))
        left_out += not _label(ax, board, leds[part.leds], texts, style.line_colour(part.line), px)
    for part in lit:
        _number(drawing, ax, board, part, leds, style.line_colour(part.line), px)
    if left_out:
        ax.annotate(
            f"no room here for the names of {counted(left_out, 'part')}",
            (0.27, 0.012), xycoords="axes fraction", color=style.ink().faint, fontsize=8,
        )  # fmt: skip


def addresses(part: PartRow) -> str:
    """The addresses of a part as people read them."""
    return f"{part.first}" if part.count == 1 else f"{part.first} – {part.last}"


def _number(
    drawing: MapDrawing, ax: Axes, board: Board, part: PartRow, leds: Floats, colour: str, px: float
) -> None:
    """The address of the first LED of a part, of its last, and of every tenth."""
    address = drawing.layout.leds.address[part.leds]
    points = leds[part.leds]
    wanted = [i for i, a in enumerate(address.tolist()) if i == 0 or a != address[i - 1]]
    ends = {wanted[0], wanted[-1]}
    every = _EVERY if len(leds) <= _MANY else _SELDOM
    for i in [*sorted(ends), *(i for i in wanted if i not in ends and address[i] % every == 0)]:
        text = str(int(address[i]))
        size = ((len(text) * 0.62 + 0.2) * _NUMBER_PT * px, 1.25 * _NUMBER_PT * px)
        middle = board.put(points[[i]], size, 4 * px)
        if middle is not None:
            x, y = ax.transData.inverted().transform(middle)
            ax.text(
                x, y, text, color=colour, fontsize=_NUMBER_PT, ha="center", va="center",
                alpha=0.85, zorder=5,
            )  # fmt: skip


def _label(
    ax: Axes,
    board: Board,
    points: Floats,
    texts: Sequence[str],
    colour: str,
    px: float,
    *,
    is_plate: bool = False,
) -> bool:
    """Draw the first of the texts that has room near the points; False if none has.

    A plate (data-in) is filled and has an arrow; others have a line to where they belong.
    """
    count = len(points)
    anchors = points[[0, count // 2, count // 4, 3 * count // 4]]
    for text, size_pt in zip(texts, (_LABEL_PT - is_plate, _LABEL_PT - 2), strict=True):
        rows = text.split("\n")
        width, height = max(map(len, rows)) * 0.62 + 0.5, len(rows) * 1.3 + 0.5
        middle = board.put(anchors, (width * size_pt * px, height * size_pt * px), 11 * px)
        if middle is not None:
            break
    else:
        return False
    nearest = points[np.linalg.norm(points - middle, axis=1).argmin()]
    xytext, xy = ax.transData.inverted().transform([middle, nearest])
    ax.annotate(
        text,
        xy=tuple(xy),
        xytext=tuple(xytext),
        color=style.ink().night if is_plate else colour,
        fontsize=size_pt,
        ha="center",
        va="center",
        linespacing=1.15,
        zorder=6,
        bbox={
            "boxstyle": "round,pad=0.25",
            "fc": colour if is_plate else style.ink().panel,
            "ec": "none",
            "alpha": 1.0 if is_plate else 0.8,
        },
        arrowprops={
            "arrowstyle": "-|>" if is_plate else "-",
            "color": colour,
            "linewidth": 1.0 if is_plate else 0.6,
            "alpha": 1.0 if is_plate else 0.6,
            "shrinkB": 4.0,
        },
    )
    return True


def _drawn_lines(drawing: MapDrawing) -> list[Floats]:
    """Points on jumps and outlines, close enough together to keep labels off them."""
    pieces = []
    if drawing.view.depth == 2:
        pieces += [np.array(outline, float) for outline in drawing.design.outline]
    for number in range(len(drawing.design.line)):
        ends = [
            drawing.of(part)[[0, -1]]
            for part in drawing.drawn()
            if part.line == number and part.kind == "lit"
        ]
        pieces += [np.stack([a[1], b[0]]) for a, b in pairwise(ends)]
    steps = np.linspace(0, 1, 12)[:, None]
    return [a + steps * (b - a) for piece in pieces for a, b in pairwise(piece)]
