"""Channels and bounds: a graph of single numbers without needless operations.

A colour becomes three numbers, so that a channel that is always dark costs nothing. Operations that
the bounds make needless are dropped: a clamp of a value within, a product with 0. Every value keeps
its bits.
"""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.bounds import Bounds, bounds_of, bounds_of_values
from fendra.core.graph.fixed import Columns
from fendra.core.graph.node import Graph, Node, labelled, with_args
from fendra.core.graph.ops import CHANNELS, OPS, Kind, Lookup, is_operation, op_of
from fendra.core.graph.passes import compute, constant_array, folded, is_const

CHOICES = ("select", "uint_select")

ZERO = Node("const", (), Kind.FLOAT, 1, (0.0,))


class Narrower:
    """Builds a graph node by node, each of width 1, folded, shared and within its bounds.

    leaf_bounds: of inputs, memory cells and the like.
    columns: (space, column name) to the values of its spots. What follows from them alone is
    computed, so that its bounds are exact.
    """

    def __init__(
        self, leaf_bounds: Callable[[Node], Bounds | None], columns: Columns | None = None
    ) -> None:
        self._leaf_bounds = leaf_bounds
        self._columns = columns or {}
        self._values: dict[int, Array] = {}
        self._seen: dict[tuple[object, ...], int] = {}
        self.nodes: list[Node] = []
        self.bounds: list[Bounds | None] = []

    def add(self, node: Node) -> int:
        """The place of a node, or of an earlier one that always has the same bits."""
        args = [self.nodes[arg] for arg in node.args]
        result = folded(node, args)
        if isinstance(result, Node) and is_operation(result.op):
            result = _narrowed(result, self.nodes, [self.bounds[arg] for arg in result.args])
        if isinstance(result, Node) and is_operation(result.op):
            result = self._through_choice(result)
        if isinstance(result, int):
            return self._labelled(result, node)
        key = (result, repr(result.payload))
        if key in self._seen:
            return self._labelled(self._seen[key], node)
        self._seen[key] = len(self.nodes)
        self.nodes.append(result)
        self.bounds.append(self._bounds_of(result))
        return len(self.nodes) - 1

    def _through_choice(self, node: Node) -> Node | int:
        """A node, or the same as a choice of two constants.

        What follows from one of two constants is one of two constants as well; and a choice inside
        another by the same condition is made already.
        """
        if node.op in CHOICES:
            condition, *branches = node.args
            inner = [self.nodes[branch] for branch in branches]
            made = [
                each.args[1 + i] if each.op in CHOICES and each.args[0] == condition else branch
                for i, (each, branch) in enumerate(zip(inner, branches, strict=True))
            ]
            if made != branches:
                return self.add(with_args(node, (condition, *made)))
            return node
        args = [self.nodes[arg] for arg in node.args]
        is_choice = [
            arg.op in CHOICES and all(self.nodes[each].op == "const" for each in arg.args[1:])
            for arg in args
        ]
        conditions = {arg.args[0] for arg, is_it in zip(args, is_choice, strict=True) if is_it}
        is_all = all(is_it or arg.op == "const" for arg, is_it in zip(args, is_choice, strict=True))
        if len(conditions) != 1 or not is_all or isinstance(node.payload, Lookup):
            return node
        (condition,) = conditions
        first, second = (
            compute(node, [self.nodes[arg.args[1 + i]] if is_it else arg
                           for arg, is_it in zip(args, is_choice, strict=True)])
            for i in range(2)
        )  # fmt: skip
        if repr(first.payload) == repr(second.payload):
            return self.add(first)
        if node.kind is Kind.TRUTH:
            is_same = first.payload == (True,)
            return condition if is_same else self.add(Node("not", (condition,), Kind.TRUTH))
        op = "uint_select" if node.kind is Kind.UINT else "select"
        return self.add(
            Node(op, (condition, self.add(first), self.add(second)), node.kind, label=node.label,
                 origin=node.origin)
        )  # fmt: skip

    def _bounds_of(self, node: Node) -> Bounds | None:
        values = self._fixed(node)
        if values is not None and len(values):
            return bounds_of_values(values) if node.kind is Kind.FLOAT else None
        if not node.args and node.op != "const":
            return self._leaf_bounds(node)
        if self._is_fraction(node) or self._is_smooth(node):
            return Bounds(0.0, 1.0)
        return bounds_of(node, [self.bounds[arg] for arg in node.args])

    def _is_fraction(self, node: Node) -> bool:
        """Whether a node is x - floor(x), and x is known to be finite."""
        if node.op != "sub":
            return False
        whole = self.nodes[node.args[1]]
        is_it = whole.op == "floor" and whole.args[0] == node.args[0]
        return is_it and self.bounds[node.args[1]] is not None

    def _is_smooth(self, node: Node) -> bool:
        """Whether a node is x * x * (3 - 2 x), and x is within 0 and 1: then it is as well.

        So say all of the float32 from 0 to 1, tried one by one.
        """
        if node.op != "mul":
            return False
        square, slope = (self.nodes[arg] for arg in node.args)
        if square.op != "mul" or square.args[0] != square.args[1] or slope.op != "sub":
            return False
        three, twice = (self.nodes[arg] for arg in slope.args)
        if not is_const(three, 3.0) or twice.op != "mul" or twice.args[1] != square.args[0]:
            return False
        x = self.bounds[square.args[0]]
        return (
            is_const(self.nodes[twice.args[0]], 2.0)
            and x is not None
            and x.low >= 0
            and x.high <= 1
        )

    def _fixed(self, node: Node) -> Array | None:
        """The values of a node that differs from spot to spot, but not from frame to frame.

        The node is the newest one.
        """
        values: Array | None = None
        if node.op == "column":
            column = self._columns.get((str(node.space), str(node.payload)))
            values = None if column is None else column.astype(node.kind.dtype)
        elif any(arg in self._values for arg in node.args):
            args = [
                self._values[arg] if arg in self._values else constant_array(self.nodes[arg])[0]
                for arg in node.args
                if arg in self._values or self.nodes[arg].op == "const"
            ]
            if len(args) == len(node.args):
                shape = np.broadcast_shapes(*(arg.shape for arg in args))
                values = np.empty(shape, node.kind.dtype)
                with np.errstate(all="ignore"):
                    op_of(node.op, node.payload).array(*args, values)
        if values is not None:
            self._values[len(self.nodes) - 1] = values
        return values

    def apply(self, op: str, *args: int) -> int:
        """The place of an operation of the table."""
        return self.add(Node(op, args, OPS[op].gives))

    def add_graph(self, graph: Graph) -> list[tuple[int, ...]]:
        """Add all nodes of a graph; for each of its places, the three of a colour or the one."""
        places: list[tuple[int, ...]] = []
        for node in graph.nodes:
            if node.op in CHANNELS:
                colour = places[node.args[0]]
                places.append((colour[CHANNELS.index(node.op) % len(colour)],))
                continue
            channels = []
            for channel in range(node.width):
                args = tuple(places[arg][channel % len(places[arg])] for arg in node.args)
                channels.append(self.add(of_channel(node, channel, args)))
            places.append(tuple(channels))
        return places

    def _labelled(self, place: int, node: Node) -> int:
        if node.label:
            self.nodes[place] = labelled(self.nodes[place], node.label)
        return place


