"""The values of each signal, raw and conditioned, without painting anything."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.composition.record import WHY, Recorded
from fendra.live.conditioned import Conditioned
from fendra.live.inbox import Heard, Inbox

TRACE = 16
"""Values of a trace."""
TRACE_S = 0.25
"""From one value of a trace to the next."""
_BARS = "▁▂▃▄▅▆▇█"


@dataclass(frozen=True)
class Row:
    """One signal: as it came, and as layers read it. age_s: since it came; None if it never did."""

    name: str
    heard: Heard
    value: Any
    is_lost: bool
    age_s: float | None
    trace: str


class Ear:
    """Steps the conditioning of a design's signals; `rows` says how each is.

    recorded: the design.
    """

    def __init__(
        self, recorded: Recorded, inbox: Inbox, *, clock: Callable[[], float] = time.perf_counter
    ) -> None:
        self._design, self._inbox, self._clock = recorded.design, inbox, clock
        self._conditioned = Conditioned(recorded)
        self._start_s = clock()
        self._traces = {name: deque[float](maxlen=TRACE) for name in self._design.signals}
        self._traced_s = -1e9

    def step(self) -> dict[str, Any]:
        """Take the news, and step; return the news."""
        news = self._inbox.take()
        self._conditioned.step(self._clock() - self._start_s, news)
        if self._clock() - self._traced_s >= TRACE_S:
            self._traced_s = self._clock()
            for name, trace in self._traces.items():
                value = self.value(name)
                trace.append(float(value) if np.ndim(value) == 0 else float(np.mean(value)))
        return news

    def value(self, name: str) -> Any:
        """A signal as layers read it: a number, a truth, or linear red, green and blue."""
        value = self._conditioned.value(f"{WHY}signal:{name}")
        if value is None:
            return 0.0
        return np.ravel(value) if np.size(value) == 3 else value

    def is_lost(self, name: str) -> bool:
        """Whether a signal is lost just now."""
        is_lost = self._conditioned.value(f"{WHY}lost:{name}")
        return True if is_lost is None else bool(is_lost)

    def rows(self) -> list[Row]:
        """Every signal of the design."""
        now_s = self._clock()
        found = []
        for name in self._design.signals:
            heard = self._inbox.heard.get(name, Heard())
            age_s = now_s - heard.at_s if heard.count else None
            trace = spark([*self._traces[name]])
            found.append(Row(name, heard, self.value(name), self.is_lost(name), age_s, trace))
        return found


def spark(values: list[float]) -> str:
    """Numbers as a row of small bars, from the lowest to the highest of them.

    >>> spark([0, 1, 2, 7])
    '▁▂▃█'
    """
    known = [value for value in values if np.isfinite(value)]
    if not known:
        return ""
    low, span = min(known), max(known) - min(known)
    return "".join(_BARS[round((value - low) / span * 7) if span > 0 else 0] for value in known)
