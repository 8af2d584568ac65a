"""A switch: on or off, from a contact, a button, a flag, or a number that passes a threshold."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Literal

from fendra.core.document.signal import Signal
from fendra.core.graph.functions import select
from fendra.core.graph.trace import Value
from fendra.core.language.vocabulary import tame
from fendra.core.signals.condition import switched
from fendra.core.signals.kinds import Fed, SignalKind, signal_kind
from fendra.core.signals.raw import number_of


@signal_kind
class SwitchKind(SignalKind):
    """On or off."""

    name = "switch"
    keys = frozenset({"on_at", "off_at", "debounce", "dwell", "hold"})
    is_truth = True
    is_computed = True
    plot = "bars"

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        return {name: number_of(name, raw)}

    def pin(self, signal: Signal) -> Literal["switch", "analogue"]:
        return "analogue" if thresholds(signal) else "switch"

    def recorded(self, fed: Fed) -> Value:
        signal, clock, (first,) = fed.signal, fed.clock, fed.values
        is_on = first > 0.5
        ends = thresholds(signal)
        if ends:
            is_on = clock.threshold(first, *ends)
        fed.raw = is_on & ~fed.is_lost
        is_on = switched(is_on, signal, clock)
        if signal.hold > 0:
            is_on = clock.hold(is_on & ~fed.is_lost, signal.hold)
        return select(fed.is_lost, clock.tracer.const(self.fallback(signal) > 0.5), is_on)

    def wants_truth(self, signal: Signal) -> bool:
        return thresholds(signal) is None

    def computed(self, fed: Fed, value: Value) -> Value:
        signal, clock, ends = fed.signal, fed.clock, thresholds(fed.signal)
        if ends:
            value = clock.threshold(tame(value), *ends)
        fed.raw = value
        value = switched(value, signal, clock)
        return clock.hold(value, signal.hold) if signal.hold > 0 else value

    def remembers(self, signal: Signal) -> bool:
        return bool(thresholds(signal) or signal.hold or signal.dwell or signal.debounce)

    def cases(self, signal: Signal, numbers: Iterable[float]) -> list[float]:  # noqa: ARG002
        return [0.0, 1.0]

    def in_c(self, signal: Signal) -> str:
        return super().in_c(signal) if thresholds(signal) else "on above 0.5"

    def note(self, signal: Signal, name: str, value: float) -> str:  # noqa: ARG002
        return f"{name} on" if value > 0.5 else ""


def thresholds(signal: Signal) -> tuple[float, float] | None:
    """Where a number turns a switch on, and where off again; None where none does.

    >>> thresholds(Signal(kind="switch", on_at=0.6)), thresholds(Signal(kind="switch"))
    ((0.6, 0.6), None)
    """
    on_at = signal.on_at if signal.on_at is not None else signal.off_at
    off_at = signal.off_at if signal.off_at is not None else on_at
    return None if on_at is None or off_at is None else (on_at, off_at)
