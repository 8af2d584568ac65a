"""Lowering: a recorded design as the graph of single numbers that C is written from.

Blending becomes part of the graph: a layer reads the light beneath it and gives the light
that is there after it, channel by channel.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.graph.bounds import Bounds
from fendra.core.graph.narrow import CHANNELS, ZERO, Narrower
from fendra.core.graph.node import VALUE, Graph, Node
from fendra.core.graph.ops import LARGEST, UINT_MASK, Kind
from fendra.core.graph.passes import drop_unused, is_const
from fendra.core.mix import Recording, Slot

Floats = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True)
class Paint:
    """What one layer does to the light of its spots.

    on: the place of its condition. results: for each channel that it changes, the place of the
    light after it.
    """

    slot: Slot
    on: int
    results: Mapping[str, int]


@dataclass(frozen=True)
class Lowered:
    """A recording made ready for C: its graph, its layers from the lowest on, its master level.

    bytes: between which values all light lies after the master level, times 255; None where
    that is not known.
    """

    graph: Graph
    paints: tuple[Paint, ...]
    master: int
    bytes: Bounds | None


def lower(recording: Recording) -> Lowered:
    """Split colours, put the blends into the graph, and drop what is needless."""
    canvas = _Canvas(recording.spot_count)
    beneath: dict[Node, Bounds | None] = {}

    def leaf_bounds(node: Node) -> Bounds | None:
        match node.op:
            case "input" if node.kind is Kind.UINT:
                return Bounds(0.0, UINT_MASK)
            case "state" if node.kind is Kind.UINT:
                return Bounds(0.0, UINT_MASK)
            case "input" if str(node.payload).startswith(VALUE):
                return Bounds(-LARGEST, LARGEST)
        return beneath.get(node)

    narrower = Narrower(leaf_bounds, recording.columns)
    places = narrower.add_graph(recording.graph)
    roots = {name: places[place][0] for name, place in recording.graph.roots.items()}
    kept: list[tuple[Slot, dict[str, int]]] = []
    for number, slot in enumerate(recording.slots):
        (on,) = places[slot.on]
        spots = recording.spots[slot.space]
        if len(spots) == 0 or is_const(narrower.nodes[on], False):
            continue
        results: dict[str, int] = {}
        for channel, name in enumerate(CHANNELS):
            known = canvas.bounds(channel, spots)
            leaf = Node("beneath", (), Kind.FLOAT, 1, (number, name), slot.space)
            beneath[leaf] = known
            before = narrower.add(ZERO if known == Bounds(0.0, 0.0) else leaf)
            paint, rest = (places[place] for place in (slot.paint, slot.rest))
            is_opaque = recording.graph.nodes[slot.rest].payload == (0.0,)
            after = _blend(
                narrower, slot, before, paint[channel % len(paint)], rest[channel % len(rest)],
                is_opaque,
            )  # fmt: skip
            is_certain = is_const(narrower.nodes[on], True)
            canvas.paint(channel, spots, narrower.bounds[after], is_certain=is_certain)
            if after != before:
                results[name] = after
        if results:
            kept.append((slot, results))
    for number, (slot, results) in enumerate(kept):
        roots |= {f"on:{number}": places[slot.on][0]}
        roots |= {f"{name}:{number}": place for name, place in results.items()}
    wanted = {
        name: place
        for name, place in roots.items()
        if name == "master" or not name.startswith("layer:")
    }
    graph = drop_unused(Graph(tuple(narrower.nodes), wanted, recording.graph.start))
    paints = tuple(
        Paint(
            slot,
            graph.roots[f"on:{number}"],
            {name: graph.roots[f"{name}:{number}"] for name in results},
        )
        for number, (slot, results) in enumerate(kept)
    )
    full = narrower.bounds[roots["master"]]
    return Lowered(graph, paints, graph.roots["master"], canvas.times(full, 255.0))


def _blend(
    narrower: Narrower, slot: Slot, beneath: int, paint: int, rest: int, is_opaque: bool
) -> int:
    """The light after a layer: see `mix.Blend`."""
    match slot.blend:
        case "over" if is_opaque:
            return paint
        case "over":
            return narrower.apply("add", narrower.apply("mul", beneath, rest), paint)
        case "add":
            return narrower.apply("add", beneath, paint)
    return narrower.apply("max", paint, beneath)


class _Canvas:
    """Between which values the light of every spot lies, as layer after layer is painted."""

    def __init__(self, spot_count: int) -> None:
        self._low = np.zeros((3, spot_count))
        self._high = np.zeros((3, spot_count))  # NaN where nothing is known

    def bounds(self, channel: int, spots: np.ndarray[Any, Any]) -> Bounds | None:
        low, high = self._low[channel, spots].min(), self._high[channel, spots].max()
        return None if np.isnan(low) or np.isnan(high) else Bounds(float(low), float(high))

    def times(self, share: Bounds | None, factor: float) -> Bounds | None:
        """The bounds of all light, times a share of 0 or more, times a factor."""
        low, high = float(self._low.min()), float(self._high.max())
        if share is None or not share.is_positive or not low >= 0 or not high < np.inf:
            return None
        return Bounds(low * share.low * factor, high * share.high * factor)

    def paint(
        self,
        channel: int,
        spots: np.ndarray[Any, Any],
        bounds: Bounds | None,
        *,
        is_certain: bool,
    ) -> None:
        low, high = (bounds.low, bounds.high) if bounds is not None else (np.nan, np.nan)
        if not is_certain:
            low = np.minimum(self._low[channel, spots], low)
            high = np.maximum(self._high[channel, spots], high)
        self._low[channel, spots], self._high[channel, spots] = low, high
