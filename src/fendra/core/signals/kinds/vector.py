"""A vector: several numbers that come together, as the bands of a sound or the values of keys."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.trace import Value
from fendra.core.signals.condition import NUMBER_STEPS, Fed, conditioned
from fendra.core.signals.kinds import SignalKind, needs_a, signal_kind
from fendra.core.signals.kinds.number import SCALE
from fendra.core.signals.raw import number_of


@signal_kind
class VectorKind(SignalKind):
    """Several numbers, all conditioned alike."""

    name = "vector"
    keys = SCALE | {"size"}
    of_input = frozenset({"calibrate", "curve", "invert"})
    is_list = True
    measures = True

    def parts(self, signal: Signal, name: str) -> tuple[str, ...]:
        return tuple(f"{name}[{place}]" for place in range(signal.size or 1))

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:
        parts = self.parts(signal, name)
        if isinstance(raw, str) or not isinstance(raw, (Sequence, np.ndarray)):
            raise needs_a(f"{len(parts)} numbers", name, raw)
        if len(raw) != len(parts):
            raise SignalError(f"signal '{name}' needs {len(parts)} numbers, but got {len(raw)}")
        return {part: number_of(name, item) for part, item in zip(parts, raw, strict=True)}

    def recorded(self, fed: Fed) -> Value:
        items = [conditioned(NUMBER_STEPS, item, fed) for item in fed.values]
        fed.parts = {f"{fed.name}[{i}]": item for i, item in enumerate(items)}
        return items[0]

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        super().check(signal, path, report)
        if signal.size is None:
            report.error(path, "missing-key", "a vector needs its size.", "Add size = 8.")

    def why_not_alone(self, signal: Signal, name: str) -> str:
        return f"'{name}' is {signal.size or 1} numbers; write one, as {name}[0]"

    def parts_in_words(self, signal: Signal) -> str:
        return f"; its numbers are [0] to [{(signal.size or 1) - 1}]"
