"""Passes: each takes a graph and gives a smaller one that computes the same.

They run in the order of `PASSES`; the same graph in gives the same graph out.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.node import STATE, Graph, Node, labelled, with_args
from fendra.core.graph.ops import is_operation, op_of


def simplify(graph: Graph) -> Graph:
    """Run every pass."""
    for run in PASSES:
        graph = run(graph)
    return graph


# Folding: operations on constants are done now.


def fold_constants(graph: Graph) -> Graph:
    """Replace operations whose arguments are all constants, and those that change nothing."""
    return _rewrite(graph, folded)


def folded(node: Node, args: list[Node]) -> Node | int:
    """The node, a simpler one, or the place of one that is the same."""
    if not is_operation(node.op):
        return node
    if all_constant(args):
        return compute(node, args)
    match node.op:
        case "mul" | "div" if is_const(args[1], 1.0) and args[0].width == node.width:
            return node.args[0]
        case "mul" if is_const(args[0], 1.0) and args[1].width == node.width:
            return node.args[1]
        case "sub" if is_const(args[1], 0.0) and args[0].width == node.width:
            return node.args[0]
        case "not" if args[0].op == "not":
            return args[0].args[0]
        case "select" | "uint_select" if args[0].op == "const":
            chosen = 1 if args[0].payload == (True,) else 2
            return node.args[chosen] if args[chosen].width == node.width else node
        case "select" | "uint_select" if args[0].op == "not":
            return with_args(node, (args[0].args[0], node.args[2], node.args[1]))
        case "and" | "or" if node.args[0] == node.args[1]:
            return node.args[0]
        case "and" | "or" if args[0].op == node.op and node.args[1] in args[0].args:
            return node.args[0]
        case "and" | "or" if args[1].op == node.op and node.args[0] in args[1].args:
            return node.args[1]
        case "and" | "or" if args[0].op == "const" or args[1].op == "const":
            known, other = (0, 1) if args[0].op == "const" else (1, 0)
            decides = args[known].payload == ((node.op == "or"),)
            return node.args[known if decides else other]
    return node


def is_const(node: Node, value: float) -> bool:
    """Whether a node is always this value, sign of zero included."""
    return node.op == "const" and {*map(repr, node.payload)} == {repr(value)}  # type: ignore[call-overload]


def all_constant(nodes: list[Node]) -> bool:
    """Whether none of the nodes ever changes, from spot to spot or frame to frame."""
    return all(node.op == "const" for node in nodes)


def compute(node: Node, args: list[Node]) -> Node:
    """An operation on constants as the constant that it gives."""
    values = [constant_array(arg) for arg in args]
    out = np.empty((node.width, 1), node.kind.dtype)
    with np.errstate(all="ignore"):
        op_of(node.op, node.payload).array(*values, out)
    return Node("const", (), node.kind, node.width, tuple(out.ravel().tolist()))


def constant_array(node: Node) -> Array:
    """A constant's values as (width, 1)."""
    return np.array(node.payload, node.kind.dtype).reshape(node.width, 1)


# Sharing: compute equal nodes once.


def share_equal(graph: Graph) -> Graph:
    """Let equal nodes with equal arguments be one node. -0.0 and 0.0 stay two."""
    seen: dict[tuple[object, ...], int] = {}
    places: list[int] = []
    nodes: list[Node] = []
    for node in graph.nodes:
        args = tuple([places[arg] for arg in node.args])
        key = (node.op, args, node.kind, node.width, node.space, repr(node.payload))
        place = seen.setdefault(key, len(nodes))
        if place == len(nodes):
            nodes.append(with_args(node, args))
        elif node.label:
            nodes[place] = labelled(nodes[place], node.label)
        places.append(place)
    roots = {name: places[place] for name, place in graph.roots.items()}
    return Graph(tuple(nodes), roots, graph.start)


# Dropping: do not compute unused nodes.


def drop_unused(graph: Graph) -> Graph:
    """Keep only the nodes that the results need, and the memory that those read."""
    wanted = [place for name, place in graph.roots.items() if not name.startswith(STATE)]
    kept: set[int] = set()
    while wanted:
        place = wanted.pop()
        if place in kept:
            continue
        kept.add(place)
        node = graph.nodes[place]
        wanted.extend(node.args)
        if node.op == "state":
            wanted.append(graph.roots[f"{STATE}{node.payload}"])
    order = sorted(kept)
    moved = {old: new for new, old in enumerate(order)}
    nodes = tuple(
        with_args(graph.nodes[old], tuple([moved[arg] for arg in graph.nodes[old].args]))
        for old in order
    )
    cells = {str(node.payload) for node in nodes if node.op == "state"}
    roots = {
        name: moved[place]
        for name, place in graph.roots.items()
        if not name.startswith(STATE) or name.removeprefix(STATE) in cells
    }
    return Graph(nodes, roots, {name: v for name, v in graph.start.items() if name in cells})


def _rewrite(graph: Graph, rule: Callable[[Node, list[Node]], Node | int]) -> Graph:
    """Apply a rule to every node; it gives a node, or the (new) place of one to use instead."""
    nodes: list[Node] = []
    places: list[int] = []
    for node in graph.nodes:
        moved = with_args(node, tuple([places[arg] for arg in node.args]))
        result = rule(moved, [nodes[arg] for arg in moved.args])
        if isinstance(result, int):
            if moved.label:
                nodes[result] = labelled(nodes[result], moved.label)
            places.append(result)
        else:
            places.append(len(nodes))
            nodes.append(result)
    roots = {name: places[place] for name, place in graph.roots.items()}
    return Graph(tuple(nodes), roots, graph.start)


PASSES: tuple[Callable[[Graph], Graph], ...] = (
    drop_unused,
    fold_constants,
    share_equal,
    drop_unused,
)
