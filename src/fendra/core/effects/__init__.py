"""Effects, one a file: functions from spots, time and parameters to light.

An effect is a function of `led` (the spots: their columns and their clock) and of its
parameters, each with a default that says its unit and range. It gives a `Look`.

To add one, write a file with a function like `blink` in blink.py, marked with `@effect`.
"""

from __future__ import annotations

import inspect
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, TypeAlias

from fendra.core.graph.clock import Clock
from fendra.core.graph.trace import Operand, Tracer, Value
from fendra.core.registry import Registry

ParameterKind: TypeAlias = Literal["number", "colour", "truth"]


@dataclass(frozen=True)
class Parameter:
    """One parameter of an effect: what it is, its default, unit and range."""

    kind: ParameterKind
    default: float | str | bool
    unit: str = ""
    low: float = 0.0
    high: float = 1.0
    about: str = ""


def number(default: float, unit: str, low: float, high: float, about: str) -> Any:
    """A number in `unit`, held between `low` and `high`."""
    return Parameter("number", default, unit, low, high, about)


def colour(default: str, about: str) -> Any:
    """A colour: `#rrggbb`, a CSS name, or an expression that gives one."""
    return Parameter("colour", default, about=about)


def truth(default: bool, about: str) -> Any:
    """A condition: true, false, or an expression."""
    return Parameter("truth", default, about=about)


@dataclass(frozen=True)
class Look:
    """What an effect gives for its spots.

    colour: linear light, width 3, each 0 to 1.
    cover: how much of what is beneath it hides, 0 to 1.
    """

    colour: Value
    cover: Value


class Led:
    """The spots that an effect runs on, all at once.

    x, y, z: mm. along: 0 to 1 on the layer's trail. rank: place in the trail's order,
    from 0, of `ranks`. index: place in the part.
    """

    def __init__(self, tracer: Tracer, clock: Clock, space: str, ranks: int, on: Value) -> None:
        self._tracer = tracer
        self._clock = clock
        self._space = space
        self._on = on
        self._start: Value | None = None
        self.ranks = ranks

    @property
    def x(self) -> Value:
        return self._tracer.column("x", self._space)

    @property
    def y(self) -> Value:
        return self._tracer.column("y", self._space)

    @property
    def z(self) -> Value:
        return self._tracer.column("z", self._space)

    @property
    def index(self) -> Value:
        return self._tracer.column("index", self._space)

    @property
    def along(self) -> Value:
        return self._tracer.column("along", self._space)

    @property
    def rank(self) -> Value:
        return self._tracer.column("rank", self._space)

    @property
    def start(self) -> Value:
        """True in the one frame in which the layer comes on."""
        if self._start is None:
            self._start = self._clock.rises(self._on)
        return self._start

    def const(self, value: float) -> Value:
        """A plain number as a value."""
        return self._tracer.const(value)

    def label(self, **values: Value) -> None:
        """Say what values are called in the C that is emitted; they may go without."""
        for name, value in values.items():
            self._tracer.label(value, name)

    def cycle(self, rate_hz: Operand) -> Value:
        """A phase from 0 up to 1, the same for every layer with this rate."""
        return self._clock.cycle(rate_hz)

    def cycle_from_start(self, rate_hz: Operand) -> Value:
        """A phase from 0 up to 1 that is 0 when the layer comes on."""
        return self._clock.cycle(rate_hz, self.start)

    def elapsed_ms(self, period_ms: Operand) -> Value:
        """Milliseconds since the layer came on, beginning again after each period."""
        return self._clock.elapsed_ms(period_ms, self.start)


@dataclass(frozen=True)
class Effect:
    """A registered effect."""

    name: str
    draw: Callable[..., Look]
    parameters: dict[str, Parameter]

    @property
    def about(self) -> str:
        """What it looks like and when one uses it."""
        return inspect.getdoc(self.draw) or ""


EFFECTS: Registry[Effect] = Registry("fendra.core.effects", "fendra.effects")


def effect(draw: Callable[..., Look]) -> Callable[..., Look]:
    """Register an effect under its function's name."""
    given = list(inspect.signature(draw).parameters.values())[1:]
    parameters = {item.name: item.default for item in given}
    wrong = [name for name, item in parameters.items() if not isinstance(item, Parameter)]
    if wrong:
        raise TypeError(
            f"effect '{draw.__name__}': {wrong[0]} needs a default of number(...), "
            "colour(...) or truth(...)"
        )
    EFFECTS.add(draw.__name__, Effect(draw.__name__, draw, parameters))
    return draw
