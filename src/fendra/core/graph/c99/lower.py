"""Lowering: a recorded design as the graph of single numbers that C is written from.

Blending becomes part of the graph: a layer reads the light beneath it and gives the light
that is there after it, channel by channel.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from fendra.core.graph.bounds import Bounds
from fendra.core.graph.highest import leaf_bounds
from fendra.core.graph.narrow import ZERO, Narrower
from fendra.core.graph.node import STATE, Graph, Node, Rate
from fendra.core.graph.ops import CHANNELS, Kind
from fendra.core.graph.passes import drop_unused, is_const, without_pictures
from fendra.core.mix import Recording, Slot

Floats = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True)
class Paint:
    """What one layer does to the light of its spots.

    on: the place of its condition. results: for each channel that it changes, the place of the
    light after it. share: the place of a number that, where it is 0, leaves the light as it is, to
    the bit; None where there is none such.
    """

    slot: Slot
    on: int
    results: Mapping[str, int]
    share: int | None = None


@dataclass(frozen=True)
class Lowered:
    """A recording made ready for C: its graph, its layers from the lowest on, its master level.

    shares: the places of how much of each scene is there. bytes: between which values all light
    lies after the master level, times 255; None where that is not known.
    """

    graph: Graph
    paints: tuple[Paint, ...]
    master: int
    bytes: Bounds | None
    shares: tuple[int, ...] = ()


def lower(recording: Recording) -> Lowered:
    """Split colours, put the blends into the graph, and drop what is needless."""
    recording = replace(recording, graph=without_pictures(recording.graph))
    lowering = _Lowering(recording)
    mixed = recording.mixed
    painted = []
    for i, slot in enumerate(recording.slots):
        painted.append((slot, lowering.paint(i, slot, is_mixed=i in mixed)))
        if len(mixed) and i == mixed[-1]:
            lowering.mix()
    kept = [(slot, results) for slot, results in painted if results]
    sharing = [lowering.shares(slot) for slot, _ in kept]
    roots = lowering.roots
    roots |= {f"there:{i}": lowering.places[place][0] for i, place in enumerate(recording.shares)}
    for i, (slot, results) in enumerate(kept):
        roots[f"on:{i}"] = lowering.places[slot.on][0]
        roots |= {f"{channel}:{i}": place for channel, place in results.items()}
        roots |= {f"share:{i}:{j}": place for j, place in enumerate(sharing[i])}
    graph = drop_unused(Graph(tuple(lowering.narrower.nodes), roots, recording.graph.start))
    rates = graph.rates()
    paints = tuple(
        Paint(
            slot,
            graph.roots[f"on:{i}"],
            {channel: graph.roots[f"{channel}:{i}"] for channel in results},
            _best([graph.roots[f"share:{i}:{j}"] for j in range(len(sharing[i]))], rates),
        )
        for i, (slot, results) in enumerate(kept)
    )
    shares = tuple(graph.roots[f"there:{i}"] for i in range(len(recording.shares)))
    return Lowered(graph, paints, graph.roots["master"], lowering.bytes(), shares)


def _best(places: list[int], rates: Sequence[Rate]) -> int | None:
    """The first that differs from LED to LED and from frame to frame, else the first of a frame."""
    for rate in (Rate.SPOT_AND_FRAME, Rate.FRAME):
        for place in places:
            if rates[place] == rate:
                return place
    return None


class _Lowering:
    """Paints layer after layer onto a canvas of bounds, and records the light that they give.

    places: for each place of the recorded graph, the three of a colour or the one.
    roots: the master level, and what the memory cells hold next.
    """

    def __init__(self, recording: Recording) -> None:
        self._recording = recording
        self._canvas = _Canvas(recording.spot_count)
        self._beneath: dict[Node, Bounds | None] = {}
        self._unsure: set[int] = set()
        self.narrower = Narrower(self._leaf_bounds, recording.columns)
        self.places = self.narrower.add_graph(recording.graph)
        self.roots = {
            name: self.places[place][0]
            for name, place in recording.graph.roots.items()
            if name == "master" or name.startswith(STATE)
        }

    def paint(self, number: int, slot: Slot, *, is_mixed: bool) -> dict[str, int]:
        """For each channel that a layer changes, the place of the light after it.

        is_mixed: it is painted for some scenes by themselves, and for others not.
        """
        spots = self._recording.spots[slot.space]
        on = self.narrower.nodes[self.places[slot.on][0]]
        if len(spots) == 0 or is_const(on, False):
            return {}
        results = {}
        for channel, name in enumerate(CHANNELS):
            leaf = Node("beneath", (), Kind.FLOAT, 1, (number, name), slot.space)
            self._beneath[leaf] = known = self._canvas.bounds(channel, spots)
            before = self.narrower.add(ZERO if known == Bounds(0.0, 0.0) else leaf)
            after = self._blend(slot, channel, before)
            bounds = self.narrower.bounds[after]
            is_certain = is_const(on, True) and not is_mixed
            is_whole = number == 0 and len(spots) == self._recording.spot_count
            if known is None or not known.is_positive or (is_certain and is_whole):
                self._unsure.add(slot.layer)  # there may be minus zero beneath, or nothing yet
            self._canvas.paint(channel, spots, bounds, is_certain=is_certain)
            if after != before:
                results[name] = after
        return results

    def shares(self, slot: Slot) -> list[int]:
        """Numbers of a layer that, where they are 0, leave the light as it is, to the bit."""
        if slot.layer in self._unsure or slot.blend == "multiply":
            return []
        nodes = self.narrower.nodes
        paints, rests = (
            {self._channel(place, channel) for channel in range(len(CHANNELS))}
            for place in (slot.paint, slot.rest)
        )
        lit = [paint for paint in paints if not is_const(nodes[paint], 0.0)]
        bounds = [self.narrower.bounds[paint] for paint in lit]
        if not lit or not all(each is not None and each.is_positive for each in bounds):
            return []
        found = set.intersection(*map(self._factors, lit))
        if slot.blend == "over":
            found = {share for share in found if all(self._leaves_all(share, r) for r in rests)}
        return sorted(place for place in found if nodes[place].op != "const")

    def _leaves_all(self, share: int, rest: int) -> bool:
        """Whether what a layer leaves of the light beneath is all of it where its share is 0."""
        nodes = self.narrower.nodes
        node, other = nodes[rest], nodes[share]
        if node.op == "sub" and is_const(nodes[node.args[0]], 1.0):
            return node.args[1] == share
        if not (node.op == other.op == "select" and node.args[0] == other.args[0]):
            return False
        return all(
            is_const(nodes[left], 1.0)
            or (nodes[taken].op == "const" and not is_const(nodes[taken], 0.0))
            for left, taken in zip(node.args[1:], other.args[1:], strict=True)
        )

    def _factors(self, place: int) -> set[int]:
        """A number, and what it is a product of: where one of those is 0, so is the number."""
        node, bounds = self.narrower.nodes[place], self.narrower.bounds
        if node.op != "mul" or not all(
            (each := bounds[arg]) is not None and each.is_finite for arg in node.args
        ):
            return {place}
        return {place}.union(*map(self._factors, node.args))

    def mix(self) -> None:
        """The shares of scenes are added up: with all rounding, a little more than 1 together."""
        self._canvas.widen(1e-5)

    def bytes(self) -> Bounds | None:
        """The bounds of all light after the master level, times 255."""
        return self._canvas.times(self.narrower.bounds[self.roots["master"]], 255.0)

    def _blend(self, slot: Slot, channel: int, beneath: int) -> int:
        """The light after a layer: see `mix.Blend`."""
        apply = self.narrower.apply
        paint, rest = (self._channel(place, channel) for place in (slot.paint, slot.rest))
        is_opaque = self._recording.graph.nodes[slot.rest].payload == (0.0,)
        match slot.blend:
            case "over" if is_opaque:
                return paint
            case "over":
                return apply("add", apply("mul", beneath, rest), paint)
            case "add":
                return apply("add", beneath, paint)
            case "multiply":
                return apply("mul", beneath, rest)
        return apply("max", paint, beneath)

    def _channel(self, place: int, channel: int) -> int:
        """The place of a channel of a recorded colour, or of the number itself."""
        return self.places[place][channel % len(self.places[place])]

    def _leaf_bounds(self, node: Node) -> Bounds | None:
        return self._beneath[node] if node in self._beneath else leaf_bounds(node)


class _Canvas:
    """Between which values the light of every spot lies, as layer after layer is painted."""

    def __init__(self, spot_count: int) -> None:
        self._low = np.zeros((3, spot_count))
        self._high = np.zeros((3, spot_count))  # NaN where nothing is known

    def bounds(self, channel: int, spots: np.ndarray[Any, Any]) -> Bounds | None:
        low, high = self._low[channel, spots].min(), self._high[channel, spots].max()
        return None if np.isnan(low) or np.isnan(high) else Bounds(float(low), float(high))

    def widen(self, part: float) -> None:
        """All light may be larger by this part, and down to 0."""
        self._low = np.minimum(self._low, 0.0)
        self._high = self._high * (1.0 + part)

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
