"""Linux's records of input events (linux/input.h), from a device or a pipe."""

from __future__ import annotations

import struct
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from fendra.sources import package
from fendra.system.devices import DeviceFile

EVENT = struct.Struct("llHHi")
"""Two numbers of time, type, code, value."""
KEY, ABSOLUTE, LED = 0x01, 0x03, 0x11
JOIN = "join its group: sudo usermod -aG input $USER"
"""The cure for a device that this user may not read."""


def input_devices() -> Iterator[Any]:
    """Each input device that this user may read, by evdev, open until the next one is. Raises
    SourceError.
    """
    evdev = package("evdev")
    for path in sorted(evdev.list_devices()):
        device = evdev.InputDevice(path)
        yield device
        device.close()


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
