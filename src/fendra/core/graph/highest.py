"""How high a number of a recorded design can become, for any input."""

from __future__ import annotations

from fendra.core.graph.bounds import Bounds
from fendra.core.graph.narrow import Narrower
from fendra.core.graph.node import STATE, VALUE, Graph, Node
from fendra.core.graph.ops import LARGEST, UINT_MASK, Kind
from fendra.core.graph.passes import drop_unused


def highest(graph: Graph, root: str) -> float | None:
    """The upper bound of one result of a graph; None if it is not known."""
    roots = {name: place for name, place in graph.roots.items() if name.startswith(STATE)}
    part = drop_unused(Graph(graph.nodes, {**roots, root: graph.roots[root]}, graph.start))
    narrower = Narrower(leaf_bounds)
    (place,) = narrower.add_graph(part)[part.roots[root]]
    bounds = narrower.bounds[place]
    return None if bounds is None else bounds.high


def leaf_bounds(node: Node) -> Bounds | None:
    """The bounds of the inputs, and of counts kept in memory."""
    if node.op in ("input", "state") and node.kind is Kind.UINT:
        return Bounds(0.0, UINT_MASK)
    if node.op == "input" and str(node.payload).startswith(VALUE):
        return Bounds(-LARGEST, LARGEST)
    return None
