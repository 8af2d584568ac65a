"""Highlights on the map: rings round groups, or one trail coloured from its start to its end."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.arrays import Truths
from fendra.core.document.design import Design
from fendra.core.errors import ExpressionError, LayoutError
from fendra.core.findings import Report
from fendra.core.layout import Choice, Layout, choose_all
from fendra.core.layout.choice import chosen
from fendra.core.names import counted
from fendra.draw import style

if TYPE_CHECKING:
    from matplotlib.axes import Axes

    from fendra.draw.map_drawing import MapDrawing


_RINGS = ("#e4e8ef", "#ff5f56", "#ffe066", "#4cc3ff", "#ff7ac6", "#9ee06a")
"""A colour for each of several groups; they repeat after the last."""


def choices_to_show(
    design: Design, layout: Layout, show: str | Sequence[str] | None
) -> list[Choice]:
    """The choices to highlight, as a group can hold them. Raises LayoutError."""
    names = [] if show is None else [show] if isinstance(show, str) else [*show]
    if not names:
        return []
    known = choose_all(design, layout, Report())
    found = []
    for name in names:
        try:
            found.append(chosen(layout, name, known))
        except ExpressionError as exc:
            raise LayoutError(f"{exc.problem.rstrip('.')}. {exc.remedy}".strip()) from exc
    return found


def shows(layout: Layout, choices: Sequence[Choice]) -> Truths:
    """Which LEDs show a spot that one of the choices has: (m,); all where nothing is chosen."""
    if not choices:
        return np.ones(len(layout.leds), bool)
    spots = np.concatenate([choice.spots for choice in choices])
    return np.isin(layout.leds.spot, spots) & (layout.leds.spot >= 0)


def draw_shown(drawing: MapDrawing, ax: Axes, choices: Sequence[Choice], size: float) -> None:
    """A trail alone is coloured by `along`; all else gets rings, a colour each, and a legend.

    size: of an LED's dot, in points squared.
    """
    if len(choices) == 1 and choices[0].name in drawing.design.trails:
        _draw_trail(drawing, ax, choices[0], size)
        return
    for number, choice in enumerate(choices):
        at = drawing.points[shows(drawing.layout, [choice])]
        ax.scatter(
            at[:, 0], at[:, 1], s=size * (4 + 4 * number), facecolors="none",
            edgecolors=_RINGS[number % len(_RINGS)], linewidths=1.1, zorder=5,
            label=f"{choice.name}: {counted(len(choice.spots), 'LED')}",
        )  # fmt: skip
    ax.legend(
        loc="upper right", fontsize=8, labelcolor=style.ink().text, facecolor=style.ink().night,
        edgecolor="none", framealpha=0.85,
    )  # fmt: skip


def _draw_trail(drawing: MapDrawing, ax: Axes, trail: Choice, size: float) -> None:
    is_shown = shows(drawing.layout, [trail])
    at = drawing.points[is_shown]
    along = dict(zip(trail.spots.tolist(), trail.along.tolist(), strict=True))
    shares = [along[spot] for spot in drawing.layout.leds.spot[is_shown].tolist()]
    image = ax.scatter(
        at[:, 0], at[:, 1], s=size * 4, c=shares, cmap="plasma", vmin=0, vmax=1, linewidths=0,
        zorder=5,
    )  # fmt: skip
    place = ax.inset_axes((0.7, 0.965, 0.27, 0.018))
    figure = ax.get_figure(root=True)
    assert figure is not None
    bar = figure.colorbar(image, cax=place, orientation="horizontal", ticks=[0, 0.5, 1])
    bar.set_label(f"{trail.name}: along", color=style.ink().text, fontsize=8)
    place.tick_params(colors=style.ink().faint, labelsize=7, length=2)
