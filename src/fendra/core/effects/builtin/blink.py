"""On and off."""

from __future__ import annotations

from fendra.core.effects.kit import Led, Look, Value, colour, effect, fraction, number, select


@effect(family="rhythm")
def blink(
    led: Led,
    colour: Value = colour("white", "while it is on"),
    rate: Value = number(1.5, "Hz", 0.0, 25.0, "blinks a second"),
    duty: Value = number(0.5, "", 0.0, 1.0, "share of the time on"),
    phase: Value = number(0.0, "", 0.0, 1.0, "where in a blink it starts"),
) -> Look:
    """All LEDs on and off together, on first: warnings, hazard lights.

    Where people look at it, use three a second or fewer (WCAG 2.3.1). `phase` may differ
    from LED to LED: `phase = "along"` makes the blink travel.
    """
    cycle = led.cycle_from_start(rate)
    if phase.number != 0:
        cycle = fraction(cycle + phase)
    is_on = cycle < duty
    led.label(cycle=cycle)
    return Look(colour, select(is_on, 1.0, 0.0))
