"""Clouds that drift."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    chance,
    clamp,
    colour,
    effect,
    floor,
    mix,
    number,
    sine,
    smooth,
)

AWAY = float(2**20)
"""Cells are counted from so far left and down that none has a number below 0."""


@effect(family="motion")
def cloud(
    led: Led,
    colour: Value = colour("white", "of the clouds"),
    ground: Value = colour("black", "between the clouds"),
    size: Value = number(150.0, "", 1.0, 1e5, "of a cloud, in the design's unit"),
    speed: Value = number(60.0, "1/s", 0.0, 1e5, "how far they drift in a second"),
    heading: Value = number(
        0.0, "deg", -360.0, 360.0, "direction, from the right, counter-clockwise"
    ),
    change: Value = number(0.2, "Hz", 0.0, 10.0, "how often they change in a second"),
    contrast: Value = number(1.5, "", 0.1, 10.0, "1 is soft; higher values give edges"),
    seed: Value = number(1.0, "", 0.0, 1e6, "another seed gives other clouds"),
) -> Look:
    """Soft patches that drift over the layout and change: clouds, water, embers, a dreamy idle.

    The same seed gives the same clouds.
    """
    turn = heading * (1.0 / 360.0)
    cos, sin = sine(turn + 0.25), sine(turn)
    right = led.fixed("right", led.flat[:, 0]) / size
    high = led.fixed("high", led.flat[:, 1]) / size
    ahead, aside = right * cos + high * sin, high * cos - right * sin
    far, part = led.turns(speed / size)
    ahead = clamp(ahead, -AWAY / 2, AWAY / 2) - part
    aside = clamp(aside, -AWAY / 2, AWAY / 2)
    left, low = floor(ahead), floor(aside)
    column = led.apply("uint_sub", led.apply("to_uint", left + AWAY), far)
    row = led.apply("to_uint", low + AWAY)
    epoch, share = led.turns(change)
    along, upward, later = smooth(ahead - left), smooth(aside - low), smooth(share)

    def lattice(columns: int, rows: int, epochs: int) -> Value:
        return chance(
            led.uint(seed),
            led.apply("uint_add", epoch, epochs),
            led.apply("uint_add", row, rows),
            led.apply("uint_add", column, columns),
        )

    def sheet(epochs: int) -> Value:
        lower = mix(lattice(0, 0, epochs), lattice(1, 0, epochs), along)
        upper = mix(lattice(0, 1, epochs), lattice(1, 1, epochs), along)
        return mix(lower, upper, upward)

    thickness = mix(sheet(0), sheet(1), later) if change.number != 0 else sheet(0)
    shown = clamp((thickness - 0.5) * contrast + 0.5)
    led.label(thickness=thickness, shown=shown)
    return Look(mix(ground, colour, shown), 1.0)
