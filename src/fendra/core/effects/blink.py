"""On and off."""

from __future__ import annotations

from fendra.core.effects import Led, Look, colour, effect, number
from fendra.core.graph.functions import select
from fendra.core.graph.trace import Value


@effect
def blink(
    led: Led,
    colour: Value = colour("white", "while it is on"),
    rate: Value = number(1.5, "Hz", 0.0, 25.0, "blinks a second"),
    duty: Value = number(0.5, "", 0.0, 1.0, "share of the time that it is on"),
) -> Look:
    """All LEDs on and off together, on first: warnings, hazard lights.

    Where people look at it, keep it at three a second or fewer (WCAG 2.3.1).
    """
    phase = led.cycle_from_start(rate)
    is_on = phase < duty
    led.label(phase=phase)
    return Look(colour, select(is_on, 1.0, 0.0))
