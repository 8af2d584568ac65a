"""Signals as layers read them, and which layers are on, without painting anything."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

import numpy as np

from fendra.core.composition.record import WHY, Recorded
from fendra.core.engines.numpy.numbers import Numbers
from fendra.core.graph.node import STATE, Graph
from fendra.core.graph.ops import UINT_MASK
from fendra.core.graph.passes import simplify

TOLD = (f"{WHY}signal:", f"{WHY}lost:")
"""How the roots of the graph begin that tell of signals."""


class Conditioned:
    """A design's graph without its pixels, stepped by news."""

    def __init__(self, recorded: Recorded) -> None:
        traced = recorded.traced
        roots = {
            name: place
            for name, place in traced.roots.items()
            if name.startswith((*TOLD, STATE))
            or (name.startswith("layer:") and name.endswith(":on"))
        }
        self._graph = simplify(Graph(traced.nodes, roots, traced.start))
        self._numbers = Numbers(self._graph)
        self._registers: list[Any] = []
        self._last_ms: int | None = None

    def step(self, at_s: float, news: Mapping[str, Any]) -> None:
        """Take new values. at_s: their time, on the caller's clock."""
        numbers = {name: v for name, v in news.items() if isinstance(v, (int, float))}
        now_ms = round(at_s * 1000)
        is_first = self._last_ms is None
        step_ms = 0 if self._last_ms is None else max(now_ms - self._last_ms, 0)
        with np.errstate(all="ignore"):
            self._registers = self._numbers.run(now_ms & UINT_MASK, step_ms, is_first, numbers)
        self._last_ms = now_ms

    def value(self, name: str) -> Any:
        """The value of a root of the graph; None before the first step, and for an unknown root."""
        place = self._graph.roots.get(name)
        if place is None or not self._registers:
            return None
        return self._registers[self._numbers.register(place)]
