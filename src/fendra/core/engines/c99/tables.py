"""Per-spot values: a constant, a rule, or the smallest table that holds them exactly."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Array
from fendra.core.engines.c99.flash import read
from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.text import Piece, float_literal, literal, parenthesised, wrapped
from fendra.core.graph.ops import Binds, Kind, Lookup

_INTEGERS = (np.uint8, np.int8, np.uint16, np.int16)

SMALLEST_INT = 32_767
"""The largest int of every C compiler. With more spots, places are int32_t."""

FEWEST_DIVIDED, MOST_DIVIDED = 128, 1_000
"""Spots for which a division each saves a table. For fewer the table is small, and a division takes
as long as sending the pixel on an 8-bit part; more of them run on computers, or on controllers for
which time is scarcer than room."""

PLACE = "k"
"""In the emitted code, the place of a spot in its choice, from 0."""


@dataclass(frozen=True)
class Table:
    """A constant array of the emitted code."""

    name: str
    c_type: str
    values: Array

    def at(self, place: str) -> str:
        """The C that reads it at a place."""
        return read(self.c_type, f"{self.name}[{place}]")

    @property
    def text(self) -> str:
        """Its definition."""
        if self.values.dtype.kind == "f":
            items = [float_literal(value) for value in self.values]
        else:
            suffix = "u" if self.values.dtype == np.uint32 else ""
            items = [f"{value}{suffix}" for value in self.values.tolist()]
        head = f"static const {self.c_type} {self.name}[{len(items)}] IN_FLASH = {{"
        return "\n".join([head, *wrapped(items), "};"])


class Tables:
    """All tables of a program; those that hold the same are one."""

    def __init__(self, names: Names) -> None:
        self._names = names
        self._by_content: dict[tuple[str, bytes], Table] = {}

    def __iter__(self) -> Iterator[Table]:
        return iter(self._by_content.values())

    def small(self, values: Array, kind: Kind, name: str) -> Piece | None:
        """A rule or a table of small integers for the values at place `k`; None without one."""
        piece = rule(values, kind)
        if piece is not None or kind is Kind.TRUTH:
            return piece
        if kind is Kind.UINT:
            return self._above(values, name)
        for share in _shares_of(values):
            small = _small(share.whole)
            if small is not None:
                return share.piece(f"(float){self._at(small, name)}")
        return None

    def _above(self, values: Array, name: str) -> Piece | None:
        """Unsigned integers as small ones above the least of them; None if none are."""
        least = int(values.min())
        small = _small((values - np.uint32(least)).astype(np.float32))
        if small is None:
            return None
        if least == 0:
            return Piece(f"(uint32_t){self._at(small, name)}", Binds.UNARY)
        return Piece(f"(uint32_t){least}u + {self._at(small, name)}", Binds.SUM)

    def read(self, values: Array, kind: Kind, name: str) -> Piece:
        """The code for the values at place `k`: a rule, else the smallest table."""
        piece = self.small(values, kind, name)
        if piece is not None:
            return piece
        if kind is Kind.TRUTH:
            return Piece(f"{self._at(values.astype(np.uint8), name)} != 0", Binds.COMPARED)
        return Piece(self._at(values, name), Binds.ATOM)

    def look_up(self, lookup: Lookup, place: Piece, name: str) -> Piece:
        """The number at a place of a table, which stores its values as small as it can."""
        values = lookup.values
        if lookup.kind is Kind.UINT:
            dtype = next(
                d for d in (np.uint8, np.uint16, np.uint32) if values.max() <= np.iinfo(d).max
            )
            table = self._table(values.astype(dtype), name)
            return Piece(f"(uint32_t){table.at(place.text)}", Binds.UNARY)
        for share in _shares_of(values):
            small = _small(share.whole)
            if small is not None:
                table = self._table(small, name)
                return share.piece(f"(float){table.at(place.text)}")
        return Piece(self._table(values, name).at(place.text), Binds.ATOM)

    def _at(self, values: Array, name: str) -> str:
        return self._table(values, name).at(PLACE)

    def _table(self, values: Array, name: str) -> Table:
        c_type = "float" if values.dtype.kind == "f" else f"{values.dtype.name}_t"
        key = (c_type, values.tobytes())
        if key not in self._by_content:
            self._by_content[key] = Table(self._names.take(name), c_type, values)
        return self._by_content[key]


def list_of_spots(name: str, spots: Array) -> Table:
    """The spots of a scattered choice, one by one."""
    dtype = next(d for d in (np.uint8, np.int16, np.int32) if spots[-1] <= np.iinfo(d).max)
    return Table(name, f"{np.dtype(dtype).name}_t", spots.astype(dtype))


def rule(values: Array, kind: Kind) -> Piece | None:
    """An expression that gives every value to the bit from the spot's place; None without one."""
    if (values.view(np.uint8).reshape(len(values), -1) == values[:1].view(np.uint8)).all():
        return literal(kind, values[0].item())
    if kind is Kind.UINT and (values == np.arange(len(values))).all():
        return Piece(f"(uint32_t){PLACE}", Binds.UNARY)
    if kind is not Kind.FLOAT:
        return None
    for share in _shares_of(values):
        line = _line(share.whole)
        if line is not None:
            return share.piece(f"(float){parenthesised(line)}")
    return _slope(values)


