"""The functions that effects and expressions are written in, each built from the operation table.

>>> from fendra.core.graph.ops import Kind
>>> from fendra.core.graph.trace import Tracer
>>> clamp(Tracer().input("level", Kind.FLOAT)).node.op
'min'
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence

import numpy as np

from fendra.core.errors import GraphError
from fendra.core.graph.ops import LARGEST_UINT_FLOAT, Kind, Lookup
from fendra.core.graph.trace import Operand, Value, tracer_of
from fendra.core.light.colours import srgb_to_linear


def minimum(a: Operand, b: Operand) -> Value:
    """The smaller; `b` if they are equal."""
    return tracer_of(a, b).apply("min", a, b)


def maximum(a: Operand, b: Operand) -> Value:
    """The larger; `b` if they are equal."""
    return tracer_of(a, b).apply("max", a, b)


def clamp(x: Value, low: float = 0.0, high: float = 1.0) -> Value:
    """`x` limited to `low` and `high`; NaN becomes `low`."""
    return minimum(maximum(x, low), high)


def floor(x: Value) -> Value:
    """The whole number at or below `x`."""
    return tracer_of(x).apply("floor", x)


def nearest(x: Value) -> Value:
    """The nearest whole number; of two that are as near, the higher one.

    Not `floor(x + 0.5)`: that sum is rounded, so 8388609 would become 8388610, and the number just
    below 0.5 would become 1.
    """
    whole = floor(x)
    return whole + select(x - whole >= 0.5, 1.0, 0.0)


def fraction(x: Value) -> Value:
    """`x` minus the whole number at or below it: 0 up to, not including, 1."""
    return x - floor(x)


def sqrt(x: Value) -> Value:
    """The square root; 0 for negative numbers."""
    return x.tracer.apply("sqrt", maximum(x, 0.0))


def select(condition: Operand, a: Operand, b: Operand) -> Value:
    """`a` if the condition holds, else `b`. Both are numbers, or both are truth values."""
    tracer = tracer_of(condition, a, b)
    condition = tracer.lift(condition, Kind.TRUTH)
    kinds = {value.kind for value in (a, b) if isinstance(value, Value)}
    if Kind.TRUTH in kinds or (isinstance(a, bool) and isinstance(b, bool)):
        first, second = tracer.lift(a, Kind.TRUTH), tracer.lift(b, Kind.TRUTH)
        return (condition & first) | (~condition & second)
    name = "uint_select" if Kind.UINT in kinds else "select"
    return tracer.apply(name, condition, a, b)


def mix(a: Operand, b: Operand, share: Operand) -> Value:
    """`a` where `share` is 0, `b` where it is 1 (to one rounding), between them in proportion."""
    first = tracer_of(a, b, share).lift(a, Kind.FLOAT)
    return first + share * (b - first)


def ramp(x: Value, low: Operand, high: Operand) -> Value:
    """0 at `low` and below, 1 at `high` and above, straight between; `low` may be the larger.

    Raises GraphError if both are the same constant. While they are equal otherwise, it is 0.
    """
    span = x.tracer.lift(high, Kind.FLOAT) - low
    if span.number == 0:
        raise GraphError("low and high are equal; they must differ")
    return clamp((x - low) / span)


def curve(x: Value, points: Sequence[tuple[float, float]]) -> Value:
    """Along straight lines between points (x, y), in ascending order of x; level outside of them.

    Raises GraphError for fewer than two points, and for points out of order.
    """
    if len(points) < 2 or any(b[0] <= a[0] for a, b in itertools.pairwise(points)):
        raise GraphError("a curve has two points or more, in ascending order of the first number")
    found = x.tracer.const(points[0][1])
    for (x0, y0), (x1, y1) in itertools.pairwise(points):
        found = found + ramp(x, x0, x1) * (y1 - y0)
    return found


def dead_band(x: Value, width: float, centre: float = 0.0) -> Value:
    """`centre` within `width` of it; outside, nearer to it by `width`, so without a jump."""
    away = x - centre
    return away - clamp(away, -width, width) + centre


def packed_colour(packed: Value) -> Value:
    """A colour of three sRGB bytes in one number, `0xRRGGBB`, as linear light (IEC 61966-2-1)."""
    tracer = packed.tracer
    bits = to_uint(packed, float(0xFFFFFF))
    light = [srgb_to_linear(level / 255) for level in range(256)]
    found = tracer.const((0.0, 0.0, 0.0))
    for shift, unit in ((16, (1.0, 0.0, 0.0)), (8, (0.0, 1.0, 0.0)), (0, (0.0, 0.0, 1.0))):
        byte = tracer.apply("uint_mod", tracer.apply("uint_shift", bits, shift), 256)
        found = found + table(light, byte) * tracer.const(unit)
    return found


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
    """The nearest whole number from 0 to `high`, itself a whole one, as an unsigned integer."""
    tracer = x.tracer
    held = clamp(x, 0.0, high)
    whole = tracer.apply("to_uint", held)
    is_up = held - tracer.apply("to_float", whole) >= 0.5
    return tracer.apply("uint_add", whole, tracer.apply("uint_select", is_up, 1, 0))


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


def to_ms(seconds: Value) -> Value:
    """Seconds in milliseconds. A written number stays exact: 0.127 is 127, not 127.00001."""
    if seconds.number is None:
        return seconds * 1000.0
    return seconds.tracer.const(round(seconds.number * 1000, 3))


def reached(x: Value) -> Value:
    """The whole number at or below `x`; one that `x` lacks by less than a thousandth counts as
    reached, since phases are rounded.
    """
    return floor(x + 1e-3)


def table(values: Sequence[float], place: Value, *, whole: bool = False) -> Value:
    """The number at `place`, an unsigned integer, of a list; behind its end the last one.

    whole: the numbers are unsigned integers.
    """
    kind = Kind.UINT if whole else Kind.FLOAT
    return place.tracer.take(Lookup(np.asarray(values, kind.dtype), kind), place)


def pick(values: Sequence[Value], place: Value) -> Value:
    """The number or colour at the whole number `place` of a list."""
    found = values[0]
    for number, value in enumerate(values[1:], start=1):
        found = select(place == float(number), value, found)
    return found


def sine(turn: Value) -> Value:
    """The sine of `turn` turns (1 is once round), to 0.000001: a polynomial of odd powers."""
    up = abs(fraction(turn - 0.25) * 4.0 - 2.0) - 1.0
    square = up * up
    return up * (1.5707904 + square * (-0.6458868 + square * (0.07941995 + square * -0.00432353)))


def turn_of(up: Value, across: Operand) -> Value:
    """The direction of a vector as a share of a turn, 0 up to 1, counter-clockwise from `across`.

    Exact to 0.00001 turns if one side is 1e-30 or longer; the vector of length 0 points at 0.
    """
    across = up.tracer.lift(across, Kind.FLOAT)
    wide, high = abs(across), abs(up)
    is_steep = wide < high
    ratio = minimum(wide, high) / maximum(maximum(wide, high), 1e-30)
    square = ratio * ratio
    inner = 0.02869083 + square * (-0.01356962 + square * 0.00331959)
    eighth = ratio * (0.15913397 + square * (-0.05257476 + square * inner))
    quarter = select(is_steep, 0.25 - eighth, eighth)
    half = select(across < 0.0, 0.5 - quarter, quarter)
    return fraction(select(up < 0.0, 1.0 - half, half))


def scramble(*parts: Value | int) -> Value:
    """Unsigned integers to one that looks random: the same ones always give the same.

    Multiplied by odd numbers (2**32 times the fractions of the golden ratio, and of the square
    roots of 2 and 3), with the high bits folded into the low ones between.
    """
    tracer = next(part.tracer for part in parts if isinstance(part, Value))
    mixed: Value | int = 0
    for part in parts:
        mixed = tracer.apply("uint_mul", tracer.apply("uint_xor", mixed, part), 0x9E3779B1)
        mixed = tracer.apply("uint_xor", mixed, tracer.apply("uint_shift", mixed, 15))
    for factor, bits in ((0x6A09E667, 13), (0xBB67AE85, 16)):
        mixed = tracer.apply("uint_mul", mixed, factor)
        mixed = tracer.apply("uint_xor", mixed, tracer.apply("uint_shift", mixed, bits))
    assert isinstance(mixed, Value)
    return mixed


def chance(*parts: Value | int) -> Value:
    """A number from 0 up to 1 that looks random, from unsigned integers: see `scramble`."""
    return phase_to_float(scramble(*parts))


def hue(degrees: Value) -> Value:
    """The full colour at an angle of the colour circle: red 0, lime 120, blue 240 degrees.

    Along straight lines of linear light between the corners (CSS Color 4, section 7, has the same
    corners).
    """
    turn = degrees * (1.0 / 360.0)
    away = abs(fraction(turn + turn.tracer.const((0.0, 2 / 3, 1 / 3))) * 6.0 - 3.0)
    return clamp(away - 1.0)


# Oklab: light as lightness, from green to red, and from blue to yellow; even to the eye.
# Matrices: https://bottosson.github.io/posts/oklab, in the form of CSS Color 4, section 18.

_TO_CONES = ((0.4122214708, 0.5363325363, 0.0514459929),
             (0.2119034982, 0.6806995451, 0.1073969566),
             (0.0883024619, 0.2817188376, 0.6299787005))  # fmt: skip
_TO_LAB = ((0.2104542553, 0.7936177850, -0.0040720468),
           (1.9779984951, -2.4285922050, 0.4505937099),
           (0.0259040371, 0.7827717662, -0.8086757660))  # fmt: skip
_FROM_LAB = ((1.0, 0.3963377774, 0.2158037573),
             (1.0, -0.1055613458, -0.0638541728),
             (1.0, -0.0894841775, -1.2914855480))  # fmt: skip
_FROM_CONES = ((4.0767416621, -3.3077115913, 0.2309699292),
               (-1.2684380046, 2.6097574011, -0.3413193965),
               (-0.0041960863, -0.7034186147, 1.7076147010))  # fmt: skip


def _times(rows: Sequence[Sequence[float]], values: Sequence[Value]) -> list[Value]:
    return [values[0] * row[0] + values[1] * row[1] + values[2] * row[2] for row in rows]


def cube_root(x: Value) -> Value:
    """The cube root of a number from 0 to 1, to the last bits: Newton's steps from a near value."""
    held = maximum(x, 1e-12)
    fourth = sqrt(sqrt(held))
    root = fourth * sqrt(sqrt(fourth))  # the power 0.3125: near enough
    for _ in range(4):
        root = (root * 2.0 + held / (root * root)) * (1.0 / 3.0)
    return select(x > 1e-12, root, 0.0)


