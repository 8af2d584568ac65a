"""A picture of each scene of a film, side by side."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from fendra.core.film import Film, as_seen
from fendra.core.insight.timeline import OTHERWISE, Appearance, Timeline
from fendra.draw import style
from fendra.draw.glow import Stage

if TYPE_CHECKING:
    from matplotlib.figure import Figure

    from fendra.core.names import ViewName


def best_moment(course: Appearance) -> int | None:
    """The middle frame of the longest stretch in which a scene is there most; None if never."""
    if not (course.there > 0).any():
        return None
    is_most = np.concatenate([[False], course.there >= course.there.max(), [False]])
    edges = np.flatnonzero(np.diff(is_most.astype(np.int8)))
    starts, ends = edges[::2], edges[1::2]
    longest = int(np.argmax(ends - starts))
    return int((starts[longest] + ends[longest] - 1) // 2)


@style.plain_text()
def draw_scenes(film: Film, timeline: Timeline, view: ViewName = "top") -> Figure:
    """Each scene at a moment of the film at which it is there alone; with when it is chosen."""
    count = max(len(timeline.scenes), 1)
    columns = min(count, 2 if count <= 4 else 3)
    rows = -(-count // columns)
    stage = Stage(film.design, film.layout, (640, 400), view)
    figure = style.new_figure((12.8, max(8.0, rows * 4.1) if rows > 1 else 5.2))
    for number, course in enumerate(timeline.scenes):
        ax = figure.add_subplot(rows, columns, number + 1)
        style.dress(ax)
        ax.set_xticks([])
        ax.set_yticks([])
        frame = best_moment(course)
        dark = np.zeros((len(film.layout), 3), np.uint8)
        ax.imshow(
            stage.lit(dark if frame is None else as_seen(film.rgb[frame], film.layout, film.design))
        )
        when = "never on this tape" if frame is None else f"at {film.times[frame]:.2f} s"
        why = course.why if course.why == OTHERWISE else f"when {course.why}"
        ax.set_title(
            f"{course.name}: {when}\n{why}", color=style.ink().text, fontsize=9,
            loc="left",
        )  # fmt: skip
    if not timeline.scenes:
        figure.text(0.4, 0.5, "this design has no scenes", color=style.ink().faint, fontsize=12)
    figure.subplots_adjust(left=0.02, right=0.98, top=0.92, bottom=0.03, wspace=0.04, hspace=0.22)
    return figure
