"""Words and numbers."""

from __future__ import annotations

import numpy as np

from fendra.core.effects.kit import (
    FONTS,
    Font,
    Hole,
    Led,
    Look,
    Value,
    characters,
    clamp,
    colour,
    effect,
    floor,
    maximum,
    nearest,
    number,
    reached,
    select,
    table,
    to_uint,
    word,
)
from fendra.core.effects.kit import (
    text as words,
)


@effect(family="pictures")
def text(
    led: Led,
    text: list[str | Hole] = words("HELLO", "the text to show"),
    font: str = word("5x7", ("3x5", "5x7"), "columns and rows of a letter"),
    colour: Value = colour("white", "of the letters"),
    ground: Value = colour("black", "behind them"),
    ground_cover: Value = number(0.0, "", 0.0, 1.0, "how much the ground covers"),
    rate: Value = number(
        0.0, "1/s", 0.0, 100.0, "columns that it moves left in a second; 0 does not move"
    ),
    pixel: Value = number(
        0.0, "", 0.0, 1e5, "distance from row to row; 0 is the LEDs' own spacing"
    ),
) -> Look:
    """Text on a grid, or on LEDs anywhere: a name, a number that changes, the time, a countdown.

    In the text `{speed:3}` shows a number in three characters, `{volts:4.1}` one with a decimal,
    `{minute:02}` zeros before it, `{left:m:ss}`, `{now:h:mm}` and `{now:h:mm:ss}` seconds as a
    time. It is in the middle if it fits, else at the left. With a rate it enters at the right and
    leaves at the left; it starts again each time the layer comes on.
    """
    letters = characters(text)
    shape = FONTS[font]
    column, row, columns = _cells(led, pixel, shape)
    length = float(len(letters) * shape.advance)
    if rate.number == 0:
        shift = -maximum(floor((columns - length + 1.0) * 0.5), 0.0)
    else:
        whole = columns + length
        shift = reached(led.cycle_from_start(rate / whole) * whole) - columns
    at = column + shift
    is_inside = (at >= 0.0) & (at < length)
    held = clamp(at, 0.0, max(length - 1.0, 0.0))
    letter = floor(held / float(shape.advance))
    within = held - letter * float(shape.advance)
    code = _codes(letters, shape, letter)
    place = led.apply("to_uint", code * float(shape.advance) + within)
    bits = table(shape.bits, place, whole=True)
    bit = led.apply("uint_mod", led.apply("uint_shift", bits, row), 2)
    is_lit = is_inside & led.apply("uint_less", 0, bit)
    led.label(at=at, letter=letter, is_lit=is_lit)
    return Look(select(is_lit, colour, ground), select(is_lit, 1.0, ground_cover))


def _cells(led: Led, pixel: Value, font: Font) -> tuple[Value, Value, Value]:
    """The column, from the left, and the row of the font that each LED shows; and how many columns
    there are. An LED that no row falls on shows row 31, which is empty.
    """
    size = select(pixel > 0.0, maximum(pixel, 1e-3), led.pitch)
    flat = led.flat if led.count else np.zeros((1, 2))
    wide, high = np.ptp(flat, axis=0).tolist()
    right = led.fixed("right", (led.flat[:, 0] - flat[:, 0].min()))
    below = led.fixed("below", (flat[:, 1].max() - led.flat[:, 1]))
    half = led.pitch / 2  # an LED is in the middle of its area
    column, down = floor((right + half) / size), floor((below + half) / size)
    columns, rows = (nearest((side + led.pitch) / size) for side in (wide, high))
    top = maximum(floor((rows - float(font.rows)) * 0.5), 0.0)
    is_in = (down >= top) & (down < top + float(font.rows))
    row = led.apply("to_uint", select(is_in, down - top, 31.0))
    return column, row, maximum(columns, 1.0)


def _codes(letters: list[str | Value], font: Font, letter: Value) -> Value:
    """The place in the font of the letter at a place of the text."""
    plain = [font.place(item) if isinstance(item, str) else 0 for item in letters] or [0]
    code = table([*map(float, plain)], to_uint(letter))
    for place, item in enumerate(letters):
        if isinstance(item, Value):
            code = select(letter == float(place), item, code)
    return code
