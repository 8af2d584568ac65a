"""A run of light, on a trigger."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    effect,
    maximum,
    minimum,
    number,
    select,
    smooth,
    to_ms,
    truth,
)


@effect(family="motion")
def run_up(
    led: Led,
    trigger: Value = truth(False, "each time it becomes true, the light runs"),
    colour: Value = colour("white", "of the light"),
    step: Value = number(0.03, "s", 0.001, 10.0, "from one LED to the next", in_frames=True),
    stay: Value = number(5.0, "s", 0.0, 3600.0, "all stay on", in_frames=True),
    fade: Value = number(1.0, "s", 0.0, 60.0, "time in which it goes out"),
    both_ends: Value = truth(False, "every second time it runs from the other end"),
    reverse: Value = truth(False, "run from the trail's end to its start"),
) -> Look:
    """On a trigger light runs along the trail, stays, and goes out gently: stairs, a doorway.

    The first LED is lit one step after the trigger. A new trigger while any LED is lit keeps it on
    for another `stay`, and fading LEDs get bright again: no LED goes dark. With `both_ends` every
    second trigger runs from the other end, and LEDs that are lit stay lit.

    `step` can follow a signal: lit LEDs stay lit. `stay` and `fade` are those at the trigger.
    """
    has_come = led.rises(trigger) & ~led.first  # if it is true at power-up, it came before
    quiet_ms = led.ms_since(has_come)
    is_odd = led.count_of(has_come, 2) == 1.0
    rank = select(reverse, led.ranks - 1.0 - led.rank, led.rank)
    times = to_ms(step), *(led.caught(has_come, to_ms(time)) for time in (stay, fade))
    if both_ends.number == 0:
        return Look(colour, _run(led, has_come, quiet_ms, rank, *times))
    to, fro = (has_come & (is_odd | ~both_ends)), (has_come & ~is_odd & both_ends)
    there = _run(led, to, quiet_ms, rank, *times)
    back = _run(led, fro, quiet_ms, led.ranks - 1.0 - rank, *times)
    return Look(colour, maximum(there, back))


def _run(
    led: Led,
    go: Value,
    quiet_ms: Value,
    rank: Value,
    step_ms: Value,
    stay_ms: Value,
    fade_ms: Value,
) -> Value:
    """The light of the run from one end, 0 to 1. go: the trigger; quiet_ms: time since any run was
    triggered.

    It starts at its end if all was dark in the frame before, else it continues.
    """
    found: dict[str, Value] = {}

    def left(before: Value) -> Value:
        is_lit = before > 0.0
        begins = go & ~is_lit
        lit = led.steps(step_ms, begins, led.ranks)
        if step_ms.number is not None:
            full_ms = led.ms_since(begins) - step_ms * float(led.ranks)
        else:
            full_ms = led.ms_since(~led.before(lit >= float(led.ranks)))
        over_ms = minimum(full_ms, quiet_ms) - stay_ms
        fading = smooth(clamp(1.0 - over_ms / maximum(fade_ms, 1.0)))
        fading = select(fade_ms > 0.0, fading, 0.0)
        found["lit"] = lit
        return select(begins | is_lit, select(over_ms < -0.5, 1.0, fading), 0.0)

    share = led.remembered(0.0, left)
    led.label(lit=found["lit"], left=share)
    return clamp(found["lit"] - rank) * share
