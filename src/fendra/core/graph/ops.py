"""The operation table: one row an operation, read by all that runs, emits, tests or shows a graph.

Every row rounds exactly as IEEE 754 says, or is integer arithmetic, so that each
back end gives the same bits. `array` fills an array of spots, `scalar` computes
one number of a frame, `c` is the same in C99; all must give the same value.
"""

from __future__ import annotations

import math
import operator
from collections.abc import Callable, Hashable
from dataclasses import dataclass
from enum import IntEnum, StrEnum
from functools import cached_property, lru_cache, partial
from hashlib import sha256
from typing import Any

import numpy as np


class Kind(StrEnum):
    """The kind of a node's value."""

    FLOAT = "float"
    UINT = "uint"
    TRUTH = "truth"

    @property
    def dtype(self) -> type[np.generic]:
        return _DTYPES[self]


_DTYPES: dict[Kind, type[np.generic]] = {
    Kind.FLOAT: np.float32,
    Kind.UINT: np.uint32,
    Kind.TRUTH: np.bool_,
}

UINT_MASK = 0xFFFF_FFFF
LARGEST_UINT_FLOAT = 4294967040.0
"""The largest float32 below 2**32."""
LARGEST = 1e9
"""Inputs and results of expressions are held within plus and minus this."""


class Binds(IntEnum):
    """How tightly a piece of C holds together, from loose to tight."""

    CHOICE = 1
    EITHER = 2
    BOTH = 3
    BITS = 4
    COMPARED = 5
    SHIFT = 6
    SUM = 7
    PRODUCT = 8
    UNARY = 9
    ATOM = 10


def anything(*_: Any) -> Any:
    """Every argument will do."""
    return np.True_


@dataclass(frozen=True)
class Op:
    """One operation.

    array: called as array(*args, out); args broadcast against out.
    scalar: called as scalar(*args) on float32, int and bool.
    c: its text in C99, with a {} for each argument. binds: how tightly that text holds.
    where: given arrays of arguments, which of them the operation may be asked for.
    in_place: whether out may be one of the args.
    wasm: its WebAssembly, with a {0} where the first argument is pushed, and so on. lanes: the same
    for four spots at once, a [1] where an argument is one number for all of them; empty if there
    is no such instruction.
    """

    name: str
    takes: tuple[Kind, ...]
    gives: Kind
    array: Callable[..., Any]
    scalar: Callable[..., Any]
    c: str
    binds: Binds
    about: str
    where: Callable[..., Any] = anything
    in_place: bool = True
    wasm: str = ""
    lanes: str = ""


def _min_array(a: Any, b: Any, out: Any) -> None:
    np.copyto(out, np.where(np.less(a, b), a, b))


def _max_array(a: Any, b: Any, out: Any) -> None:
    np.copyto(out, np.where(np.greater(a, b), a, b))


def _select_array(condition: Any, a: Any, b: Any, out: Any) -> None:
    np.copyto(out, b)
    np.copyto(out, a, where=condition)


def _float_to_uint_array(a: Any, out: Any) -> None:
    np.copyto(out, a, casting="unsafe")


def _uint_to_float_array(a: Any, out: Any) -> None:
    np.copyto(out, a, casting="same_kind")


def _sqrt(a: Any) -> Any:
    return np.float32(math.sqrt(a))


def _min(a: Any, b: Any) -> Any:
    return a if a < b else b


def _max(a: Any, b: Any) -> Any:
    return a if a > b else b


def _select(condition: Any, a: Any, b: Any) -> Any:
    return a if condition else b


def _both(a: Any, b: Any) -> Any:
    return a and b


def _either(a: Any, b: Any) -> Any:
    return a or b


def _uint_add(a: int, b: int) -> int:
    return (a + b) & UINT_MASK


def _uint_sub(a: int, b: int) -> int:
    return (a - b) & UINT_MASK


def _uint_mul(a: int, b: int) -> int:
    return (a * b) & UINT_MASK


def _uint_mul_high(a: int, b: int) -> int:
    return (a * b) >> 32


def _uint_mul_high_array(a: Any, b: Any, out: Any) -> None:
    product = np.multiply(a, b, dtype=np.uint64)
    np.copyto(out, product >> np.uint64(32), casting="unsafe")


_F, _U, _B = Kind.FLOAT, Kind.UINT, Kind.TRUTH

