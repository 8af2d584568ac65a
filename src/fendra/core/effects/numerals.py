"""Numbers in texts: the glyph at each place, frame by frame."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from fendra.core.effects.fonts import BLANK, MINUS, ZERO
from fendra.core.graph.functions import floor, maximum, nearest, select, to_uint
from fendra.core.graph.ops import UINT_MASK
from fendra.core.graph.trace import Value

TIMES = {"m:ss": (60, 1), "h:mm": (3600, 60), "h:mm:ss": (3600, 60, 1)}
"""Forms of a time, and the seconds of each of its fields."""

SIZE = re.compile(r"(0?)([1-9])(?:\.([1-6]))?")
"""How many characters a number has, with 0 before it if zeros fill them up, and how many of its
digits stand behind the point."""


@dataclass(frozen=True)
class Hole:
    """A number in a text. form: how many characters, `5.1` with a decimal, `02` with zeros before
    it, or `m:ss`.
    """

    value: Value
    form: str

    def characters(self) -> list[str | Value]:
        """The content of each place: a character, or the place of a glyph in its font."""
        if self.form in TIMES:
            return _time(self.value, TIMES[self.form])
        size = SIZE.fullmatch(self.form)
        assert size is not None
        return _number(self.value, int(size[2]), int(size[3] or 0), fills=bool(size[1]))


def characters(pieces: Sequence[str | Hole]) -> list[str | Value]:
    """A text, character by character: those that stay, and the glyphs of numbers."""
    found: list[str | Value] = []
    for piece in pieces:
        found += piece if isinstance(piece, str) else piece.characters()
    return found


def _digit(whole: Value, step: int) -> Value:
    """The glyph of the digit that counts `step` in a whole number."""
    tracer = whole.tracer
    digit = tracer.apply("uint_mod", tracer.apply("uint_div", whole, step), 10)
    return tracer.apply("to_float", digit) + float(ZERO)


def _number(
    value: Value, size: int, decimals: int, *, fills: bool = False
) -> list[str | Value]:  # fmt: skip
    """A number with a fixed number of characters, filled with blanks or zeros. The sign goes right
    before the number, or before the zeros, if there is room.
    """
    digits = max(size - (1 if decimals else 0), decimals + 1)
    scaled = nearest(abs(value) * 10.0**decimals)
    whole, most = to_uint(scaled), min(10**digits - 1, UINT_MASK)
    is_more = value.tracer.apply("uint_less", most, whole)
    whole = value.tracer.apply("uint_select", is_more, most, whole)
    is_below = (value < 0.0) & (scaled > 0.5)
    found: list[str | Value] = []
    for power in range(digits - 1, -1, -1):
        glyph = _digit(whole, 10**power)
        if fills and power == digits - 1 and power > decimals:
            has_room = is_below & value.tracer.apply("uint_less", whole, 10**power)
            glyph = select(has_room, float(MINUS), glyph)
        elif power > decimals and not fills:
            is_blank = value.tracer.apply("uint_less", whole, 10**power)
            is_next = power == decimals + 1
            follows = is_below if is_next else is_below & ~value.tracer.apply(
                "uint_less", whole, 10 ** (power - 1)
            )  # fmt: skip
            glyph = select(is_blank, select(follows, float(MINUS), float(BLANK)), glyph)
        found.append(glyph)
        if decimals and power == decimals:
            found.append(".")
    return found


def _time(value: Value, fields: Sequence[int]) -> list[str | Value]:
    """Whole seconds as a time: two characters for each field, the first without a leading 0."""
    tracer = value.tracer
    most = fields[0] * 100 - 1
    seconds = to_uint(maximum(floor(value), 0.0), float(most))
    found: list[str | Value] = []
    for place, size in enumerate(fields):
        part = tracer.apply("uint_div", seconds, size)
        if place:
            part = tracer.apply("uint_mod", part, 60)
            found.append(":")
        tens = _digit(part, 10)
        if not place:
            tens = select(tracer.apply("uint_less", part, 10), float(BLANK), tens)
        found += [tens, _digit(part, 1)]
    return found
