"""Light by one's own formula."""

from __future__ import annotations

from fendra.core.effects.kit import Led, Look, Value, colour, effect, number
from fendra.core.effects.kit import hue as hue_of


@effect(family="field")
def field(
    led: Led,
    colour: Value = colour("white", "if there is no hue and no channel"),
    amount: Value = number(1.0, "", 0.0, 1.0, "how much it covers"),
    hue: Value | None = number(None, "deg", -1e6, 1e6, "its hue: red 0, lime 120, blue 240"),
    red: Value | None = number(None, "", 0.0, 1.0, "its share of red light"),
    green: Value | None = number(None, "", 0.0, 1.0, "its share of green light"),
    blue: Value | None = number(None, "", 0.0, 1.0, "its share of blue light"),
) -> Look:
    """A formula for each LED: for its amount, its hue, or its red, green and blue.

    Formulas can use `x`, `y`, `z`, `along`, `radius`, `angle`, `index`, other columns, and signals:
    `red = "ramp(temperature, 20, 80)"`, `blue = "0.5 + 0.5 * sine(x / 300 - cycle(0.3))"`.
    """
    shown = colour if hue is None else hue_of(hue)
    channels = (red, green, blue)
    if any(channel is not None for channel in channels):
        light = led.const((0.0, 0.0, 0.0))
        for number, channel in enumerate(channels):
            unit = led.const([1.0 if i == number else 0.0 for i in range(3)])
            light = light + (shown if channel is None else channel) * unit
        shown = light
    return Look(shown, amount)
