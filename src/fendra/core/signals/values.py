"""Raw values, as sources give them, as the numbers that feed a signal."""

from __future__ import annotations

import math
from typing import Any

from fendra.core.document.signal import Signal
from fendra.core.signals.kinds import kind_of


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
    found = kind_of(signal).numbers(signal, name, raw)
    return {part: value for part, value in found.items() if not math.isnan(value)}
