"""Frames as sACN packets (ANSI E1.31-2018). It knows no network."""

from __future__ import annotations

import struct
from collections.abc import Sequence
from uuid import UUID

import numpy as np

from fendra.core.arrays import Array, Bytes

PORT = 5568
SLOTS = 512
LOWEST, HIGHEST = 1, 63_999
"""Universes that carry light (section 8.2)."""
DISCOVERY = 64_214
"""The universe of discovery (section 8.3.3)."""
TERMINATED = 0x40
"""The option of a packet that ends a stream (section 6.2.6)."""
FEWEST = 12
"""Slots of a packet at least: some readers stumble over a handful."""
A_PAGE = 512
"""Universes in one discovery packet (section 8.4)."""

_HEAD = 126
_SEQUENCE, _OPTIONS = 111, 112
_ACN = struct.pack(">HH12s", 0x0010, 0x0000, b"ASC-E1.17\0\0\0")


def multicast_group(universe: int) -> str:
    """The IPv4 group of a universe (section 9.3.1).

    >>> multicast_group(1), multicast_group(513)
    ('239.255.0.1', '239.255.2.1')
    """
    return f"239.255.{universe >> 8}.{universe & 255}"


def slots_of(size: int, channels: int) -> list[int]:
    """How many slots a line of this size uses of each universe: no pixel is split between two.

    >>> slots_of(170 * 3, 3), slots_of(171 * 3, 3), slots_of(128 * 4, 4)
    ([510], [510, 12], [512])
    """
    chunk = SLOTS // channels * channels
    return [max(min(chunk, size - i), FEWEST) for i in range(0, size, chunk)] or [FEWEST]


def _layer(length: int) -> int:
    """Flags and length of a layer (ANSI E1.17)."""
    return 0x7000 | length


def _root(vector: int, body: int, sender: UUID) -> bytes:
    """The root layer. body: the bytes after it."""
    return _ACN + struct.pack(">HI16s", _layer(body + 22), vector, sender.bytes)


def _name(text: str) -> bytes:
    return text.encode()[:63].decode(errors="ignore").encode().ljust(64, b"\0")


def sync_packet(universe: int, sequence: int, sender: UUID) -> bytes:
    """A synchronisation packet (section 4.2)."""
    framing = struct.pack(">HIBHH", _layer(11), 1, sequence & 255, universe, 0)
    return _root(8, len(framing), sender) + framing


def discovery_packets(universes: Sequence[int], name: str, sender: UUID) -> list[bytes]:
    """Packets that list the universes of a source (section 4.3), page by page."""
    pages = [universes[i : i + A_PAGE] for i in range(0, len(universes), A_PAGE)] or [[]]
    packets = []
    for number, page in enumerate(pages):
        listed = struct.pack(f">{len(page)}H", *page)
        body = struct.pack(">HIBB", _layer(8 + len(listed)), 1, number, len(pages) - 1) + listed
        framing = struct.pack(">HI64sI", _layer(74 + len(body)), 2, _name(name), 0)
        packets.append(_root(8, len(framing) + len(body), sender) + framing + body)
    return packets


class Universes:
    """The data packets of some universes, made once and then only filled.

    numbers: of the universes, in the order of the packets. used: how many slots each sends.
    """

    def __init__(
        self, numbers: Sequence[int], used: Sequence[int], *, name: str, sender: UUID,
        priority: int, sync: int,
    ) -> None:  # fmt: skip
        self.numbers = tuple(numbers)
        self._packets = np.zeros((len(self.numbers), _HEAD + SLOTS), np.uint8)
        self.slots = self._packets[:, _HEAD:]
        for row, universe, size in zip(self._packets, self.numbers, used, strict=True):
            framing = struct.pack(
                ">HI64sBHBBH", _layer(88 + size), 2, _name(name), priority, sync, 0, 0, universe
            )
            data = struct.pack(">HBBHHHB", _layer(11 + size), 2, 0xA1, 0, 1, size + 1, 0)
            head = _root(4, len(framing) + len(data) + size, sender) + framing + data
            row[:_HEAD] = np.frombuffer(head, np.uint8)
        rows = zip(self._packets, used, strict=True)
        self._views = [memoryview(row[: _HEAD + size]) for row, size in rows]  # type: ignore[arg-type]

    def packets(self, places: Array) -> list[memoryview]:
        """Packets by their places, with new sequence numbers (section 6.7.2)."""
        self._packets[places, _SEQUENCE] += np.uint8(1)
        return [self._views[place] for place in places.tolist()]

    def end(self) -> None:
        """Packets from now on say that the stream ends."""
        self._packets[:, _OPTIONS] |= np.uint8(TERMINATED)


def fill(slots: Bytes, first: int, line: Bytes, channels: int) -> None:
    """Put a line's bytes into slots (universes, 512), from the universe at place `first` on."""
    chunk = SLOTS // channels * channels
    whole = len(line) // chunk
    slots[first : first + whole, :chunk] = line[: whole * chunk].reshape(whole, chunk)
    rest = len(line) - whole * chunk
    if rest:
        slots[first + whole, :rest] = line[whole * chunk :]
