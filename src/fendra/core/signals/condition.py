"""Conditioning: from raw values to the values that layers read, step by step, in the graph.

`STEPS` has the steps in their order; door.py has the steps of an input, which come before them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field

from fendra.core.document.signal import Input, Signal
from fendra.core.graph.clock import Clock
from fendra.core.graph.functions import clamp, curve, dead_band, floor, packed_colour, select
from fendra.core.graph.ops import LARGEST, Kind
from fendra.core.graph.trace import Value
from fendra.core.light.colours import is_colour, parse_colour

FULL_CELL_V = 4.25
"""The volts of a full lithium cell, plus the error of a meter."""
LEAST_PACK_V = 2.0
"""Below this voltage no pack is connected, and no cells are guessed."""


@dataclass
class Fed:
    """A signal while it is recorded.

    values: of the numbers that feed it, in the order of `SignalKind.parts`. news: whether they
    arrived with this frame. fallback: its value while it is lost; None if it is computed. parts:
    what expressions may name beside the signal, such as `hit.x`. raw: for a switch whether it is on
    just now, before `hold`.
    """

    name: str
    signal: Signal
    clock: Clock
    news: Value
    is_lost: Value
    values: list[Value] = field(default_factory=list)
    fallback: Value | None = None
    parts: dict[str, Value] = field(default_factory=dict)
    raw: Value | None = None

    def label(self, value: Value, ending: str) -> None:
        """Give a value a name in the emitted C."""
        self.clock.tracer.label(value, f"{self.name}{ending}")


@dataclass(frozen=True)
class ConditionStep:
    """A step of conditioning: the keys that turn it on, and its function; `what` is for people."""

    keys: tuple[str, ...]
    what: str
    do: Callable[[Value, Fed], Value]


def conditioned(steps: Iterable[ConditionStep], value: Value, fed: Fed) -> Value:
    """A value after some steps, in their order."""
    for step in steps:
        value = step.do(value, fed)
    return value


def _calibrated(value: Value, fed: Fed) -> Value:
    signal = fed.signal
    if signal.calibrate is not None:
        (low, high), (first, last) = signal.scale or (0.0, 1.0), signal.calibrate
        return (value - first) * ((high - low) / (last - first)) + low
    return curve(value, signal.curve) if signal.curve else value


def _per_cell(volts: Value, fed: Fed) -> Value:
    """The voltage of a cell; the number of cells is guessed from the first value of a pack."""
    cells, tracer = fed.signal.cells, fed.clock.tracer
    if cells is None:
        return volts
    if isinstance(cells, int):
        return volts / float(cells)
    before = tracer.state(tracer.fresh_name("cells"), 0.0, Kind.FLOAT)
    guess = select(fed.news & (volts > LEAST_PACK_V), floor(volts / FULL_CELL_V) + 1.0, 0.0)
    now = select(fed.is_lost, 0.0, select(before > 0.5, before, guess))
    tracer.remember(before, now)
    tracer.label(now, "cells")
    return volts / now


def _within_range(value: Value, fed: Fed) -> Value:
    return clamp(value, *fed.signal.range) if fed.signal.range is not None else value


def _without_middle(value: Value, fed: Fed) -> Value:
    """A dead band round the middle; the ends of the range stay where they are."""
    signal = fed.signal
    width, centre = signal.dead_band, signal.centre
    if width <= 0:
        return value
    moved = dead_band(value, width, centre)
    if signal.range is None:
        return moved
    low, high = signal.range
    up = (high - centre) / max(high - centre - width, 1e-6)
    down = (centre - low) / max(centre - low - width, 1e-6)
    away = moved - centre
    return away * select(away > 0.0, up, down) + centre


def _or_fallback(value: Value, fed: Fed) -> Value:
    if fed.fallback is not None:
        value = select(fed.is_lost, fed.fallback, value)
    if fed.signal.average or fed.signal.slew or fed.signal.smooth:
        fed.label(value, "_raw")
    return value


def _averaged(value: Value, fed: Fed) -> Value:
    average_s = fed.signal.average
    return fed.clock.average(value, max(average_s, 0.001)) if average_s > 0 else value


def _slewed(value: Value, fed: Fed) -> Value:
    up, down = up_down(fed.signal.slew)
    return fed.clock.slew(value, up or LARGEST, down or LARGEST) if up > 0 or down > 0 else value


def _followed(value: Value, fed: Fed) -> Value:
    rise_s, fall_s = up_down(fed.signal.smooth)
    return fed.clock.follow(value, rise_s, fall_s) if rise_s > 0 or fall_s > 0 else value


NUMBER_STEPS = (
    ConditionStep(("calibrate", "curve"), "turns raw values into values of the scale", _calibrated),
    ConditionStep(("cells",), "turns the pack's voltage into that of one cell", _per_cell),
    ConditionStep(("range",), "holds values within it", _within_range),
    ConditionStep(
        ("dead_band", "centre"), "values close to `centre` become `centre`", _without_middle
    ),
    ConditionStep(("fallback",), "replaces the value while the signal is lost", _or_fallback),
    ConditionStep(("average",), "takes a moving average", _averaged),
    ConditionStep(("slew",), "limits how quickly it changes", _slewed),
    ConditionStep(("smooth",), "follows it with a time constant", _followed),
)
"""The steps for a number, and for each number of a vector, in this order."""


def _debounced(is_on: Value, fed: Fed) -> Value:
    debounce_s = fed.signal.debounce
    return fed.clock.debounce(is_on, debounce_s) if debounce_s > 0 else is_on


def _dwelt(is_on: Value, fed: Fed) -> Value:
    return fed.clock.dwell(is_on, fed.signal.dwell) if fed.signal.dwell > 0 else is_on


def _held(is_on: Value, fed: Fed) -> Value:
    if fed.signal.hold <= 0:
        return is_on
    is_there = is_on if fed.fallback is None else is_on & ~fed.is_lost
    return fed.clock.hold(is_there, fed.signal.hold)


def _on_or_fallback(is_on: Value, fed: Fed) -> Value:
    return is_on if fed.fallback is None else select(fed.is_lost, fed.fallback, is_on)


def _switched(value: Value, fed: Fed) -> Value:
    ends = thresholds(fed.signal)
    if ends:
        value = fed.clock.threshold(value, *ends)
    elif value.kind is not Kind.TRUTH:
        value = value > 0.5
    fed.raw = value if fed.fallback is None else value & ~fed.is_lost
    return value


SWITCH_STEPS = (
    ConditionStep(("on_at", "off_at"), "turns a number into a switch", _switched),
    ConditionStep(("debounce",), "counts a change after it has lasted", _debounced),
    ConditionStep(("dwell",), "keeps it on, or off, for a minimum time", _dwelt),
    ConditionStep(("hold",), "keeps it on for a time after", _held),
    ConditionStep(("fallback",), "replaces the value while the signal is lost", _on_or_fallback),
)
"""The steps for a switch, in this order."""


def thresholds(signal: Signal | Input) -> tuple[float, float] | None:
    """Where a number turns a switch on, and where off again; None if none does.

    >>> thresholds(Signal(kind="switch", on_at=0.6)), thresholds(Signal(kind="switch"))
    ((0.6, 0.6), None)
    """
    on_at = signal.on_at if signal.on_at is not None else signal.off_at
    off_at = signal.off_at if signal.off_at is not None else on_at
    return None if on_at is None or off_at is None else (on_at, off_at)


def up_down(setting: float | tuple[float, float]) -> tuple[float, float]:
    """A setting for rising and for falling."""
    return setting if isinstance(setting, tuple) else (setting, setting)


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
