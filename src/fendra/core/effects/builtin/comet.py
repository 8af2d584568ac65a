"""A head with a tail."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    number,
    place,
    select,
    truth,
)


@effect(family="motion")
def comet(
    led: Led,
    colour: Value = colour("white", "of the head and, fading, of its tail"),
    rate: Value = number(0.5, "Hz", 0.0, 20.0, "runs a second, until the tail has left"),
    tail: Value = number(0.4, "", 0.01, 4.0, "its length, as a share of the way"),
    by: Value = place("along", "the way along which it runs"),
    reverse: Value = truth(False, "run from the way's end to its start"),
) -> Look:
    """A bright head runs along the trail, and its tail fades out behind it: speed, boost, launch.

    The next one starts when the tail of the last has left the trail.
    """
    head = led.cycle(rate) * (tail + 1.0)
    way = select(reverse, 1.0 - by, by)
    behind = head - way
    left = clamp(1.0 - behind / tail)
    led.label(head=head, behind=behind)
    return Look(colour, select(behind >= 0.0, left * left, 0.0))
