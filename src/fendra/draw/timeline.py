"""The timeline: which scenes and layers were on, and why, below the parts' strips."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from fendra.core.film import Film
from fendra.core.insight.timeline import ALWAYS, Appearance, Timeline
from fendra.draw import style
from fendra.draw.strip import draw_band, end_s, name_row

if TYPE_CHECKING:
    from matplotlib.axes import Axes
    from matplotlib.figure import Figure

_LONGEST = 64
"""Characters of a condition that are shown."""


@style.plain_text()
def draw_timeline_figure(film: Film, timeline: Timeline) -> Figure:
    """A band for each part, and below them a row for each scene and layer."""
    parts = film.layout.part_names
    courses = [*timeline.scenes, *timeline.layers]
    heights = [float(np.clip((film.part(p).shape[1] / 30) ** 0.5, 0.4, 1.6)) for p in parts]
    rows = max(len(courses), 1) * 0.24
    figure = style.new_figure((12.8, max(8.0, sum(heights) * 0.62 + rows + 1.4)))
    grid = figure.add_gridspec(
        len(parts) + 1, 1, height_ratios=[*heights, rows / 0.62], hspace=0.12, left=0.2, right=0.97,
        top=0.94, bottom=0.06,
    )  # fmt: skip
    first: Axes | None = None
    for row, part in enumerate(parts):
        ax = figure.add_subplot(grid[row], sharex=first)
        first = first or ax
        style.dress(ax)
        ax.tick_params(labelbottom=False, bottom=False)
        draw_band(film, part, ax)
        name_row(ax, part)
    ax = figure.add_subplot(grid[len(parts)], sharex=first)
    style.dress(ax)
    draw_timeline(film, timeline, ax)
    ax.set_xlim(float(film.times[0]), end_s(film))
    ax.set_xlabel("time, s")
    figure.text(
        0.2, 0.965, f"{film.design.name}: {film.tape.name}: what was on, and why",
        color=style.ink().text, fontsize=12,
    )  # fmt: skip
    return figure


@style.plain_text()
def draw_timeline(film: Film, timeline: Timeline, ax: Axes) -> None:
    """A row for each scene, then for each layer, from the lowest up; its condition in the row."""
    courses = [*timeline.scenes, *timeline.layers]
    ax.set_ylim(len(courses) - 0.5, -0.5)
    ax.set_yticks([])
    for row, course in enumerate(courses):
        colour = style.ink().lines[1 if row < len(timeline.scenes) else 0]
        _draw_course(film, course, row, colour, ax)
    if timeline.scenes:
        ax.axhline(len(timeline.scenes) - 0.5, color=style.ink().body, linewidth=1)


def _draw_course(film: Film, course: Appearance, row: int, colour: str, ax: Axes) -> None:
    edges = np.append(film.times, end_s(film))
    for start, end in course.stretches():
        levels = np.append(course.there[start:end], course.there[end - 1])
        ax.fill_between(
            edges[start : end + 1], row + 0.36, row + 0.36 - 0.72 * levels, step="post",
            color=colour, linewidth=0, alpha=0.42 if course.why == ALWAYS else 0.85,
        )  # fmt: skip
    ax.annotate(
        course.name, (-0.008, row), xycoords=("axes fraction", "data"), color=style.ink().text,
        fontsize=8, ha="right", va="center", annotation_clip=False,
    )  # fmt: skip
    why = course.why if len(course.why) <= _LONGEST else f"{course.why[: _LONGEST - 1]}…"
    if not course.stretches():
        why = f"never on this tape: {why}"
    ax.annotate(
        why, (0.006, row), xycoords=("axes fraction", "data"), color=style.ink().text, fontsize=7,
        va="center", annotation_clip=False,
        bbox={"boxstyle": "square,pad=0.15", "facecolor": style.ink().panel, "alpha": 0.7,
              "linewidth": 0},
    )  # fmt: skip
