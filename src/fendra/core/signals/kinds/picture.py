"""A picture: a colour for every LED of a part or group, as a screen or a game shows it."""

from __future__ import annotations

from typing import Any

from fendra.core.document.signal import Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.trace import Value
from fendra.core.signals.condition import Fed
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.kinds.colour import check_colour


@signal_kind
class PictureKind(SignalKind):
    """A live picture; its light goes to the engine, and this number says that it came."""

    name = "picture"
    keys = frozenset({"on"})
    is_picture = True

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        return {name: 1.0}

    def recorded(self, fed: Fed) -> Value:
        return fed.values[0]

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        check_colour(signal, path, report)

    def why_not_alone(self, signal: Signal, name: str) -> str:  # noqa: ARG002
        return f"'{name}' is a picture, so only the colour of a layer can use it"

    def in_c(self, signal: Signal) -> str:  # noqa: ARG002
        return "its light is in `now`: see the header"

    def word(self, signal: Signal, value: float) -> str:  # noqa: ARG002
        return ""
