"""The map: where every LED is, in wire order, with arrows from data-in on."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.document.design import Design
from fendra.core.errors import LayoutError
from fendra.core.findings import Report
from fendra.core.layout import Choice, Layout, choose_all
from fendra.core.layout.canvas import on_canvas
from fendra.core.layout.views import VIEWS
from fendra.core.names import ViewName, counted, did_you_mean
from fendra.draw import style
from fendra.draw.map_drawing import MapDrawing
from fendra.draw.map_labels import draw_labels
from fendra.draw.map_show import choices_to_show, draw_shown, shows
from fendra.draw.map_table import draw_table

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure


_LEDS_AN_ARROW, _MOST_ARROWS = 8, 6
_TICK_PT = 7.0


@style.plain_text()
def draw_map_figure(
    design: Design,
    layout: Layout,
    *,
    view: ViewName = "top",
    show: str | Sequence[str] | None = None,
    canvas: str = "",
) -> Figure:
    """The map with a table of the lines beside it; see `draw_map`."""
    figure = style.new_figure()
    ax = figure.add_axes((0.075, 0.075, 0.61, 0.86))
    draw_map(design, layout, ax=ax, view=view, show=show, canvas=canvas)
    table = figure.add_axes((0.71, 0.03, 0.27, 0.9))
    table.axis("off")
    draw_table(design, layout, table)
    return figure


@style.plain_text()
def draw_map(
    design: Design, layout: Layout, *, ax: Axes | None = None, view: ViewName = "top",
    show: str | Sequence[str] | None = None, canvas: str = "",
) -> Axes:  # fmt: skip
    """Draw the map on axes, or on the axes of a new figure; return the axes.

    view: the side. show: parts, groups or trails to highlight; a single trail is coloured by
    `along`. canvas: draws the LEDs where this canvas puts them.

    Each line has a colour; a plate is its data-in, a dashed arrow a jump to the next part. A tick
    shows where an LED faces. Raises LayoutError for unknown names.
    """
    if view not in VIEWS:
        raise LayoutError(f"there is no view '{view}'. {did_you_mean(view, VIEWS, 'views')}")
    if ax is None:
        ax = style.new_figure().add_subplot()
    seen = VIEWS[view]
    if canvas:
        layout = _moved(design, layout, canvas)
    # Rounded, so that what lies on a line does not spread over the picture.
    points = seen.flat(layout.in_unit(layout.leds.position)).round(6)
    drawing = MapDrawing(design, layout, seen, points)
    chosen = choices_to_show(design, layout, show)
    _prepare(drawing, ax, canvas)
    if not canvas:
        _draw_outline(drawing, ax)
    _draw_chain(drawing, ax, is_faint=bool(chosen))
    _draw_leds(drawing, ax, chosen)
    ax.margins(0.1)
    ax.autoscale_view()
    ax.apply_aspect()
    _draw_ticks(drawing, ax)
    _draw_scale(drawing, ax)
    _draw_front(drawing, ax)
    draw_labels(drawing, ax)
    return ax


def _moved(design: Design, layout: Layout, canvas: str) -> Layout:
    """The layout with its LEDs at their places on a canvas. Raises LayoutError for unknown ones."""
    if canvas not in design.canvases:
        remedy = did_you_mean(canvas, design.canvases, "canvases")
        raise LayoutError(f"there is no canvas '{canvas}'. {remedy}")
    chosen = choose_all(design, layout, Report()).on_canvas(canvas)
    return on_canvas(layout, design.canvases[canvas], chosen)


def _prepare(drawing: MapDrawing, ax: Axes, canvas: str) -> None:
    style.dress(ax)
    ax.set_aspect("equal", adjustable="datalim")
    unit = drawing.design.units
    ax.set_xlabel(drawing.view.label(drawing.view.across, unit))
    ax.set_ylabel(drawing.view.label(drawing.view.upward, unit))
    lines = counted(len(drawing.design.line), "line")
    title = f"{drawing.design.name}: {counted(len(drawing.layout.leds), 'LED')} on {lines}"
    if canvas:
        title += f", on canvas '{canvas}'"
    if drawing.view.name != "top":
        title += f", {drawing.view.seen_from}"
    ax.set_title(title, loc="left", color=style.ink().text, fontsize=12)
    if drawing.view.is_flipped and not ax.xaxis_inverted():
        ax.invert_xaxis()


def _draw_outline(drawing: MapDrawing, ax: Axes) -> None:
    """The thing itself, which is known from above only."""
    if drawing.view.depth != 2:
        return
    for outline in drawing.design.outline:
        x, y = np.array(outline, float).reshape(-1, 2).T
        ax.plot(x, y, color=style.ink().body, linewidth=1.2, zorder=1)


def _draw_chain(drawing: MapDrawing, ax: Axes, *, is_faint: bool) -> None:
    """The wire through each part, with arrows; jumps are dashed, parallel parts dotted."""
    from matplotlib.collections import LineCollection

    strength = 0.35 if is_faint else 1.0
    for number in range(len(drawing.design.line)):
        colour = style.line_colour(number)
        runs, heads, jumps, parallels = [], [], [], []
        end: Floats | None = None
        firsts: dict[int, Floats] = {}
        for part in drawing.drawn():
            if part.line != number:
                continue
            places = drawing.of(part)
            runs.append(places)
            heads += [(places[i], places[i + 1]) for i in _arrow_starts(len(places))]
            if part.kind == "copy":
                parallels.append(np.stack([firsts.get(part.first, places[0]), places[0]]))
                continue
            firsts[part.first] = places[0]
            if end is not None and np.linalg.norm(places[0] - end) > 1e-6:
                jumps.append(_bow(end, places[0]))
            end = places[-1]
        for pieces, dashes, alpha in (
            (runs, "solid", 0.5), (jumps, (0, (4, 3)), 0.75), (parallels, (0, (1, 2)), 0.75),
        ):  # fmt: skip
            ax.add_collection(
                LineCollection(
                    pieces, colors=colour, linewidths=0.9, linestyles=[dashes],
                    alpha=alpha * strength, zorder=2,
                )
            )  # fmt: skip
        heads += [(jump[-2], jump[-1]) for jump in jumps]
        _draw_heads(drawing, ax, heads, colour, strength)


def _arrow_starts(count: int) -> list[int]:
    """The LEDs of a part that an arrow follows: evenly spread, at least one."""
    if count < 2:
        return []
    arrows = min(max(round(count / _LEDS_AN_ARROW), 1), _MOST_ARROWS)
    return [int((i + 0.5) * (count - 1) / arrows) for i in range(arrows)]


def _bow(start: Floats, end: Floats) -> Floats:
    """A jump as a slightly bent line, so that it does not hide behind what it jumps over."""
    middle = (start + end) / 2 + 0.12 * np.array([start[1] - end[1], end[0] - start[0]])
    share = np.linspace(0.0, 1.0, 16)[:, None]
    return np.asarray((1 - share) ** 2 * start + 2 * share * (1 - share) * middle + share**2 * end)


def _draw_heads(
    drawing: MapDrawing, ax: Axes, heads: list[tuple[Floats, Floats]], colour: str, alpha: float
) -> None:
    """Arrow heads, all at once, as large on any scale, each at the end of its piece."""
    from matplotlib.collections import PolyCollection
    from matplotlib.transforms import Affine2D

    heads = [(a, b) for a, b in heads if np.linalg.norm(b - a) > 1e-9]
    figure = ax.get_figure(root=True)
    if not heads or figure is None:
        return
    flip = np.array([-1.0 if drawing.view.is_flipped else 1.0, 1.0])
    triangle = np.array([[3.2, 0.0], [-3.2, 2.6], [-3.2, -2.6]])
    shapes = []
    for a, b in heads:
        way = (b - a) * flip / np.linalg.norm(b - a)
        shapes.append(triangle @ np.array([way, [-way[1], way[0]]]))
    scale = Affine2D().scale(figure.dpi / 72)
    collection = PolyCollection(
        shapes, offsets=[(a + b) / 2 for a, b in heads], offset_transform=ax.transData,
        facecolors=colour, edgecolors="none", alpha=alpha, zorder=4,
    )  # fmt: skip
    collection.set_transform(scale)
    ax.add_collection(collection, autolim=False)


def _draw_leds(drawing: MapDrawing, ax: Axes, chosen: Sequence[Choice]) -> None:
    """Every LED; hollow if it faces away, a cross if it is skipped."""
    leds, layout = drawing.layout.leds, drawing.layout
    away = drawing.view.towards(leds.facing) < -0.5
    size = _dot_size(len(leds))
    is_seen = leds.spot >= 0
    is_chosen = shows(layout, chosen)
    for number in range(len(drawing.design.line)):
        mine = layout.line_of_led == number
        colour = style.line_colour(number)
        for rows, face in (
            (mine & is_seen & ~away, colour),
            (mine & is_seen & away, style.ink().panel),
        ):
            for shown, alpha in ((is_chosen, 1.0), (~is_chosen, 0.22)):
                at = drawing.points[rows & shown]
                ax.scatter(
                    at[:, 0], at[:, 1], s=size, c=face, edgecolors=colour, linewidths=0.7,
                    alpha=alpha, zorder=3,
                )  # fmt: skip
        dead = drawing.points[mine & ~is_seen]
        ax.scatter(
            dead[:, 0],
            dead[:, 1],
            s=size * 2,
            c=style.ink().faint,
            marker="x",
            linewidths=0.9,
            zorder=3,
        )
    for part in drawing.drawn():
        if part.kind == "lit" and not chosen:
            at = drawing.of(part)[:1]
            ax.scatter(
                at[:, 0], at[:, 1], s=size * 4.5, facecolors="none",
                edgecolors=style.line_colour(part.line), zorder=4,
            )  # fmt: skip
    if chosen:
        draw_shown(drawing, ax, chosen, size)


def _dot_size(count: int) -> float:
    """Points squared: smaller, the more there are."""
    return float(np.clip(9.0 * (400 / max(count, 1)) ** 0.5, 3.0, 14.0))


def _draw_ticks(drawing: MapDrawing, ax: Axes) -> None:
    """Where each LED faces, as a short line; none if it faces us or away."""
    from matplotlib.collections import LineCollection

    figure = ax.get_figure(root=True)
    assert figure is not None
    leds = drawing.layout.leds
    ways = drawing.view.flat(leds.facing)
    is_side = (np.linalg.norm(ways, axis=1) > 0.3) & (leds.spot >= 0)
    if not is_side.any():
        return
    pixels = np.asarray(ax.transData.transform(drawing.points))
    length = min(_TICK_PT * figure.dpi / 72, max(_spacing(pixels) * 0.8, 3.0))
    a_pixel = np.linalg.norm(np.diff(ax.transData.inverted().transform([(0, 0), (1, 0)]), axis=0))
    start = drawing.points[is_side]
    pieces = np.stack([start, start + ways[is_side] * length * a_pixel], axis=1)
    lines = drawing.layout.line_of_led[is_side]
    colours = [style.line_colour(int(number)) for number in lines]
    ax.add_collection(
        LineCollection(list(pieces), colors=colours, linewidths=0.7, alpha=0.55, zorder=2),
        autolim=False,
    )


def _spacing(pixels: Floats) -> float:
    steps = np.linalg.norm(np.diff(pixels, axis=0), axis=1)
    steps = steps[steps > 0.5]
    return float(np.median(steps)) if len(steps) else 10.0


def _draw_scale(drawing: MapDrawing, ax: Axes) -> None:
    """A bar of a round length at the lower left."""
    low, high = sorted(ax.get_xlim())
    wanted = (high - low) * 0.2
    power = 10.0 ** np.floor(np.log10(max(wanted, 1e-9)))
    length = max((step * power for step in (2, 5) if step * power <= wanted), default=power)
    share = length / (high - low)
    for x, y in (((0.03, 0.03 + share), (0.035, 0.035)), ((0.03, 0.03), (0.028, 0.042)),
                 ((0.03 + share, 0.03 + share), (0.028, 0.042))):  # fmt: skip
        ax.plot(x, y, transform=ax.transAxes, color=style.ink().text, linewidth=1.2, zorder=6)
    ax.text(
        0.03 + share / 2, 0.044, f"{length:g} {drawing.design.units}", transform=ax.transAxes,
        color=style.ink().text, fontsize=8, ha="center", va="bottom", zorder=6,
    )  # fmt: skip


def _draw_front(drawing: MapDrawing, ax: Axes) -> None:
    """An arrow to the thing's front, if the front is at a side of this view."""
    way = drawing.view.front
    if way is None:
        words = "front: towards you" if drawing.view.name == "front" else "front: away from you"
        ax.text(0.97, 0.03, words, transform=ax.transAxes, color=style.ink().faint, fontsize=8,
                ha="right", zorder=6)  # fmt: skip
        return
    middle = np.array([0.955, 0.065])
    tip = middle + np.array(way) * 0.035
    ax.annotate(
        "", xy=tuple(tip), xytext=tuple(middle - np.array(way) * 0.02),
        xycoords="axes fraction", textcoords="axes fraction",
        arrowprops={"arrowstyle": "-|>", "color": style.ink().text, "linewidth": 1.4}, zorder=6,
    )  # fmt: skip
    ax.text(
        middle[0], 0.02, "front", transform=ax.transAxes, color=style.ink().text, fontsize=8,
        ha="center", va="bottom", zorder=6,
    )  # fmt: skip
