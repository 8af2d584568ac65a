"""Tracing: operators on a `Value` record nodes instead of computing.

>>> tracer = Tracer()
>>> brake = tracer.input("brake", Kind.FLOAT)
>>> (brake * 2 + 1).node.op
'add'
"""

from __future__ import annotations

import operator
from collections.abc import Callable, Hashable, Iterator, Sequence
from contextlib import contextmanager
from typing import TYPE_CHECKING, Any, Union

import numpy as np

from fendra.core.errors import GraphError
from fendra.core.findings import KeyPath
from fendra.core.graph.node import RATES, STATE, Graph, Node, Rate, labelled, rate_bits
from fendra.core.graph.ops import CHANNELS, LEAVES, LOOKUPS, OPS, Kind, Lookup
from fendra.core.graph.passes import all_constant, compute

if TYPE_CHECKING:
    from typing import NoReturn, TypeAlias

ARITHMETIC: dict[str, Callable[[Any, Any], Any]] = {
    "add": operator.add, "subtract": operator.sub, "multiply": operator.mul,
    "divide": operator.truediv, "floor_divide": operator.floordiv, "remainder": operator.mod,
    "less": operator.lt, "less_equal": operator.le, "greater": operator.gt,
    "greater_equal": operator.ge, "equal": operator.eq, "not_equal": operator.ne,
}  # fmt: skip
"""Functions of NumPy that operators of Python stand for."""

CALLED = {
    Kind.FLOAT: "a number",
    Kind.UINT: "an unsigned whole number",
    Kind.TRUTH: "a condition",
}
"""The names that makers know for the kinds of values."""

CONVERSIONS = {
    (Kind.UINT, Kind.FLOAT): "Write to_uint(value); an LED's own number is led.number.",
    (Kind.TRUTH, Kind.FLOAT): "Compare it, as in: value > 0.5",
    (Kind.FLOAT, Kind.TRUTH): "Write select(value, 1.0, 0.0)",
}
"""How to write a value of the kind that is needed, by that kind and its own."""

Operand: TypeAlias = Union["Value", float, int, bool]
"""An argument of an operator: a traced value or a plain number."""


