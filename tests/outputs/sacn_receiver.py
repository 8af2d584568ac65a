"""A receiver of sACN, written from ANSI E1.31-2018 alone: it checks every field of a packet."""

from __future__ import annotations

import socket
import struct
from dataclasses import dataclass, field
from uuid import UUID

ACN = b"ASC-E1.17\0\0\0"


def layer_length(data: bytes, at: int) -> int:
    """Section 4.1, table 4-1: flags 0x7 in the upper four bits, the length in the lower twelve."""
    (word,) = struct.unpack_from(">H", data, at)
    assert word >> 12 == 0x7
    assert word & 0xFFF == len(data) - at
    return word & 0xFFF


@dataclass
class Universe:
    """What one universe has received."""

    slots: bytes = b""
    sequences: list[int] = field(default_factory=list)
    ended: int = 0


@dataclass
class Receiver:
    """Packets in; what they say out."""

    universes: dict[int, Universe] = field(default_factory=dict)
    syncs: list[tuple[int, int]] = field(default_factory=list)
    found: dict[int, list[int]] = field(default_factory=dict)
    names: set[str] = field(default_factory=set)
    senders: set[UUID] = field(default_factory=set)
    priorities: set[int] = field(default_factory=set)
    sync_addresses: set[int] = field(default_factory=set)

    def feed(self, data: bytes) -> None:
        preamble, postamble, name = struct.unpack_from(">HH12s", data, 0)
        assert (preamble, postamble, name) == (0x0010, 0, ACN)
        layer_length(data, 16)
        (vector,) = struct.unpack_from(">I", data, 18)
        self.senders.add(UUID(bytes=data[22:38]))
        layer_length(data, 38)
        (framing,) = struct.unpack_from(">I", data, 40)
        if vector == 0x0000_0004:
            assert framing == 0x0000_0002
            self._data(data)
        elif vector == 0x0000_0008 and framing == 0x0000_0001:
            sequence, universe, reserved = struct.unpack_from(">BHH", data, 44)
            assert (len(data), reserved) == (49, 0)
            self.syncs.append((sequence, universe))
        else:
            assert (vector, framing) == (0x0000_0008, 0x0000_0002)
            self._discovery(data)

    def _data(self, data: bytes) -> None:
        self.names.add(data[44:108].rstrip(b"\0").decode())
        assert data[107] == 0
        priority, sync, sequence, options, number = struct.unpack_from(">BHBBH", data, 108)
        assert 0 <= priority <= 200
        self.priorities.add(priority)
        self.sync_addresses.add(sync)
        layer_length(data, 115)
        vector, kind, first, step, count = struct.unpack_from(">BBHHH", data, 117)
        assert (vector, kind, first, step) == (0x02, 0xA1, 0, 1)
        assert data[125] == 0
        assert count == len(data) - 125
        assert 1 <= count <= 513
        universe = self.universes.setdefault(number, Universe())
        universe.sequences.append(sequence)
        if options & 0x40:
            universe.ended += 1
        else:
            universe.slots = data[126:]

    def _discovery(self, data: bytes) -> None:
        assert data[108:112] == bytes(4)
        layer_length(data, 112)
        vector, page, last = struct.unpack_from(">IBB", data, 114)
        assert vector == 0x0000_0001
        assert page <= last
        listed = data[120:]
        self.found[page] = [*struct.unpack(f">{len(listed) // 2}H", listed)]
        assert self.found[page] == sorted(self.found[page])

    def take_from(self, port: socket.socket) -> None:
        """Everything that waits at a port."""
        port.settimeout(0.3)
        try:
            while True:
                self.feed(port.recv(2000))
        except TimeoutError:
            pass
