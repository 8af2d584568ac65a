"""The memory of a module: its addresses and its first contents.

Addresses are given out one after the other. Everything is in whole words of four bytes,
little-endian, as the standard says.
"""

from __future__ import annotations

import numpy as np

from fendra.core.arrays import Array
from fendra.core.engines.wasm.binary import MOST_PAGES, PAGE
from fendra.core.errors import EngineError
from fendra.core.graph.ops import Kind

LANES = 4
"""Spots that vector instructions take at once."""
ROW = 4 * LANES
"""Bytes of as many."""
BEHIND = 2 * ROW
"""Bytes behind a frame that are written over: its last LEDs are made four at once as well."""


class Memory:
    """Gives out addresses, and keeps the contents of tables."""

    def __init__(self) -> None:
        self._end = ROW
        self._tables: dict[bytes, int] = {}

    def reserve(self, size: int) -> int:
        """The address of this many bytes, 0 at first."""
        at = self._end
        self._end += -(-size // ROW) * ROW
        if self._end + BEHIND > PAGE * MOST_PAGES:
            raise EngineError("the design is too large for WebAssembly's memory of 4 GB.")
        return at

    def table(self, values: Array, *, of_lanes: bool = False) -> int:
        """The address of numbers that never change; equal tables are stored once.

        The last number is repeated after them, so that whole rows can be read from each of them.
        of_lanes: truth values as all bits or none.
        """
        words = np.ascontiguousarray(values)
        if words.dtype == np.bool_:
            words = words.astype(np.uint32) * np.uint32(0xFFFF_FFFF if of_lanes else 1)
        words = np.concatenate([words, np.repeat(words[-1:], LANES - 1)])
        held = words.astype(words.dtype.newbyteorder("<")).tobytes()
        if held not in self._tables:
            self._tables[held] = self.reserve(len(held))
        return self._tables[held]

    @property
    def data(self) -> list[tuple[int, bytes]]:
        """The tables, each with its address."""
        return [(at, held) for held, at in self._tables.items()]

    @property
    def pages(self) -> int:
        """How large it has to be."""
        return -(-(self._end + BEHIND) // PAGE)


def words_of(kind: Kind) -> str:
    """The name of a kind of words, for readers of the memory."""
    return {Kind.FLOAT: "f32", Kind.UINT: "u32", Kind.TRUTH: "truth"}[kind]
