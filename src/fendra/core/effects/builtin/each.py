"""Each LED by its own number of a vector."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colours,
    effect,
    maximum,
    number,
    numbers,
    pick,
    row_of,
    select,
)


@effect(family="events")
def each(
    led: Led,
    levels: list[Value] = numbers(["0"], "", 0.0, 1.0, "one for each LED, in their order"),
    colours: list[Value] = colours(["white"], "from a low level to a full one"),
    fade: Value = number(0.3, "s", 0.0, 60.0, "time in which a full level falls to nothing"),
) -> Look:
    """Every LED shows its own number of a vector: the first LED the first number, and so on.

    With a `fade`, a key glows after you release it. LEDs without a number stay dark.
    """
    fall = 1.0 / maximum(fade, 0.001)
    held = [led.peak(clamp(level), 0.0, fall) for level in levels]
    level = select(led.rank < float(len(held)), pick(held, led.rank), 0.0)
    no = led.const(False)
    led.label(level=level)
    return Look(row_of(colours, [], level, no, no), level)
