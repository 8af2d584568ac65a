"""Which layers are seen in a film: without which something would look otherwise."""

from __future__ import annotations

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.film import Film
from fendra.core.insight.replay import frames_of
from fendra.core.insight.timeline import Timeline

FRAMES = 48
"""Frames of each layer that are looked at, evenly over those in which it is on."""

STEP = 0.5 / 255
"""A difference of light that may change a byte."""


def layers_seen(plan: Plan, film: Film, timeline: Timeline) -> set[int]:
    """The places of the layers that are seen in some of the frames in which they are on.

    A layer that is covered, or dark, in all the frames that are looked at is not.
    """
    paints = plan.paints
    names = [film.design.layer[paint.layer].name for paint in paints]
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
    engine, seen = NumpyEngine(plan), set()
    for frame, (now_ms, news) in enumerate(frames_of(plan, film, max(wanted) + 1)):
        registers = engine.numbers(now_ms, news)
        places = [place for place in wanted.get(frame, ()) if paints[place].layer not in seen]
        if not places:
            continue
        whole = engine.paint(registers).copy()
        for place in places:
            if (np.abs(engine.paint(registers, without=place) - whole) > STEP).any():
                seen.add(paints[place].layer)
    return seen
