"""A run of light, on a trigger."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    floor,
    maximum,
    number,
    select,
    smooth,
    truth,
)


@effect(family="motion")
def run_up(
    led: Led,
    trigger: Value = truth(False, "each time it comes true, the light runs"),
    colour: Value = colour("white", "of the light"),
    step: Value = number(0.03, "s", 0.001, 10.0, "from one LED to the next"),
    stay: Value = number(5.0, "s", 0.0, 3600.0, "all stay on"),
    fade: Value = number(1.0, "s", 0.0, 60.0, "in which it goes out"),
    both_ends: Value = truth(False, "every second time it runs from the other end"),
    reverse: Value = truth(False, "run from the trail's end to its start"),
) -> Look:
    """On a trigger light runs along the trail, stays, and goes out gently: stairs, a doorway.

    The first LED is lit one step after the trigger. Triggered again, it begins anew; with
    `both_ends` from the other end, as one comes up and goes down again.
    """
    begins = led.rises(trigger) & ~led.first  # what is true at power-up has come before
    since_ms = led.ms_since(begins)
    step_ms = step * 1000.0
    lit = floor(since_ms / step_ms)
    full_ms = step_ms * float(led.ranks) + stay * 1000.0
    turns = led.count_of(begins, 2)  # the first time it is 1
    is_turned = both_ends & turns.equals(0.0)
    is_back = (reverse & ~is_turned) | (~reverse & is_turned)
    rank = select(is_back, led.ranks - 1.0 - led.rank, led.rank)
    over_ms = since_ms - full_ms
    fading = smooth(clamp(1.0 - over_ms / maximum(fade * 1000.0, 1.0)))
    left = select(over_ms < -0.5, 1.0, select(fade > 0.0, fading, 0.0))
    led.label(lit=lit, left=left)
    return Look(colour, clamp(lit - rank) * left)
