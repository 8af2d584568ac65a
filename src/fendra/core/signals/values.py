"""Raw values, as sources give them, as the numbers that feed a signal."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeAlias

import numpy as np

from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.graph.ops import LARGEST
from fendra.core.light.colours import is_colour, pack_colour, srgb_bytes
from fendra.core.names import did_you_mean


@dataclass(frozen=True)
class Event:
    """Something that happens: how strong, 0 to 1, and where, in the design's unit."""

    strength: float = 1.0
    x: float = 0.0
    y: float = 0.0
    z: float = 0.0


Raw: TypeAlias = bool | float | str | Event | Sequence[Any] | Mapping[str, Any] | np.ndarray
"""What a source may give for a signal."""

_TRUTHS = {
    "on": 1.0, "true": 1.0, "yes": 1.0, "high": 1.0,
    "off": 0.0, "false": 0.0, "no": 0.0, "low": 0.0,
}  # fmt: skip


def to_numbers(name: str, signal: Signal, raw: Any) -> dict[str, float]:
    """The numbers that feed a signal, by name. Nothing for NaN and None: that is no news.

    A number is a number or a text that holds one; a switch `on` or `off` as well. A choice and a
    text are one of their words, or its number; a colour `#rrggbb`, a CSS name, three whole numbers
    from 0 to 255, three shares of that, or 0xRRGGBB; an event a strength, an `Event`, or a
    table of its parts; a vector all of its numbers. A picture is given as its light; see
    `Program.frame`.

    Raises SignalError for anything else.

    >>> to_numbers("lights", Signal(kind="switch"), "on")
    {'lights': 1.0}
    >>> to_numbers("glow", Signal(kind="colour"), "#ff8000")
    {'glow': 16744448.0}
    >>> to_numbers("hit", Signal(kind="event"), {"x": 30, "y": 5})
    {'hit': 1.0, 'hit.x': 30.0, 'hit.y': 5.0, 'hit.z': 0.0}
    """
    if raw is None:
        return {}
    match signal.kind:
        case "number" | "switch":
            found = {name: _number(name, raw)}
        case "choice" | "text":
            found = {name: _word(name, signal, raw)}
        case "colour":
            found = {name: _colour(name, raw)}
        case "event":
            found = _event(name, raw)
        case "vector":
            found = _vector(name, signal, raw)
        case "picture":
            found = {name: 1.0}
    return {part: value for part, value in found.items() if not math.isnan(value)}


def _number(name: str, raw: Any) -> float:
    if isinstance(raw, str):
        known = _TRUTHS.get(raw.strip().lower())
        if known is not None:
            return known
    try:
        value = float(raw)
    except (TypeError, ValueError, OverflowError) as exc:
        raise SignalError(f"signal '{name}' needs a number, and got {raw!r:.60}") from exc
    if math.isinf(value):
        raise SignalError(f"signal '{name}' needs a finite number, and got {raw!r:.60}")
    return min(max(value, -LARGEST), LARGEST) if value == value else value  # noqa: PLR0124 - NaN


def _word(name: str, signal: Signal, raw: Any) -> float:
    if isinstance(raw, str):
        word = raw.strip()
        if word in signal.numbers:
            return float(signal.numbers[word])
        try:
            return _number(name, float(word))
        except ValueError as exc:
            remedy = did_you_mean(word, signal.numbers, "words")
            raise SignalError(f"signal '{name}' has no word {word!r:.60}. {remedy}") from exc
    return _number(name, raw)


def _colour(name: str, raw: Any) -> float:
    if isinstance(raw, str) and is_colour(raw):
        return float(pack_colour(*srgb_bytes(raw)))
    if isinstance(raw, str):
        raise SignalError(f"signal '{name}' needs a colour, and got {raw!r:.60}")
    if isinstance(raw, (Sequence, np.ndarray)):
        channels = [_number(name, item) for item in raw]
        if len(channels) != 3:
            raise SignalError(f"signal '{name}' needs three numbers, and got {len(channels)}")
        if any(math.isnan(channel) for channel in channels):
            return math.nan
        scale = 255 if any(isinstance(item, (float, np.floating)) for item in raw) else 1
        red, green, blue = (min(max(round(channel * scale), 0), 255) for channel in channels)
        return float(pack_colour(red, green, blue))
    value = _number(name, raw)
    if not 0 <= value <= 0xFFFFFF:
        raise SignalError(f"signal '{name}' needs a colour from 0 to 0xffffff, and got {raw!r:.60}")
    return value


def _event(name: str, raw: Any) -> dict[str, float]:
    if isinstance(raw, Event):
        raw = vars(raw)
    if not isinstance(raw, Mapping):
        return {name: _number(name, raw)}
    known = {"strength", "x", "y", "z"}
    if not {*raw} <= known:
        wrong = ", ".join(sorted(map(str, {*raw} - known)))
        raise SignalError(f"event '{name}' has strength, x, y and z, and no {wrong:.60}")
    found = {name: _number(name, raw.get("strength", 1.0))}
    return found | {f"{name}.{axis}": _number(name, raw.get(axis, 0.0)) for axis in "xyz"}


def _vector(name: str, signal: Signal, raw: Any) -> dict[str, float]:
    parts = signal.parts(name)
    if isinstance(raw, str) or not isinstance(raw, (Sequence, np.ndarray)):
        raise SignalError(f"signal '{name}' needs {len(parts)} numbers, and got {raw!r:.60}")
    if len(raw) != len(parts):
        raise SignalError(f"signal '{name}' needs {len(parts)} numbers, and got {len(raw)}")
    return {part: _number(name, item) for part, item in zip(parts, raw, strict=True)}
