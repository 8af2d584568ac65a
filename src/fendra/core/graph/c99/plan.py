"""The plan of the emitted code: which number is computed where, and what is kept for the layers."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from fendra.core.graph.c99.lower import Lowered
from fendra.core.graph.node import STATE, Graph, Rate


@dataclass(frozen=True)
class Plan:
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


def make_plan(lowered: Lowered) -> Plan:
    """Sort the places of a lowered design."""
    graph = lowered.graph
    rates = graph.rates()
    shared = {lowered.master, *(paint.on for paint in lowered.paints)}
    shared |= {place for name, place in graph.roots.items() if name.startswith(STATE)}
    common = {place for place in _needed(graph, shared) if rates[place] == Rate.FRAME}
    moving, fixed, read, needed = [], [], [], []
    for paint in lowered.paints:
        results = {*paint.results.values()}
        all_of_it = _needed(graph, results)
        moves = {place for place in all_of_it if rates[place] == Rate.SPOT_AND_FRAME}
        inputs = results | {arg for place in moves for arg in graph.nodes[place].args}
        moving.append(moves)
        fixed.append({place for place in inputs if rates[place] == Rate.SPOT})
        read.append({place for place in inputs if rates[place] == Rate.FRAME})
        needed.append({place for place in all_of_it if rates[place] == Rate.FRAME})
    for i, own in enumerate(needed):
        for other in needed[:i]:
            common |= own & other
    return Plan(
        _sorted(common),
        tuple(_sorted(own - common) for own in needed),
        tuple(map(_sorted, moving)),
        tuple(map(_sorted, fixed)),
        tuple(map(_sorted, read)),
    )


def _needed(graph: Graph, places: Iterable[int]) -> set[int]:
    """The places and all that they are computed from."""
    found: set[int] = set()
    wanted = list(places)
    while wanted:
        place = wanted.pop()
        if place not in found:
            found.add(place)
            wanted.extend(graph.nodes[place].args)
    return found


def _sorted(places: Iterable[int]) -> tuple[int, ...]:
    return tuple(sorted(places))
