"""Blocks: nodes as declarations, one below the other, small ones inside the ones that use them."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping

from fendra.core.engines.c99.names import Names
from fendra.core.engines.c99.tables import Tables
from fendra.core.engines.c99.text import C_TYPES, Piece, literal, operation, statement
from fendra.core.engines.c99.tiny import Sizes
from fendra.core.errors import GraphError
from fendra.core.graph.node import Graph, Node
from fendra.core.graph.ops import Binds, Lookup, is_operation

LONGEST = 60
"""Characters of an expression that is still put into another."""


class Block:
    """Writes nodes in their order as C.

    tables: where numbers are looked up. leaf: gives the piece for a node that is no operation.
    known: pieces of places that were computed outside.
    """

    def __init__(
        self,
        graph: Graph,
        names: Names,
        tables: Tables,
        leaf: Callable[[Node], Piece],
        known: Mapping[int, Piece],
        indent: str,
    ) -> None:
        self._graph = graph
        self._names = names
        self._tables = tables
        self._leaf = leaf
        self._indent = indent
        self.pieces = dict(known)
        self._sizes = Sizes(graph)
        self.lines: list[str] = []

    def write(
        self,
        places: Iterable[int],
        uses: Mapping[int, int],
        kept: Collection[int] = (),
        fields: Mapping[int, str] | None = None,
        comment: Callable[[Node], Iterable[str]] = lambda _: (),
        stem: Callable[[int, Node], str] = lambda _, node: node.label or "v",
    ) -> None:
        """Write the places, ascending.

        uses: how often each is read. kept: places that are read after this block. fields: places
        that are stored, and where. comment: gives the comment above a node, if any. stem: gives a
        node's name.
        """
        nodes = self._graph.nodes
        fields = fields or {}
        for place in sorted(places):
            node = nodes[place]
            is_leaf = not is_operation(node.op)
            piece = self.piece(place) if is_leaf else self._operation(place, node)
            is_named = uses.get(place, 0) > 1 or node.label or len(piece.text) > LONGEST
            if place in fields:
                self.lines += comment(node)
                self.lines += statement(f"{fields[place]} = {piece.text};", self._indent)
                piece = Piece(fields[place], Binds.ATOM)
            elif place in kept or (is_named and not is_leaf):
                name = self._names.take(stem(place, node))
                self.lines += comment(node)
                text = f"const {C_TYPES[node.kind]} {name} = {piece.text};"
                self.lines += statement(text, self._indent)
                piece = Piece(name, Binds.ATOM)
            self.pieces[place] = piece

    def piece(self, place: int) -> Piece:
        """The text for a place in an expression."""
        if place not in self.pieces:
            node = self._graph.nodes[place]
            if node.op == "const" and isinstance(node.payload, tuple):
                self.pieces[place] = literal(node.kind, node.payload[0])
            elif is_operation(node.op):
                raise GraphError(f"'{node.op}' is read in the emitted code before it is computed")
            else:
                self.pieces[place] = self._leaf(node)
        return self.pieces[place]

    def _operation(self, place: int, node: Node) -> Piece:
        args = [self.piece(arg) for arg in node.args]
        if isinstance(node.payload, Lookup):
            return self._tables.look_up(node.payload, args[0], f"{node.label or 'look_up'}_table")
        if node.op == "div" and not self._sizes.is_normal(place):
            return Piece(f"quotient({args[0].text}, {args[1].text})", Binds.ATOM)
        inner = self._graph.nodes[node.args[0]]
        if node.op == "min" and args[0].op == "max":  # so people write it
            held = [*(self.piece(arg).text for arg in inner.args), args[1].text]
            return Piece(f"clamp({', '.join(held)})", Binds.ATOM)
        return operation(node.op, args)