_ROWS = (
    Op("add", (_F, _F), _F, np.add, operator.add, "{} + {}", Binds.SUM, "a + b",
       wasm="{0} {1} f32.add", lanes="{0} {1} f32x4.add"),
    Op("sub", (_F, _F), _F, np.subtract, operator.sub, "{} - {}", Binds.SUM, "a - b",
       wasm="{0} {1} f32.sub", lanes="{0} {1} f32x4.sub"),
    Op("mul", (_F, _F), _F, np.multiply, operator.mul, "{} * {}", Binds.PRODUCT, "a * b",
       wasm="{0} {1} f32.mul", lanes="{0} {1} f32x4.mul"),
    Op("div", (_F, _F), _F, np.divide, operator.truediv, "{} / {}", Binds.PRODUCT,
       "a / b; b is never 0", lambda _, b: b != 0,
       wasm="{0} {1} f32.div", lanes="{0} {1} f32x4.div"),
    Op("neg", (_F,), _F, np.negative, operator.neg, "-{}", Binds.UNARY, "-a",
       wasm="{0} f32.neg", lanes="{0} f32x4.neg"),
    Op("abs", (_F,), _F, np.absolute, operator.abs, "fabsf({})", Binds.ATOM, "the size of a",
       wasm="{0} f32.abs", lanes="{0} f32x4.abs"),
    Op("floor", (_F,), _F, np.floor, np.floor, "floorf({})", Binds.ATOM,
       "the whole number at or below a",
       wasm="{0} f32.floor", lanes="{0} f32x4.floor"),
    Op("sqrt", (_F,), _F, np.sqrt, _sqrt, "sqrtf({})", Binds.ATOM,
       "the square root; a is never below 0", lambda a: a >= 0,
       wasm="{0} f32.sqrt", lanes="{0} f32x4.sqrt"),
    Op("min", (_F, _F), _F, _min_array, _min, "smaller({}, {})", Binds.ATOM,
       "a if a < b else b", in_place=False,
       wasm="{0} {1} {0} {1} f32.lt select", lanes="{1} {0} f32x4.pmin"),
    Op("max", (_F, _F), _F, _max_array, _max, "larger({}, {})", Binds.ATOM,
       "a if a > b else b", in_place=False,
       wasm="{0} {1} {0} {1} f32.gt select", lanes="{1} {0} f32x4.pmax"),
    Op("less", (_F, _F), _B, np.less, operator.lt, "{} < {}", Binds.COMPARED, "a < b",
       wasm="{0} {1} f32.lt", lanes="{0} {1} f32x4.lt"),
    Op("less_equal", (_F, _F), _B, np.less_equal, operator.le, "{} <= {}", Binds.COMPARED,
       "a <= b",
       wasm="{0} {1} f32.le", lanes="{0} {1} f32x4.le"),
    Op("equal", (_F, _F), _B, np.equal, operator.eq, "{} == {}", Binds.COMPARED, "a == b",
       wasm="{0} {1} f32.eq", lanes="{0} {1} f32x4.eq"),
    Op("and", (_B, _B), _B, np.logical_and, _both, "{} && {}", Binds.BOTH, "both",
       wasm="{0} {1} i32.and", lanes="{0} {1} v128.and"),
    Op("or", (_B, _B), _B, np.logical_or, _either, "{} || {}", Binds.EITHER, "one or both",
       wasm="{0} {1} i32.or", lanes="{0} {1} v128.or"),
    Op("not", (_B,), _B, np.logical_not, operator.not_, "!{}", Binds.UNARY, "the other",
       wasm="{0} i32.eqz", lanes="{0} v128.not"),
    Op("select", (_B, _F, _F), _F, _select_array, _select, "{} ? {} : {}", Binds.CHOICE,
       "a if c else b", in_place=False,
       wasm="{1} {2} {0} select", lanes="{1} {2} {0} v128.bitselect"),
    Op("uint_add", (_U, _U), _U, np.add, _uint_add, "{} + {}", Binds.SUM, "a + b, wrapping",
       wasm="{0} {1} i32.add", lanes="{0} {1} i32x4.add"),
    Op("uint_sub", (_U, _U), _U, np.subtract, _uint_sub, "{} - {}", Binds.SUM, "a - b, wrapping",
       wasm="{0} {1} i32.sub", lanes="{0} {1} i32x4.sub"),
    Op("uint_mul", (_U, _U), _U, np.multiply, _uint_mul, "{} * {}", Binds.PRODUCT,
       "a * b, wrapping",
       wasm="{0} {1} i32.mul", lanes="{0} {1} i32x4.mul"),
    Op("uint_mul_high", (_U, _U), _U, _uint_mul_high_array, _uint_mul_high,
       "high_word({}, {})", Binds.ATOM, "how often 2**32 goes into a * b",
       wasm="{0} i64.extend_i32_u {1} i64.extend_i32_u i64.mul "
            "i64.const:32 i64.shr_u i32.wrap_i64"),
    Op("uint_xor", (_U, _U), _U, np.bitwise_xor, operator.xor, "{} ^ {}", Binds.BITS,
       "the bits that differ",
       wasm="{0} {1} i32.xor", lanes="{0} {1} v128.xor"),
    Op("uint_div", (_U, _U), _U, np.floor_divide, operator.floordiv, "{} / {}", Binds.PRODUCT,
       "how often b goes into a; b is never 0", lambda _, b: b != 0,
       wasm="{0} {1} i32.div_u"),
    Op("uint_mod", (_U, _U), _U, np.remainder, operator.mod, "{} % {}", Binds.PRODUCT,
       "a modulo b; b is never 0", lambda _, b: b != 0,
       wasm="{0} {1} i32.rem_u"),
    Op("uint_shift", (_U, _U), _U, np.right_shift, operator.rshift, "{} >> {}", Binds.SHIFT,
       "a shifted right by b bits; b is below 32", lambda _, b: b < 32,
       wasm="{0} {1} i32.shr_u", lanes="{0} [1] i32x4.shr_u"),
    Op("uint_less", (_U, _U), _B, np.less, operator.lt, "{} < {}", Binds.COMPARED, "a < b",
       wasm="{0} {1} i32.lt_u", lanes="{0} {1} i32x4.lt_u"),
    Op("uint_equal", (_U, _U), _B, np.equal, operator.eq, "{} == {}", Binds.COMPARED, "a == b",
       wasm="{0} {1} i32.eq", lanes="{0} {1} i32x4.eq"),
    Op("uint_select", (_B, _U, _U), _U, _select_array, _select, "{} ? {} : {}", Binds.CHOICE,
       "a if c else b", in_place=False,
       wasm="{1} {2} {0} select", lanes="{1} {2} {0} v128.bitselect"),
    Op("to_float", (_U,), _F, _uint_to_float_array, np.float32, "(float){}", Binds.UNARY,
       "rounded to the nearest float",
       wasm="{0} f32.convert_i32_u", lanes="{0} f32x4.convert_i32x4_u"),
    Op("to_uint", (_F,), _U, _float_to_uint_array, int, "(uint32_t){}", Binds.UNARY,
       "truncated; a is held within 0 and the largest float below 2**32 before",
       lambda a: (a >= 0) & (a <= LARGEST_UINT_FLOAT),
       wasm="{0} i32.trunc_f32_u", lanes="{0} i32x4.trunc_sat_f32x4_u"),
)  # fmt: skip

