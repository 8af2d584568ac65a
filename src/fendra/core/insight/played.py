"""A film played once more without its light: what was on in each frame, and how to come back to it.

Whoever asks what a film shows goes through here, so that its numbers are worked out once.
"""

from __future__ import annotations

from typing import Any
from weakref import ref

import numpy as np

from fendra.core.arrays import Floats32
from fendra.core.composition.plan import Plan
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.film import Film
from fendra.core.graph.ops import UINT_MASK
from fendra.core.signals.playing import clock_of, heard_by


class Played:
    """The numbers of a plan in the frames of a film.

    there: (frames, layers and scenes) float32: whether each layer is on, in the order in which they
    are painted, and how much of each scene is there. engine: paints what `numbers` gives.
    """

    def __init__(self, plan: Plan, film: Film) -> None:
        self.engine = NumpyEngine(plan)
        self._clock = (clock_of(film.tape, film.times) & UINT_MASK).tolist()
        self._fed = plan.fed
        self._values, self._is_new = heard_by(film.tape, plan.fed, film.times)
        self._kept: list[list[Any]] = []
        places = [*(paint.on for paint in plan.paints), *plan.shares]
        registers = [self.engine.register(place) for place in places]
        self.there: Floats32 = np.zeros((len(film), len(places)), np.float32)
        for frame, now_ms in enumerate(self._clock):
            self._kept.append(self.engine.kept())
            numbers = self.engine.numbers(now_ms, self._news(frame))
            self.there[frame] = [numbers[register] for register in registers]

    def _news(self, frame: int) -> dict[str, float]:
        values = self._values[frame]
        return {self._fed[j]: values[j].item() for j in np.flatnonzero(self._is_new[frame])}

    def numbers(self, frame: int) -> list[Any]:
        """The numbers of a frame, for `engine.paint`; they change with the next call."""
        held = dict(zip(self._fed, self._values[frame].tolist(), strict=True))
        before_ms = self._clock[frame - 1] if frame else None
        return self.engine.numbers_at(
            self._clock[frame], before_ms, self._news(frame), held, self._kept[frame]
        )


_last: list[tuple[ref[Plan], ref[Film], Played]] = []


def played(plan: Plan, film: Film) -> Played:
    """The numbers of a film; those of the last one that was asked for are kept."""
    for of_plan, of_film, found in _last:
        if of_plan() is plan and of_film() is film:
            return found
    made = Played(plan, film)
    _last[:] = [(ref(plan), ref(film), made)]
    return made
