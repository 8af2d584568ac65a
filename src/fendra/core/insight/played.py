"""A film played again without its light: what was on in each frame, and how to return to it.

Everything that asks about a film uses this, so that its numbers are computed once.
"""

from __future__ import annotations

from typing import Any
from weakref import ref

import numpy as np

from fendra.core.arrays import Floats32
from fendra.core.composition.plan import Plan
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.film import Film
from fendra.core.insight.replay import Given


class Played:
    """The numbers of a plan in the frames of a film.

    there: (frames, layers and scenes) float32: whether each layer is on, in the order in which they
    are painted, and how much of each scene is there. engine: paints what `numbers` gives.
    """

    def __init__(self, plan: Plan, film: Film) -> None:
        self.engine = NumpyEngine(plan)
        self._given = Given(plan, film)
        self._kept: list[list[Any]] = []
        places = [*(paint.on for paint in plan.paints), *plan.shares]
        registers = [self.engine.register(place) for place in places]
        self.there: Floats32 = np.zeros((len(film), len(places)), np.float32)
        for frame, now_ms in enumerate(self._given.now_ms):
            self._kept.append(self.engine.kept())
            numbers = self.engine.numbers(now_ms, self._given.news(frame))
            self.there[frame] = [numbers[register] for register in registers]

    def numbers(self, frame: int) -> list[Any]:
        """The numbers of a frame, for `engine.paint`; they change with the next call."""
        given = self._given
        before_ms = given.now_ms[frame - 1] if frame else None
        return self.engine.numbers_at(
            given.now_ms[frame], before_ms, given.news(frame), given.held(frame), self._kept[frame]
        )


_last: list[tuple[ref[Plan], ref[Film], Played]] = []


def played(plan: Plan, film: Film) -> Played:
    """The numbers of a film; the numbers of the last film are kept."""
    for of_plan, of_film, found in _last:
        if of_plan() is plan and of_film() is film:
            return found
    made = Played(plan, film)
    _last[:] = [(ref(plan), ref(film), made)]
    return made
