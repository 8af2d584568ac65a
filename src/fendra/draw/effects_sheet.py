"""All effects on one sheet: film strips of each on a ring, a strip and a grid, side by side."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TYPE_CHECKING

from fendra.core.film import Film
from fendra.draw import style
from fendra.draw.strip import draw_band

if TYPE_CHECKING:
    from matplotlib.figure import Figure

PARTS = ("ring", "strip", "grid")
COLUMNS = 3


@style.plain_text()
def draw_effects(films: Mapping[str, Film]) -> Figure:
    """films: of each effect by its name, on a design with a ring, a strip and a grid."""
    rows = -(-len(films) // COLUMNS)
    figure = style.new_figure((14.4, 0.86 * rows + 0.9))
    outer = figure.add_gridspec(
        rows, COLUMNS, left=0.02, right=0.985, top=1 - 0.75 / (0.86 * rows + 0.9), bottom=0.02,
        hspace=0.42, wspace=0.06,
    )  # fmt: skip
    for number, (name, film) in enumerate(films.items()):
        row, column = number % rows, number // rows
        inner = outer[row, column].subgridspec(1, 3, wspace=0.05)
        for place, part in enumerate(PARTS):
            ax = figure.add_subplot(inner[place])
            style.dress(ax)
            draw_band(film, part, ax)
            ax.set_xticks([])
            ax.set_yticks([])
            if place == 0:
                ax.set_title(name, color=style.ink().text, fontsize=9, loc="left", pad=3)
    seconds = next(iter(films.values())).times[-1]
    figure.text(
        0.02, 1 - 0.35 / (0.86 * rows + 0.9),
        f"Effects: {seconds:.0f} s of each, time across, on a ring of 24, a strip of 30 and a grid "
        "of 8 x 8 (row by row)",
        color=style.ink().text, fontsize=12,
    )  # fmt: skip
    return figure
