"""Replay: the numbers of a film's frames once more, without the light: what was on, and why."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.engines.numpy.numbers import Numbers
from fendra.core.film import Film
from fendra.core.graph.node import STATE, Graph
from fendra.core.graph.ops import UINT_MASK
from fendra.core.graph.passes import drop_unused
from fendra.core.signals.playing import clock_of, heard_by


class Given:
    """The input of an engine for each frame of a film.

    end: the frame to stop before; all, if not given. now_ms: the clock of each frame.
    """

    def __init__(self, plan: Plan, film: Film, end: int | None = None) -> None:
        times = film.times[:end]
        self.now_ms: list[int] = (clock_of(film.tape, times) & UINT_MASK).tolist()
        self._fed = plan.fed
        self._values, self._is_new = heard_by(film.tape, plan.fed, times)

    def news(self, frame: int) -> dict[str, float]:
        """The new values of the signals in a frame."""
        values = self._values[frame]
        return {self._fed[j]: values[j].item() for j in np.flatnonzero(self._is_new[frame])}

    def held(self, frame: int) -> dict[str, float]:
        """The values of all signals in a frame."""
        return dict(zip(self._fed, self._values[frame].tolist(), strict=True))


def frames_of(
    plan: Plan, film: Film, end: int | None = None
) -> Iterator[tuple[int, dict[str, float]]]:
    """The input of an engine for each frame of a film: the clock in ms, and the news.

    plan: of the design that the film is of. end: the frame to stop before; all, if not given.
    """
    given = Given(plan, film, end)
    for frame, now_ms in enumerate(given.now_ms):
        yield now_ms, given.news(frame)


def replay(
    plan: Plan, film: Film, places: Sequence[int], end: int | None = None
) -> Iterator[tuple[int, list[Any]]]:
    """Yield, frame by frame, the numbers at some places of the graph, each one value for all LEDs.

    It computes only what they need. end: the frame to stop before; all by default.
    """
    roots = {name: at for name, at in plan.graph.roots.items() if name.startswith(STATE)}
    roots |= {f"wanted:{i}": place for i, place in enumerate(places)}
    graph = drop_unused(Graph(plan.graph.nodes, roots, plan.graph.start))
    numbers = Numbers(graph)
    wanted = [numbers.register(graph.roots[f"wanted:{i}"]) for i in range(len(places))]
    before_ms = None
    with np.errstate(all="ignore"):
        for i, (now_ms, news) in enumerate(frames_of(plan, film, end)):
            step_ms = 0 if before_ms is None else (now_ms - before_ms) & UINT_MASK
            registers = numbers.run(now_ms, step_ms, before_ms is None, news)
            before_ms = now_ms
            yield i, [registers[register] for register in wanted]
