"""Swells that travel."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colour,
    effect,
    fraction,
    mix,
    number,
    place,
    select,
    smooth,
    to_and_fro,
    truth,
)


@effect(family="motion")
def wave(
    led: Led,
    colour: Value = colour("white", "on the crests"),
    trough: Value = colour("black", "between the crests"),
    waves: Value = number(2.0, "", 0.05, 100.0, "how many waves along the way"),
    rate: Value = number(0.5, "Hz", 0.0, 20.0, "crests that pass in a second"),
    reverse: Value = truth(False, "they travel towards the way's start"),
    by: Value = place("along", "the way along which they travel"),
) -> Look:
    """Soft crests that travel along the trail, or across several things: water, wind, idling.

    `by = "distance(0, 0)"` makes rings that go outward.
    """
    phase = led.cycle(rate)
    place = fraction(by * waves + select(reverse, phase, 1.0 - phase))
    crest = smooth(to_and_fro(place))
    led.label(place=place, crest=crest)
    return Look(mix(trough, colour, crest), 1.0)
