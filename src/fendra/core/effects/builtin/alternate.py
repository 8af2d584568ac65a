"""Two halves in turn."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colour,
    effect,
    floor,
    fraction,
    number,
    place,
    select,
    truth,
)


@effect(family="rhythm")
def alternate(
    led: Led,
    colour: Value = colour("red", "of the first half"),
    other: Value = colour("blue", "of the second half"),
    rate: Value = number(1.5, "Hz", 0.0, 25.0, "turns of both in a second"),
    duty: Value = number(1.0, "", 0.0, 1.0, "share of its turn that a half is on"),
    by: Value = place("along", "the halves meet at its middle"),
    one_by_one: Value = truth(False, "every second LED belongs to the second half"),
) -> Look:
    """Two halves light up in turn: level crossings, rescue, left and right, odd and even.

    The first half starts when the layer comes on.
    """
    phase = led.cycle_from_start(rate)
    is_odd = (led.rank - floor(led.rank * 0.5) * 2.0) > 0.5
    is_second = (one_by_one & is_odd) | (~one_by_one & (by > 0.5))
    into = fraction(phase * 2.0)
    is_turn = (is_second & (phase >= 0.5)) | (~is_second & (phase < 0.5))
    led.label(phase=phase, into=into)
    return Look(select(is_second, other, colour), select(is_turn & (into < duty), 1.0, 0.0))
