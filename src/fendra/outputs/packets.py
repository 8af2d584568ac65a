"""Frames as the bytes of the serial stream. It knows no port; docs/serial-protocol.md says why.

A packet is a kind, the frame's number, a body and a checksum; COBS takes the zeros out of it,
and one zero ends it.
"""

from __future__ import annotations

import binascii
import struct
from collections.abc import Sequence

from cobs import cobs

from fendra.core.errors import OutputError

PIXELS, SHOW = 0x11, 0x12
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
        raise OutputError(f"the serial stream carries {MOST_LINES} lines; here are {len(lines)}")
    pixels = [packet(PIXELS, number, bytes([i]) + line) for i, line in enumerate(lines)]
    return b"".join([*pixels, packet(SHOW, number, bytes([len(lines)]))])
