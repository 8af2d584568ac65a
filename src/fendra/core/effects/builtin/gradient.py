"""From colour to colour."""

from __future__ import annotations

from itertools import pairwise

from fendra.core.effects import Led, Look, colours, effect, number, numbers, place, truth
from fendra.core.errors import GraphError
from fendra.core.graph.functions import clamp, fraction, palette, ramp, select, to_and_fro
from fendra.core.graph.trace import Value


@effect(family="steady")
def gradient(
    led: Led,
    colours: list[Value] = colours(["blue", "red"], "from the first to the last"),
    at: list[Value] = numbers([], "", 0.0, 1.0, "where each colour stands; evenly, if not given"),
    by: Value = place("along", "the way that they go"),
    rate: Value = number(0.0, "Hz", 0.0, 20.0, "runs of the colours along the way"),
    loop: Value = truth(False, "the last colour turns into the first; else they go there and back"),
    even: Value = truth(False, "mixed by even steps to the eye (Oklab); else in linear light"),
) -> Look:
    """Colours that turn one into the next: along the trail, across (`by = "x"`), round (`by =
    "angle"`) or out from a point (`by = "distance(0, 200)"`).

    At a rate above 0 they drift along the way without a seam: there and back or, with `loop`, on
    and on in one direction. The background of most designs.
    """
    if rate.number == 0:
        share = by
    else:
        drift = led.cycle(rate)
        once = to_and_fro(fraction(by * 0.5 + 1.0 - drift))
        share = select(loop, fraction(by + 1.0 - drift), once)
        led.label(drift=drift)
    led.label(way=share)
    return Look(row_of(colours, at, share, loop, even), led.const(1.0))


def row_of(
    colours: list[Value], at: list[Value], share: Value, loop: Value, even: Value
) -> Value:  # fmt: skip
    """The colour at a share, 0 to 1, of a row of colours.

    at: where each stands, evenly if empty. loop: behind the last one the first comes again.
    Raises GraphError where there are not as many places as colours.
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
    """How far a share has come from one place to the next; where they are equal, at once."""
    if low.number is not None and low.number == high.number:
        return select(share >= low, 1.0, 0.0)
    return ramp(share, low, high)
