"""Values of signals for the sources whose options follow them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from threading import Lock
from typing import Any

import numpy as np

from fendra.core.composition.record import WHY, Recorded
from fendra.core.signals.inputs import moments
from fendra.live.conditioned import Conditioned
from fendra.sources import Source


class Settings:
    """Steps a design's signals for sources that follow some; costs nothing if none does."""

    def __init__(self, recorded: Recorded, sources: Iterable[Source]) -> None:
        self._followers = [source for source in sources if source.follows]
        self._names = frozenset(name for source in self._followers for name in source.follows)
        self._lock = Lock()
        self._values: dict[str, float] = {}
        self._known: dict[str, Any] = {}
        self._moments: frozenset[str] = frozenset()
        self._next: Conditioned | None = None
        self._conditioned = Conditioned(recorded) if self._followers else None
        for source in self._followers:
            source.value_of = self._value

    def use(self, recorded: Recorded) -> None:
        """Read signals as another design does, from the next frame on."""
        if self._followers:
            self._moments, self._next = moments(recorded.design), Conditioned(recorded)

    def step(self, at_s: float, news: Mapping[str, Any]) -> None:
        """Take the news of a frame. at_s: its time."""
        if self._conditioned is None:
            return
        self._known |= news
        if self._next is not None:
            self._conditioned, self._next = self._next, None
            lasting = self._known.keys() - self._moments
            news = {**{name: self._known[name] for name in lasting}, **news}
        self._conditioned.step(at_s, news)
        told = {name: self._conditioned.value(f"{WHY}signal:{name}") for name in self._names}
        with self._lock:
            self._values = {
                name: float(np.mean(value)) for name, value in told.items() if value is not None
            }

    def _value(self, name: str) -> float | None:
        with self._lock:
            return self._values.get(name)
