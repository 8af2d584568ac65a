"""The functions that effects and expressions are written in, each built from the operation table.

>>> from fendra.core.graph.ops import Kind
>>> from fendra.core.graph.trace import Tracer
>>> clamp(Tracer().input("level", Kind.FLOAT)).node.op
'min'
"""

from __future__ import annotations

from fendra.core.errors import GraphError
from fendra.core.graph.ops import LARGEST_UINT_FLOAT, Kind
from fendra.core.graph.trace import Operand, Value


def minimum(a: Value, b: Operand) -> Value:
    """The smaller; `b` where they are equal."""
    return a.tracer.apply("min", a, b)


def maximum(a: Value, b: Operand) -> Value:
    """The larger; `b` where they are equal."""
    return a.tracer.apply("max", a, b)


def clamp(x: Value, low: float = 0.0, high: float = 1.0) -> Value:
    """`x` held between `low` and `high`; anything that is no number becomes `low`."""
    return minimum(maximum(x, low), high)


def floor(x: Value) -> Value:
    """The whole number at or below `x`."""
    return x.tracer.apply("floor", x)


def fraction(x: Value) -> Value:
    """What is above the whole number at or below `x`: 0 up to, not including, 1."""
    return x - floor(x)


def sqrt(x: Value) -> Value:
    """The square root, 0 for what is below 0."""
    return x.tracer.apply("sqrt", maximum(x, 0.0))


def select(condition: Value, a: Operand, b: Operand) -> Value:
    """`a` where the condition holds, else `b`. Numbers and truth values; not mixed."""
    tracer = condition.tracer
    kinds = {value.kind for value in (a, b) if isinstance(value, Value)}
    if Kind.TRUTH in kinds or (isinstance(a, bool) and isinstance(b, bool)):
        first, second = tracer.lift(a, Kind.TRUTH), tracer.lift(b, Kind.TRUTH)
        return (condition & first) | (~condition & second)
    name = "uint_select" if Kind.UINT in kinds else "select"
    return tracer.apply(name, condition, a, b)


def mix(a: Operand, b: Operand, share: Value) -> Value:
    """`a` where `share` is 0, `b` where it is 1 (to one rounding), between them in proportion."""
    first = share.tracer.lift(a, Kind.FLOAT)
    return first + share * (b - first)


def ramp(x: Value, low: Operand, high: Operand) -> Value:
    """0 at `low` and below, 1 at `high` and above, straight between; `low` may be the larger.

    Raises GraphError where both are the same constant; where they meet now and then, it is 0.
    """
    span = x.tracer.lift(high, Kind.FLOAT) - low
    if span.number == 0:
        raise GraphError("low and high are equal; they must differ")
    return clamp((x - low) / span)


def smooth(x: Value) -> Value:
    """`x` from 0 to 1 with a soft start and end: x * x * (3 - 2 x)."""
    return x * x * (3.0 - 2.0 * x)


def to_and_fro(phase: Value) -> Value:
    """0 at phase 0, 1 at phase 0.5, back to 0 at phase 1, at even speed."""
    return 1.0 - abs(2.0 * phase - 1.0)


def lightness_to_linear(level: Value) -> Value:
    """A level as the eye sees it (0 to 1) to the share of light that shows it (0 to 1).

    CIE 1976 lightness: a cube, with a straight piece below 8 % (CIE 15, 8.2.1).
    """
    root = (level * 100.0 + 16.0) / 116.0
    return select(level > 0.08, root * root * root, level * (100.0 / 903.2962962962963))


def to_uint(x: Value, high: float = LARGEST_UINT_FLOAT) -> Value:
    """The nearest whole number from 0 to `high` as an unsigned integer."""
    return x.tracer.apply("to_uint", clamp(floor(x + 0.5), 0.0, high))


def phase_to_float(phase: Value) -> Value:
    """A phase as an unsigned fraction of a turn to a number from 0 up to 1; exact to 2**-24."""
    tracer = phase.tracer
    return tracer.apply("to_float", tracer.apply("uint_shift", phase, 8)) * 2.0**-24


def settle_share(dt_s: Value, time_constant_s: Operand) -> Value:
    """How much of the way to its input a lag goes in `dt_s`, 0 to 1.

    1 - exp(-u) for u = dt / time constant, with exp's series to the third power:
    right to 0.1 % up to u = 0.4, and always between 0 and 1.
    """
    u = dt_s / time_constant_s
    return 1.0 - 1.0 / (1.0 + u * (1.0 + u * (0.5 + u * (1.0 / 6.0))))
