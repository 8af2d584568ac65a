"""What is heard of each signal, raw and conditioned, without painting anything."""

from __future__ import annotations

import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.composition.record import WHY
from fendra.core.engines.numpy.numbers import Numbers
from fendra.core.graph.ops import UINT_MASK
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

    reasons: the plan of the design, with its reasons.
    """

    def __init__(
        self, reasons: Plan, inbox: Inbox, *, clock: Callable[[], float] = time.monotonic
    ) -> None:
        self._design, self._inbox, self._clock = reasons.design, inbox, clock
        self._graph = reasons.graph
        self._numbers = Numbers(self._graph)
        self._registers: list[Any] = []
        self._last_ms: int | None = None
        self._start_s = clock()
        self._traces = {name: deque[float](maxlen=TRACE) for name in self._design.signals}
        self._traced_s = -1e9

    def step(self) -> dict[str, Any]:
        """Take what has come, and step; gives that news."""
        news = self._inbox.take()
        numbers = {name: v for name, v in news.items() if isinstance(v, (int, float))}
        now_ms = round((self._clock() - self._start_s) * 1000)
        is_first = self._last_ms is None
        step_ms = 0 if self._last_ms is None else now_ms - self._last_ms
        with np.errstate(all="ignore"):
            self._registers = self._numbers.run(now_ms & UINT_MASK, step_ms, is_first, numbers)
        self._last_ms = now_ms
        if self._clock() - self._traced_s >= TRACE_S:
            self._traced_s = self._clock()
            for name, trace in self._traces.items():
                value = self.value(name)
                trace.append(float(value) if np.ndim(value) == 0 else float(np.mean(value)))
        return news

    def value(self, name: str) -> Any:
        """A signal as layers read it: a number, a truth, or linear red, green and blue."""
        place_of = self._graph.roots.get(f"{WHY}signal:{name}")
        if place_of is None or not self._registers:
            return 0.0
        value = self._registers[self._numbers.register(place_of)]
        return np.ravel(value) if np.size(value) == 3 else value

    def is_lost(self, name: str) -> bool:
        """Whether a signal is lost just now."""
        place_of = self._graph.roots.get(f"{WHY}lost:{name}")
        if place_of is None or not self._registers:
            return True
        return bool(self._registers[self._numbers.register(place_of)])

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
