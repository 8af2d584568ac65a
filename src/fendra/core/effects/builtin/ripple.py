"""Rings that run out from where something happens."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    maximum,
    number,
    sqrt,
    truth,
)

AT_ONCE = 8


@effect(family="events")
def ripple(
    led: Led,
    trigger: Value = truth(False, "each time it becomes true, a ring starts"),
    x: Value | None = number(None, "", -1e6, 1e6, "where it starts; the middle by default"),
    y: Value | None = number(None, "", -1e6, 1e6, "where it starts; the middle by default"),
    z: Value | None = number(None, "", -1e6, 1e6, "where it starts; the middle by default"),
    strength: Value = number(1.0, "", 0.0, 1.0, "of the event"),
    colour: Value = colour("white", "of the rings"),
    speed: Value = number(150.0, "1/s", 0.0, 1e5, "distance that a ring runs in a second"),
    width: Value = number(25.0, "", 0.1, 1e5, "of a ring, in the design's unit"),
    life: Value = number(1.0, "s", 0.05, 60.0, "time in which it fades"),
) -> Look:
    """A ring runs out from the place of an event and fades: a key that is pressed, a hit, a step.

    A ring keeps the place, strength, speed and life of its event. Up to eight rings run at once;
    the next one replaces the oldest.
    """
    axes = (led.x, led.y, led.z)
    given = (x, y, z)
    where = [led.middle(i) if at is None else at for i, at in enumerate(given)]
    cover: Value | None = None
    then = [*where, strength, speed, life]
    for age_ms, (at_x, at_y, at_z, force, pace, lives) in led.recent(trigger, then, AT_ONCE):
        age = age_ms * 0.001
        steps = [axis - at for axis, at in zip(axes, (at_x, at_y, at_z), strict=True)]
        distance = sqrt(steps[0] * steps[0] + steps[1] * steps[1] + steps[2] * steps[2])
        left = clamp(1.0 - age / maximum(lives, 0.05)) * force
        ring = clamp(1.0 - abs(distance - age * pace) / width) * left
        cover = ring if cover is None else maximum(cover, ring)
    assert cover is not None
    return Look(colour, cover)
