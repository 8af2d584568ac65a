"""Beats that push outward."""

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
    place,
    truth,
)

AT_ONCE = 8


@effect(family="events")
def push(
    led: Led,
    trigger: Value = truth(False, "each time it becomes true, a burst starts: a beat"),
    strength: Value = number(1.0, "", 0.0, 1.0, "of the beat"),
    colour: Value = colour("white", "of the light"),
    speed: Value = number(
        1.5, "1/s", 0.01, 50.0, "how often it could run the whole way in a second"
    ),
    width: Value = number(0.25, "", 0.01, 2.0, "of a burst, as a share of the way"),
    by: Value = place("abs(2 * along - 1)", "the way along which it runs: from the middle outward"),
) -> Look:
    """Each beat pushes a burst of light from the middle outwards; it thins out on the way.

    Made for sound: let `trigger` follow the beat, and `strength` its loudness. A burst keeps the
    strength and speed of its beat.
    """
    cover: Value | None = None
    for age_ms, (force, pace) in led.recent(trigger, [strength, speed], AT_ONCE):
        head = age_ms * 0.001 * pace
        burst = clamp(1.0 - abs(by - head) / width) * clamp(1.0 - head * 0.7) * force
        cover = burst if cover is None else maximum(cover, burst)
    assert cover is not None
    return Look(colour, cover)
