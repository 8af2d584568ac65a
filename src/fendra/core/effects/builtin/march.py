"""Lit runs with gaps, moving."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colour,
    effect,
    floor,
    maximum,
    number,
    reached,
    select,
    truth,
)


@effect(family="motion")
def march(
    led: Led,
    colour: Value = colour("white", "of the lit runs"),
    run: Value = number(3.0, "LEDs", 1.0, 1000.0, "lit LEDs in a row"),
    gap: Value = number(3.0, "LEDs", 0.0, 1000.0, "dark LEDs between the runs"),
    rate: Value = number(8.0, "Hz", 0.0, 200.0, "LEDs that it moves in a second"),
    reverse: Value = truth(False, "it moves towards the trail's start"),
) -> Look:
    """Runs of light with gaps between march along the trail, LED by LED: marquees, runways, arrows.

    Let `rate` follow a speed, and it moves with the wheels. `run` and `gap` are whole LEDs: the row
    jumps when they change.
    """
    lit = maximum(floor(run), 1.0)
    length = lit + floor(gap)
    shift = reached(led.cycle(rate / length) * length)
    place = led.rank + select(reverse, shift, length - shift)
    place = place - floor(place / length) * length
    led.label(shift=shift, place=place)
    return Look(colour, select(place < lit, 1.0, 0.0))
