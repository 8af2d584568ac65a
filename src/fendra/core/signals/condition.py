"""Conditioning: from what comes in to what layers read, step after step, in the graph.

A number goes through: battery cells; calibration or curve; range; dead band; fallback; moving
average; slew; time constants. A switch through: threshold; debounce; dwell; hold.
"""

from __future__ import annotations

from fendra.core.document.signal import Signal
from fendra.core.graph.clock import Clock
from fendra.core.graph.functions import clamp, curve, dead_band, floor, packed_colour, select
from fendra.core.graph.ops import LARGEST, Kind
from fendra.core.graph.trace import Value
from fendra.core.light.colours import is_colour, parse_colour

FULL_CELL_V = 4.25
"""A lithium cell at full charge, and what a meter may be wrong by."""
LEAST_PACK_V = 2.0
"""Below this no pack is connected, and nothing is guessed."""


def up_down(setting: float | tuple[float, float]) -> tuple[float, float]:
    """A setting for rising and for falling."""
    return setting if isinstance(setting, tuple) else (setting, setting)


def measured(raw: Value, news: Value, is_lost: Value, signal: Signal, clock: Clock) -> Value:
    """A raw number as a value of the signal: cells, calibration or curve, range, dead band."""
    value = raw
    if signal.cells is not None:
        value = _per_cell(value, news, is_lost, signal.cells, clock)
    if signal.calibrate is not None:
        low, high = signal.range or (0.0, 1.0)
        first, last = signal.calibrate
        value = (value - first) * ((high - low) / (last - first)) + low
    elif signal.curve:
        value = curve(value, signal.curve)
    if signal.range is not None:
        value = clamp(value, *signal.range)
    if signal.dead_band > 0:
        value = _without_middle(value, signal)
    return value


def _per_cell(
    volts: Value, news: Value, is_lost: Value, cells: int | str, clock: Clock
) -> Value:  # fmt: skip
    """The voltage of a cell; how many there are is guessed once, when a pack is first heard of."""
    if isinstance(cells, int):
        return volts / float(cells)
    tracer = clock.tracer
    before = tracer.state(tracer.fresh_name("cells"), 0.0, Kind.FLOAT)
    guess = select(news & (volts > LEAST_PACK_V), floor(volts / FULL_CELL_V) + 1.0, 0.0)
    now = select(is_lost, 0.0, select(before > 0.5, before, guess))
    tracer.remember(before, now)
    tracer.label(now, "cells")
    return volts / now


def _without_middle(value: Value, signal: Signal) -> Value:
    """A dead band round the middle; the ends of the range stay where they are."""
    width, centre = signal.dead_band, signal.centre
    moved = dead_band(value, width, centre)
    if signal.range is None:
        return moved
    low, high = signal.range
    up = (high - centre) / max(high - centre - width, 1e-6)
    down = (centre - low) / max(centre - low - width, 1e-6)
    away = moved - centre
    return away * select(away > 0.0, up, down) + centre


def settled(value: Value, signal: Signal, clock: Clock) -> Value:
    """A value over time: moving average, slew, time constants."""
    if signal.average > 0:
        value = clock.average(value, max(signal.average, 0.001))
    up, down = up_down(signal.slew)
    if up > 0 or down > 0:
        value = clock.slew(value, up or LARGEST, down or LARGEST)
    rise_s, fall_s = up_down(signal.smooth)
    if rise_s > 0 or fall_s > 0:
        value = clock.follow(value, rise_s, fall_s)
    return value


def switched(is_on: Value, signal: Signal, clock: Clock) -> Value:
    """A switch over time: debounce, dwell."""
    if signal.debounce > 0:
        is_on = clock.debounce(is_on, signal.debounce)
    if signal.dwell > 0:
        is_on = clock.dwell(is_on, signal.dwell)
    return is_on


def coloured(packed: Value, is_lost: Value, signal: Signal, clock: Clock) -> Value:
    """A colour in one number as linear light, its fallback while it is lost, smoothed."""
    tracer = clock.tracer
    colour = select(is_lost, tracer.const(fallback_colour(signal)), packed_colour(packed))
    return faded(colour, signal, clock)


def faded(colour: Value, signal: Signal, clock: Clock) -> Value:
    """A colour, each channel followed with the signal's time constants."""
    rise_s, fall_s = up_down(signal.smooth)
    if rise_s <= 0 and fall_s <= 0:
        return colour
    tracer = clock.tracer
    found = tracer.const((0.0, 0.0, 0.0))
    for number, unit in enumerate(((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))):
        channel = clock.follow(tracer.channel(colour, number), rise_s, fall_s)
        found = found + channel * tracer.const(unit)
    return found


def fallback_colour(signal: Signal) -> tuple[float, float, float]:
    """The colour of a colour or picture while it is lost, linear; black if it says none."""
    is_one = isinstance(signal.fallback, str) and is_colour(signal.fallback)
    return parse_colour(str(signal.fallback)) if is_one else (0.0, 0.0, 0.0)
