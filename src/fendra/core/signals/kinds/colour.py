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
from fendra.core.light.colours import heard_colour, is_colour, pack_colour
from fendra.core.signals.condition import Fed, coloured, faded
from fendra.core.signals.kinds import SignalKind, needs_a, signal_kind
from fendra.core.signals.raw import number_of

WAYS = "#rrggbb, 0xrrggbb, three numbers as 255,138,0, a CSS name, or off"
"""How a colour may be written that comes in as a text."""


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
    """A colour in one number: from a text, three numbers, or that number. Raises SignalError.

    Three numbers are bytes, 0 to 255, if all are whole and one is above 1, or none has a point;
    else they are shares of full light.
    """
    if isinstance(raw, str):
        return _packed_text(name, raw)
    if isinstance(raw, (Sequence, np.ndarray)):
        channels = [number_of(name, item) for item in raw]
        if len(channels) != 3:
            raise SignalError(f"signal '{name}' needs three numbers, but got {len(channels)}")
        if any(math.isnan(channel) for channel in channels):
            return math.nan
        has_points = any(isinstance(item, (float, np.floating)) for item in raw)
        are_bytes = all(channel.is_integer() for channel in channels) and max(channels) > 1
        scale = 255 if has_points and not are_bytes else 1
        red, green, blue = (min(max(round(channel * scale), 0), 255) for channel in channels)
        return float(pack_colour(red, green, blue))
    value = number_of(name, raw)
    if not math.isnan(value) and not 0 <= value <= 0xFFFFFF:
        raise needs_a("a colour from 0 to 0xffffff", name, raw)
    return value


def _packed_text(name: str, text: str) -> float:
    try:
        return float(heard_colour(text))
    except ValueError:
        pass
    try:
        value = float(text)  # 0xrrggbb as a decimal number, from who sends numbers as texts
    except ValueError:
        raise needs_a(f"a colour ({WAYS})", name, text) from None
    return packed(name, value)
