"""Which layers are on in a frame of a film: what a look is made of, in the design's own words."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING

from fendra.core.replay import replay

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
    slots = recording.slots
    layers = film.design.layer
    return {
        frame: tuple(layers[slot.layer].name for slot, on in zip(slots, is_on, strict=True) if on)
        for frame, is_on in replay(recording, film, [slot.on for slot in slots], max(wanted) + 1)
        if frame in wanted
    }
