"""One LED after another."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    floor,
    number,
    select,
    truth,
)


@effect(family="motion")
def fill(
    led: Led,
    colour: Value = colour("white", "of the lit LEDs"),
    step: Value = number(0.08, "s", 0.001, 10.0, "from one LED to the next"),
    hold: Value = number(0.5, "s", 0.0, 60.0, "all stay on"),
    rest: Value = number(0.5, "s", 0.0, 60.0, "all stay off"),
    empty: Value = truth(True, "go off one after another too; else all at once"),
    reverse: Value = truth(False, "run from the trail's end to its start"),
) -> Look:
    """LEDs come on one after another along the trail, stay, and go off in the same order.

    It begins when the layer comes on: the first LED is lit one step later, and 24 LEDs at
    80 ms a step are full after 1.92 s. A turn signal that runs outward is this effect on a
    trail from the middle outwards.
    """
    step_ms = step * 1000.0
    run_ms = step_ms * float(led.ranks)
    full_ms = run_ms + hold * 1000.0
    back_ms = select(empty, run_ms, 0.0)
    elapsed_ms = led.elapsed_ms(full_ms + back_ms + rest * 1000.0)
    lit = floor(elapsed_ms / step_ms)
    gone_one_by_one = floor((elapsed_ms - full_ms) / step_ms)
    gone_at_once = select(elapsed_ms >= full_ms, float(led.ranks), 0.0)
    gone = select(empty, gone_one_by_one, gone_at_once)
    rank = select(reverse, led.ranks - 1.0 - led.rank, led.rank)
    led.label(elapsed_ms=elapsed_ms, lit=lit, gone=gone, rank=rank)
    return Look(colour, clamp(lit - rank) * (1.0 - clamp(gone - rank)))
