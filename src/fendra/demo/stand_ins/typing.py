"""A keyboard: key presses as Linux gives them, through a named pipe; elsewhere by their names."""

from __future__ import annotations

import struct
from collections.abc import Mapping
from pathlib import Path

from fendra.demo.stand_ins import StandIn
from fendra.system.devices import NamedPipe
from fendra.system.ends import SocketEnd

EVENT = struct.Struct("llHHi")
KEYS = tuple(range(183, 195))
"""Codes of F13 to F24 (Linux, input-event-codes)."""
KEY, LED = 0x01, 0x11


class Typing(StandIn):
    """Makes a pipe, and presses in it the keys that the tape presses. Where there are no pipes it
    serves their names.
    """

    about = "a keyboard on which somebody types"
    file = "typing.csv"
    design = "pad.toml"
    hears = frozenset({"key", "press", "caps"})

    def start(self) -> str:
        self._key, self._held = 0, -1
        path = self.address or "keyboard"
        try:
            self._into: NamedPipe | SocketEnd = NamedPipe(Path(path))
        except OSError:
            self._into = SocketEnd()
            path = self._into.address
        return f"keys:{path}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        self._key = int(values.get("key", self._key))
        if values.get("press", 0) > 0.5 and self._held < 0:
            self._held = KEYS[self._key % len(KEYS)]
            self._send(KEY, self._held, 1)
        elif values.get("press", 1) <= 0.5 and self._held >= 0:
            self._send(KEY, self._held, 0)
            self._held = -1
        if "caps" in values:
            self._send(LED, 1, int(values["caps"] > 0.5))

    def _send(self, kind: int, code: int, value: int) -> None:
        if isinstance(self._into, NamedPipe):
            events = EVENT.pack(0, 0, kind, code, value) + EVENT.pack(0, 0, 0, 0, 0)
        else:
            name = f"KEY_F{code - KEYS[0] + 13}" if kind == KEY else "caps"
            events = f"{name}={value}\n".encode()
        self._into.give(events)

    def close(self) -> None:
        self._into.close()
