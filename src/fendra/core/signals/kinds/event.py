"""An event: something that happens, how strong, and where."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, Literal

from fendra.core.document.signal import Input, Signal
from fendra.core.errors import SignalError
from fendra.core.graph.trace import Value
from fendra.core.signals.condition import Fed
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.raw import Event, number_of


@signal_kind
class EventKind(SignalKind):
    """A moment, with a strength and a place."""

    name = "event"
    is_truth = True
    is_moment = True
    plot = "ticks"

    def parts(self, signal: Signal, name: str) -> tuple[str, ...]:  # noqa: ARG002
        return (name, *(f"{name}.{axis}" for axis in "xyz"))

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        if isinstance(raw, Event):
            raw = vars(raw)
        if not isinstance(raw, Mapping):
            return {name: number_of(name, raw)}
        known = {"strength", "x", "y", "z"}
        if not {*raw} <= known:
            wrong = ", ".join(sorted(map(str, {*raw} - known)))
            raise SignalError(f"event '{name}' has strength, x, y and z, and no {wrong:.60}")
        found = {name: number_of(name, raw.get("strength", 1.0))}
        return found | {f"{name}.{axis}": number_of(name, raw.get(axis, 0.0)) for axis in "xyz"}

    def pin(self, signal: Signal, given: Input) -> Literal["switch"]:  # noqa: ARG002
        return "switch"

    def recorded(self, fed: Fed) -> Value:
        strength, *place = fed.values
        fed.parts = {f"{fed.name}.{axis}": at for axis, at in zip("xyz", place, strict=True)}
        fed.parts[f"{fed.name}.strength"] = strength
        return fed.news & (strength > 0.0)

    def parts_in_words(self, signal: Signal) -> str:  # noqa: ARG002
        return "; it has .strength, .x, .y and .z"

    def in_c(self, signal: Signal) -> str:  # noqa: ARG002
        return "strength, and where; new when it happens"