def of_channel(node: Node, channel: int, args: tuple[int, ...]) -> Node:
    """One channel of a colour, on the places of its arguments' channels; or the number itself."""
    if node.width == 1:
        return with_args(node, args)
    payload = (node.payload[channel],) if isinstance(node.payload, tuple) else node.payload
    label = f"{node.label}_{CHANNELS[channel]}" if node.label else None
    return Node(node.op, args, node.kind, 1, payload, node.space, label, node.origin)


def _narrowed(node: Node, nodes: list[Node], bounds: list[Bounds | None]) -> Node | int:
    """A node, or a simpler one with the same value within the bounds of its arguments."""
    match node.op, bounds:
        case "mul", [a, b]:
            for factor, other in ((0, b), (1, a)):
                is_zero = is_const(nodes[node.args[factor]], 0.0)
                if is_zero and other and other.is_positive and other.is_finite:
                    return ZERO
        case "add", [a, b]:
            for term, other in ((0, b), (1, a)):
                if is_const(nodes[node.args[term]], 0.0) and other and other.is_positive:
                    return node.args[1 - term]
        case "min", [Bounds() as a, Bounds() as b]:
            if b.high <= a.low:
                return node.args[1]
            if a.high < b.low or (a.high == b.low and a.is_positive):
                return node.args[0]
        case "max", [Bounds() as a, Bounds() as b]:
            if a.high <= b.low:
                return node.args[1]
            if b.high < a.low or (b.high == a.low and b.is_positive):
                return node.args[0]
        case "abs", [Bounds() as a] if a.is_positive:
            return node.args[0]
        case "uint_less", _ if is_const(nodes[node.args[1]], 0):
            return Node("const", (), Kind.TRUTH, 1, (False,))
        case "equal", [Bounds() as a, Bounds() as b]:
            if a.high < b.low or b.high < a.low:
                return Node("const", (), Kind.TRUTH, 1, (False,))
        case "less", [Bounds() as a, Bounds() as b]:
            if a.high < b.low or a.low >= b.high:
                return Node("const", (), Kind.TRUTH, 1, (a.high < b.low,))
        case "select" | "uint_select", _ if node.args[1] == node.args[2]:
            return node.args[1]
    return node
