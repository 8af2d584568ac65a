"""Frames as the bytes of the serial stream. It knows no port; docs/serial-protocol.md says why.

A packet is a kind, the frame's number, a body and a checksum; COBS takes the zeros out of it,
and one zero ends it.
"""

from __future__ import annotations

import binascii
import struct
import zlib
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass

from cobs import cobs

from fendra.core.errors import OutputError

PIXELS, SHOW, ASK, IDENTITY = 0x11, 0x12, 0x13, 0x14
"""Kinds of packet: protocol version 1 in the upper four bits."""

MOST_LINES = 255


def checksum(content: bytes) -> int:
    """CRC-16/CCITT-FALSE (polynomial 0x1021, from 0xFFFF).

    >>> hex(checksum(b"123456789"))
    '0x29b1'
    """
    return binascii.crc_hqx(content, 0xFFFF)


def packet(kind: int, number: int, body: bytes) -> bytes:
    """One packet, ready for the wire, its ending zero included.

    >>> packet(SHOW, 1, bytes([1])).hex(" ")
    '03 12 01 04 01 1e 55 00'
    """
    content = struct.pack("<BH", kind, number & 0xFFFF) + body
    encoded: bytes = cobs.encode(content + struct.pack("<H", checksum(content)))
    return encoded + b"\0"


def frame_to_packets(number: int, lines: Sequence[bytes]) -> bytes:
    """A whole frame: a packet for each line's bytes, then the one that shows them.

    number: counts frames, wrapping at 65,536. Raises OutputError above `MOST_LINES` lines.
    """
    if len(lines) > MOST_LINES:
        raise OutputError(
            f"the serial stream carries at most {MOST_LINES} lines; there are {len(lines)}"
        )
    pixels = [packet(PIXELS, number, bytes([i]) + line) for i, line in enumerate(lines)]
    return b"".join([*pixels, packet(SHOW, number, bytes([len(lines)]))])


def ask() -> bytes:
    """Who are you? What a controller answers comes out of `Answers`.

    >>> ask().hex(" ")
    '02 13 01 01 03 bb 04 00'
    """
    return packet(ASK, 0, bytes([0]))


@dataclass(frozen=True)
class Identity:
    """A controller's answer about itself.

    name: of its design; design_hash: of the light that it shows by itself. sizes: bytes of each
    line. frames, damaged: frames that it has shown, and packets that came damaged.
    """

    name: str
    design_hash: int
    sizes: tuple[int, ...]
    frames: int
    damaged: int


_HEAD = struct.Struct("<BHIIIB")


def read_identity(content: bytes) -> Identity | None:
    """Read an identity from a packet, its checksum included; None if it is not one."""
    body, check = content[:-2], content[-2:]
    if len(body) < _HEAD.size or body[0] != IDENTITY:
        return None
    if struct.pack("<H", checksum(body)) != check:
        return None
    _, _, design_hash, frames, damaged, lines = _HEAD.unpack_from(body)
    end = _HEAD.size + 4 * lines
    if len(body) < end:
        return None
    sizes = struct.unpack_from(f"<{lines}I", body, _HEAD.size)
    name = body[end:].decode("utf-8", "replace")
    return Identity(name, design_hash, sizes, frames, damaged)


class Answers:
    """Bytes that come back in, identities out; all else is left out."""

    def __init__(self) -> None:
        self._held = bytearray()

    def feed(self, data: bytes) -> Iterator[Identity]:
        """Take bytes as they come."""
        *packets, rest = (bytes(self._held) + data).split(b"\0")
        self._held = bytearray(rest[-LONGEST_ANSWER:])
        for stuffed in packets:
            try:
                identity = read_identity(cobs.decode(stuffed))
            except cobs.DecodeError:
                continue
            if identity is not None:
                yield identity


LONGEST_ANSWER = 4096
"""Longest answer, in bytes; anything longer is dropped."""


NEWS = 0x15
"""The kind of a packet that carries signals: docs/peers.md."""
COMPUTER = 255
"""Who sends it, where a computer does."""


def mark_of(names: Iterable[str]) -> int:
    """16 bits that differ if the names differ, so that a controller rejects the signals of another
    design.

    >>> mark_of(["throttle", "armed"]) == mark_of(["armed", "throttle"])
    False
    """
    return zlib.crc32("\n".join(names).encode()) & 0xFFFF


def news_packet(fed: Sequence[str], news: Mapping[str, float], number: int, now_ms: int) -> bytes:
    """News of signals as a controller reads it, stuffed, with the zero at its end.

    fed: every number that the design takes, in its order. news: the new ones. number: of the
    packet. now_ms: the sender's clock.
    """
    mask, values = bytearray((len(fed) + 7) // 8), b""
    for place, name in enumerate(fed):
        if name in news:
            mask[place // 8] |= 1 << place % 8
            values += struct.pack("<f", news[name])
    head = struct.pack("<BHI", COMPUTER, mark_of(fed), now_ms & 0xFFFF_FFFF)
    return packet(NEWS, number, head + bytes(mask) + values)
