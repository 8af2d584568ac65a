"""Colours dealt out."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colours,
    effect,
    floor,
    maximum,
    number,
    pick,
    reached,
    select,
    truth,
)


@effect(family="steady")
def pattern(
    led: Led,
    colours: list[Value] = colours(["red", "white", "blue"], "in this order"),
    run: Value = number(1.0, "LEDs", 1.0, 1000.0, "LEDs of one colour in a row"),
    by_part: Value = truth(False, "each part in one colour; else LED by LED along the trail"),
    rate: Value = number(0.0, "Hz", 0.0, 50.0, "LEDs that it moves in a second"),
    reverse: Value = truth(False, "it moves towards the trail's start"),
) -> Look:
    """Colours in turn: flags, stripes, a colour for each part, keys by column.

    With a rate the colours march on along the trail, whole LEDs at a time. `run` is whole LEDs too.
    """
    size = maximum(floor(run), 1.0)
    count = float(len(colours))
    place = select(by_part, led.of_part * size, led.rank)
    if rate.number != 0:
        length = size * count
        shift = reached(led.cycle(rate / length) * length)
        place = place + select(reverse, shift, length - shift)
    turn = floor(place / size)
    turn = turn - floor(turn / count) * count
    led.label(turn=turn)
    return Look(pick(colours, turn), 1.0)
