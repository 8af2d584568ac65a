"""Arrays to compute into, and operations on them in as few passes as NumPy allows."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial
from typing import Any

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.ops import Op

_ZERO = np.zeros((), np.float32)


class Buffers:
    """Arrays to compute into; arrays that are given back are used again."""

    def __init__(self) -> None:
        self._free: list[Array] = []

    def take(self, shape: tuple[int, ...], dtype: type[np.generic]) -> Array:
        for i, array in enumerate(self._free):
            if array.dtype == dtype and array.shape == shape:
                return self._free.pop(i)
        return np.empty(shape, dtype)

    def give_back(self, arrays: Iterable[Array]) -> None:
        self._free.extend(arrays)


def in_place_args(op: Op, args: tuple[int, ...]) -> tuple[int, ...]:
    """The places of those arguments that an operation's result may replace."""
    if op.in_place:
        return args
    return args[1:] if op.name in ("min", "max") and args[0] != args[1] else ()


def steps_of(
    op: Op, args: list[Array], out: Array, against_constant: bool
) -> list[Callable[[], Any]]:  # fmt: skip
    """An operation on arrays.

    Against a constant, `min` and `max` are NumPy's own, which are faster. Like compare-and-select,
    `fmin` and `fmax` turn NaN into the constant. They differ from it only in the sign of a zero,
    and adding 0.0 gives the constant's sign.
    """
    if op.name in ("min", "max") and against_constant and not _is_minus_zero(args[1]):
        fast = np.fmin if op.name == "min" else np.fmax
        steps: list[Callable[[], Any]] = [partial(fast, args[0], args[1], out)]
        if args[1] == 0:
            steps.append(partial(np.add, out, _ZERO, out))
        return steps
    if op.name in ("min", "max") and args[1] is out:  # values that are not replaced stay
        wins = np.less if op.name == "min" else np.greater
        is_replaced = np.empty(out.shape, np.bool_)
        return [
            partial(wins, args[0], out, is_replaced),
            partial(np.copyto, out, args[0], where=is_replaced),
        ]
    return [partial(op.array, *args, out)]


def _is_minus_zero(value: Array) -> bool:
    return bool(value == 0 and np.signbit(value))