OPS: dict[str, Op] = {row.name: row for row in _ROWS}


def _channel_array(channel: int, a: Any, out: Any) -> None:
    np.copyto(out, a[channel] if np.ndim(a) == 2 and len(a) == 3 else a)


def _channel_of(channel: int, a: Any) -> Any:
    return a[channel, 0] if np.ndim(a) == 2 and len(a) == 3 else a


CHANNELS = ("red", "green", "blue")
CHANNEL_OPS: dict[str, Op] = {
    name: Op(name, (_F,), _F, partial(_channel_array, i), partial(_channel_of, i), "{}",
             Binds.ATOM, f"the {name} of a colour", in_place=False)
    for i, name in enumerate(CHANNELS)
}  # fmt: skip
"""From a colour to a number; in C, where numbers are separate, it disappears."""


class Lookup:
    """Numbers that are looked up by their place: a font, a picture, a list of lengths.

    values: (n,) float32 or uint32, n > 0. Tables are equal where their values are.
    """

    def __init__(self, values: Any, kind: Kind = Kind.FLOAT) -> None:
        self.kind = kind
        self.values = np.ascontiguousarray(values, kind.dtype).ravel()
        self.values.setflags(write=False)

    @cached_property
    def digest(self) -> str:
        return sha256(str(self.kind).encode() + self.values.tobytes()).hexdigest()[:16]

    def __len__(self) -> int:
        return len(self.values)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Lookup) and self.digest == other.digest

    def __hash__(self) -> int:
        return hash(self.digest)

    def __repr__(self) -> str:
        return f"<Lookup of {len(self)}, {self.digest}>"


LOOKUPS = {Kind.FLOAT: "take", Kind.UINT: "uint_take"}
"""Operations that read a table, which is the node's payload; the argument is the place."""


@lru_cache(maxsize=256)
def _lookup(table: Lookup) -> Op:
    def run(place: Any, out: Any) -> None:
        np.take(table.values, place, out=out, mode="clip")

    def one(place: int) -> Any:
        return table.values[place] if table.kind is _F else table.values[place].item()

    return Op(LOOKUPS[table.kind], (_U,), table.kind, run, one, "{}", Binds.ATOM,
              "the number at a place of a table", lambda place: place < len(table),
              in_place=False)  # fmt: skip


def is_operation(name: str) -> bool:
    """Whether a node of this name is computed from others."""
    return name in OPS or name in CHANNEL_OPS or name in LOOKUPS.values()


def op_of(name: str, payload: Hashable) -> Op:
    """The operation of a node: a row of the table, a channel of a colour, or a lookup."""
    if isinstance(payload, Lookup):
        return _lookup(payload)
    return OPS.get(name) or CHANNEL_OPS[name]


LEAVES = frozenset({"const", "column", "input", "state", "pixels", "beneath"})
"""Nodes without arguments: a constant, a layout column, a frame's input, a memory cell, a live
picture, and the light beneath a layer."""
