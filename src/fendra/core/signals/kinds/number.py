"""A number on a scale: speed, throttle, volts."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise
from typing import Any, Literal

from fendra.core.document.signal import Input, Signal
from fendra.core.graph.ops import LARGEST
from fendra.core.graph.trace import Value
from fendra.core.language.vocabulary import tame
from fendra.core.signals.condition import NUMBER_STEPS, Fed, conditioned
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.raw import number_of

SCALE = frozenset(
    {"range", "calibrate", "curve", "dead_band", "centre", "average", "slew", "smooth"}
)
"""Keys of measured values."""


@signal_kind
class NumberKind(SignalKind):
    """One number."""

    name = "number"
    keys = SCALE | {"cells"}
    of_input = frozenset({"calibrate", "curve", "invert"})
    measures = True
    is_computed = True
    compares = True
    plot = "line"

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        return {name: number_of(name, raw)}

    def pin(self, signal: Signal, given: Input) -> Literal["analogue"]:  # noqa: ARG002
        return "analogue"

    def recorded(self, fed: Fed) -> Value:
        return conditioned(NUMBER_STEPS, fed.values[0], fed)

    def computed(self, fed: Fed, value: Value) -> Value:
        return conditioned(NUMBER_STEPS, tame(value), fed)

    def fallback(self, signal: Signal) -> float:
        return within_range(signal, super().fallback(signal))

    def cases(self, signal: Signal, numbers: Iterable[float]) -> list[float]:
        """Each number, numbers between them, and numbers beyond; within the range."""
        ordered = sorted(numbers)
        found = [*ordered, ordered[0] - 1.0, ordered[-1] + 1.0]
        found += [(a + b) / 2 for a, b in pairwise(ordered)]
        if signal.range is not None:
            low, high = signal.range
            found = [value for value in found if low <= value <= high] + [low, high]
        return found

    def bounds(self, signal: Signal) -> tuple[float, float]:
        return signal.range or (-LARGEST, LARGEST)

    def note(self, signal: Signal, name: str, value: float) -> str:
        unit = f" {signal.unit}" if signal.unit else ""
        return f"{name} {value + 0.0:g}{unit}"


def within_range(signal: Signal, value: float) -> float:
    """A plain number held within a signal's range."""
    low, high = signal.range or (-LARGEST, LARGEST)
    return min(max(value, low), high)
