"""Which layers are seen in a film: without which something would look otherwise."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.core.replay import frames_of

if TYPE_CHECKING:
    from fendra.core.film import Film
    from fendra.core.mix import Recording
    from fendra.core.timeline import Timeline

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
    for frame, (now_ms, news) in enumerate(frames_of(recording, film, max(wanted) + 1)):
        registers = engine.numbers(now_ms, news)
        places = [place for place in wanted.get(frame, ()) if slots[place].layer not in seen]
        if not places:
            continue
        whole = engine.paint(registers).copy()
        for place in places:
            if (np.abs(engine.paint(registers, without=place) - whole) > STEP).any():
                seen.add(slots[place].layer)
    return seen
