"""Which layers are on in a frame of a film: what a look is made of, in the design's own words."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING

import numpy as np

from fendra.core.graph.numbers import Numbers
from fendra.core.graph.ops import LARGEST, UINT_MASK

if TYPE_CHECKING:
    from fendra.core.film import Film
    from fendra.core.mix import Recording


def layers_on(
    recording: Recording, film: Film, frames: Iterable[int]
) -> dict[int, tuple[str, ...]]:
    """The names of the layers that are on in each of some frames of a film, from the lowest on.

    recording: of the design that the film is of. Only the numbers of the frames are computed again,
    up to the last one wanted; no light is.
    """
    wanted = {*frames}
    if not wanted:
        return {}
    count = max(wanted) + 1
    times = film.times[:count]
    now_ms = np.rint((times - film.tape.start_s) * 1000).astype(np.int64)
    values, is_new = film.tape.heard(recording.fed, times)
    values = np.clip(values, -LARGEST, LARGEST)
    numbers = Numbers(recording.graph)
    on = [(slot.layer, numbers.register(slot.on)) for slot in recording.slots]
    found = {}
    with np.errstate(all="ignore"):
        for i in range(count):
            step_ms = int(now_ms[i] - now_ms[i - 1]) if i else 0
            news = {recording.fed[j]: values[i, j].item() for j in np.flatnonzero(is_new[i])}
            registers = numbers.run(int(now_ms[i]) & UINT_MASK, step_ms, i == 0, news)
            if i in wanted:
                found[i] = tuple(
                    film.design.layer[layer].name for layer, place in on if registers[place]
                )
    return found
