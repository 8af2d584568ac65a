"""Linux's records of input events (linux/input.h), from a device or a pipe."""

from __future__ import annotations

import struct
from pathlib import Path

from fendra.system.devices import DeviceFile

EVENT = struct.Struct("llHHi")
"""Two numbers of time, type, code, value."""
KEY, ABSOLUTE, LED = 0x01, 0x03, 0x11


class EventFile:
    """Events of a device. Raises OSError."""

    def __init__(self, path: Path) -> None:
        self._device = DeviceFile(path)
        self._rest = b""

    def take(self, wait_s: float) -> list[tuple[int, int, int]]:
        """Type, code and value of the events that came; waits for the first at most so long."""
        data = self._rest + self._device.take(wait_s)
        whole = len(data) // EVENT.size * EVENT.size
        self._rest = data[whole:]
        return [event[2:] for event in EVENT.iter_unpack(data[:whole])]

    def close(self) -> None:
        self._device.close()
