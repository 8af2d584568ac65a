"""A beam that turns."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    fraction,
    minimum,
    number,
    select,
    truth,
    turn_of,
)


@effect(family="motion")
def beam(
    led: Led,
    colour: Value = colour("white", "of the beam"),
    rate: Value = number(0.5, "Hz", 0.0, 20.0, "turns a second"),
    width: Value = number(20.0, "deg", 1.0, 360.0, "of the beam"),
    tail: Value = number(90.0, "deg", 0.0, 360.0, "the fading light behind it"),
    x: Value | None = number(None, "", -1e6, 1e6, "its centre; the middle by default"),
    y: Value | None = number(None, "", -1e6, 1e6, "its centre; the middle by default"),
    z: Value | None = number(None, "", -1e6, 1e6, "its centre; the middle by default"),
    clockwise: Value = truth(False, "as you look at it"),
) -> Look:
    """A beam turns about a centre, over all parts of the layer, and leaves a trail that fades:
    a lighthouse, a sonar, a warning that goes round the whole thing.

    Its centre can follow signals.
    """
    given = (x, y, z)
    view = led.view
    centre = [led.middle(axis) if at is None else at for axis, at in enumerate(given)]
    axes = (led.x, led.y, led.z)
    across = axes[view.across] - centre[view.across]
    up = axes[view.upward] - centre[view.upward]
    place = turn_of(up, -across if view.is_flipped else across)
    phase = led.cycle(rate)
    ahead = fraction(select(clockwise, place + phase, phase - place + 1.0))
    behind = ahead * 360.0
    off = minimum(behind, 360.0 - behind)
    core = select(off <= width * 0.5, 1.0, 0.0)
    left = clamp(1.0 - behind / select(tail > 0.0, tail, 1.0))
    fading = select(tail > 0.0, left * left, 0.0)
    led.label(place=place, behind=behind)
    return Look(colour, select(core > fading, core, fading))
