"""Quotients that may be too small for a normal float.

The division of avr-libc rounds those twice, the only operation in which an 8-bit part was found to
differ (tests/firmware). Where a quotient cannot be so small, C's own sign stands in the code; where
it can, a function that is exact there too.
"""

from __future__ import annotations

from functools import cache
from math import inf

import numpy as np

from fendra.core.graph.node import Graph

SMALLEST_NORMAL = float(np.finfo(np.float32).tiny)

QUOTIENT = """#ifdef __AVR__
static ON_ITS_OWN float quotient(float a, float b)
{
    union {
        float value;
        uint32_t bits;
    } x = {a}, y = {b}, found = {a / b};
    const int16_t exponent_a = (int16_t)((x.bits >> 23) & 255u);
    const int16_t exponent_b = (int16_t)((y.bits >> 23) & 255u);
    if ((found.bits << 1) >= (uint32_t)1u << 24 || a == 0.0f || exponent_b == 255) {
        return found.value;
    }
    /* Long division in units of 2**-149, the step between floats this small. */
    uint32_t rest = (x.bits & 0x7fffffu) | (exponent_a > 0 ? 0x800000u : 0u);
    uint32_t divisor = (y.bits & 0x7fffffu) | 0x800000u;
    int16_t shift = (int16_t)((exponent_a > 0 ? exponent_a : 1) - exponent_b + 149);
    found.bits = 0u;
    for (; shift < 0 && divisor < (uint32_t)1u << 28; shift++) {
        divisor <<= 1;
    }
    if (rest >= divisor) {
        rest -= divisor;
        found.bits = 1u;
    }
    for (; shift > 0; shift--) {
        rest <<= 1;
        found.bits <<= 1;
        if (rest >= divisor) {
            rest -= divisor;
            found.bits |= 1u;
        }
    }
    rest <<= 1;
    if (rest > divisor || (rest == divisor && (found.bits & 1u) != 0u)) {
        found.bits++;
    }
    found.bits |= (x.bits ^ y.bits) & 0x80000000u;
    return found.value;
}
#else
static inline float quotient(float a, float b)
{
    return a / b;
}
#endif"""
"""In units of 2**-149, by long division; its sign last. Nothing shifts out of 32 bits."""


class Sizes:
    """How small the numbers of a graph can be, other than 0."""

    def __init__(self, graph: Graph) -> None:
        self._graph = graph
        self._least = cache(self._compute)

    def is_normal(self, place: int) -> bool:
        """Whether a quotient is 0 or large enough for a normal float, in any case."""
        return self._least(place) >= 2 * SMALLEST_NORMAL

    def _compute(self, place: int) -> float:
        """The least size other than 0 that a number can have; 0 if that is not known."""
        node = self._graph.nodes[place]
        args = node.args
        match node.op:
            case "const" if isinstance(node.payload, tuple):
                return min((abs(float(value)) for value in node.payload if value), default=inf)
            case "to_float" | "floor":
                return 1.0
            case "neg" | "abs":
                return self._least(args[0])
            case "mul":
                return self._least(args[0]) * self._least(args[1])
            case "min" | "max":
                return min(self._least(args[0]), self._least(args[1]))
            case "select":
                return min(self._least(args[1]), self._least(args[2]))
            case "div":
                return self._least(args[0]) / self._most(args[1])
        return 0.0

    def _most(self, place: int) -> float:
        """The largest size of a divisor: known for constants alone."""
        node = self._graph.nodes[place]
        if node.op == "const" and isinstance(node.payload, tuple):
            return max(abs(float(value)) for value in node.payload)
        return inf
