"""Bounds: the range in which a node stays, for any input.

A node with bounds is never NaN. It is minus zero only if its lower bound is below 0.
"""

from __future__ import annotations

import math
import struct
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.node import Node
from fendra.core.graph.ops import UINT_MASK, Kind, Lookup

_INFINITE = math.inf
_HIDDEN_SIGN = -5e-324
"""A lower bound just below 0: the value may be minus zero."""


@dataclass(frozen=True, slots=True)
class Bounds:
    """Lowest and highest value, both included."""

    low: float
    high: float

    @property
    def is_positive(self) -> bool:
        """Never below 0, and never minus zero."""
        return self.low >= 0

    @property
    def is_finite(self) -> bool:
        return self.low > -_INFINITE and self.high < _INFINITE

    def union(self, other: Bounds) -> Bounds:
        """The bounds that hold for either."""
        return Bounds(min(self.low, other.low), max(self.high, other.high))


def bounds_of_values(values: Sequence[float] | Array) -> Bounds | None:
    """The bounds of known numbers; None if one is NaN."""
    if isinstance(values, tuple) and len(values) == 1 and values[0]:  # most constants
        number = float(values[0])
        return None if math.isnan(number) else Bounds(number, number)
    array = np.asarray(values, np.float64)
    if array.size == 0 or np.isnan(array).any():
        return None
    low = float(array.min())
    has_minus_zero = bool(((array == 0) & np.signbit(array)).any())
    return Bounds(min(low, _HIDDEN_SIGN) if has_minus_zero else low, float(array.max()))


def bounds_of(node: Node, args: Sequence[Bounds | None]) -> Bounds | None:
    """The bounds of a number of width 1, from its arguments' bounds; None if unknown."""
    if node.kind is Kind.TRUTH:
        return None
    if node.op == "const":
        return bounds_of_values(node.payload)  # type: ignore[arg-type]
    if isinstance(node.payload, Lookup):
        return bounds_of_values(node.payload.values)
    if node.kind is Kind.UINT:
        return _uint_bounds(node.op, args)
    match node.op:
        case "to_float" if (a := args[0]) is not None:
            return Bounds(0.0, float(np.float32(a.high)))
        case "min":
            return _chosen(args, lower=True)
        case "max":
            return _chosen(args, lower=False)
        case "select":
            _, a, b = args
            return a.union(b) if a and b else None
        case "abs" if (a := args[0]) is not None:
            low = 0.0 if a.low <= 0 <= a.high else min(abs(a.low), abs(a.high))
            return Bounds(low, max(abs(a.low), abs(a.high)))
        case "floor" if (a := args[0]) is not None and a.is_finite:
            return Bounds(float(math.floor(a.low)), float(math.floor(a.high)))
        case "neg" if (a := args[0]) is not None:
            return _result(-a.high if a.high else _HIDDEN_SIGN, -a.low)
        case "sqrt" if (a := args[0]) is not None and a.is_positive:
            return _result(math.sqrt(a.low), math.sqrt(a.high))
        case "add" | "sub" | "mul" | "div":
            a, b = args
            if a is not None and b is not None and a.is_finite and b.is_finite:
                return _arithmetic(node.op, a, b)
    return None


def _uint_bounds(op: str, args: Sequence[Bounds | None]) -> Bounds:
    match op, args:
        case "uint_shift", [Bounds() as a, Bounds() as b]:
            return Bounds(0.0, float(int(a.high) >> int(b.low)))
        case "uint_mod", [_, Bounds() as b]:
            return Bounds(0.0, max(b.high - 1, 0.0))
        case "uint_select", [_, Bounds() as a, Bounds() as b]:
            return a.union(b)
        case "to_uint", [Bounds() as a] if a.is_positive:
            return Bounds(0.0, min(a.high, UINT_MASK))
    return Bounds(0.0, UINT_MASK)


def _chosen(args: Sequence[Bounds | None], *, lower: bool) -> Bounds | None:
    """Bounds of `a if a < b else b` (lower) and `a if a > b else b`: NaN in a gives b."""
    a, b = args
    if b is None:
        return None
    if a is None:
        return Bounds(-_INFINITE, b.high) if lower else Bounds(b.low, _INFINITE)
    if lower:
        return Bounds(min(a.low, b.low), min(a.high, b.high))
    low = max(a.low, b.low)
    is_signed = low == 0 and b.low < 0  # of 0.0 and -0.0 it is b
    return Bounds(_HIDDEN_SIGN if is_signed else low, max(a.high, b.high))


def _arithmetic(op: str, a: Bounds, b: Bounds) -> Bounds | None:
    match op:
        case "add":
            return _result(a.low + b.low, a.high + b.high)
        case "sub":
            return _result(a.low - b.high, a.high - b.low)
        case "div":
            if b.low <= 0:
                return None
            corners = [x / y for x in (a.low, a.high) for y in (b.low, b.high)]
        case _:
            corners = [x * y for x in (a.low, a.high) for y in (b.low, b.high)]
    low = min(corners)
    if low >= 0 and not (a.is_positive and b.is_positive):
        low = _HIDDEN_SIGN
    return _result(low, max(corners))


def _result(low: float, high: float) -> Bounds | None:
    """Bounds of a result that is rounded to float32: rounding keeps the order, and may reach
    infinity.
    """
    lowest, highest = _rounded(low), _rounded(high)
    if math.isnan(lowest) or math.isnan(highest):
        return None
    return Bounds(_HIDDEN_SIGN if lowest == 0 > low else lowest, highest)


def _rounded(value: float) -> float:
    """As a float32; quicker than NumPy, for one number."""
    try:
        (found,) = struct.unpack("<f", struct.pack("<f", value))
    except OverflowError:
        return math.copysign(_INFINITE, value)
    return float(found)