class Tracer:
    """Records nodes. One tracer records one design."""

    def __init__(self) -> None:
        self.nodes: list[Node] = []
        self._rate_bits: list[int] = []
        self.roots: dict[str, int] = {}
        self.start: dict[str, float | int | bool] = {}
        self._origin: KeyPath = ()
        self._consts: dict[tuple[Kind, str], Value] = {}

    @contextmanager
    def within(self, origin: KeyPath) -> Iterator[None]:
        """Note the place in the design of everything recorded inside the block."""
        before, self._origin = self._origin, origin
        try:
            yield
        finally:
            self._origin = before

    def label(self, value: Value, name: str) -> None:
        """Say what people call a value; the first name stays."""
        self.nodes[value.place] = labelled(self.nodes[value.place], name)

    def graph(self) -> Graph:
        """The graph recorded so far."""
        return Graph(tuple(self.nodes), dict(self.roots), dict(self.start))

    def record(self, node: Node) -> Value:
        self.nodes.append(node)
        self._rate_bits.append(rate_bits(node, self._rate_bits))
        return Value(self, len(self.nodes) - 1)

    def rate(self, place: int) -> Rate:
        """How often a recorded node changes."""
        return RATES[self._rate_bits[place]]

    def const(self, value: float | int | bool | Sequence[float], kind: Kind | None = None) -> Value:
        """A constant: a number, a truth value, or the three numbers of a colour."""
        if kind is None:
            kind = Kind.TRUTH if isinstance(value, (bool, np.bool_)) else Kind.FLOAT
        values = tuple(value) if isinstance(value, Sequence) else (value,)
        payload = tuple(kind.dtype(item).item() for item in values)
        key = (kind, repr(payload))  # 0.0 and -0.0 are two
        if key not in self._consts:
            node = self._leaf("const", kind, payload, width=len(payload))
            self._consts[key] = self.record(node)
        return self._consts[key]

    def column(self, name: str, space: str, kind: Kind = Kind.FLOAT) -> Value:
        """A layout column over one choice of spots."""
        return self.record(self._leaf("column", kind, name, space=space))

    def pixels(self, name: str, space: str) -> Value:
        """The colours of a live picture, one for each spot of a choice of them."""
        node = Node("pixels", (), Kind.FLOAT, 3, name, space, None, self._origin)
        return self.record(node)

    def beneath(self, layer: int, space: str) -> Value:
        """The light that lies beneath a layer, one colour for each of its spots."""
        return self.record(self._leaf("beneath", Kind.FLOAT, layer, width=3, space=space))

    def input(self, name: str, kind: Kind) -> Value:
        """A number that comes with every frame."""
        return self.record(self._leaf("input", kind, name))

    def state(self, name: str, start: float | int | bool, kind: Kind) -> Value:
        """A memory cell: what `remember` gave it the frame before; `start` in the first."""
        if name in self.start:
            raise GraphError(f"two memory cells are called '{name}'")
        self.start[name] = start
        return self.record(self._leaf("state", kind, name))

    def _leaf(
        self, op: str, kind: Kind, payload: Hashable, *, width: int = 1, space: str | None = None
    ) -> Node:
        return Node(op, (), kind, width, payload, space, None, self._origin)

    def fresh_name(self, stem: str) -> str:
        """A name for a memory cell that no other has."""
        return f"{stem}.{len(self.start)}"

    def remember(self, cell: Value, value: Value) -> None:
        """Set the memory cell's value for the next frame."""
        if value.rate & Rate.SPOT:
            raise GraphError(
                f"'{cell.node.payload}' keeps one number, and this differs from LED to LED"
            )
        self.roots[f"{STATE}{cell.node.payload}"] = value.place

    def lift(self, value: Operand, kind: Kind) -> Value:
        """A plain number as a constant; a traced value as it is, of the right kind."""
        if not isinstance(value, Value):
            return self.const(value, kind)
        if value.kind is not kind:
            raise GraphError(
                f"{CALLED[kind]} is needed here, and this is {CALLED[value.kind]}.",
                remedy=CONVERSIONS.get((kind, value.kind), ""),
            )
        return value

    def apply(self, name: str, *args: Operand) -> Value:
        """Record one operation of the table; one on constants alone is done at once."""
        op = OPS[name]
        lifted = [self.lift(arg, kind) for arg, kind in zip(args, op.takes, strict=True)]
        width = max(value.width for value in lifted)
        places = tuple(value.place for value in lifted)
        node = Node(name, places, op.gives, width, origin=self._origin)
        given = [value.node for value in lifted]
        return self.record(compute(node, given) if all_constant(given) else node)

    def take(self, table: Lookup, place: Value) -> Value:
        """The number at a place of a table; a place behind its end is its last one."""
        if place.width != 1:
            raise GraphError("a place in a table is one number, and this is a colour")
        last = len(table) - 1
        held = self.apply("uint_select", self.apply("uint_less", place, last), place, last)
        node = Node(LOOKUPS[table.kind], (held.place,), table.kind, 1, table, origin=self._origin)
        return self.record(compute(node, [held.node]) if all_constant([held.node]) else node)

    def channel(self, colour: Value, number: int) -> Value:
        """Red, green or blue, 0 to 2, of a colour; of a number the number itself."""
        if colour.width == 1:
            return colour
        node = Node(CHANNELS[number], (colour.place,), Kind.FLOAT, 1, origin=self._origin)
        return self.record(compute(node, [colour.node]) if all_constant([colour.node]) else node)


