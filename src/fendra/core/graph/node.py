"""Nodes and graphs: what an effect, an expression or a whole design is recorded as."""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from enum import IntFlag
from functools import cached_property

from fendra.core.errors import GraphError
from fendra.core.findings import KeyPath
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

    args: places of the arguments in the graph, all before this node. width: 1, or 3 for a colour
    (red, green, blue); a width of 1 spreads over 3. payload: a constant's values, or the name of a
    column, an input or a memory cell. space: the choice of spots that a column runs over. label: a
    name given while recording. origin: where in the design it comes from. Both are for people who
    read the emitted code; they do not count when nodes are compared.
    """

    op: str
    args: tuple[int, ...]
    kind: Kind
    width: int = 1
    payload: Hashable = None
    space: str | None = None
    label: str | None = field(default=None, compare=False)
    origin: KeyPath = field(default=(), compare=False)


def labelled(node: Node, label: str) -> Node:
    """The node with a label, if it can have one and has none yet."""
    if node.label is None and node.op != "const":
        return replace(node, label=label)
    return node


_LEAF_RATES = {
    "column": int(Rate.SPOT),
    "input": int(Rate.FRAME),
    "state": int(Rate.FRAME),
    "beneath": int(Rate.SPOT_AND_FRAME),
    "pixels": int(Rate.SPOT_AND_FRAME),
}
RATES = tuple(Rate(bits) for bits in range(4))


def rate_bits(node: Node, bits: Sequence[int]) -> int:
    """How often a node changes, as the bits of a `Rate`, from the bits of the nodes before it.

    Plain integers: designs have a thousand nodes, and enums are slow to combine.
    """
    found = _LEAF_RATES.get(node.op, 0)
    for arg in node.args:
        found |= bits[arg]
    return found


def with_args(node: Node, args: tuple[int, ...]) -> Node:
    """The node on other arguments."""
    if args == node.args:
        return node
    return Node(
        node.op, args, node.kind, node.width, node.payload, node.space, node.label, node.origin
    )


@dataclass(frozen=True)
class Graph:
    """Nodes in an order in which they can be computed, and the named results.

    `start` holds each memory cell's first value; the root `state:NAME` is the cell's next value.
    """

    nodes: tuple[Node, ...]
    roots: Mapping[str, int]
    start: Mapping[str, float | int | bool]

    def rates(self) -> tuple[Rate, ...]:
        """How often each node changes."""
        return self._rates

    @cached_property
    def _rates(self) -> tuple[Rate, ...]:
        bits: list[int] = []
        for node in self.nodes:
            bits.append(rate_bits(node, bits))
        return tuple([RATES[each] for each in bits])

    def spaces(self) -> tuple[str | None, ...]:
        """Over which choice of spots each node runs; None if it is one number."""
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

VALUE, NEWS = "value:", "news:"
"""Prefixes of a signal's two inputs: its newest value, which stays until there is another, and
whether it came with this frame. A value is within +-LARGEST: whoever feeds it sees to that."""
