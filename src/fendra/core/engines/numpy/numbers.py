"""The NumPy back end's plain numbers: all that is one value a frame, and the memory cells."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from functools import partial
from typing import Any, TypeAlias

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.node import NEWS, STATE, VALUE, Graph, Node, Rate
from fendra.core.graph.ops import Kind, Op, op_of
from fendra.core.graph.passes import constant_array

Calculation: TypeAlias = tuple[Callable[..., Any], int, int, int, int]
"""An operation, the registers of its arguments (-1 for none), and of its result."""


class Numbers:
    """Registers, and the steps between them.

    exported: places whose value array operations read; `arrays` holds them by place, up to
    date once their numbers have been computed. layers: for each layer the places that it alone
    needs; its entry in `layers` computes them, and `run` all others.
    """

    def __init__(
        self, graph: Graph, exported: Iterable[int] = (), layers: Sequence[Collection[int]] = ()
    ) -> None:
        self._graph = graph
        self._register: dict[int, int] = {}
        self._start: list[Any] = []
        self._inputs: dict[str, int] = {}
        steps: dict[int, Calculation] = {}
        for (place, node), rate in zip(enumerate(graph.nodes), graph.rates(), strict=True):
            if not rate & Rate.SPOT:
                step = self._add(place, node)
                if step is not None:
                    steps[place] = step
        self._registers = list(self._start)
        self._has_run = False
        cells = [
            (str(node.payload), place)
            for place, node in enumerate(graph.nodes)
            if node.op == "state"
        ]
        self._cells = [
            (self._register[place], self._register[graph.roots[f"{STATE}{name}"]])
            for name, place in cells
        ]
        self._cell_names = [name for name, _ in cells]
        self._kinds = [graph.nodes[place].kind for _, place in cells]
        self._clock = [
            (place, self._inputs[name])
            for place, name in enumerate(("now_ms", "dt_ms", "first"))
            if name in self._inputs
        ]
        self._values = _by_signal(self._inputs, VALUE)
        self._news = _by_signal(self._inputs, NEWS)
        self.arrays: dict[int, Array] = {}
        read, own = {*exported}, {place for places in layers for place in places}
        self._always = self._block(steps.keys() - own, read - own, steps, banked=True)
        self.layers = [
            self._block(steps.keys() & set(places), read & set(places), steps, banked=False)
            for places in layers
        ]

    def _add(self, place: int, node: Node) -> Calculation | None:
        """Give a node its register, and the step that computes it, if it needs one."""
        self._register[place] = register = len(self._start)
        start: Any = 0
        step: Calculation | None = None
        if node.op == "const":
            values = constant_array(node)
            start = values if node.width == 3 else _plain(node.kind, values.item())
        elif node.op == "state":
            start = _plain(node.kind, self._graph.start[str(node.payload)])
        elif node.op == "input":
            start = _plain(node.kind, 0)
            self._inputs[str(node.payload)] = register
        else:
            op = op_of(node.op, node.payload)
            run = op.scalar if node.width == 1 else partial(_colour, op, node.kind)
            a, b, c, *_ = [self._register[arg] for arg in node.args] + [-1, -1]
            step = (run, a, b, c, register)
        self._start.append(start)
        return step

    def _block(
        self,
        places: Iterable[int],
        exported: Collection[int],
        steps: Mapping[int, Calculation],
        *,
        banked: bool,
    ) -> Callable[[], None]:
        """Computes some places, and fills the arrays of those that are exported.

        banked: fill arrays of one kind together, which is quicker where there are many.
        """
        nodes = self._graph.nodes
        banks: list[tuple[Array, list[int]]] = []
        singles: list[tuple[Array, int]] = []
        in_banks = {place for place in exported if banked and nodes[place].width == 1}
        for kind in Kind:
            chosen = sorted(place for place in in_banks if nodes[place].kind is kind)
            if chosen:
                bank = np.zeros(len(chosen), kind.dtype)
                banks.append((bank, [self._register[place] for place in chosen]))
                for i, place in enumerate(chosen):
                    self.arrays[place] = bank[i : i + 1].reshape(())
        for place in sorted({*exported} - in_banks):
            shape = (3, 1) if nodes[place].width == 3 else ()
            self.arrays[place] = np.zeros(shape, nodes[place].kind.dtype)
            singles.append((self.arrays[place], self._register[place]))
        ordered = [steps[place] for place in sorted(places)]
        return partial(_run, self._registers, ordered, banks, singles)

    def register(self, place: int) -> int:
        """The index of a node's value in the result of `run`."""
        return self._register[place]

    def reset(self) -> None:
        """Forget all that was remembered."""
        self._registers[:] = self._start
        self._has_run = False

    def run(self, now_ms: int, dt_ms: int, first: bool, news: Mapping[str, float]) -> list[Any]:
        """Compute the numbers of this frame. The memory cells hold the values of the last one."""
        registers = self._registers
        if self._has_run:
            self._remember(registers)
        self._has_run = True
        clock = (now_ms, dt_ms, first)
        for place, register in self._clock:
            registers[register] = clock[place]
        for signal, register in self._news.items():
            registers[register] = signal in news
        for signal, value in news.items():
            if signal in self._values:
                registers[self._values[signal]] = np.float32(value)
        self._always()
        return registers

    def kept(self) -> list[Any]:
        """The memory cells for the next frame, as `at` takes them."""
        place = 1 if self._has_run else 0
        return [self._registers[pair[place]] for pair in self._cells]

    def at(
        self, now_ms: int, dt_ms: int, first: bool, news: Mapping[str, float],
        held: Mapping[str, float], kept: Sequence[Any],
    ) -> list[Any]:  # fmt: skip
        """The numbers of any frame: like `run`, with given values for signals and cells."""
        self._has_run = False
        for (cell, _), value in zip(self._cells, kept, strict=True):
            self._registers[cell] = value
        for signal, register in self._values.items():
            if signal in held:
                self._registers[register] = np.float32(held[signal])
        return self.run(now_ms, dt_ms, first, news)

    def memory(self) -> dict[str, float]:
        """Each memory cell's value for the next frame."""
        return dict(zip(self._cell_names, map(float, self.kept()), strict=True))

    def recall(self, memory: Mapping[str, float]) -> None:
        """Let memory cells hold other values for the next frame."""
        if self._has_run:
            self._remember(self._registers)
        self._has_run = False
        for name, (cell, _), kind in zip(self._cell_names, self._cells, self._kinds, strict=True):
            if name in memory:
                self._registers[cell] = _plain(kind, memory[name])

    def _remember(self, registers: list[Any]) -> None:
        """Store the values that the last frame computed in the memory cells."""
        following = [registers[source] for _, source in self._cells]
        for (cell, _), value in zip(self._cells, following, strict=True):
            registers[cell] = value


def _run(
    registers: list[Any],
    steps: list[Calculation],
    banks: list[tuple[Array, list[int]]],
    singles: list[tuple[Array, int]],
) -> None:
    for run, a, b, c, out in steps:
        if c >= 0:
            registers[out] = run(registers[a], registers[b], registers[c])
        elif b >= 0:
            registers[out] = run(registers[a], registers[b])
        else:
            registers[out] = run(registers[a])
    for bank, sources in banks:
        bank[:] = [registers[source] for source in sources]
    for array, source in singles:
        array[...] = registers[source]


def _by_signal(inputs: Mapping[str, int], prefix: str) -> dict[str, int]:
    return {
        name.removeprefix(prefix): register
        for name, register in inputs.items()
        if name.startswith(prefix)
    }


def _plain(kind: Kind, value: Any) -> Any:
    """The content of a register: a float32, an int or a bool."""
    return np.float32(value) if kind is Kind.FLOAT else kind.dtype(value).item()


def _colour(op: Op, kind: Kind, *args: Any) -> Array:
    out = np.empty((3, 1), kind.dtype)
    op.array(*args, out)
    return out
