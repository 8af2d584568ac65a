"""Raw values: what sources give, as plain numbers."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeAlias

import numpy as np

from fendra.core.errors import SignalError
from fendra.core.graph.ops import LARGEST
from fendra.core.names import truth_of


@dataclass(frozen=True)
class Event:
    """Something that happens: how strong, 0 to 1, and where, in the design's unit."""

    strength: float = 1.0
    x: float = 0.0
    y: float = 0.0
    z: float = 0.0


Raw: TypeAlias = bool | float | str | Event | Sequence[Any] | Mapping[str, Any] | np.ndarray
"""The values that a source may give for a signal."""


def number_of(name: str, raw: Any) -> float:
    """A raw value as a number within +-1e9, or NaN; words for truth are 1 and 0.

    Raises SignalError if it is not a number.
    """
    if isinstance(raw, str):
        known = truth_of(raw)
        if known is not None:
            return float(known)
    try:
        value = float(raw)
    except (TypeError, ValueError, OverflowError) as exc:
        raise SignalError(f"signal '{name}' needs a number, but got {raw!r:.60}") from exc
    if math.isinf(value):
        raise SignalError(f"signal '{name}' needs a finite number, but got {raw!r:.60}")
    return min(max(value, -LARGEST), LARGEST) if value == value else value  # noqa: PLR0124 - NaN
