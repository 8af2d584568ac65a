"""Films of the same tape above each other, with what differs marked."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.arrays import Array
from fendra.core.film import Film
from fendra.draw import style
from fendra.draw.strip import draw_band, end_s, name_row, pooled

if TYPE_CHECKING:
    from matplotlib.figure import Figure


VISIBLE = 2
"""Steps of a byte from which on a difference counts: less is nothing that one sees."""


def differing(films: Sequence[Film]) -> dict[str, Array]:
    """For the parts that all films have alike, how far they differ: (frames,) bytes, the most that
    any LED is off; only the parts that do.
    """
    first = films[0]
    names = [
        part
        for part in first.layout.part_names
        if all(part in film.layout.part_names for film in films)
        and len({film.part(part).shape[1:] for film in films}) == 1
    ]
    count = min(map(len, films))
    found = {}
    for part in names:
        shown = np.stack([film.part(part)[:count].astype(np.int16) for film in films])
        apart = np.ptp(shown, axis=0).max(axis=(1, 2))
        if (apart >= VISIBLE).any():
            found[part] = apart
    return found


@style.plain_text()
def draw_compare(films: Sequence[Film], names: Sequence[str], title: str) -> Figure:
    """For each part that differs a band of each film, and below them where and how far they differ.

    films: of the same tape, two or more. names: what each is called.
    """
    apart = differing(films)
    parts = [*apart] or [*films[0].layout.part_names][:1]
    heights: list[float] = []
    for part in parts:
        tall = float(np.clip((films[0].part(part).shape[1] / 24) ** 0.5, 0.5, 1.6))
        heights += [tall] * len(films) + [0.3, 0.22]
    figure = style.new_figure((12.8, max(8.0, 0.62 * sum(heights) + 1.3)))
    grid = figure.add_gridspec(
        len(heights), 1, height_ratios=heights, hspace=0.12, left=0.2, right=0.97, top=0.93,
        bottom=0.06,
    )  # fmt: skip
    row, first = 0, None
    for part in parts:
        for number, (film, name) in enumerate(zip(films, names, strict=True)):
            ax = figure.add_subplot(grid[row], sharex=first)
            first = first or ax
            style.dress(ax)
            ax.tick_params(labelbottom=False, bottom=False)
            draw_band(film, part, ax)
            name_row(ax, f"{part}\n{name}" if number == 0 else name)
            row += 1
        ax = figure.add_subplot(grid[row], sharex=first)
        style.dress(ax)
        ax.set_yticks([])
        is_last = part == parts[-1]
        ax.tick_params(labelbottom=is_last, bottom=is_last)
        values = apart.get(part, np.zeros(len(films[0])))
        light = np.repeat((values / 255.0)[:, None, None], 3, axis=2)
        extent = (float(films[0].times[0]), end_s(films[0]), 0.0, 1.0)
        ax.imshow(
            pooled(light, np.max)[:, :, 0].T ** 0.5, extent=extent, aspect="auto", cmap="inferno",
            vmin=0.0, vmax=1.0, interpolation="nearest",
        )  # fmt: skip
        name_row(ax, "difference")
        if is_last:
            ax.set_xlabel("time, s")
        row += 2
    words = title if apart else f"{title}: no LED differs"
    figure.text(0.2, 0.96, words, color=style.ink().text, fontsize=12)
    return figure
