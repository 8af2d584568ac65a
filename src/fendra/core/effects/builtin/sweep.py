"""A soft dot, to and fro."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    number,
    place,
    smooth,
    to_and_fro,
)


@effect(family="motion")
def sweep(
    led: Led,
    colour: Value = colour("white", "of the dot"),
    rate: Value = number(0.5, "Hz", 0.0, 20.0, "runs there and back in a second"),
    width: Value = number(0.2, "", 0.01, 2.0, "of the dot, as a share of the way"),
    by: Value = place("along", "the way along which it runs"),
) -> Look:
    """A dot with soft edges that runs along the trail and back: searching, standing by.

    On a trail that joins parts it crosses them all, over lines and controllers.
    """
    middle = to_and_fro(led.cycle(rate))
    distance = abs(by - middle) * (2.0 / width)
    led.label(middle=middle, distance=distance)
    return Look(colour, smooth(clamp(1.0 - distance)))
