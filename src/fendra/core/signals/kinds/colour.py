"""A colour, as a game, a phone or another light sends it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.functions import clamp
from fendra.core.graph.trace import Value
from fendra.core.light.colours import is_colour, pack_colour, srgb_bytes
from fendra.core.signals.condition import coloured, faded
from fendra.core.signals.kinds import Fed, SignalKind, needs_a, signal_kind
from fendra.core.signals.raw import number_of


@signal_kind
class ColourKind(SignalKind):
    """A colour: three sRGB bytes in one number."""

    name = "colour"
    keys = frozenset({"smooth"})
    is_computed = True
    wants_colour = True

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:  # noqa: ARG002
        return {name: packed(name, raw)}

    def recorded(self, fed: Fed) -> Value:
        return coloured(fed.values[0], fed.is_lost, fed.signal, fed.clock)

    def computed(self, fed: Fed, value: Value) -> Value:
        return faded(clamp(value), fed.signal, fed.clock)

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        check_colour(signal, path, report)

    def in_c(self, signal: Signal) -> str:  # noqa: ARG002
        return "0xrrggbb, sRGB"


def check_colour(signal: Signal, path: KeyPath, report: Report) -> None:
    """A fallback that is no colour."""
    if isinstance(signal.fallback, str) and not is_colour(signal.fallback):
        message = f"there is no colour '{signal.fallback}'."
        report.error((*path, "fallback"), "colour", message, "Write '#rrggbb' or a CSS name.")


def packed(name: str, raw: Any) -> float:
    """A colour in one number: from a text, three numbers, or that number. Raises SignalError."""
    if isinstance(raw, str) and is_colour(raw):
        return float(pack_colour(*srgb_bytes(raw)))
    if isinstance(raw, str):
        raise needs_a("a colour", name, raw)
    if isinstance(raw, (Sequence, np.ndarray)):
        channels = [number_of(name, item) for item in raw]
        if len(channels) != 3:
            raise SignalError(f"signal '{name}' needs three numbers, and got {len(channels)}")
        if any(math.isnan(channel) for channel in channels):
            return math.nan
        scale = 255 if any(isinstance(item, (float, np.floating)) for item in raw) else 1
        red, green, blue = (min(max(round(channel * scale), 0), 255) for channel in channels)
        return float(pack_colour(red, green, blue))
    value = number_of(name, raw)
    if not 0 <= value <= 0xFFFFFF:
        raise needs_a("a colour from 0 to 0xffffff", name, raw)
    return value
