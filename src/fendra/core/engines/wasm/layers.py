"""The layers: a function each, which goes through its own spots and no others."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from fendra.core.arrays import Array
from fendra.core.engines.lower import Painted
from fendra.core.engines.runs import runs_of
from fendra.core.engines.sorting import PerSpot
from fendra.core.engines.wasm.binary import V128, Function
from fendra.core.engines.wasm.block import Block, Piece, uses_of
from fendra.core.engines.wasm.code import LOADS, STORES, TYPES, Code, const, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction, store_lane
from fendra.core.engines.wasm.memory import LANES, ROW
from fendra.core.graph.node import Node, Rate
from fendra.core.graph.ops import CHANNELS, Kind
from fendra.core.graph.schedule import needed

RUN = 12
"""Bytes of a run in memory: where it begins and ends on a plane, and in a table of its layer."""


class Layers:
    """Writes the layers of a draft, and the values that a page reads at one spot."""

    def __init__(self, draft: Draft) -> None:
        self._draft = draft
        self._fixed = PerSpot(draft.lowered, draft.plan)

    def function(self, number: int, paint: Painted) -> Function:
        """One layer."""
        draft = self._draft
        spots, code = draft.plan.spots[paint.space], Code()
        at, end, row = code.local(), code.local(), code.local()
        is_wide = draft.lanes > 1
        moving = draft.sorting.moving[number]
        numbers = self._numbers(code, draft.sorting.read[number])
        if paint.share in numbers:
            code.add(numbers[paint.share].push, const(Kind.FLOAT, 0.0), "f32.eq if return end")
        wanted = {*paint.results.values()}
        uses = uses_of(draft.graph, moving)
        block = Block(draft.graph, code, draft.memory, self._leaf(at), numbers, is_wide=is_wide)
        with code.apart() as body:
            for place in draft.sorting.fixed[number]:
                block.pieces[place] = self._column(code, block, place, len(spots), row)
            code.add("block")
            if paint.share in moving:  # where all spots keep their light, to the bit
                first = needed(draft.graph, [paint.share]) & {*moving}
                block.write(first, uses, kept=[paint.share])
                code.add(block.push(paint.share), self._is_zero(), "br_if:0")
                moving = tuple(place for place in moving if place not in first)
            block.write(moving, uses, kept=wanted)
            self._store(code, block, paint, at, end)
            code.add("end")
        code.start()
        self._through(code, spots, bytes(body), at, end, row)
        return code.done()

    def _numbers(self, code: Code, places: tuple[int, ...]) -> dict[int, Piece]:
        """The numbers of the frame that a layer reads, taken before its loop."""
        draft, known = self._draft, {}
        for place in places:
            kind = draft.kind(place)
            pushed = i32(0) + instruction(f"{LOADS[kind]}:{draft.fields[place]}")
            known[place] = Piece(get(code.keep(pushed, TYPES[kind])))
        return known

    def _leaf(self, at: int) -> Callable[[int, Node], Piece]:
        """Instructions that push the light beneath, or a live picture's, for the painted spots."""
        is_wide = self._draft.lanes > 1
        load = "v128.load" if is_wide else "f32.load"

        def leaf(_: int, node: Node) -> Piece:
            return Piece(get(at) + instruction(f"{load}:{self._plane(node)}"), of_lanes=is_wide)

        return leaf

    def _plane(self, node: Node) -> int:
        """Where the light beneath, (layer, channel), or of a picture, (name, channel), begins."""
        assert isinstance(node.payload, tuple)
        name, channel = node.payload
        first = self._draft.canvas if node.op == "beneath" else self._draft.pictures[str(name)]
        return first + self._draft.plane * CHANNELS.index(str(channel))

    def _column(self, code: Code, block: Block, place: int, count: int, row: int) -> Piece:
        """The per-spot value of the spots that are painted, from its table if there are several."""
        draft, kind = self._draft, self._draft.kind(place)
        values = self._fixed.values(place, count)
        if (values.view(np.uint8).reshape(count, -1) == values[:1].view(np.uint8)).all():
            one = Piece(const(kind, values[0].item()))
            return block.spread(one, kind) if draft.lanes > 1 else one
        is_wide = draft.lanes > 1
        table = draft.memory.table(values, of_lanes=is_wide)
        load = "v128.load" if is_wide else LOADS[kind]
        pushed = get(row) + instruction(f"{load}:{table}")
        return Piece(get(code.keep(pushed, V128 if is_wide else TYPES[kind])), of_lanes=is_wide)

    def _is_zero(self) -> bytes:
        """Whether a share that is pushed is 0, of all spots at once."""
        zero = const(Kind.FLOAT, 0.0)
        if self._draft.lanes == 1:
            return zero + instruction("f32.eq")
        names = ("f32x4.splat", "f32x4.ne", "v128.any_true", "i32.eqz")
        return zero + b"".join(map(instruction, names))

    def _store(self, code: Code, block: Block, paint: Painted, at: int, end: int) -> None:
        """Put the light on the canvas; of the last spots of a run, one by one."""
        draft = self._draft
        planes = [
            (block.push(place), draft.canvas + draft.plane * CHANNELS.index(channel))
            for channel, place in paint.results.items()
        ]
        if draft.lanes == 1:
            for pushed, plane in planes:
                code.add(get(at), pushed, f"f32.store:{plane}")
            return
        rest = get(end) + get(at) + instruction("i32.sub")
        code.add(rest, i32(ROW), "i32.ge_u if")
        for pushed, plane in planes:
            code.add(get(at), pushed, f"v128.store:{plane}")
        code.add("else")
        for lane in range(LANES - 1):
            if lane:
                code.add(rest, i32(4 * lane), "i32.gt_u if")
            for pushed, plane in planes:
                code.add(get(at), pushed, store_lane(lane, plane + 4 * lane))
        code.add("end " * (LANES - 1))

    def _through(
        self, code: Code, spots: Array, body: bytes, at: int, end: int, row: int
    ) -> None:  # fmt: skip
        """The body, for every spot of a layer."""
        step = 4 * self._draft.lanes
        runs = runs_of(spots)
        if len(runs) == 1:
            code.add(i32(4 * runs[0].first), f"local.set:{at}", i32(4 * runs[0].end))
            code.add(f"local.set:{end}", i32(0), f"local.set:{row}")
            self._along(code, body, at, end, row, step)
            return
        table = np.array([[4 * r.first, 4 * r.end, 4 * r.place] for r in runs], np.uint32)
        first = self._draft.memory.table(table.ravel())
        which = code.keep(i32(first))
        with code.counting(which, i32(first + RUN * len(runs)), RUN):
            for local, offset in ((at, 0), (end, 4), (row, 8)):
                code.add(get(which), f"i32.load:{offset} local.set:{local}")
            self._along(code, body, at, end, row, step)

    def _along(
        self, code: Code, body: bytes, at: int, end: int, row: int, step: int
    ) -> None:  # fmt: skip
        with code.counting(at, get(end), step):
            code.add(body)
            code.add(get(row), i32(step), f"i32.add local.set:{row}")

    def telling(self, space: str, told: dict[int, list[int]]) -> Function:
        """A function that gives values of a layer at one of its spots.

        It takes the spot's place among those of the layer, and its place among all. told: the
        address for each value, by its place in the graph.
        """
        draft, code = self._draft, Code(_I32, _I32)
        graph, rates = draft.graph, draft.graph.rates()
        row, at = (code.keep(get(i) + i32(2) + instruction("i32.shl")) for i in range(2))
        places = needed(graph, told)
        moving = {p for p in places if rates[p] == Rate.SPOT_AND_FRAME}
        count = len(draft.plan.spots[space])

        def leaf(place: int, node: Node) -> Piece:
            kind = draft.kind(place)
            if node.op == "pixels":
                return Piece(get(at) + instruction(f"f32.load:{self._plane(node)}"))
            if rates[place] == Rate.SPOT:
                values = draft.memory.table(self._fixed.values(place, count))
                return Piece(get(row) + instruction(f"{LOADS[kind]}:{values}"))
            return Piece(i32(0) + instruction(f"{LOADS[kind]}:{draft.fields[place]}"))

        uses = uses_of(graph, moving)
        inputs = {arg for p in moving for arg in graph.nodes[p].args} | {*told}
        known = {
            p: leaf(p, graph.nodes[p]) for p in inputs - moving if graph.nodes[p].op != "const"
        }
        block = Block(graph, code, draft.memory, leaf, known)
        block.write(moving, uses, kept={*told} & moving)
        for place, addresses in told.items():
            for address in addresses:
                code.add(i32(0), block.push(place), f"{STORES[draft.kind(place)]}:{address}")
        return code.done()


_I32 = TYPES[Kind.UINT]
