"""A plan made ready for a module: where each value is computed, and its place in memory."""

from __future__ import annotations

from collections.abc import Collection, Hashable
from dataclasses import dataclass, field
from typing import TypeVar

from fendra.core.composition.plan import Plan
from fendra.core.engines.lower import Lowered, pictures_of
from fendra.core.engines.sorting import Sorting
from fendra.core.engines.wasm.memory import BEHIND, LANES, Memory
from fendra.core.graph.node import STATE, Graph, Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.schedule import needed

K = TypeVar("K", bound=Hashable)

SIGNAL_SIZE = 8
"""Bytes of a signal: its newest value, a float, and a word that is not 0 if that is news."""
LIMIT_SIZE = 8
"""Bytes of a limiter: what it lets through, and for how many milliseconds it rests."""


@dataclass
class Draft:
    """lanes: spots that are painted at once, 4 or 1.

    signals, cells, limits, pictures: addresses by name. fields: of the numbers of a frame that are
    read after they have been computed, by their place in the graph. left_out: a word for each
    brush. canvas, beneath, total: three planes of light each. rgb, bytes: of the newest frame.
    """

    plan: Plan
    lowered: Lowered
    sorting: Sorting
    lanes: int
    memory: Memory = field(default_factory=Memory)
    signals: dict[str, int] = field(init=False)
    cells: dict[str, int] = field(init=False)
    limits: dict[str, int] = field(init=False)
    fields: dict[int, int] = field(init=False)
    pictures: dict[str, int] = field(init=False)

    def __post_init__(self) -> None:
        memory, nodes = self.memory, self.graph.nodes
        self.now_ms, self.last_ms, self.dt_ms, self.has_begun = (
            memory.reserve(4) for _ in range(4)
        )
        self.cell_kinds = {str(n.payload): n.kind for n in nodes if n.op == "state"}
        self.signals = self._row(self.plan.fed, SIGNAL_SIZE)
        self.cells = self._row(self.cell_kinds, 4)
        self.limits = self._row([limit.supply for limit in self.plan.limits], LIMIT_SIZE)
        lowered = self.lowered
        wanted = {place for places in self.sorting.read for place in places}
        wanted |= {*lowered.shares, *(paint.on for paint in lowered.painted), lowered.master}
        wanted |= set() if lowered.turn is None else {lowered.turn}
        wanted |= self._told()
        found = [place for place in sorted(wanted) if nodes[place].op != "const"]
        self.fields = self._row(found, 4)
        self.left_out = memory.reserve(4 * max(len(lowered.painted), 1))
        shown = pictures_of(self.graph)
        self.pictures = {name: memory.reserve(3 * self.plane) for name in shown}
        self.canvas = memory.reserve(3 * self.plane)
        is_mixed = bool(lowered.mixed)
        self.beneath, self.total = (memory.reserve(3 * self.plane * is_mixed) for _ in range(2))
        self.rgb = memory.reserve(3 * self.plan.spot_count + BEHIND)
        sizes = sum(wire.size for wire in self.plan.wires)
        self.bytes = memory.reserve(sizes) if self.plan.wires else self.rgb
        self.size = sizes if self.plan.wires else 3 * self.plan.spot_count

    @property
    def graph(self) -> Graph:
        return self.lowered.graph

    def _told(self) -> set[int]:
        """The numbers of a frame that the page reads, or that an LED's values need."""
        nodes, rates = self.graph.nodes, self.graph.rates()
        told = needed(self.graph, self.lowered.watched.values())
        moving = [place for place in told if rates[place] == Rate.SPOT_AND_FRAME]
        read = {arg for place in moving for arg in nodes[place].args}
        read |= {*self.lowered.watched.values()}
        return {place for place in read if rates[place] == Rate.FRAME}

    @property
    def plane(self) -> int:
        """Bytes of one channel of all spots; a row more than they need."""
        return 4 * (-(-self.plan.spot_count // LANES) * LANES + LANES)

    def following(self, cell: str) -> int:
        """The place of a memory cell's next value."""
        return self.graph.roots[f"{STATE}{cell}"]

    def kind(self, place: int) -> Kind:
        return self.graph.nodes[place].kind

    def _row(self, keys: Collection[K], size: int) -> dict[K, int]:
        """An address for each, one after the other."""
        at = self.memory.reserve(size * max(len(keys), 1))
        return {key: at + size * i for i, key in enumerate(keys)}
