"""A stand-in controller: takes the serial stream at a port without a device, as a real one would
on its UART, and reports what it saw.

    python -m fendra.demo.controller --line 56 --line 72 --line 30

Written from docs/serial-protocol.md alone, with the standard library alone, so that it checks
the sender instead of repeating it. It makes the port itself and ends when the sender leaves.
"""

from __future__ import annotations

import argparse
import contextlib
import json
import sys
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from fendra.system.ends import far_end

PIXELS, SHOW, ASK, IDENTITY = 0x11, 0x12, 0x13, 0x14


def crc16(data: bytes) -> int:
    """The checksum of the protocol, bit by bit."""
    crc = 0xFFFF
    for byte in data:
        crc ^= byte << 8
        for _ in range(8):
            crc = (crc << 1) ^ 0x1021 if crc & 0x8000 else crc << 1
            crc &= 0xFFFF
    return crc


def unstuff(data: bytes) -> bytes | None:
    """Undo the byte stuffing of one packet; None if it cannot be one."""
    content = bytearray()
    place = 0
    while place < len(data):
        code = data[place]
        end = place + code
        if code == 0 or end > len(data):
            return None
        content += data[place + 1 : end]
        place = end
        if code < 0xFF and place < len(data):
            content.append(0)
    return bytes(content)


def stuff(data: bytes) -> bytes:
    """The byte stuffing of one packet."""
    found, block = bytearray(), bytearray()
    for byte in data:
        if byte:
            block.append(byte)
        if not byte or len(block) == 254:
            found += bytes([len(block) + 1]) + block
            block.clear()
    return bytes(found + bytes([len(block) + 1]) + block)


@dataclass
class Receiver:
    """Bytes in, shown frames out.

    sizes: the bytes of each line. shown: the bytes of each line that is lit now. frames: how
    many were shown. lost: how many were missing by their numbers. incomplete: shows that
    came without all lines. damaged: packets that failed their checksum or made no sense. answer:
    bytes to be sent back.
    """

    sizes: Sequence[int]
    frames: int = 0
    lost: int = 0
    incomplete: int = 0
    damaged: int = 0
    shown: list[bytes] | None = None
    answer: bytes = b""
    number: int | None = None
    _waiting: dict[int, bytes] = field(default_factory=dict)
    _waiting_number: int | None = None
    _buffer: bytearray = field(default_factory=bytearray)
    _is_skipping: bool = False

    @property
    def _longest(self) -> int:
        content = 6 + max(self.sizes)
        return content + content // 254 + 1

    def feed(self, data: bytes) -> None:
        """Take bytes as they come, in pieces of any size."""
        for byte in data:
            if byte == 0:
                self._end_packet()
            elif not self._is_skipping:
                self._buffer.append(byte)
                if len(self._buffer) > self._longest:
                    self._is_skipping = True

    def _end_packet(self) -> None:
        data, skipped = bytes(self._buffer), self._is_skipping
        self._buffer.clear()
        self._is_skipping = False
        if not data:
            return
        content = None if skipped else unstuff(data)
        if content is None or len(content) < 6:
            self.damaged += 1
            return
        body, check = content[:-2], content[-2] | content[-1] << 8
        if crc16(body) != check:
            self.damaged += 1
            return
        number = body[1] | body[2] << 8
        if body[0] == PIXELS:
            self._take_line(number, body[3], body[4:])
        elif body[0] == SHOW:
            self._show(number, body[3])
        elif body[0] == ASK:
            self.answer += self._identity(number)

    def _identity(self, number: int) -> bytes:
        """Its identity: no design of its own, the name of a stand-in."""
        content = bytes([IDENTITY]) + number.to_bytes(2, "little") + bytes(4)
        content += self.frames.to_bytes(4, "little") + self.damaged.to_bytes(4, "little")
        content += bytes([len(self.sizes)])
        content += b"".join(size.to_bytes(4, "little") for size in self.sizes) + b"stand-in"
        return b"\0" + stuff(content + crc16(content).to_bytes(2, "little")) + b"\0"

    def _take_line(self, number: int, line: int, pixels: bytes) -> None:
        if line >= len(self.sizes) or len(pixels) != self.sizes[line]:
            self.damaged += 1
            return
        if number != self._waiting_number:
            self._waiting = {}
            self._waiting_number = number
        self._waiting[line] = pixels

    def _show(self, number: int, lines: int) -> None:
        is_whole = number == self._waiting_number and len(self._waiting) == len(self.sizes)
        waiting, self._waiting = self._waiting, {}
        if not is_whole or lines != len(self.sizes):
            self.incomplete += 1
            return
        if self.number is not None:
            self.lost += (number - self.number - 1) & 0xFFFF
        self.number = number
        self.frames += 1
        self.shown = [waiting[line] for line in range(len(self.sizes))]


def report(receiver: Receiver) -> dict[str, Any]:
    """A receiver's counts, as plain values; lines as hexadecimal text."""
    return {
        "frames": receiver.frames,
        "lost": receiver.lost,
        "incomplete": receiver.incomplete,
        "damaged": receiver.damaged,
        "lines": [line.hex() for line in receiver.shown or []],
    }


def line_size(text: str) -> tuple[int, int]:
    """LEDs and channels of each, as `30` or `30x4` say.

    >>> line_size("30"), line_size("30x4")
    ((30, 3), (30, 4))
    """
    leds, _, channels = text.partition("x")
    return int(leds), int(channels or 3)


def serve(sizes: Sequence[int], announce: Any) -> Receiver:
    """Make a port, name it to `announce`, and take bytes until the sender leaves."""
    receiver, end = Receiver(sizes), far_end()
    announce(end.address)
    try:
        while (data := end.take(1.0)) is not None:
            receiver.feed(data)
            if receiver.answer:
                end.give(receiver.answer)
                receiver.answer = b""
    finally:
        end.close()
    return receiver


def main(arguments: Sequence[str] | None = None) -> None:
    """The command line of the stand-in."""
    parser = argparse.ArgumentParser(
        prog="python -m fendra.demo.controller", description="A stand-in controller on a port."
    )
    parser.add_argument(
        "--line", type=line_size, action="append", required=True, metavar="LEDS",
        help="LEDs of a line, or 30x4 with four channels each; once for each line, in order",
    )  # fmt: skip
    parser.add_argument("--json", action="store_true", help="port and report as JSON lines")
    options = parser.parse_args(arguments)

    def announce(port: str) -> None:
        print(json.dumps({"port": port}) if options.json else f"listening on {port}", flush=True)

    receiver = serve([leds * channels for leds, channels in options.line], announce)
    seen = report(receiver)
    if options.json:
        print(json.dumps(seen), flush=True)
        return
    print(", ".join(f"{seen[key]} {key}" for key in ("frames", "lost", "incomplete", "damaged")))
    for line, pixels in enumerate(receiver.shown or []):
        leds, channels = options.line[line]
        each = [pixels[i * channels : (i + 1) * channels].hex() for i in range(min(leds, 8))]
        print(f"line {line}: {leds} LEDs, {' '.join(each)} ...")


if __name__ == "__main__":
    with contextlib.suppress(KeyboardInterrupt):
        main()
    sys.exit(0)
