"""Which layers are seen in a film: without which something would look otherwise."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.film import Film
from fendra.core.insight.played import Played, played
from fendra.core.insight.timeline import Timeline

FRAMES = 48
"""Frames of each layer that are looked at, evenly over those in which it is on."""

DIM = 2
"""A byte up to which light is so little that its hue breaks up, and motion comes in steps."""

STEP = 0.5 / 255
"""A difference of light that may change a byte."""


def layers_seen(plan: Plan, film: Film, timeline: Timeline) -> set[int]:
    """The places of the layers that are seen in some of the frames in which they are on.

    A layer that is covered, or dark, in all the frames that are looked at is not.
    """
    paints, seen = plan.paints, set[int]()
    again = played(plan, film)
    engine = again.engine
    frames = _frames_on(plan, film, timeline, range(len(paints)), FRAMES)
    for registers, on in _looked_at(again, frames):
        places = [place for place in on if paints[place].layer not in seen]
        if not places:
            continue
        whole = engine.paint(registers).copy()
        for place in places:
            if (np.abs(engine.paint(registers, without=place) - whole) > STEP).any():
                seen.add(paints[place].layer)
    return seen


def barely_lit(plan: Plan, film: Film, timeline: Timeline) -> dict[int, float]:
    """The places of the layers whose light alone never passes byte `DIM`, and its maximum, of 255.
    Layers that only filter or hide the layers below are left out.

    It looks at every frame in which such a layer is on.
    """
    brightest = dict.fromkeys(range(len(plan.paints)), 0.0)
    for most in (FRAMES, len(film)):
        again = played(plan, film)
        engine, master = again.engine, again.engine.register(plan.master)
        dim = [place for place, light in brightest.items() if light < DIM + 0.5]
        frames = _frames_on(plan, film, timeline, dim, most)
        for registers, places in _looked_at(again, frames):
            for place in (place for place in places if brightest[place] < DIM + 0.5):
                light = float(engine.paint(registers, only=place).max() * registers[master]) * 255
                brightest[place] = max(brightest[place], light)
    return {
        plan.paints[place].layer: light
        for place, light in brightest.items()
        if 0 < light < DIM + 0.5
    }


def _frames_on(
    plan: Plan, film: Film, timeline: Timeline, places: Iterable[int], most: int
) -> dict[int, list[int]]:  # fmt: skip
    """Frames, and the layers to look at in each: at most this many frames of each layer, evenly
    over those in which it is on.
    """
    courses = {course.name: course.there for course in timeline.layers}
    wanted: dict[int, list[int]] = {}
    for place in places:
        name = film.design.layer[plan.paints[place].layer].name
        frames = np.flatnonzero(courses[name] > 0)
        if len(frames):
            picks = np.unique(np.linspace(0, len(frames) - 1, most).astype(int))
            for frame in frames[picks].tolist():
                wanted.setdefault(frame, []).append(place)
    return wanted


def _looked_at(
    again: Played, wanted: dict[int, list[int]]
) -> Iterator[tuple[list[Any], list[int]]]:
    """The numbers of some frames, and the layers to look at in each."""
    for frame in sorted(wanted):
        yield again.numbers(frame), wanted[frame]
