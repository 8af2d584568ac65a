"""OSC messages, each moment a bundle, written from OSC 1.0 itself."""

from __future__ import annotations

import socket
import struct
from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn


def text(value: str) -> bytes:
    """A text of OSC: ended by a zero, filled with zeros to a multiple of four."""
    data = value.encode() + b"\0"
    return data + bytes(-len(data) % 4)


def message(address: str, value: float) -> bytes:
    """One float.

    >>> message("/a", 1.0).hex()
    '2f6100002c6600003f800000'
    """
    return text(address) + text(",f") + struct.pack(">f", value)


def bundle(messages: list[bytes]) -> bytes:
    """Messages that belong together, to be taken up at once."""
    sized = (struct.pack(">i", len(each)) + each for each in messages)
    return text("#bundle") + struct.pack(">Q", 1) + b"".join(sized)


class Osc(StandIn):
    """Sends a bundle for each moment, a message for each value: `/speed`."""

    about = "a program that sends OSC"

    def start(self) -> str:
        host, _, port = (self.address or "127.0.0.1:9000").rpartition(":")
        self._to = (host or "127.0.0.1", int(port))
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        return f"osc:{self._to[1]}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        if values:
            messages = [message(f"/{name}", value) for name, value in values.items()]
            self._socket.sendto(bundle(messages), self._to)

    def close(self) -> None:
        self._socket.close()
