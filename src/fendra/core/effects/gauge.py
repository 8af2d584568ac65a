"""A value as a lit length."""

from __future__ import annotations

from fendra.core.effects import Led, Look, colour, effect, number, truth
from fendra.core.graph.functions import clamp, mix, ramp, select
from fendra.core.graph.trace import Value

NEVER = 1e6


@effect
def gauge(
    led: Led,
    value: Value = number(0.0, "", -1e6, 1e6, "what is shown"),
    low: Value = number(0.0, "", -1e6, 1e6, "the value of an empty gauge"),
    high: Value = number(1.0, "", -1e6, 1e6, "the value of a full gauge"),
    start: Value = colour("lime", "at the trail's start"),
    middle: Value = colour("gold", "in the middle"),
    end: Value = colour("red", "at the trail's end"),
    whole: Value = truth(False, "whole LEDs only; else the last one is dimmed"),
    threshold: Value = number(NEVER, "", -1e6, NEVER, "the value from which on it blinks"),
    rate: Value = number(3.0, "Hz", 0.0, 25.0, "blinks a second above the threshold"),
) -> Look:
    """Lit from the trail's start as far as the value says, in a ramp of three colours.

    Speed, RPM, charge, volume. From the threshold on all that is lit blinks: the red line.
    """
    reach = ramp(value, low, high) * float(led.ranks)
    lit = reach - led.rank
    cover = clamp(lit)
    if whole.number != 0:
        cover = select(whole & (lit < 0.5), 0.0, select(whole, 1.0, cover))
    colours = mix(mix(start, middle, clamp(led.along * 2.0)), end, clamp(led.along * 2.0 - 1.0))
    led.label(reach=reach, lit=lit, colours=colours)
    if threshold.number == NEVER:
        return Look(colours, cover)
    is_dark = (value >= threshold) & (led.cycle(rate) >= 0.5)
    shown = select(is_dark, 0.0, 1.0)
    led.label(is_dark=is_dark, shown=shown)
    return Look(colours, shown * cover)
