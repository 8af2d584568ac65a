"""Decides where the written code computes each number, and which ones it keeps for the layers."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import TypeAlias

import numpy as np

from fendra.core.arrays import Array
from fendra.core.composition.plan import Plan
from fendra.core.engines.lower import Lowered, Painted
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.node import Rate
from fendra.core.graph.schedule import needed, schedule


@dataclass(frozen=True)
class Sorting:
    """Places of the graph, sorted by where they are computed.

    common: numbers of every frame. of_layer: for each layer, numbers that only it needs, and only
    while it is on. moving: for each layer, the values that are computed for each of its spots.
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


Turn: TypeAlias = tuple[list[int], Painted | None, tuple[int, ...]]


def in_turn(lowered: Lowered, sorting: Sorting) -> Iterator[Turn]:
    """The numbers of a frame in the order of the design: those that are due for all, then a layer
    and those that it alone needs. What is left for all comes last, with no layer.
    """
    waiting = [*sorting.common]
    for paint, own in zip(lowered.painted, sorting.of_layer, strict=True):
        if own:
            due = [place for place in waiting if place <= max(own[-1], paint.on)]
            waiting = waiting[len(due) :]
            yield due, paint, own
    yield waiting, None, ()


class PerSpot:
    """The values of a lowered plan that differ from spot to spot and never change."""

    def __init__(self, lowered: Lowered, plan: Plan) -> None:
        self._graph = lowered.graph
        spaces = self._graph.spaces()

        def shape(place: int) -> tuple[int, ...]:
            space = spaces[place]
            return (1 if space is None else len(plan.spots[space]),)

        self._fixed = compute_fixed(self._graph, plan.columns, shape)

    def values(self, place: int, count: int) -> Array:
        """The values at a place of the graph, as (count,) of their own kind."""
        dtype = self._graph.nodes[place].kind.dtype
        return np.ascontiguousarray(np.broadcast_to(self._fixed[place], (count,)), dtype)


def _sorted(places: Iterable[int]) -> tuple[int, ...]:
    return tuple(sorted(places))
