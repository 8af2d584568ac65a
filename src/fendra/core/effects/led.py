"""The input and result of an effect: the spots, their clock, and their look."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.errors import GraphError
from fendra.core.graph.clock import Clock
from fendra.core.graph.functions import to_uint
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Operand, Tracer, Value
from fendra.core.layout.space import Space
from fendra.core.layout.views import View


@dataclass(frozen=True)
class Look:
    """The result of an effect.

    colour: linear light, a value of width 3 or three numbers, each 0 to 1. cover: how much of the
    layers below it hides, 0 to 1; a condition is 1 where it holds.
    """

    colour: Operand | Sequence[float]
    cover: Operand


def _column(name: str, about: str) -> Any:
    def read(led: Led) -> Value:
        return led.column(name)

    return property(read, doc=about)


@dataclass(frozen=True)
class Beat:
    """The beat that layers share. start: true in the frames in which it starts again; None if it
    runs from power-up.
    """

    start: Value | None


class Led:
    """The spots that an effect runs on, all at once."""

    def __init__(
        self, tracer: Tracer, clock: Clock, space: Space, on: Value, beat: Beat | None = None
    ) -> None:
        self._tracer = tracer
        self._clock = clock
        self._space = space
        self._on = on
        self._beat = beat
        self._start: Value | None = None
        self.ranks = space.choice.ranks

    x = _column("x", "Place to the right, in the design's unit.")
    y = _column("y", "Place forward.")
    z = _column("z", "Place up.")
    index = _column("index", "Place in the part, from 0.")
    along = _column("along", "Place on the layer's trail, 0 to 1.")
    rank = _column("rank", "Place in the trail's order, from 0, of `ranks`.")
    across = _column("across", "Place from left, 0, to right, 1, as the spots are seen best.")
    up = _column("up", "Place from below, 0, to above, 1, as the spots are seen best.")
    angle = _column("angle", "Degrees round their middle, from the right, counter-clockwise.")
    radius = _column("radius", "Distance from their middle, in the design's unit.")
    of_part = _column("of_part", "Which of the layer's parts it is on, from 0.")

    @property
    def count(self) -> int:
        """How many spots there are."""
        return len(self._space)

    @property
    def number(self) -> Value:
        """Each spot's own unsigned number, from 0."""
        return self._tracer.column("number", self._space.name, Kind.UINT)

    @property
    def view(self) -> View:
        """The side from which the spots are seen best."""
        return self._space.view

    @property
    def flat(self) -> Floats:
        """Where each spot is as it is seen, in the design's unit: (n, 2), to the right and up."""
        return self._space.flat

    @property
    def pitch(self) -> float:
        """The usual distance from spot to spot, in the design's unit."""
        return self._space.pitch

    def middle(self, axis: int) -> Value:
        """The middle of all spots on an axis, x to z as 0 to 2, in the design's unit."""
        return self.const(self._space.middle[axis])

    def column(self, name: str) -> Value:
        """A column of the layer, by its name."""
        return self._tracer.column(name, self._space.name)

    def fixed(self, name: str, values: Any) -> Value:
        """A number for each spot that was worked out beforehand: (n,)."""
        array = np.asarray(values, np.float64)
        if array.shape != (len(self._space),):
            raise GraphError(f"'{name}' has shape {array.shape}, for {len(self._space)} LEDs")
        key = f"{name}.{len(self._space.extra)}"
        self._space.extra[key] = array
        return self._tracer.column(key, self._space.name)

    @property
    def start(self) -> Value:
        """True in the one frame in which the layer comes on, or its rhythm starts again."""
        if self._start is None:
            beat = self._beat
            begins = self._clock.rises(self._on) if beat is None else beat.start
            self._start = self.const(False) if begins is None else begins
        return self._start

    def const(self, value: float | bool | Sequence[float]) -> Value:
        """A plain number, or the three of a colour, as a value."""
        return self._tracer.const(value)

    def uint(self, value: Operand) -> Value:
        """A number as the nearest unsigned integer."""
        return to_uint(self._tracer.lift(value, Kind.FLOAT))

    def apply(self, operation: str, *args: Operand) -> Value:
        """An operation of the table, by name."""
        return self._tracer.apply(operation, *args)

    def label(self, **values: Value) -> None:
        """Say what values are called in the C that is emitted; they may go without."""
        for name, value in values.items():
            self._tracer.label(value, name)

    def cycle(self, rate_hz: Operand) -> Value:
        """A phase from 0 up to 1, the same for every layer with this rate and rhythm."""
        return self.turns(rate_hz)[1]

    def cycle_from_start(self, rate_hz: Operand) -> Value:
        """A phase from 0 up to 1 that is 0 when the layer comes on, or its rhythm starts again."""
        return self.cycle(rate_hz) if self._beat else self._clock.cycle(rate_hz, self.start)

    def turns(self, rate_hz: Operand) -> tuple[Value, Value]:
        """How many whole turns have passed, unsigned, and the phase from 0 up to 1."""
        return self._clock.turns(rate_hz, self._beat.start if self._beat else None)

    def elapsed_ms(self, period_ms: Operand, lead_ms: float = 0.0) -> Value:
        """Milliseconds since the layer, or its rhythm, started; from 0 again after each period.

        lead_ms: it starts this far below 0, if the period is constant.
        """
        return self._clock.elapsed_ms(period_ms, self.start, lead_ms)

    def steps(self, step_ms: Operand, start: Value, most: int) -> Value:
        """How many steps have passed since `start` was last true: a whole number up to `most`,
        and `most` before it ever was. A step that changes makes no jump.
        """
        return self._clock.steps(step_ms, start, most)

    def rises(self, on: Value) -> Value:
        """True in the one frame in which `on` becomes true."""
        return self._clock.rises(on)

    def before(self, on: Value) -> Value:
        """Whether `on` was true in the frame before."""
        return self._clock.before(on)

    def begins_anew(self, phase: Value) -> Value:
        """True in the one frame in which a phase, or a repeating time, starts again, or the layer
        comes on.
        """
        return self.start | (phase < self._clock.earlier(phase))

    def ms_since(self, event: Value) -> Value:
        """Milliseconds, as a number, since `event` was last true; very many if it never was."""
        return self._tracer.apply("to_float", self._clock.since_ms(event, 0x7FFF_FFFF))

    def caught(self, event: Value, value: Value) -> Value:
        """The value of a number of the frame when `event` was last true; 0 before that."""
        return self._clock.caught(event, value)

    def count_of(self, event: Value, most: int) -> Value:
        """How often `event` became true, as a number from 0, beginning again at `most`."""
        return self._tracer.apply("to_float", self._clock.count(event, most))

    def recent(
        self, event: Value, values: Sequence[Value], slots: int = 8
    ) -> list[tuple[Value, list[Value]]]:
        """The newest moments in which `event` became true: for each the milliseconds since, and the
        values at that moment.
        """
        return [
            (self._tracer.apply("to_float", age_ms), caught)
            for age_ms, caught in self._clock.recent(event, values, slots)
        ]

    def peak(self, value: Value, hold_s: float, fall: Operand) -> Value:
        """The highest that a number of the frame was: it stays, then falls by `fall` a second."""
        return self._clock.peak(value, hold_s, fall)

    def remembered(
        self, start: float, following: Callable[[Value], Value], *, whole: bool = False
    ) -> Value:
        """A number that is computed from its value in the frame before.

        start: its value before the first frame. whole: it is an unsigned integer.
        """
        kind = Kind.UINT if whole else Kind.FLOAT
        before = self._tracer.state(self._tracer.fresh_name("kept"), start, kind)
        now = following(before)
        self._tracer.remember(before, now)
        return now

    def remembered_together(
        self, starts: Sequence[float], following: Callable[..., Sequence[Value]]
    ) -> list[Value]:
        """Numbers that are computed from the values of all of them in the frame before.

        starts: their values before the first frame.
        """
        tracer = self._tracer
        before = [tracer.state(tracer.fresh_name("kept"), start, Kind.FLOAT) for start in starts]
        now = [*following(*before)]
        for cell, value in zip(before, now, strict=True):
            tracer.remember(cell, value)
        return now

    @property
    def dt_ms(self) -> Value:
        """Milliseconds since the frame before, unsigned; 0 in the first."""
        return self._clock.dt_ms

    @property
    def first(self) -> Value:
        """True in the very first frame."""
        return self._clock.first
