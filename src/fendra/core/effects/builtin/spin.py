"""Arcs going round."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    fraction,
    maximum,
    number,
    place,
    select,
    truth,
)

NEARLY = 1e-4
"""A place this close before an arc's beginning counts as it: places on a ring are rounded."""


@effect(family="motion")
def spin(
    led: Led,
    colour: Value = colour("white", "of the arcs"),
    arcs: Value = number(2.0, "", 1.0, 100.0, "how many arcs, evenly spaced"),
    length: Value = number(0.5, "", 0.0, 1.0, "of an arc, as a share of its space"),
    soft: Value = number(0.0, "", 0.0, 1.0, "share of an arc over which its end fades"),
    rate: Value = number(0.5, "Hz", 0.0, 50.0, "turns a second; 0 does not move"),
    clockwise: Value = truth(False, "as you look at it"),
    by: Value = place("angle", "the way round"),
) -> Look:
    """Arcs that run round a ring: hubs, knobs, fans, a clock; or, at rate 0 with a short `length`,
    single LEDs that do not move.

    Let `rate` follow a speed: it never jumps. On several rings in one group, `by = "index / 16"`
    turns each round its own middle, `by = "angle"` all round one.
    """
    turn = by
    if rate.number != 0:
        moved = led.cycle(rate * arcs)
        turn = by * arcs + select(clockwise, moved, 1.0 - moved)
    else:
        turn = by * arcs
    place = fraction(turn + NEARLY)
    back = select(clockwise, place, fraction(length - place))  # how far behind an arc's head
    edge = maximum(soft * length, 1e-3)
    tail = clamp((length - back) / edge)
    led.label(place=place)
    solid = select(place < length, 1.0, 0.0)
    if soft.number == 0:
        return Look(colour, solid)
    return Look(colour, select(soft > 0.0, tail, solid))
