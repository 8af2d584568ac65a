"""The numbers of a frame: signals, conditions, levels, memory; all that is one for all spots."""

from __future__ import annotations

from fendra.core.engines.lower import Painted
from fendra.core.engines.sorting import in_turn
from fendra.core.engines.wasm.binary import F32, I32, Function
from fendra.core.engines.wasm.block import Block, Piece, uses_of
from fendra.core.engines.wasm.code import LOADS, STORES, Code, const, get, i32
from fendra.core.engines.wasm.draft import Draft
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.graph.node import NEWS, VALUE, Node
from fendra.core.graph.ops import LARGEST, Kind


def taken() -> Function:
    """An input, held within +-1e9; NaN is 0."""
    code = Code(F32, gives=(F32,))
    most, least = const(Kind.FLOAT, LARGEST), const(Kind.FLOAT, -LARGEST)
    zero, value = const(Kind.FLOAT, 0.0), get(0)
    code.add(value, most, "f32.gt if", most, "return end")
    code.add(value, least, "f32.ge if", value, "return end")
    code.add(least, zero, value, zero, "f32.lt select")
    return code.done()


def is_news() -> Function:
    """A function: whether the signal at an address has arrived and is a finite number."""
    code = Code(I32, gives=(I32,))
    code.add(get(0), "i32.load:4", i32(0), "i32.ne", get(0), "f32.load:0 f32.abs")
    code.add(const(Kind.FLOAT, 3.4e38), "f32.le i32.and")
    return code.done()


def advance(draft: Draft, taken_at: int, is_news_at: int) -> Function:
    """The function that computes them, at the time in memory."""
    return _Advance(draft, taken_at, is_news_at).run()


class _Advance:
    def __init__(self, draft: Draft, taken_at: int, is_news_at: int) -> None:
        self._draft = draft
        self._taken, self._is_news = taken_at, is_news_at
        self._code = code = Code()
        self._now = code.keep(i32(0) + instruction(f"i32.load:{draft.now_ms}"))
        begun = i32(0) + instruction(f"i32.load:{draft.has_begun}")
        self._first = code.keep(begun + instruction("i32.eqz"))
        last = i32(0) + instruction(f"i32.load:{draft.last_ms}")
        code.add(i32(0), get(self._now), last, "i32.sub", get(self._first), "select")
        self._dt = code.local()
        code.add(f"local.set:{self._dt}")
        self._block = Block(draft.graph, code, draft.memory, self._leaf)
        self._next = {draft.following(cell) for cell in draft.cells}
        sorting = draft.sorting
        own = [place for places in sorting.of_layer for place in places]
        self._uses = uses_of(draft.graph, [*sorting.common, *own])

    def run(self) -> Function:
        draft, code = self._draft, self._code
        for due, paint, own in in_turn(draft.lowered, draft.sorting):
            self._write(self._block, due)
            if paint is not None:
                self._write_while_on(paint, own)
        for cell, address in draft.cells.items():
            pushed = self._block.push(draft.following(cell))
            code.add(i32(0), pushed, f"{STORES[draft.cell_kinds[cell]]}:{address}")
        code.add(i32(0), get(self._now), f"i32.store:{draft.last_ms}")
        code.add(i32(0), get(self._dt), f"i32.store:{draft.dt_ms}")
        code.add(i32(0), i32(1), f"i32.store:{draft.has_begun}")
        return code.done()

    def _write(self, block: Block, places: list[int] | tuple[int, ...]) -> None:
        draft = self._draft
        fields = [place for place in places if place in draft.fields]
        block.write(places, self._uses, kept={*fields, *self._next})
        for place in fields:
            kind = draft.kind(place)
            self._code.add(i32(0), block.push(place), f"{STORES[kind]}:{draft.fields[place]}")

    def _write_while_on(self, paint: Painted, own: tuple[int, ...]) -> None:
        """Numbers that only one layer needs, while it is on."""
        is_always = self._draft.graph.nodes[paint.on].op == "const"
        if is_always:
            self._write(self._block.inner(), own)
            return
        pushed = self._block.push(paint.on)
        with self._code.apart() as inside:
            self._write(self._block.inner(), own)
        self._code.add(pushed, "if", bytes(inside), "end")

    def _leaf(self, _: int, node: Node) -> Piece:
        draft, payload = self._draft, str(node.payload)
        if node.op == "state":
            return Piece(i32(0) + instruction(f"{LOADS[node.kind]}:{draft.cells[payload]}"))
        if payload.startswith(VALUE):
            value = i32(0) + instruction(f"f32.load:{self._signal(payload, VALUE)}")
            return self._kept(value + instruction(f"call:{self._taken}"), F32)
        if payload.startswith(NEWS):
            value = i32(self._signal(payload, NEWS))
            return self._kept(value + instruction(f"call:{self._is_news}"), I32)
        local = {"now_ms": self._now, "dt_ms": self._dt, "first": self._first}[payload]
        return Piece(get(local))

    def _kept(self, pushed: bytes, kind: int) -> Piece:
        return Piece(get(self._code.keep(pushed, kind)))

    def _signal(self, payload: str, prefix: str) -> int:
        return self._draft.signals[payload.removeprefix(prefix)]
