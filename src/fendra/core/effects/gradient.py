"""From one colour to another."""

from __future__ import annotations

from fendra.core.effects import Led, Look, colour, effect, number
from fendra.core.graph.functions import fraction, mix, to_and_fro
from fendra.core.graph.trace import Value


@effect
def gradient(
    led: Led,
    start: Value = colour("blue", "at the trail's start"),
    end: Value = colour("red", "at the trail's end"),
    rate: Value = number(0.0, "Hz", 0.0, 20.0, "runs of the colours along the trail and back"),
) -> Look:
    """One colour at the start of the trail turns into another at its end.

    At a rate above 0 the colours drift along the trail, there and back, without a seam.
    """
    if rate.number == 0:
        share = led.along
    else:
        drift = led.cycle(rate)
        share = to_and_fro(fraction(led.along * 0.5 + 1.0 - drift))
        led.label(drift=drift, way=share)
    return Look(mix(start, end, share), led.const(1.0))
