"""Nodes as instructions, one after the other: of one number, or of four spots at once."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import dataclass
from functools import cache

from fendra.core.engines.wasm.binary import V128
from fendra.core.engines.wasm.code import LOADS, SPREADS, TYPES, Code, const, get, i32
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.engines.wasm.memory import LANES, Memory
from fendra.core.graph.node import Graph, Node
from fendra.core.graph.ops import LOOKUPS, Kind, Lookup, is_operation, op_of

LONGEST = 160
"""Bytes of instructions that still stand inside others rather than in a local."""


@dataclass(frozen=True, slots=True)
class Piece:
    """The instructions that push a value. of_lanes: for four spots; else one number for all."""

    push: bytes
    of_lanes: bool = False


@cache
def _tokens(text: str) -> tuple[bytes | tuple[int, bool], ...]:
    """Instructions ready, and for each argument its place and whether it is one number."""
    found: list[bytes | tuple[int, bool]] = []
    for token in text.split():
        argument = re.fullmatch(r"[\[{](\d)[\]}]", token)
        found.append((int(argument[1]), token[0] == "[") if argument else instruction(token))
    return tuple(found)


class Block:
    """Writes nodes in their order.

    leaf: gives the piece of a node that is not an operation. is_wide: four spots at once; numbers
    that are the same for all of them are computed before the loop, at `Code.start`.
    """

    def __init__(
        self, graph: Graph, code: Code, memory: Memory, leaf: Callable[[int, Node], Piece],
        known: Mapping[int, Piece] | None = None, *, is_wide: bool = False,
    ) -> None:  # fmt: skip
        self._graph, self._code, self._memory, self._leaf = graph, code, memory, leaf
        self._is_wide = is_wide
        self.pieces = dict(known or {})
        self._spread: dict[int, Piece] = {}

    def inner(self) -> Block:
        """A block that knows the nodes of this one; nodes that it adds stay in it."""
        return Block(self._graph, self._code, self._memory, self._leaf, self.pieces,
                     is_wide=self._is_wide)  # fmt: skip

    def write(
        self, places: Iterable[int], uses: Mapping[int, int], kept: Collection[int] = ()
    ) -> None:
        """Write the places, ascending. uses: as `uses_of` gives them. kept: places that get a local
        in any case.
        """
        nodes = self._graph.nodes
        for place in sorted(places):
            node = nodes[place]
            if not is_operation(node.op):
                self.piece(place)
                if place in kept:
                    self._keep(place, node)
                continue
            piece = self._operation(node)
            self.pieces[place] = piece
            is_inside = uses.get(place, 0) <= 1 and len(piece.push) <= LONGEST
            if place in kept or not is_inside:
                self._keep(place, node)

    def piece(self, place: int) -> Piece:
        """The instructions that push the value of a place."""
        if place not in self.pieces:
            node = self._graph.nodes[place]
            if node.op == "const" and isinstance(node.payload, tuple):
                self.pieces[place] = Piece(const(node.kind, node.payload[0]))
            else:
                self.pieces[place] = self._leaf(place, node)
        return self.pieces[place]

    def push(self, place: int) -> bytes:
        """The code that pushes it: four spots if the block is of four at once."""
        return (self._wide(place) if self._is_wide else self.piece(place)).push

    def _keep(self, place: int, node: Node) -> None:
        piece = self.pieces[place]
        kind = V128 if piece.of_lanes else TYPES[node.kind]
        self.pieces[place] = Piece(get(self._code.keep(piece.push, kind)), piece.of_lanes)

    def _wide(self, place: int) -> Piece:
        """A piece of four spots. A number that is the same for all is spread before the loop."""
        piece = self.piece(place)
        if piece.of_lanes:
            return piece
        if place not in self._spread:
            self._spread[place] = self.spread(piece, self._graph.nodes[place].kind)
        return self._spread[place]

    def spread(self, piece: Piece, kind: Kind) -> Piece:
        """A number that is known before the loop, four times."""
        pushed = piece.push
        if kind is Kind.TRUTH:  # all bits of a lane, or none
            pushed, kind = i32(0) + pushed + instruction("i32.sub"), Kind.UINT
        return Piece(self._code.early(pushed + instruction(SPREADS[kind])), of_lanes=True)

    def _operation(self, node: Node) -> Piece:
        args = [self.piece(arg) for arg in node.args]
        if not any(arg.of_lanes for arg in args):
            return Piece(_filled(one_text(node, self._memory), [arg.push for arg in args]))
        text = wide_text(node)
        if not text or ("[1]" in text and args[1].of_lanes):
            return self._lane_by_lane(node, args)
        wide = [self._wide(arg).push for arg in node.args]
        return Piece(_filled(text, wide, [arg.push for arg in args]), of_lanes=True)

    def _lane_by_lane(self, node: Node, args: list[Piece]) -> Piece:
        """Where there is no instruction for four, one after the other."""
        nodes = self._graph.nodes
        held = [
            Piece(get(self._code.keep(arg.push, V128)), of_lanes=True) if arg.of_lanes else arg
            for arg in args
        ]
        text, found = one_text(node, self._memory), bytearray()
        lane_of = {Kind.FLOAT: "f32x4", Kind.UINT: "i32x4", Kind.TRUTH: "i32x4"}
        for lane in range(LANES):
            pushed = [
                arg.push + instruction(f"{lane_of[nodes[place].kind]}.extract_lane:{lane}")
                if arg.of_lanes else arg.push
                for arg, place in zip(held, node.args, strict=True)
            ]  # fmt: skip
            found += _filled(text, pushed)
            form = f"{lane_of[node.kind]}.replace_lane:{lane}"
            found += instruction(form if lane else f"{lane_of[node.kind]}.splat")
        return Piece(bytes(found), of_lanes=True)


def one_text(node: Node, memory: Memory) -> str:
    """The instructions of an operation on one number."""
    if isinstance(node.payload, Lookup):
        last, at = len(node.payload) - 1, memory.table(node.payload.values)
        held = f"{{0}} i32.const:{last} {{0}} i32.const:{last} i32.lt_u select"
        return f"{held} i32.const:2 i32.shl {LOADS[node.kind]}:{at}"
    return op_of(node.op, node.payload).wasm


def wide_text(node: Node) -> str:
    """The same on four spots; empty if there are none."""
    return "" if isinstance(node.payload, Lookup) else op_of(node.op, node.payload).lanes


def uses_of(graph: Graph, places: Iterable[int]) -> Counter[int]:
    """How often the instructions of some places push each of their arguments."""
    found: Counter[int] = Counter()
    for place in places:
        node = graph.nodes[place]
        if is_operation(node.op):
            for arg, count in zip(node.args, _pushes(node.op), strict=True):
                found[arg] += count
    return found


@cache
def _pushes(name: str) -> tuple[int, ...]:
    """How often an operation pushes each of its arguments; one that is looked up is held first."""
    if name in LOOKUPS.values():
        return (2,)
    op = op_of(name, None)
    return tuple(
        max(text.count(f"{{{number}}}") + text.count(f"[{number}]") for text in (op.wasm, op.lanes))
        for number in range(len(op.takes))
    )


def _filled(text: str, args: list[bytes], singly: list[bytes] | None = None) -> bytes:
    return b"".join(
        token if isinstance(token, bytes) else (singly if token[1] and singly else args)[token[0]]
        for token in _tokens(text)
    )
