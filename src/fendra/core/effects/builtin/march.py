"""Lit runs with gaps, moving."""

from __future__ import annotations

from fendra.core.effects import Led, Look, colour, effect, number, truth
from fendra.core.graph.functions import floor, maximum, select
from fendra.core.graph.trace import Value

NEARLY = 1e-3
"""A step that is due within so much of an LED is done: phases are rounded."""


@effect(family="motion")
def march(
    led: Led,
    colour: Value = colour("white", "of the lit runs"),
    run: Value = number(3.0, "LEDs", 1.0, 1000.0, "lit in a row"),
    gap: Value = number(3.0, "LEDs", 0.0, 1000.0, "dark between the runs"),
    rate: Value = number(8.0, "Hz", 0.0, 200.0, "LEDs that it moves on in a second"),
    reverse: Value = truth(False, "it moves to the trail's start"),
) -> Look:
    """Runs of light with gaps between march along the trail, LED by LED: marquees, runways, arrows.

    Bind `rate` to a speed, and it goes with the wheels.
    """
    lit = maximum(floor(run), 1.0)
    length = lit + floor(gap)
    shift = floor(led.cycle(rate / length) * length + NEARLY)
    place = led.rank + select(reverse, shift, length - shift)
    place = place - floor(place / length) * length
    led.label(shift=shift, place=place)
    return Look(colour, select(place < lit, 1.0, 0.0))
