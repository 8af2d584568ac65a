"""Doors: they turn the values of one input into values of its signal. Every input has its own.

A door comes before all steps of condition.py. It takes a raw number of the input, such as the
voltage at a pin as a share of full scale. It gives a raw number of the signal, as tapes and calls
have it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, TypeAlias

import numpy as np

from fendra.core.document.signal import Input, Signal
from fendra.core.signals.condition import thresholds
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.raw import number_of

Points: TypeAlias = tuple[tuple[float, float], ...]

INPUT_STEPS = (
    (("invert",), "reverses it"),
    (("calibrate", "curve"), "turns raw values into values of the signal's scale"),
    (("on_at", "off_at"), "turns a number into a switch"),
    (("bands",), "turns a number into a word of a choice"),
)
"""The steps for an input, before the steps of its signal, in this order: keys and purpose."""


@dataclass(frozen=True)
class Scaled:
    """Follow straight lines between points (raw, value). goes_on: also beyond the outer ones."""

    points: Points
    goes_on: bool

    def take(self, raw: float, before: float) -> float:  # noqa: ARG002
        """The value at a raw number.

        >>> Scaled(((0.0, 20.0), (0.5, 100.0)), True).take(0.25, 0.0)
        60.0
        """
        points = self.points
        if not self.goes_on and not points[0][0] < raw < points[-1][0]:
            return points[0][1] if raw <= points[0][0] else points[-1][1]
        (x0, y0), (x1, y1) = next(
            (pair for pair in pairwise(points) if raw < pair[1][0]), points[-2:]
        )
        return y0 + (raw - x0) * (y1 - y0) / (x1 - x0)


@dataclass(frozen=True)
class Switched:
    """A switch that a number turns on and off at the limits; between them nothing changes.

    ends: where it turns on, and off. on, off: the signal's numbers for both.
    """

    ends: tuple[float, float]
    on: float = 1.0
    off: float = 0.0

    def take(self, raw: float, before: float) -> float:
        """The number for on or for off.

        >>> Switched((0.7, 0.4)).take(0.5, 1.0), Switched((0.7, 0.4)).take(0.5, 0.0)
        (1.0, 0.0)
        """
        on_at, off_at = self.ends
        was_on = (before > self.middle) == (self.on > self.off)
        if on_at >= off_at:
            is_on = raw > on_at or (was_on and raw >= off_at and on_at != off_at)
        else:
            is_on = raw < on_at or (was_on and raw <= off_at)
        return self.on if is_on else self.off

    @property
    def middle(self) -> float:
        """Between the numbers for on and off."""
        return (self.on + self.off) / 2


@dataclass(frozen=True)
class Banded:
    """The number of the word whose band a number lies in; each begins at one of `begins`
    but for the first.
    """

    begins: tuple[float, ...]
    numbers: tuple[float, ...]

    def take(self, raw: float, before: float) -> float:  # noqa: ARG002
        """The number of the word.

        >>> Banded((0.33, 0.66), (0.0, 1.0, 5.0)).take(0.7, 0.0)
        5.0
        """
        return self.numbers[sum(raw >= start for start in self.begins)]


Door: TypeAlias = Scaled | Switched | Banded


def door_of(signal: Signal, given: Input) -> Door | None:
    """The door of one input; None if the input already has the signal's scale.

    >>> throttle = Signal(range=(0, 100), calibrate=(400, 3600))
    >>> door_of(throttle, Input(calibrate=(0, 1))).take(0.5, 0.0)
    2000.0
    """
    kind = kind_of(signal)
    if given.bands:
        numbers = tuple(float(number) for number in signal.numbers.values())
        return Banded(tuple(given.bands), numbers) if len(numbers) == len(given.bands) + 1 else None
    if not kind.measures:
        return _switched(signal, given)
    points = _points(signal, given)
    if points is None:
        return None
    own = Scaled(points, goes_on=not given.curve)
    return _before_curve(own, signal.curve) if signal.curve else own


def on_and_off(signal: Signal) -> tuple[float, float]:
    """The numbers that a switch takes for on and for off: 1 and 0, or numbers beyond its limits.

    >>> on_and_off(Signal(kind="switch", on_at=20, off_at=40))
    (19.0, 41.0)
    """
    ends = thresholds(signal)
    if ends is None:
        return 1.0, 0.0
    away = 1.0 if ends[0] >= ends[1] else -1.0
    return ends[0] + away, ends[1] - away


def _switched(signal: Signal, given: Input) -> Switched | None:
    """Of a switch or an event; None if the input is as the signal takes it."""
    own, of_signal = thresholds(given), thresholds(signal)
    if own is None and not given.invert:
        return None
    on, off = on_and_off(signal)
    if given.invert:
        on, off = off, on
    return Switched(own or of_signal or (0.5, 0.5), on, off)


def _points(signal: Signal, given: Input) -> Points | None:
    """Raw values of the input, ascending, and the signal's value for each."""
    low, high = signal.scale or (0.0, 1.0)
    if given.curve:
        points = [(raw, value) for raw, value in given.curve]
    elif given.calibrate is not None:
        points = sorted([(given.calibrate[0], low), (given.calibrate[1], high)])
    elif given.invert:
        first, last = signal.calibrate or (low, high)
        return tuple(sorted([(first, last), (last, first)]))
    else:
        return None
    if given.invert:
        points = [(raw, low + high - value) for raw, value in points]
    if signal.calibrate is not None:  # the signal will turn it into its scale
        first, last = signal.calibrate
        share = (last - first) / (high - low)
        points = [(raw, first + (value - low) * share) for raw, value in points]
    return tuple(points)


def is_one_way(points: Sequence[tuple[float, float]]) -> bool:
    """Whether a curve only rises, or only falls, so that each value has its own raw number."""
    steps = [b[1] - a[1] for a, b in pairwise(points)]
    return min(steps) > 0 or max(steps) < 0


def _before_curve(own: Scaled, points: Sequence[tuple[float, float]]) -> Scaled:
    """The raw number from which the signal's curve makes the input's value.

    >>> own = Scaled(((0.0, 0.0), (1.0, 10.0)), True)
    >>> _before_curve(own, [(100, 0), (200, 2), (300, 10)]).take(0.6, 0.0)
    250.0
    """
    back = Scaled(tuple(sorted((value, raw) for raw, value in points)), goes_on=False)
    knots = [value for value, _ in back.points]
    raws = {raw for raw, _ in own.points}
    for (x0, y0), (x1, y1) in pairwise(own.points):
        if y0 != y1:
            there = [x0 + (knot - y0) * (x1 - x0) / (y1 - y0) for knot in knots]
            raws |= {x for x in there if own.goes_on or x0 <= x <= x1}
    ordered = sorted(raws)
    return Scaled(tuple((x, back.take(own.take(x, 0.0), 0.0)) for x in ordered), goes_on=False)


def through(door: Door | None, name: str, raw: Any, before: float) -> Any:
    """Turn a raw value of an input into one of its signal. before: the number before.

    Raises SignalError if a number is needed and the value is not one.
    """
    if door is None or raw is None:
        return raw
    if isinstance(raw, (Sequence, np.ndarray)) and not isinstance(raw, str):
        return [through(door, name, item, before) for item in raw]
    number = number_of(name, raw)
    return number if math.isnan(number) else door.take(number, before)