@dataclass(frozen=True)
class _Share:
    """Whole numbers, times or over one number."""

    whole: Array
    sign: str = ""
    factor: float = 1.0

    def piece(self, whole: str) -> Piece:
        if not self.sign:
            return Piece(whole, Binds.UNARY)
        return Piece(f"{whole} {self.sign} {float_literal(self.factor)}", Binds.PRODUCT)


def _shares_of(values: Array) -> Iterator[_Share]:
    """Values as whole numbers: as they are, over one, like `k / 29`, or times one."""
    yield _Share(values)
    above = values[(values > 1e-6) & (values < 1.0)]
    if len(above):
        divisor = np.rint(np.float32(1.0) / above.min())
        whole, part = np.rint(values * divisor), np.float32(1.0) / divisor
        if _same_bits(whole * part, values):
            yield _Share(whole, "*", float(part))
        elif FEWEST_DIVIDED <= len(values) <= MOST_DIVIDED and _same_bits(whole / divisor, values):
            yield _Share(whole, "/", float(divisor))


def _small(values: Array) -> Array | None:
    """The same numbers as the smallest integers that hold them; None if none do."""
    for dtype in _INTEGERS:
        with np.errstate(all="ignore"):
            small = values.astype(dtype)
        if _same_bits(small.astype(np.float32), values):
            return small
    return None


def _line(values: Array) -> str | None:
    """`start + step * k` in integers that an int of C holds everywhere; None without one."""
    count = len(values)
    first, step = float(values[0]), float(values[1]) - float(values[0])
    largest = 2**24 if count > SMALLEST_INT else SMALLEST_INT
    is_whole = first.is_integer() and step.is_integer()
    if not is_whole or max(abs(first), abs(step) * count) > largest:
        return None
    start, size = int(first), abs(int(step))
    if not _same_bits((start + int(step) * np.arange(count)).astype(np.float32), values):
        return None
    product = PLACE if size == 1 else f"{size} * {PLACE}"
    if start == 0 and step > 0:
        return product
    return f"{start} {'+' if step > 0 else '-'} {product}"


def _slope(values: Array) -> Piece | None:
    """`start + slope * k` in float arithmetic; None if that is not exact."""
    places = np.arange(len(values), dtype=np.float32)
    slope = np.float32((float(values[-1]) - float(values[0])) / max(len(values) - 1, 1))
    if not _same_bits(values[0] + slope * places, values):
        return None
    start, step = float_literal(values[0]), float_literal(float(slope))
    return Piece(f"{start} + {step} * (float){PLACE}", Binds.SUM)


def _same_bits(a: Array, b: Array) -> bool:
    return a.dtype == b.dtype and a.tobytes() == b.tobytes()
