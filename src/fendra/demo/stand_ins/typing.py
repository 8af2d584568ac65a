"""A keyboard: key presses as Linux gives them, through a named pipe."""

from __future__ import annotations

import contextlib
import os
import struct
from collections.abc import Mapping
from pathlib import Path

from fendra.demo.stand_ins import StandIn

EVENT = struct.Struct("llHHi")
KEYS = tuple(range(183, 195))
"""Codes of F13 to F24 (Linux, input-event-codes)."""


class Typing(StandIn):
    """Makes a pipe, and presses in it the keys that the tape presses."""

    about = "a keyboard on which somebody types"
    file = "typing.csv"
    design = "pad.toml"
    hears = frozenset({"key", "press", "caps"})

    def start(self) -> str:
        self._path = self.address or "keyboard"
        with contextlib.suppress(FileExistsError):
            os.mkfifo(self._path)
        self._pipe = os.open(self._path, os.O_RDWR | os.O_NONBLOCK)
        self._key, self._held = 0, -1
        return f"keys:{self._path}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        self._key = int(values.get("key", self._key))
        if values.get("press", 0) > 0.5 and self._held < 0:
            self._held = KEYS[self._key % len(KEYS)]
            self._send(1, self._held, 1)
        elif values.get("press", 1) <= 0.5 and self._held >= 0:
            self._send(1, self._held, 0)
            self._held = -1
        if "caps" in values:
            self._send(0x11, 1, int(values["caps"] > 0.5))

    def _send(self, kind: int, code: int, value: int) -> None:
        with contextlib.suppress(BlockingIOError):  # nobody reads
            os.write(self._pipe, EVENT.pack(0, 0, kind, code, value) + EVENT.pack(0, 0, 0, 0, 0))

    def close(self) -> None:
        os.close(self._pipe)
        with contextlib.suppress(OSError):
            Path(self._path).unlink()
