"""Slow breathing."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colour,
    effect,
    mix,
    number,
    smooth,
    to_and_fro,
)


@effect(family="rhythm")
def pulse(
    led: Led,
    colour: Value = colour("white", "at the brightest"),
    rate: Value = number(0.25, "Hz", 0.0, 10.0, "pulses a second"),
    low: Value = number(0.1, "", 0.0, 1.0, "coverage at the darkest"),
    high: Value = number(1.0, "", 0.0, 1.0, "coverage at the brightest"),
) -> Look:
    """Light that rises and falls softly: parked, waiting, charging."""
    swell = to_and_fro(led.cycle(rate))
    led.label(swell=swell)
    return Look(colour, mix(low, high, smooth(swell)))
