"""Which layers are seen in a film: without which something would look otherwise."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.core.graph.ops import LARGEST, UINT_MASK

if TYPE_CHECKING:
    from fendra.core.film import Film
    from fendra.core.mix import Recording
    from fendra.core.timeline import Timeline

Array = np.ndarray[Any, np.dtype[Any]]

FRAMES = 48
"""Frames of each layer that are looked at, evenly over those in which it is on."""

STEP = 0.5 / 255
"""A difference of light that may change a byte."""


def layers_seen(recording: Recording, film: Film, timeline: Timeline) -> set[int]:
    """The places of the layers that are seen in some of the frames in which they are on.

    A layer that is covered, or dark, in all the frames that are looked at is not.
    """
    slots = recording.slots
    names = [film.design.layer[slot.layer].name for slot in slots]
    courses = {course.name: course.there for course in timeline.layers}
    wanted: dict[int, list[int]] = {}
    for place, name in enumerate(names):
        frames = np.flatnonzero(courses[name] > 0)
        if len(frames) == 0:
            continue
        picks = np.unique(np.linspace(0, len(frames) - 1, FRAMES).astype(int))
        for frame in frames[picks].tolist():
            wanted.setdefault(frame, []).append(place)
    if not wanted:
        return set()
    engine, seen = NumpyEngine(recording), set()
    times = film.times[: max(wanted) + 1]
    now_ms = np.rint((times - film.tape.start_s) * 1000).astype(np.int64)
    values, is_new = film.tape.heard(recording.fed, times)
    values = np.clip(values, -LARGEST, LARGEST)
    for frame in range(len(times)):
        news = {recording.fed[j]: values[frame, j].item() for j in np.flatnonzero(is_new[frame])}
        registers = engine.numbers(int(now_ms[frame]) & UINT_MASK, news)
        places = [place for place in wanted.get(frame, ()) if slots[place].layer not in seen]
        if not places:
            continue
        whole = engine.paint(registers).copy()
        for place in places:
            if (np.abs(engine.paint(registers, without=place) - whole) > STEP).any():
                seen.add(slots[place].layer)
    return seen
