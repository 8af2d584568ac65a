"""Which layers are on in a frame of a film: a look, in the design's own words."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.composition.plan import Plan
from fendra.core.film import Film
from fendra.core.insight.played import played


def layers_on(plan: Plan, film: Film, frames: Iterable[int]) -> dict[int, tuple[str, ...]]:
    """The names of the layers that are on in each of some frames of a film, from the lowest on.

    plan: of the design that the film is of.
    """
    wanted = {*frames}
    if not wanted:
        return {}
    there, layers = played(plan, film).there, film.design.layer
    return {
        frame: tuple(
            layers[paint.layer].name
            for paint, on in zip(plan.paints, there[frame], strict=False)
            if on
        )
        for frame in wanted
    }
