"""The vocabulary of the expression language: its functions and their arguments."""

from __future__ import annotations

from collections.abc import Callable
from functools import reduce

from fendra.core.errors import GraphError
from fendra.core.graph import functions
from fendra.core.graph.clock import Clock
from fendra.core.graph.ops import LARGEST, Kind
from fendra.core.graph.trace import Value


def tame(value: Value) -> Value:
    """Held to a size that no later arithmetic overflows with; no NaN, no infinity."""
    if value.node.op == "column":
        return value
    return functions.select(abs(value) <= LARGEST, value, 0.0)


def plain(value: Value) -> float:
    """A plain number; anything else is an error."""
    if value.number is None:
        raise GraphError("a plain number is needed here")
    return value.number


OF_CONDITIONS = frozenset(
    {"hold", "since", "toggle", "steps", "debounce", "dwell", "pulse", "starts", "latest",
     "stopwatch"}
)  # fmt: skip
"""Functions whose first value is a condition."""

OF_ANY_NUMBER = frozenset({"min", "max", "latest"})
"""Functions that take any number of values, and the least number of each."""


def truth_of(value: Value, example: str) -> Value:
    """A condition; anything else is an error that shows an example."""
    if value.kind is not Kind.TRUTH:
        raise GraphError(f"a condition is needed here, as in: {example}")
    return value


def _colour_of(value: Value, example: str) -> Value:
    if value.width != 3:
        raise GraphError(f"a colour is needed here, as in: {example}")
    return value


def _number_of(value: Value, what: str) -> Value:
    if value.width != 1:
        raise GraphError(f"{what} is a number, but this is a colour")
    return value


def _even_mix(a: Value, b: Value, share: Value) -> Value:
    example = "even_mix('blue', 'red', 0.5)"
    first, second = (functions.clamp(_colour_of(value, example)) for value in (a, b))
    return functions.even_mix(first, second, _number_of(share, "the share"))


def _shift_hue(colour: Value, degrees: Value) -> Value:
    held = functions.clamp(_colour_of(colour, "shift_hue('orange', 40)"))
    return functions.shift_hue(held, tame(_number_of(degrees, "an angle")))


def _rgb(red: Value, green: Value, blue: Value) -> Value:
    const = red.tracer.const
    for value in (red, green, blue):
        _number_of(value, "a channel")
    units = [const(unit) for unit in ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))]
    held = [functions.clamp(value) for value in (red, green, blue)]
    return held[0] * units[0] + held[1] * units[1] + held[2] * units[2]


def _at_least(value: Value, low: float) -> Value:
    return functions.maximum(value, low)


PLAIN: dict[str, tuple[int, Callable[..., Value]]] = {
    "abs": (1, abs),
    "floor": (1, functions.floor),
    "sqrt": (1, functions.sqrt),
    "min": (2, lambda *values: reduce(functions.minimum, values)),
    "max": (2, lambda *values: reduce(functions.maximum, values)),
    "clamp": (3, lambda x, low, high: functions.minimum(functions.maximum(x, low), high)),
    "mix": (3, functions.mix),
    "ramp": (3, functions.ramp),
    "smooth": (1, lambda x: functions.smooth(functions.clamp(x))),
    "sine": (1, lambda turn: functions.sine(tame(turn))),
    "hue": (1, lambda degrees: functions.hue(tame(_number_of(degrees, "an angle")))),
    "rgb": (3, _rgb),
    "even_mix": (3, _even_mix),
    "shift_hue": (2, _shift_hue),
    "dead_band": (2, lambda x, width: functions.dead_band(x, plain(width))),
}
"""Functions that need neither time nor signals."""

TEXT_COLUMNS = ("line", "part", "name")
"""Columns of the layout that hold a name; expressions compare them with a text."""

PLACE_OF = ("x_of", "y_of", "z_of")
"""Functions that give the place of an LED by its number."""

FUNCTIONS = (
    *PLAIN, *PLACE_OF, "cycle", "lag", "hold", "since", "toggle", "steps", "lost", "distance",
    "peak", "average", "slope", "slew", "switch", "debounce", "dwell", "pulse", "starts", "rate_of",
    "curve", "latest", "stopwatch",
)  # fmt: skip
"""The names of all functions that an expression may call somewhere."""


def timed(clock: Clock) -> dict[str, tuple[int, Callable[..., Value]]]:
    """The functions that need time, by name: how many values each takes, and its meaning."""
    return {
        "cycle": (1, lambda rate: clock.cycle(tame(rate))),
        "lag": (2, lambda x, time_s: clock.lag(tame(x), _at_least(time_s, 0.001))),
        "hold": (2, lambda on, time_s: _hold(clock, on, time_s)),
        "since": (1, lambda on: clock.seconds_since(truth_of(on, "since(brake > 0.5)"))),
        "toggle": (1, lambda on: ~_is_step(clock, on, 2, 0)),
        "steps": (2, lambda on, most: _steps(clock, on, most)),
        "peak": (3, lambda x, hold_s, fall: clock.peak(tame(x), plain(hold_s), tame(fall))),
        "average": (2, lambda x, time_s: clock.average(tame(x), max(plain(time_s), 0.001))),
        "slope": (2, lambda x, time_s: clock.slope(tame(x), _at_least(time_s, 0.001))),
        "slew": (2, lambda x, most: clock.slew(tame(x), _at_least(most, 0.0), most)),
        "switch": (3, lambda x, on, off: clock.threshold(tame(x), plain(on), plain(off))),
        "debounce": (2, lambda on, time_s: clock.debounce(
            truth_of(on, "debounce(button, 0.02)"), plain(time_s))),
        "dwell": (2, lambda on, time_s: clock.dwell(
            truth_of(on, "dwell(lux < 20, 10)"), plain(time_s))),
        "pulse": (2, lambda on, time_s: clock.pulse(
            truth_of(on, "pulse(button, 0.5)"), plain(time_s))),
        "latest": (2, lambda *events: clock.latest(
            [truth_of(event, "latest(left, right)") for event in events])),
        "stopwatch": (2, lambda runs, reset: clock.stopwatch(
            truth_of(runs, "stopwatch(driving, lap)"), truth_of(reset, "stopwatch(driving, lap)"))),
        "starts": (1, lambda on: clock.rises(truth_of(on, "starts(armed)")) & ~clock.first),
    }  # fmt: skip


def _is_step(clock: Clock, on: Value, most: int, step: int) -> Value:
    count = clock.count(truth_of(on, "toggle(button)"), most)
    return clock.tracer.apply("to_float", count) == float(step)


def _steps(clock: Clock, on: Value, most: Value) -> Value:
    if most.number is None or not 1 <= most.number <= 1000:
        raise GraphError("the number of steps must be a plain number from 1 to 1000")
    count = clock.count(truth_of(on, "steps(button, 3)"), int(most.number))
    return clock.tracer.apply("to_float", count)


def _hold(clock: Clock, on: Value, time_s: Value) -> Value:
    if on.kind is not Kind.TRUTH:
        raise GraphError("hold needs a condition, as in: hold(left, 0.8)")
    if time_s.number is None:
        raise GraphError("the time of a hold must be a plain number of seconds")
    return clock.hold(on, time_s.number)
