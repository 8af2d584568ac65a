"""Data: how long frames take on lines and links, and how much memory of a controller they need."""

from __future__ import annotations

from collections.abc import Sequence

from fendra.core.catalogue.leds import LedType

BITS_A_BYTE = 10
"""8N1: a start bit, eight bits, a stop bit."""

BAUDS = (9600, 19_200, 38_400, 57_600, 115_200, 230_400, 250_000, 460_800, 500_000, 921_600,
         1_000_000, 1_500_000, 2_000_000, 3_000_000)  # fmt: skip
"""Usual rates of serial ports."""

SLOTS = 512
"""Of a universe (ANSI E1.31)."""

SACN_BYTES = 126
"""Of a packet, before its slots (ANSI E1.31, table 4-1)."""

NETWORK_BYTES = 28 + 18
"""Around each packet: IPv4 and UDP, and an Ethernet frame's header and check."""


def serial_bytes(lines: Sequence[int]) -> int:
    """Bytes of a frame in the serial stream, at most (docs/serial-protocol.md).

    lines: the pixel bytes of each. Of every packet: kind, number, checksum and end, and one more a
    254 bytes for the zeros that are taken out.

    >>> serial_bytes([90])
    106
    """
    bodies = [1 + size for size in lines] + [1]
    contents = [5 + body for body in bodies]
    return sum(content + -(-content // 254) + 1 for content in contents)


def serial_rate_hz(lines: Sequence[int], baud: int) -> float:
    """Frames a second that a serial link carries: baud / 10 / bytes a frame.

    >>> round(serial_rate_hz([90], 115_200), 1)
    108.7
    """
    return baud / BITS_A_BYTE / serial_bytes(lines)


def baud_for(lines: Sequence[int], rate_hz: float) -> int | None:
    """The lowest standard rate of a serial port that carries this many frames a second; None if no
    rate does.

    >>> baud_for([474], 50.0)
    250000
    """
    need = serial_bytes(lines) * BITS_A_BYTE * rate_hz
    return next((baud for baud in BAUDS if baud >= need), None)


def universes(lines: Sequence[tuple[int, int]]) -> int:
    """How many universes the lines fill; whole pixels, and each line begins one of its own.

    lines: addresses and bytes a pixel of each.

    >>> universes([(170, 3), (171, 3), (129, 4)])
    5
    """
    return sum(-(-count // (SLOTS // size)) for count, size in lines)


def sacn_mbit(lines: Sequence[tuple[int, int]], rate_hz: float) -> float:
    """The load of sACN on a network, in millions of bits a second.

    >>> round(sacn_mbit([(170, 3)], 50.0), 4)
    0.2728
    """
    slots = sum(count * size for count, size in lines)
    packets = universes(lines)
    return (slots + packets * (SACN_BYTES + NETWORK_BYTES)) * 8 * rate_hz / 1e6


def line_bits(addresses: int, led: LedType) -> int:
    """Bits of a whole frame on a line, without the silence after it.

    Clocked types have 32 bits before the first and at least half a bit a chip after the last,
    in whole bytes (data sheet, "start frame", "end frame").

    >>> from fendra.core.catalogue.leds import LED_TYPES
    >>> line_bits(100, LED_TYPES["apa102"])
    3288
    """
    if led.data != "clocked":
        return addresses * led.bits
    return 32 + addresses * led.bits + 8 * -(-addresses // 16)


def line_time_s(addresses: int, led: LedType) -> float:
    """Time to send one frame down a line, in seconds.

    Every bit takes `led.bit_s`; the frame ends with `led.reset_s` of silence
    (data sheet, "data transfer time").

    >>> from fendra.core.catalogue.leds import LED_TYPES
    >>> round(line_time_s(100, LED_TYPES["ws2812b"]) * 1000, 2)
    3.28
    """
    return line_bits(addresses, led) * led.bit_s + led.reset_s
