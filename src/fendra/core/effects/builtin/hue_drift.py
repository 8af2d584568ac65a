"""Hues that drift."""

from __future__ import annotations

from fendra.core.effects.kit import Led, Look, Value, effect, hue, number, place


@effect(family="motion")
def hue_drift(
    led: Led,
    start: Value = number(0.0, "deg", -360.0, 360.0, "hue at the way's start: red 0, lime 120"),
    span: Value = number(360.0, "deg", -3600.0, 3600.0, "how far the hue turns along the way"),
    rate: Value = number(0.1, "Hz", 0.0, 20.0, "turns of the colour circle in a second"),
    saturation: Value = number(1.0, "", 0.0, 1.0, "0 is white"),
    by: Value = place("along", "the way along which they run"),
) -> Look:
    """All hues along or across anything, drifting: show, idle, a party.

    A small `span` keeps neighbours alike; `by = "x + y"` goes across, `by = "angle"` round.
    """
    drift = led.cycle(rate) * 360.0
    degrees = by * span + start - drift
    led.label(degrees=degrees)
    return Look(1.0 - saturation + hue(degrees) * saturation, 1.0)
