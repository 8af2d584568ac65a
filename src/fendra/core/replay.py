"""Replay: the numbers of a film's frames once more, without the light: what was on, and why."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.graph.numbers import Numbers
from fendra.core.graph.ops import LARGEST, UINT_MASK

if TYPE_CHECKING:
    from fendra.core.film import Film
    from fendra.core.mix import Recording

Array = np.ndarray[Any, np.dtype[Any]]


def replay(
    recording: Recording, film: Film, places: Sequence[int], end: int | None = None
) -> Iterator[tuple[int, list[Any]]]:
    """Frame by frame the numbers at some places of the graph, each one value for all LEDs.

    recording: of the design that the film is of. end: the frame to stop before; all, if not given.
    """
    times = film.times[:end]
    now_ms = np.rint((times - film.tape.start_s) * 1000).astype(np.int64)
    values, is_new = film.tape.heard(recording.fed, times)
    values = np.clip(values, -LARGEST, LARGEST)
    numbers = Numbers(recording.graph)
    wanted = [numbers.register(place) for place in places]
    with np.errstate(all="ignore"):
        for i in range(len(times)):
            step_ms = int(now_ms[i] - now_ms[i - 1]) if i else 0
            news = {recording.fed[j]: values[i, j].item() for j in np.flatnonzero(is_new[i])}
            registers = numbers.run(int(now_ms[i]) & UINT_MASK, step_ms, i == 0, news)
            yield i, [registers[register] for register in wanted]
