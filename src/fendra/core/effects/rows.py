"""Rows of colours along a way, for gradients and gauges."""

from __future__ import annotations

from itertools import pairwise

from fendra.core.errors import GraphError
from fendra.core.graph.functions import clamp, palette, ramp, select
from fendra.core.graph.trace import Value


def row_of(
    colours: list[Value], at: list[Value], share: Value, loop: Value, even: Value
) -> Value:  # fmt: skip
    """The colour at a share, 0 to 1, of a row of colours.

    at: the position of each, evenly if empty. loop: the first comes again after the last. Raises
    GraphError if there are not as many positions as colours.
    """
    if at and len(at) != len(colours):
        raise GraphError(f"`at` has {len(at)} places for {len(colours)} colours")
    if at:
        steps = [_step(share, low, high) for low, high in pairwise(at)]
        steps += [select(loop, _step(share, at[-1], share.tracer.const(1.0)), 0.0)]
    else:
        count = len(colours)
        place = share * select(loop, float(count), float(count - 1))
        steps = [clamp(place - float(i)) for i in range(count)]
    ring = [*colours, colours[0]]
    if loop.number == 0:
        ring, steps = ring[:-1], steps[:-1]
    if even.number is not None:
        return palette(ring, steps, even=bool(even.number))
    return select(even, palette(ring, steps, even=True), palette(ring, steps))


def _step(share: Value, low: Value, high: Value) -> Value:
    """The progress of a share between one place and the next; if they are equal, it jumps."""
    if low.number is not None and low.number == high.number:
        return select(share >= low, 1.0, 0.0)
    return ramp(share, low, high)
