"""Per-spot values: a constant, a rule, or the smallest table that holds them exactly."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.graph.c99.names import Names
from fendra.core.graph.c99.text import Piece, float_literal, literal, parenthesised, wrapped
from fendra.core.graph.ops import Binds, Kind

Array = np.ndarray[Any, np.dtype[Any]]

_INTEGERS = (np.uint8, np.int8, np.uint16, np.int16)

SMALLEST_INT = 32_767
"""What an int of C holds everywhere. Where there are more spots, places are int32_t."""

PLACE = "k"
"""In the emitted code, the place of a spot in its choice, from 0."""


@dataclass(frozen=True)
class Table:
    """A constant array of the emitted code."""

    name: str
    c_type: str
    values: Array

    @property
    def text(self) -> str:
        """Its definition."""
        if self.values.dtype.kind == "f":
            items = [float_literal(value) for value in self.values]
        else:
            suffix = "u" if self.values.dtype == np.uint32 else ""
            items = [f"{value}{suffix}" for value in self.values.tolist()]
        head = f"static const {self.c_type} {self.name}[{len(items)}] = {{"
        return "\n".join([head, *wrapped(items), "};"])


class Tables:
    """All tables of a program; those that hold the same are one."""

    def __init__(self, names: Names) -> None:
        self._names = names
        self._by_content: dict[tuple[str, bytes], Table] = {}

    def __iter__(self) -> Iterator[Table]:
        return iter(self._by_content.values())

    def read(self, values: Array, kind: Kind, name: str) -> Piece:
        """What stands in the code for a value of the spot at place `k`."""
        if (values.view(np.uint8).reshape(len(values), -1) == values[:1].view(np.uint8)).all():
            return literal(kind, values[0].item())
        if kind is Kind.TRUTH:
            return Piece(f"{self._entry(values.astype(np.uint8), name).text} != 0", Binds.COMPARED)
        if kind is Kind.UINT:
            return self._entry(values, name)
        return self._whole_share(values, name) or _slope(values) or self._entry(values, name)

    def _whole_share(self, values: Array, name: str) -> Piece | None:
        """Whole numbers, or whole numbers over one that is the same for all, like `k / 29`."""
        if _same_bits(np.rint(values), values):
            return self._whole(values, name)
        divisor = _divisor(values)
        whole, share = np.rint(values * divisor), np.float32(1.0) / divisor
        if _same_bits(whole * share, values):
            sign, factor = "*", share
        elif _same_bits(whole / divisor, values):
            sign, factor = "/", divisor
        else:
            return None
        piece = self._whole(whole, name)
        text = float_literal(float(factor))
        return piece and Piece(f"{piece.text} {sign} {text}", Binds.PRODUCT)

    def _whole(self, values: Array, name: str) -> Piece | None:
        """Whole numbers: an even line, or a table of small integers."""
        line = _line(values)
        if line is not None:
            return Piece(f"(float){parenthesised(line)}", Binds.UNARY)
        for dtype in _INTEGERS:
            with np.errstate(all="ignore"):
                small = values.astype(dtype)
            if _same_bits(small.astype(np.float32), values):
                return Piece(f"(float){self._entry(small, name).text}", Binds.UNARY)
        return None

    def _entry(self, values: Array, name: str) -> Piece:
        return Piece(f"{self._table(values, name).name}[{PLACE}]", Binds.ATOM)

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


def _divisor(values: Array) -> np.float32:
    """The whole number that shares may be parts of: one over the smallest above 0."""
    above = values[(values > 1e-6) & (values < 1.0)]
    return np.rint(np.float32(1.0) / above.min()) if len(above) else np.float32(1.0)


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
    """`start + slope * k` in float arithmetic; None where that is not exact."""
    places = np.arange(len(values), dtype=np.float32)
    slope = np.float32((float(values[-1]) - float(values[0])) / max(len(values) - 1, 1))
    if not _same_bits(values[0] + slope * places, values):
        return None
    start, step = float_literal(values[0]), float_literal(float(slope))
    return Piece(f"{start} + {step} * (float){PLACE}", Binds.SUM)


def _same_bits(a: Array, b: Array) -> bool:
    return a.dtype == b.dtype and a.tobytes() == b.tobytes()