def to_oklab(colour: Value) -> list[Value]:
    """Linear light as Oklab: lightness 0 to 1, and the two directions of colour."""
    channels = [colour.tracer.channel(colour, number) for number in range(3)]
    return _times(_TO_LAB, [cube_root(cone) for cone in _times(_TO_CONES, channels)])


def from_oklab(lab: Sequence[Value]) -> Value:
    """Oklab as linear light, each channel held within 0 and 1."""
    roots = _times(_FROM_LAB, lab)
    cones = [root * root * root for root in roots]
    columns = [tuple(row[i] for row in _FROM_CONES) for i in range(3)]
    const = lab[0].tracer.const
    light = cones[0] * const(columns[0]) + cones[1] * const(columns[1])
    return clamp(light + cones[2] * const(columns[2]))


def even_mix(a: Value, b: Value, share: Value) -> Value:
    """Between two colours by even steps to the eye (in Oklab): no dull middle, no jump in hue."""
    pairs = zip(to_oklab(a), to_oklab(b), strict=True)
    return from_oklab([mix(first, second, share) for first, second in pairs])


def shift_hue(colour: Value, degrees: Value) -> Value:
    """A colour turned round the colour circle (in Oklab), with the same lightness if possible."""
    lightness, a, b = to_oklab(colour)
    turn = degrees * (1.0 / 360.0)
    down, up = sine(turn + 0.25), sine(turn)
    return from_oklab([lightness, a * down - b * up, a * up + b * down])


def palette(colours: Sequence[Value], shares: Sequence[Value], *, even: bool = False) -> Value:
    """Colours in a row, mixed one into the next.

    shares: how far each but the first has come, 0 to 1: one less than there are colours.
    even: mixed in Oklab, else in linear light.
    """
    if not even:
        found = colours[0]
        for colour, share in zip(colours[1:], shares, strict=True):
            found = mix(found, colour, share)
        return found
    labs = [to_oklab(colour) for colour in colours]
    lab = labs[0]
    for following, share in zip(labs[1:], shares, strict=True):
        lab = [mix(a, b, share) for a, b in zip(lab, following, strict=True)]
    return from_oklab(lab)
