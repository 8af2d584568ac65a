"""HID devices: the system's, and one that a program stands in for at `socket://HOST:PORT`.

Such a program answers requests: a letter, a report's number, a size as two bytes (the low one
first), and for `S` so many bytes. `D` asks for the report descriptor, `G` gets a feature report,
`S` sets one. An answer is its size as two bytes, then so many bytes; the size 65535 means that the
device refuses.
"""

from __future__ import annotations

import sys
from collections.abc import Iterator
from typing import Protocol

from fendra.system.ports import host_of, line_to

if sys.platform == "linux":
    from fendra.system.hidraw import Device, cure, listed
else:
    from fendra.system.hidapi import Device, cure, listed

__all__ = ["HidDevice", "SocketDevice", "cure", "listed", "open_device"]

REFUSED = 0xFFFF
_ANSWERS_S = 3.0


class HidDevice(Protocol):
    """A HID device that is open; see `fendra.lamps.array.HidDevice`."""

    descriptor: bytes

    def get_feature(self, report: int, size: int) -> bytes: ...

    def set_feature(self, data: bytes) -> None: ...

    def close(self) -> None: ...


class SocketDevice:
    """A HID device that a program stands in for. Raises OSError."""

    def __init__(self, address: str) -> None:
        self._line = line_to(address, _ANSWERS_S)
        try:
            self.descriptor = self._ask(b"D", 0, 0xFFFE)
        except OSError:
            self.close()
            raise

    def get_feature(self, report: int, size: int) -> bytes:
        return self._ask(b"G", report, size)

    def set_feature(self, data: bytes) -> None:
        self._ask(b"S", data[0], len(data), data)

    def close(self) -> None:
        self._line.close()

    def _ask(self, what: bytes, report: int, size: int, data: bytes = b"") -> bytes:
        self._line.sendall(what + bytes([report]) + size.to_bytes(2, "little") + data)
        count = int.from_bytes(b"".join(self._come(2)), "little")
        if count == REFUSED:
            raise OSError(71, f"it refuses report {report}")
        return b"".join(self._come(count))

    def _come(self, count: int) -> Iterator[bytes]:
        while count:
            data = self._line.recv(count)
            if not data:
                raise OSError(104, "its program has ended")
            count -= len(data)
            yield data


def open_device(address: str) -> HidDevice:
    """Open a device by its address, or `socket://HOST:PORT`. Raises OSError, and ImportError where
    a package is missing.
    """
    return SocketDevice(address) if host_of(address) else Device(address)
