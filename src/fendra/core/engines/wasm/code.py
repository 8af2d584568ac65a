"""Writing one function: instructions after each other, and the locals that they use."""

from __future__ import annotations

import struct
from collections.abc import Iterator, Sequence
from contextlib import contextmanager

from fendra.core.engines.wasm.binary import F32, I32, V128, Function
from fendra.core.engines.wasm.instructions import instruction
from fendra.core.graph.ops import Kind

TYPES = {Kind.FLOAT: F32, Kind.UINT: I32, Kind.TRUTH: I32}
"""How a number is held; a truth value is 0 or 1."""
LOADS = {Kind.FLOAT: "f32.load", Kind.UINT: "i32.load", Kind.TRUTH: "i32.load"}
STORES = {Kind.FLOAT: "f32.store", Kind.UINT: "i32.store", Kind.TRUTH: "i32.store"}


SPREADS = {Kind.FLOAT: "f32x4.splat", Kind.UINT: "i32x4.splat"}
"""The instruction that makes four of a number, by its kind."""


def const(kind: Kind, value: float | int | bool) -> bytes:
    """The instruction that pushes a constant."""
    if kind is Kind.FLOAT:
        return b"\x43" + struct.pack("<f", value)
    word = int(value) & 0xFFFF_FFFF
    return i32(word)


def i32(value: int) -> bytes:
    """The instruction that pushes 32 bits of an integer, with or without a sign."""
    return instruction(f"i32.const:{value - 2**32 if value >= 2**31 else value}")


def get(place: int) -> bytes:
    """The instruction that pushes a local."""
    return instruction(f"local.get:{place}")


class Code:
    """The body of a function. takes, gives: types of values; the first locals are parameters."""

    def __init__(self, *takes: int, gives: tuple[int, ...] = ()) -> None:
        self._takes, self._gives = takes, gives
        self._locals: list[int] = []
        self._body = bytearray()
        self._early = bytearray()

    def local(self, kind: int = I32) -> int:
        """A new local of a type; 0 at first."""
        self._locals.append(kind)
        return len(self._takes) + len(self._locals) - 1

    def add(self, *parts: str | bytes) -> None:
        """Instructions: as texts, several in one with blanks between, or ready."""
        for part in parts:
            if isinstance(part, bytes):
                self._body += part
            else:
                for text in part.split():
                    self._body += instruction(text)

    def keep(self, pushed: bytes, kind: int = I32) -> int:
        """Put the pushed value into a new local."""
        place = self.local(kind)
        self.add(pushed, f"local.set:{place}")
        return place

    def early(self, pushed: bytes) -> bytes:
        """Put the pushed value into a new local of four lanes before a loop: see `start`. Returns
        the code that pushes that local.
        """
        place = self.local(V128)
        self._early += pushed + instruction(f"local.set:{place}")
        return get(place)

    def start(self) -> None:
        """Add code here that must run before a loop."""
        self.add(bytes(self._early))
        self._early.clear()

    def least(self, values: Sequence[bytes], into: int, less: str = "i32.lt_u") -> None:
        """Put the smallest of the pushed values into a local. less: compares two of its type."""
        first, *others = values
        self.add(first, f"local.set:{into}")
        for each in others:
            self.add(each, get(into), each, get(into), f"{less} select local.set:{into}")

    @contextmanager
    def apart(self) -> Iterator[bytearray]:
        """Code that is added inside the block goes into the bytes that this gives."""
        kept, self._body = self._body, bytearray()
        yield self._body
        self._body = kept

    @contextmanager
    def inside(self, opening: str) -> Iterator[None]:
        """Code added during this goes inside a `block`, `loop` or `if`."""
        self.add(opening)
        yield
        self.add("end")

    @contextmanager
    def counting(self, place: int, end: bytes, step: int = 1) -> Iterator[None]:
        """A loop that runs while a local is below the value that `end` pushes, and adds to it.

        It runs at least once; the caller leaves out loops that count to nothing.
        """
        self.add("loop")
        yield
        self.add(get(place), i32(step), "i32.add", f"local.tee:{place}", end)
        self.add("i32.lt_u br_if:0 end")

    def done(self) -> Function:
        """The function."""
        return Function(self._takes, self._gives, tuple(self._locals), bytes(self._body))
