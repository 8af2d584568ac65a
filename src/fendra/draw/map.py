"""The map: where every LED is, in wire order, with arrows from data-in on."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.design import Design, Line
from fendra.core.layout import Layout
from fendra.core.names import counted
from fendra.draw import style
from fendra.draw.labels import Board

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

Array = np.ndarray[Any, np.dtype[np.float64]]

_LEDS_AN_ARROW, _MOST_ARROWS = 8, 6
_LABEL_PT = 9.0
_TABLE_ROWS = 40


def draw_map_figure(design: Design, layout: Layout) -> Figure:
    """The map with a table of the lines beside it."""
    figure = style.new_figure()
    ax = figure.add_axes((0.075, 0.075, 0.61, 0.86))
    draw_map(design, layout, ax=ax)
    table = figure.add_axes((0.71, 0.07, 0.27, 0.86))
    table.axis("off")
    _draw_table(design, layout, table)
    return figure


def draw_map(design: Design, layout: Layout, *, ax: Axes | None = None) -> Axes:
    """Draw the map on axes, or on the axes of a new figure; gives the axes.

    x to the right and y forward, in mm, as seen from above. Each line has a colour; a
    triangle is its data-in, a dashed arrow a jump to the next part.
    """
    if ax is None:
        ax = style.new_figure().add_subplot()
    style.darken(ax)
    ax.set_aspect("equal", adjustable="datalim")
    ax.set_xlabel("x, mm (to the right)")
    ax.set_ylabel("y, mm (forward)")
    lines = counted(len(design.line), "line")
    title = f"{design.name}: {counted(len(layout), 'LED')} on {lines}"
    ax.set_title(title, loc="left", color=style.TEXT, fontsize=12)
    for outline in design.outline:
        x, y = np.array(outline, float).reshape(-1, 2).T
        ax.plot(x, y, color=style.BODY, linewidth=1.2, zorder=1)
    for number, line in enumerate(design.line):
        _draw_line(line, layout, _line_colour(number), ax)
    ax.margins(0.1)
    _draw_labels(design, layout, ax)
    return ax


def _line_colour(number: int) -> str:
    return style.LINE_COLOURS[number % len(style.LINE_COLOURS)]


def _draw_line(line: Line, layout: Layout, colour: str, ax: Axes) -> None:
    end: Array | None = None
    for part in line.part:
        places = layout.position[layout.spots_of_part(part.name), :2]
        ax.plot(*places.T, color=colour, linewidth=0.8, alpha=0.5, zorder=2)
        ax.scatter(places[:, 0], places[:, 1], s=9, color=colour, linewidths=0, zorder=3)
        ax.scatter(
            places[:1, 0], places[:1, 1], s=42, facecolors="none", edgecolors=colour, zorder=4
        )
        for first in _arrow_starts(len(places)):
            _arrow(ax, places[first], places[first + 1], colour)
        if end is not None and np.linalg.norm(places[0] - end) > 1e-6:
            _arrow(ax, end, places[0], colour, is_jump=True)
        end = places[-1]


def _arrow_starts(count: int) -> list[int]:
    """After which LEDs of a part an arrow stands: evenly spread, one at least."""
    if count < 2:
        return []
    arrows = min(max(round(count / _LEDS_AN_ARROW), 1), _MOST_ARROWS)
    return [int((i + 0.5) * (count - 1) / arrows) for i in range(arrows)]


def _arrow(ax: Axes, start: Array, end: Array, colour: str, *, is_jump: bool = False) -> None:
    head, shrink = ("->", 5.0) if is_jump else ("-|>", 0.0)
    ax.annotate(
        "",
        xy=tuple(end),
        xytext=tuple(start),
        arrowprops={
            "arrowstyle": f"{head},head_width=0.28,head_length=0.5",
            "color": colour,
            "linewidth": 1.0,
            "linestyle": (0, (3, 3)) if is_jump else "solid",
            "alpha": 0.75 if is_jump else 1.0,
            "shrinkA": shrink,
            "shrinkB": shrink,
            "connectionstyle": "arc3,rad=0.12" if is_jump else "arc3",
        },
        zorder=4,
    )


def _draw_labels(design: Design, layout: Layout, ax: Axes) -> None:
    """Data-in of lines, then names and addresses of parts, where there is room."""
    figure = ax.get_figure(root=True)
    assert figure is not None
    ax.apply_aspect()
    px = figure.dpi / 72
    leds = np.asarray(ax.transData.transform(layout.position[:, :2]))
    faint = [np.zeros((0, 2)), *map(ax.transData.transform, _drawn_lines(design, layout))]
    solid = leds[:: max(len(leds) // 4000, 1)]
    board = Board(np.array(ax.get_window_extent().extents), solid, np.concatenate(faint))
    for number, line in enumerate(design.line):
        pin = line.pin or line.name
        points = leds[layout.spots_of_part(line.part[0].name)][:1]
        _label(ax, board, points, (f"data in  {pin}", pin), _line_colour(number), px, is_plate=True)
    left_out = 0
    for number, line in enumerate(design.line):
        for part in line.part:
            points = leds[layout.spots_of_part(part.name)]
            addresses = _addresses(layout, part.name)
            texts = (f"{part.name}\n{addresses}", addresses)
            left_out += not _label(ax, board, points, texts, _line_colour(number), px)
    if left_out:
        ax.annotate(
            f"no room here for the names of {counted(left_out, 'part')}",
            (0.01, 0.012), xycoords="axes fraction", color=style.FAINT, fontsize=8,
        )  # fmt: skip


def _label(
    ax: Axes,
    board: Board,
    points: Array,
    texts: Sequence[str],
    colour: str,
    px: float,
    *,
    is_plate: bool = False,
) -> bool:
    """Draw the first of the texts that has room near the points; False where none has.

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
        color=style.NIGHT if is_plate else colour,
        fontsize=size_pt,
        ha="center",
        va="center",
        linespacing=1.15,
        zorder=6,
        bbox={
            "boxstyle": "round,pad=0.25",
            "fc": colour if is_plate else style.PANEL,
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


def _drawn_lines(design: Design, layout: Layout) -> list[Array]:
    """Points on jumps and outlines, close enough together to keep labels off them."""
    pieces = [np.array(outline, float) for outline in design.outline]
    for line in design.line:
        ends = [layout.position[layout.spots_of_part(p.name), :2][[0, -1]] for p in line.part]
        pieces += [np.stack([a[1], b[0]]) for a, b in pairwise(ends)]
    steps = np.linspace(0, 1, 12)[:, None]
    return [a + steps * (b - a) for piece in pieces for a, b in pairwise(piece)]


def _addresses(layout: Layout, part: str) -> str:
    addresses = layout.address[layout.spots_of_part(part)]
    first, last = int(addresses[0]), int(addresses[-1])
    return f"{first}" if first == last else f"{first} – {last}"


def _draw_table(design: Design, layout: Layout, ax: Axes) -> None:
    """Lines and parts as text, from the top down."""
    rows: list[tuple[str, str, str, bool]] = []
    shown = max((_TABLE_ROWS - 4 * len(design.line)) // len(design.line), 1)
    for number, line in enumerate(design.line):
        facts = [line.pin and f"pin {line.pin}", line.led, line.wire_order]
        facts += [f"supply {line.supply}" if line.supply else ""]
        head = f"{line.name}: {counted(line.led_count, 'LED')}"
        rows.append((head, "", _line_colour(number), True))
        rows.append(("  " + " · ".join(filter(None, facts)), "", style.FAINT, False))
        rows += [
            (f"  {part.name}", _addresses(layout, part.name), style.TEXT, False)
            for part in line.part[:shown]
        ]
        if len(line.part) > shown:
            more = counted(len(line.part) - shown, "part")
            rows.append((f"  and {more} more", "", style.FAINT, False))
        rows.append(("", "", style.TEXT, False))
    step = min(0.032, 0.93 / max(len(rows), 1))
    ax.text(0, 0.985, "Lines, in wire order", color=style.TEXT, fontsize=11, va="baseline")
    ax.text(1, 0.985, "address", color=style.FAINT, fontsize=8.5, va="baseline", ha="right")
    for place, (left, right, colour, is_head) in enumerate(rows, start=2):
        y = 0.985 - place * step
        font_pt = min(10.0 if is_head else 9.0, step * 290)
        ax.text(0, y, left, color=colour, fontsize=font_pt, va="baseline")
        ax.text(1, y, right, color=style.FAINT, fontsize=font_pt, va="baseline", ha="right")
