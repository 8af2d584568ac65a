"""Carrying over: the next program takes over the memory of the last one where both mean the same.

A design that you change while it runs keeps the motion that did not change. A memory cell is the
same if it is computed in the same way from the same signals and cells; or else if it has the same
place in a layer, signal or scene of the same name.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Hashable, Iterator

from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design
from fendra.core.graph.node import STATE, Graph, Node

ROUNDS = 6
"""The most steps along which dependencies between cells are followed."""


def same_cells(before: Plan, after: Plan) -> dict[str, str]:
    """For memory cells of a plan, the cells of an earlier plan with the same meaning, by name."""
    left_old, left_new = _cells(before.graph), _cells(after.graph)
    found = _pair(_computed(before.graph), _computed(after.graph))
    left_old = {name: node for name, node in left_old.items() if name not in found.values()}
    left_new = {name: node for name, node in left_new.items() if name not in found}
    return found | _pair(
        dict(_by_owner(left_old, before.design)), dict(_by_owner(left_new, after.design))
    )


def _pair(theirs: dict[str, Hashable], mine: dict[str, Hashable]) -> dict[str, str]:
    """Of cells with equal keys the first with the first, the second with the second."""
    by_key = defaultdict(list)
    for name, key in theirs.items():
        by_key[key].append(name)
    return {name: by_key[key].pop(0) for name, key in mine.items() if by_key[key]}


def _cells(graph: Graph) -> dict[str, Node]:
    return {str(node.payload): node for node in graph.nodes if node.op == "state"}


def _stem(cell: str) -> str:
    return cell.partition(".")[0]


def _computed(graph: Graph) -> dict[str, Hashable]:
    """A key for each cell, equal for those that are computed in the same way."""
    keys: dict[str, Hashable] = {
        name: hash((_stem(name), str(node.kind), graph.start[name]))
        for name, node in _cells(graph).items()
    }
    for _ in range(ROUNDS):
        hashes: list[int] = []
        for node in graph.nodes:
            payload = keys[str(node.payload)] if node.op == "state" else repr(node.payload)
            args = tuple([hashes[arg] for arg in node.args])
            hashes.append(hash((node.op, payload, str(node.kind), node.width, node.space, args)))
        keys = {
            name: hash((key, hashes[graph.roots[f"{STATE}{name}"]])) for name, key in keys.items()
        }
    return keys


def _by_owner(cells: dict[str, Node], design: Design) -> Iterator[tuple[str, Hashable]]:
    """Each cell's key: its owner, its sort, and its number."""
    counts: dict[Hashable, int] = defaultdict(int)
    for name, node in cells.items():
        key = (_owner(node, design), _stem(name), str(node.kind))
        yield name, (*key, counts[key])
        counts[key] += 1


def _owner(node: Node, design: Design) -> Hashable:
    match node.origin:
        case ("layer", int(place)):
            return "layer", design.layer[place].name
        case ("scene", int(place)):
            return "scene", design.scene[place].name
    return node.origin
