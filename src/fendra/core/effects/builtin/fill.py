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
    maximum,
    minimum,
    number,
    pick,
    reached,
    select,
    to_ms,
    truth,
)

FILLING, HOLDING, EMPTYING, RESTING = 0.0, 1.0, 2.0, 3.0
NEARLY = 1e-3
"""A share this close below a step counts as the step: shares are rounded."""
AT_ONCE = 4
"""Stages that end in one frame at most."""


@effect(family="motion")
def fill(
    led: Led,
    colour: Value = colour("white", "of the lit LEDs"),
    step: Value = number(0.08, "s", 0.001, 10.0, "from one LED to the next", in_frames=True),
    hold: Value = number(0.5, "s", 0.0, 60.0, "all stay on", in_frames=True),
    rest: Value = number(0.5, "s", 0.0, 60.0, "all stay off", in_frames=True),
    empty: Value = truth(True, "go off one after another too; else all at once"),
    reverse: Value = truth(False, "run from the trail's end to its start"),
) -> Look:
    """LEDs come on one after another along the trail, stay, and go off in the same order.

    It starts when the layer comes on: the first LED is lit one step later, and 24 LEDs at 80 ms
    a step are full after 1.92 s. The first goes off after all were on for `hold`, and comes on
    again after all were off for `rest`. On a trail from the middle outward, this is a turn signal
    that runs outward.

    `step`, `hold` and `rest` can follow signals: lit LEDs stay lit; the next comes sooner or later.
    """
    steps = float(led.ranks - 1)
    times = [to_ms(step), to_ms(hold), to_ms(step), to_ms(rest)]
    held, rested = (select(time > 0.0, 1.0, 0.0) for time in (times[1], times[3]))
    sizes = [led.const(steps), held, select(empty, steps, 0.0), rested]
    is_fixed = all(value.number is not None for value in (*times, *sizes))
    stage, place = (_by_clock if is_fixed else _by_memory)(led, sizes, times)
    lit = select(stage == FILLING, place + 1.0, float(led.ranks))
    gone = select(stage == RESTING, float(led.ranks), 0.0)
    gone = select(stage == EMPTYING, place + 1.0, gone)
    rank = select(reverse, led.ranks - 1.0 - led.rank, led.rank)
    led.label(stage=stage, lit=lit, gone=gone, rank=rank)
    return Look(colour, clamp(lit - rank) * (1.0 - clamp(gone - rank)))


def _by_clock(led: Led, sizes: list[Value], times: list[Value]) -> tuple[Value, Value]:
    """The stage, and how many whole steps of it have passed, -1 before the first LED is lit.

    sizes: steps of each stage; times: of one, ms. All are constant, and it is exact.
    """
    ends, end = [], 0.0
    for size, each in zip(sizes, times, strict=True):
        end += float(size.number or 0.0) * float(each.number or 0.0)
        ends.append(end)
    elapsed_ms = led.elapsed_ms(end, float(times[0].number or 0.0))
    stage, begun_ms = led.const(FILLING), led.const(0.0)
    for place, begins_ms in enumerate(ends[:-1], start=1):
        has_come = elapsed_ms >= begins_ms
        stage = select(has_come, float(place), stage)
        begun_ms = select(has_come, begins_ms, begun_ms)
    led.label(elapsed_ms=elapsed_ms)
    return stage, floor((elapsed_ms - begun_ms) / times[0])


def _by_memory(led: Led, sizes: list[Value], times: list[Value]) -> tuple[Value, Value]:
    """The same if times change: elapsed stages stay elapsed.

    It remembers the stage, its whole elapsed steps, and the elapsed share of the next step.
    """

    def moved(stage: Value, whole: Value, part: Value) -> tuple[Value, Value, Value]:
        left_ms = led.apply("to_float", led.dt_ms)
        for _ in range(AT_ONCE):
            size = pick(sizes, stage)
            step_ms = maximum(pick(times, stage), 1e-3)
            part = part + left_ms / step_ms
            over = whole + part - size
            is_over = over > -NEARLY
            passed = minimum(maximum(reached(part), 0.0), size)
            left_ms = select(is_over, maximum(over, 0.0) * step_ms, 0.0)
            whole = select(is_over, 0.0, whole + passed)
            part = select(is_over, 0.0, part - passed)
            following = select(stage == RESTING, FILLING, stage + 1.0)
            stage = select(is_over, following, stage)
        return (
            select(led.start, FILLING, stage), select(led.start, 0.0, whole),
            select(led.start, -1.0, clamp(part, -1.0, 1.0)),
        )  # fmt: skip

    stage, whole, part = led.remembered_together((FILLING, 0.0, -1.0), moved)
    return stage, whole + reached(part)