class Value:
    """A traced number, truth value or colour. It has no value while it is recorded."""

    __slots__ = ("place", "tracer")

    def __init__(self, tracer: Tracer, place: int) -> None:
        self.tracer = tracer
        self.place = place

    @property
    def node(self) -> Node:
        return self.tracer.nodes[self.place]

    @property
    def kind(self) -> Kind:
        return self.node.kind

    @property
    def width(self) -> int:
        return self.node.width

    @property
    def rate(self) -> Rate:
        return self.tracer.rate(self.place)

    @property
    def number(self) -> float | None:
        """The value if it is a constant of width 1, else None."""
        node = self.node
        if node.op == "const" and node.width == 1 and isinstance(node.payload, tuple):
            return float(node.payload[0])
        return None

    def _float_op(self, name: str, *args: Operand) -> Value:
        return self.tracer.apply(name, *args)

    def __add__(self, other: Operand) -> Value:
        return self._float_op("add", self, other)

    def __radd__(self, other: Operand) -> Value:
        return self._float_op("add", other, self)

    def __sub__(self, other: Operand) -> Value:
        return self._float_op("sub", self, other)

    def __rsub__(self, other: Operand) -> Value:
        return self._float_op("sub", other, self)

    def __mul__(self, other: Operand) -> Value:
        return self._float_op("mul", self, other)

    def __rmul__(self, other: Operand) -> Value:
        return self._float_op("mul", other, self)

    def __truediv__(self, other: Operand) -> Value:
        return _guarded_divide(self.tracer, self, other)

    def __rtruediv__(self, other: Operand) -> Value:
        return _guarded_divide(self.tracer, other, self)

    def __floordiv__(self, other: Operand) -> Value:
        return self.tracer.apply("floor", self / other)

    def __rfloordiv__(self, other: Operand) -> Value:
        return self.tracer.apply("floor", other / self)

    def __mod__(self, other: Operand) -> Value:
        return self - (self // other) * other

    def __rmod__(self, other: Operand) -> Value:
        return other - (other // self) * self

    def __pow__(self, exponent: object) -> NoReturn:
        raise GraphError("`**` does not work on values.", remedy="Write x * x for a square.")

    def __neg__(self) -> Value:
        return self._float_op("neg", self)

    def __abs__(self) -> Value:
        return self._float_op("abs", self)

    def __lt__(self, other: Operand) -> Value:
        return self._float_op("less", self, other)

    def __le__(self, other: Operand) -> Value:
        return self._float_op("less_equal", self, other)

    def __gt__(self, other: Operand) -> Value:
        return self._float_op("less", other, self)

    def __ge__(self, other: Operand) -> Value:
        return self._float_op("less_equal", other, self)

    def __eq__(self, other: Operand) -> Value:  # type: ignore[override]
        return self._float_op("equal", self, other)

    def __ne__(self, other: Operand) -> Value:  # type: ignore[override]
        return ~(self == other)

    __hash__ = object.__hash__

    def __and__(self, other: Operand) -> Value:
        return self.tracer.apply("and", self, other)

    def __or__(self, other: Operand) -> Value:
        return self.tracer.apply("or", self, other)

    def __invert__(self) -> Value:
        return self.tracer.apply("not", self)

    def __bool__(self) -> NoReturn:
        raise GraphError(
            "`if`, `and`, `or`, `not`, `min` and `max` need a value that is known now, and this "
            "one is known only while the light runs.",
            remedy="Write select(condition, a, b) for `if`; &, | and ~; minimum and maximum.",
        )

    def _no_number(self, *_: object) -> NoReturn:
        raise GraphError(
            "`int`, `float`, `round`, `math` and `numpy` need a number that is known now, and this "
            "one is known only while the light runs.",
            remedy="Use the functions of fendra.effects, such as floor, nearest, sqrt and sine; "
            "led.fixed(name, values) takes numbers that NumPy works out.",
        )

    __float__ = __int__ = __index__ = __round__ = __array__ = _no_number

    def __array_ufunc__(self, ufunc: np.ufunc, method: str, *given: Any, **_: object) -> Value:
        """Let a number of NumPy stand on the left of an operator."""
        if ufunc.__name__ not in ARITHMETIC or any(np.ndim(item) for item in given[:1]):
            self._no_number()
        left, right = given
        found: Value = ARITHMETIC[ufunc.__name__](left.item(), right)
        return found

    def __repr__(self) -> str:
        node = self.node
        inside = node.payload if node.op in LEAVES else f"{len(node.args)} values"
        return f"<Value {node.op} {inside} ({node.kind})>"


def tracer_of(*operands: Operand) -> Tracer:
    """The tracer of the values among some operands. Raises GraphError if there is none."""
    for operand in operands:
        if isinstance(operand, Value):
            return operand.tracer
    raise GraphError(
        f"this function got plain numbers only ({', '.join(map(repr, operands))}).",
        remedy="Use Python's own for those: min, max, math.floor, a if condition else b.",
    )


def _guarded_divide(tracer: Tracer, a: Operand, b: Operand) -> Value:
    """a / b, and 0 if b is 0: no infinity may arise."""
    divisor = tracer.lift(b, Kind.FLOAT)
    if divisor.number is not None:
        if divisor.number == 0:
            raise GraphError("this divides by 0")
        return tracer.apply("div", a, divisor)
    is_zero = tracer.apply("equal", divisor, 0.0)
    quotient = tracer.apply("div", a, tracer.apply("select", is_zero, 1.0, divisor))
    return tracer.apply("select", is_zero, 0.0, quotient)
