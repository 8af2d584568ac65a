"""When numbers are computed: in every frame, or while a layer is on."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from fendra.core.graph.node import STATE, Graph, Rate

Places = frozenset[int]


def needed(graph: Graph, places: Iterable[int]) -> Places:
    """The places, and all that they are computed from."""
    found: set[int] = set()
    wanted = list(places)
    while wanted:
        place = wanted.pop()
        if place not in found:
            found.add(place)
            wanted.extend(graph.nodes[place].args)
    return frozenset(found)


def schedule(
    graph: Graph, always: Iterable[int], layers: Sequence[Iterable[int]]
) -> tuple[Places, tuple[Places, ...]]:
    """The numbers of every frame, and for each layer the numbers that only it needs.

    always: places that every frame needs, beside the next values of the memory cells. layers: the
    places that each layer needs while it is on.
    """
    rates = graph.rates()
    following = [place for name, place in graph.roots.items() if name.startswith(STATE)]
    common = {place for place in needed(graph, [*always, *following]) if rates[place] == Rate.FRAME}
    own = [
        {place for place in needed(graph, places) if rates[place] == Rate.FRAME}
        for places in layers
    ]
    seen: set[int] = set()
    for places in own:
        common |= places & seen
        seen |= places
    return frozenset(common), tuple(frozenset(places - common) for places in own)
