"""A switch: on or off, from a contact, a button, a flag, or a number that passes a threshold."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Literal

from fendra.core.document.signal import Input, Signal
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Value
from fendra.core.language.vocabulary import tame
from fendra.core.signals.condition import SWITCH_STEPS, Fed, conditioned, thresholds
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.raw import number_of


@signal_kind
class SwitchKind(SignalKind):
    """On or off."""

    name = "switch"
    keys = frozenset({"on_at", "off_at", "debounce", "dwell", "hold"})
    of_input = frozenset({"on_at", "off_at", "invert"})
    is_truth = True
    is_computed = True
    plot = "bars"

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        return {name: number_of(name, raw)}

    def pin(self, signal: Signal, given: Input) -> Literal["switch", "analogue"]:
        return "analogue" if thresholds(signal) or thresholds(given) else "switch"

    def recorded(self, fed: Fed) -> Value:
        return conditioned(SWITCH_STEPS, fed.values[0], fed)

    def wants_truth(self, signal: Signal) -> bool:
        return thresholds(signal) is None

    def computed(self, fed: Fed, value: Value) -> Value:
        return conditioned(SWITCH_STEPS, value if value.kind is Kind.TRUTH else tame(value), fed)

    def remembers(self, signal: Signal) -> bool:
        return bool(thresholds(signal) or signal.hold or signal.dwell or signal.debounce)

    def cases(self, signal: Signal, numbers: Iterable[float]) -> list[float]:  # noqa: ARG002
        return [0.0, 1.0]

    def in_c(self, signal: Signal) -> str:
        return super().in_c(signal) if thresholds(signal) else "on above 0.5"

    def note(self, signal: Signal, name: str, value: float) -> str:  # noqa: ARG002
        return f"{name} on" if value > 0.5 else ""
