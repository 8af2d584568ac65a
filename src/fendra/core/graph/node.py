"""Nodes and graphs: what an effect, an expression or a whole design is recorded as."""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass
from enum import IntFlag

from fendra.core.errors import GraphError
from fendra.core.graph.ops import Kind


class Rate(IntFlag):
    """How often a node changes; a node changes with all that its arguments change with."""

    NEVER = 0
    SPOT = 1
    FRAME = 2
    SPOT_AND_FRAME = 3


@dataclass(frozen=True, slots=True)
class Node:
    """One operation on earlier nodes.

    args: places of the arguments in the graph, all before this node.
    width: 1, or 3 for a colour (red, green, blue); a width of 1 spreads over 3.
    payload: a constant's values, or the name of a column, an input or a memory cell.
    space: which choice of spots a column runs over.
    """

    op: str
    args: tuple[int, ...]
    kind: Kind
    width: int = 1
    payload: Hashable = None
    space: str | None = None


_LEAF_RATES = {"column": Rate.SPOT, "input": Rate.FRAME, "state": Rate.FRAME}


def rate_of(node: Node, rates: Sequence[Rate]) -> Rate:
    """How often a node changes, from the rates of the nodes before it."""
    rate = _LEAF_RATES.get(node.op, Rate.NEVER)
    for arg in node.args:
        rate |= rates[arg]
    return rate


@dataclass(frozen=True)
class Graph:
    """Nodes in an order in which they can be computed, and the named results.

    `start` holds each memory cell's first value; the root `state:NAME` is what the
    cell holds next.
    """

    nodes: tuple[Node, ...]
    roots: Mapping[str, int]
    start: Mapping[str, float | int | bool]

    def rates(self) -> tuple[Rate, ...]:
        """How often each node changes."""
        rates: list[Rate] = []
        for node in self.nodes:
            rates.append(rate_of(node, rates))
        return tuple(rates)

    def spaces(self) -> tuple[str | None, ...]:
        """Over which choice of spots each node runs; None where it is one number."""
        spaces: list[str | None] = []
        for node in self.nodes:
            found = {spaces[arg] for arg in node.args} - {None}
            if len(found) > 1:
                raise GraphError(
                    f"'{node.op}' joins spots of {' and '.join(sorted(map(str, found)))}"
                )
            spaces.append(node.space or next(iter(found), None))
        return tuple(spaces)


STATE = "state:"
"""Prefix of the roots that say what a memory cell holds next."""
