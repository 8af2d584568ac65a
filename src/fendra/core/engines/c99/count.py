"""Counts what the emitted code consists of; the cost on a controller follows from it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fendra.core.engines.c99.draft import Draft
from fendra.core.engines.c99.layers import Layers
from fendra.core.engines.c99.tables import Table
from fendra.core.graph.node import Graph
from fendra.core.graph.ops import Kind

SIZES = {Kind.FLOAT: 4, Kind.UINT: 4, Kind.TRUTH: 1}
"""Bytes of a number in memory."""


@dataclass(frozen=True)
class LayerCount:
    """One layer.

    layer: its place in the design; below 0 of what finishes the light of all layers. leds: that it
    paints. frame: its own operations of a frame, while it is on. led: its operations for each LED;
    `read` is a constant of it, `light` a channel that is read or written. rows: that its LEDs stand
    in. scenes: those that it belongs to; None for all.
    """

    layer: int
    leds: int
    frame: Mapping[str, int]
    led: Mapping[str, int]
    rows: int
    scenes: frozenset[int] | None


@dataclass(frozen=True)
class Count:
    """The whole program; operations are counted by their names in the operation table.

    frame: of every frame. layers: from the lowest on. tables: bytes of constants. state: bytes of
    memory, without gaps; fields: how many numbers it has. signals: numbers that arrive. scenes: how
    many there are, with the one for no scene. limits: supplies with a limiter. line_bytes: of each
    line. dither: whether light is dithered.
    """

    leds: int
    frame: Mapping[str, int]
    layers: tuple[LayerCount, ...]
    tables: int
    state: int
    fields: int
    signals: int
    scenes: int
    limits: int
    line_bytes: tuple[int, ...]
    dither: bool = False


_DITHER = Counter({"less_equal": 3, "select": 3, "add": 3, "uint_add": 3})
"""The operations of dither for each LED."""


def count(draft: Draft, layers: Layers, tables: Iterable[Table]) -> Count:
    """Count what `emit` has written."""
    graph, sorting, plan = draft.graph, draft.sorting, draft.plan
    found = []
    for number, paint in enumerate(draft.lowered.painted):
        spots = plan.spots[paint.space]
        moving = _operations(graph, sorting.moving[number])
        moving["read"] += len(sorting.fixed[number])
        moving["light"] += len(paint.results) + sum(
            graph.nodes[place].op == "beneath" for place in _read(graph, sorting.moving[number])
        )
        found.append(
            LayerCount(
                paint.number,
                len(spots),
                _operations(graph, sorting.of_layer[number]),
                moving,
                layers.rows(spots),
                paint.scenes,
            )
        )
    if plan.dither is not None:
        found.append(LayerCount(-len(found) - 1, plan.spot_count, Counter(), _DITHER, 1, None))
    kinds = [graph.nodes[place].kind for place in draft.fields]
    kinds += [draft.cell_kinds[cell] for cell in draft.cells]
    limits = len(plan.limits)
    # Beside those: last_ms, has_begun and the master level; of each limiter its gain and its rest.
    return Count(
        plan.spot_count,
        _operations(graph, sorting.common),
        tuple(found),
        sum(table.values.nbytes for table in tables) + 6 * layers.run_count,
        sum(SIZES[kind] for kind in kinds) + 9 + 8 * limits,
        len(kinds) + 3 + 2 * limits,
        len(plan.fed),
        len(draft.lowered.shares),
        limits,
        tuple(wire.size for wire in plan.wires),
        plan.dither is not None,
    )


def _operations(graph: Graph, places: Iterable[int]) -> Counter[str]:
    return Counter(graph.nodes[place].op for place in places if graph.nodes[place].args)


def _read(graph: Graph, places: Iterable[int]) -> set[int]:
    return {arg for place in places for arg in graph.nodes[place].args}
