"""The limiter: keeps the current of each frame within each supply's budget.

It works on the frame's bytes, in whole numbers. So the result is the same everywhere, and a
prediction is exact. A frame within the budget stays unchanged. A frame beyond it is scaled, all
channels alike, to keep the hues. The gain falls at once, waits, and rises slowly, so that a
flashing layer does not make the rest pulse.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from fendra.core.arrays import Bytes
from fendra.core.catalogue.leds import MICRO
from fendra.core.electric.loads import BYTE, Loads, Span

FULL = 1 << 16
"""The gain at which nothing is held back."""
REST_MS = 1000
"""How long the gain stays down after the last frame that was too bright: longer than the dark half
of what flashes."""
RELEASE = 32
"""How much the gain grows in a millisecond after that: from nothing to full in two seconds."""
RELEASE_MS = FULL // RELEASE


@dataclass(frozen=True)
class Limit:
    """One supply's budget.

    most: what light may draw beside the dark LEDs, in microamperes times 255. spans: the spots that
    it feeds.
    """

    supply: str
    most: int
    spans: tuple[Span, ...]

    def draw(self, rgb: Bytes) -> int:
        """The current of a frame's light, in microamperes times 255."""
        return sum(int(span.sums(rgb).dot(span.weights)) for span in self.spans)

    def slack(self, rgb: Bytes) -> int:
        """The most that rounding may raise the current of a scaled frame; twice that."""
        total = 0
        for span in self.spans:
            lit = np.count_nonzero(span.channels(rgb), axis=0)
            # Of white's kind are differences of two rounded values: twice as far off.
            total += int(lit @ span.weights) * (2 if span.has_white else 1)
        return total


def make_limits(loads: Loads) -> tuple[Limit, ...]:
    """The budgets that some light would pass; the others need no limiter."""
    found = []
    for feeding in loads.feedings:
        if feeding.budget_a is None:
            continue
        spans = _joined(span for span in loads.spans if span.line in feeding.lines)
        idle_ua = int(loads.idle_ua[[*feeding.lines]].sum())
        most = max(int(feeding.budget_a / MICRO + 1e-3) - idle_ua, 0) * BYTE
        if sum((span.end - span.first) * span.full_ua * BYTE for span in spans) > most:
            found.append(Limit(feeding.name, most, spans))
    return tuple(found)


def _joined(spans: Any) -> tuple[Span, ...]:
    """Spans of neighbouring lines that draw alike as one."""
    found: list[Span] = []
    for span in spans:
        if found and found[-1].end == span.first and found[-1].ua == span.ua:
            found[-1] = replace(found[-1], end=span.end)
        else:
            found.append(span)
    return tuple(found)


def highest_gain(draw: int, slack: int, most: int) -> int:
    """The gain at which a frame surely draws no more than it may.

    >>> highest_gain(1000, 0, 1000) == FULL, highest_gain(2000, 0, 1000) == FULL // 2
    (True, True)
    """
    if draw <= most:
        return FULL
    return max(2 * most - slack, 0) * FULL // (2 * draw)


def scaled(rgb: Bytes, gain: int) -> Bytes:
    """Bytes times a gain, rounded."""
    table = (np.arange(BYTE + 1) * gain + FULL // 2) >> 16
    return np.asarray(table.astype(np.uint8)[rgb])


def next_gain(gain: int, rest_ms: int, highest: int, dt_ms: int) -> tuple[int, int]:
    """The gain of a frame, and how long it still rests.

    gain, rest_ms: of the frame before, dt_ms ago. highest: that this frame allows.

    >>> next_gain(FULL, 0, FULL // 2, 20), next_gain(FULL // 2, 1000, FULL, 990)
    ((32768, 1000), (32768, 10))
    >>> next_gain(FULL // 2, 10, FULL, 20)
    (33088, 0)
    """
    if highest <= gain:
        return highest, REST_MS
    if dt_ms < rest_ms:
        return gain, rest_ms - dt_ms
    return min(gain + RELEASE * min(dt_ms - rest_ms, RELEASE_MS), highest), 0


class Limiter:
    """Holds frames back, one after the other. gains: of each limit, after the newest frame."""

    def __init__(self, limits: Sequence[Limit]) -> None:
        self._limits = limits
        self.reset()

    def reset(self) -> None:
        """Forget what was: nothing is held back."""
        self.gains = [FULL] * len(self._limits)
        self._rest_ms = [0] * len(self._limits)

    def apply(self, dt_ms: int, rgb: Bytes) -> None:
        """Hold a frame, (n, 3) uint8, within the budgets, in place. dt_ms: since the last one."""
        for i, limit in enumerate(self._limits):
            draw = limit.draw(rgb)
            slack = limit.slack(rgb) if draw > limit.most else 0
            highest = highest_gain(draw, slack, limit.most)
            gain, rest_ms = next_gain(self.gains[i], self._rest_ms[i], highest, dt_ms)
            self.gains[i], self._rest_ms[i] = gain, rest_ms
            if gain < FULL:
                for span in limit.spans:
                    rgb[span.first : span.end] = scaled(rgb[span.first : span.end], gain)
