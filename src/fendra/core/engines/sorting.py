"""Where what is written computes each number, and what it keeps for the layers."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fendra.core.engines.lower import Lowered
from fendra.core.graph.node import Rate
from fendra.core.graph.schedule import needed, schedule


@dataclass(frozen=True)
class Sorting:
    """Places of the graph, sorted by where they are computed.

    common: numbers of every frame. of_layer: for each layer, numbers that only it needs, and
    only while it is on. moving: for each layer, what is computed for each of its spots.
    fixed: for each layer, per-spot values that it reads. read: numbers that the layers read.
    """

    common: tuple[int, ...]
    of_layer: tuple[tuple[int, ...], ...]
    moving: tuple[tuple[int, ...], ...]
    fixed: tuple[tuple[int, ...], ...]
    read: tuple[tuple[int, ...], ...]


def sort(lowered: Lowered) -> Sorting:
    """Sort the places of a lowered design."""
    graph, paints = lowered.graph, lowered.painted
    rates = graph.rates()
    always = [lowered.master, *lowered.shares, *(paint.on for paint in paints)]
    always += [] if lowered.turn is None else [lowered.turn]
    always += [at for at in needed(graph, lowered.watched.values()) if rates[at] == Rate.FRAME]
    common, own = schedule(graph, always, [[*paint.results.values()] for paint in paints])
    moving, fixed, read = [], [], []
    for paint in paints:
        results = {*paint.results.values()}
        if paint.share is not None:
            results.add(paint.share)
        moves = {place for place in needed(graph, results) if rates[place] == Rate.SPOT_AND_FRAME}
        inputs = results | {arg for place in moves for arg in graph.nodes[place].args}
        moving.append(moves)
        fixed.append({place for place in inputs if rates[place] == Rate.SPOT})
        read.append({place for place in inputs if rates[place] == Rate.FRAME})
    sets = (own, moving, fixed, read)
    return Sorting(tuple(sorted(common)), *(tuple(map(_sorted, each)) for each in sets))


def _sorted(places: Iterable[int]) -> tuple[int, ...]:
    return tuple(sorted(places))
