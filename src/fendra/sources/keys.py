"""Keys of a keyboard: each press is an event, at the place of its LED.

Names: `press` and `release`, events with a place; `key`, the LED's number on its part; `KEY_A` and
so on, a switch for each key, by the system's names; `caps`, `num` and `scroll`, the keyboard's
lights.
"""

from __future__ import annotations

import contextlib
import os
import select
import stat
import struct
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError
from fendra.core.layout import Layout
from fendra.core.signals.raw import Event
from fendra.drivers import Options
from fendra.sources import News, Source, package

EVENT = struct.Struct("llHHi")
"""Linux's record of an event: two numbers of time, type, code, value."""
KEY, LED = 0x01, 0x11
LIGHTS = {0: "num", 1: "caps", 2: "scroll"}
"""Lights of a keyboard, by the system's codes."""


class KeysOptions(Options):
    """Options of a keyboard.

    Attributes:
        address: the device, such as `/dev/input/event3`
        part: the part with its LEDs; the first part of keys by default
        names: the LED of a key, if it has another name than the key: `{ KEY_ESC = "esc" }`
    """

    address: Annotated[str, Field(min_length=1)]
    part: str = ""
    names: dict[str, str] = {}


class KeysSource(Source):
    """A keyboard; other programs get its keys as well."""

    Options = KeysOptions
    options: KeysOptions
    example = "keys:/dev/input/event3"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._file = -1

    def __str__(self) -> str:
        return f"keyboard {self.options.address}"

    def _open(self, design: Design, layout: Layout) -> None:
        self._codes = _codes()
        self._places = _places(design, layout, self.options.part)
        path = Path(self.options.address)
        try:
            self._file = os.open(path, os.O_RDONLY | os.O_NONBLOCK)
        except OSError as exc:
            raise SourceError(f"{self} cannot be read: {_why(path, exc)}", code=NEVER) from exc
        self._rest = b""
        self._is_device = stat.S_ISCHR(os.fstat(self._file).st_mode)

    def _read(self, wait_s: float) -> News:
        ready, _, _ = select.select([self._file], [], [], wait_s)
        if not ready:
            return ()
        try:
            data = os.read(self._file, EVENT.size * 64)
        except OSError as exc:
            raise SourceError(f"{self} is gone: {exc.strerror}") from exc
        if not data and self._is_device:
            raise SourceError(f"{self} is gone")
        if not data:  # a pipe without a writer at the moment
            select.select([], [], [], wait_s)
            return ()
        data = self._rest + data
        whole = len(data) // EVENT.size * EVENT.size
        self._rest = data[whole:]
        news: list[tuple[str, object]] = []
        for _, _, kind, code, value in EVENT.iter_unpack(data[:whole]):
            news += self._news_of(kind, code, value)
        return news

    def _news_of(self, kind: int, code: int, value: int) -> list[tuple[str, object]]:
        if kind == LED and code in LIGHTS:
            return [(LIGHTS[code], value)]
        if kind != KEY or value not in (0, 1):  # 2 is a key that is held
            return []
        name = self._codes.get(code, f"KEY_{code}")
        led = self.options.names.get(name, name.removeprefix("KEY_").lower())
        news: list[tuple[str, object]] = [(name, value)]
        place = self._places.get(led.lower())
        if place is None:
            return [*news, ("press" if value else "release", 1.0)]
        number, at = place
        event = Event(1.0, *at)
        return [*news, ("key", number), ("press" if value else "release", event)]

    def _close(self) -> None:
        if self._file >= 0:
            with contextlib.suppress(OSError):
                os.close(self._file)
            self._file = -1


def _codes() -> dict[int, str]:
    """The system's names of the keys, by code."""
    ecodes = package("evdev").ecodes
    return {
        code: names if isinstance(names, str) else names[0] for code, names in ecodes.KEY.items()
    }


def _places(design: Design, layout: Layout, part: str) -> dict[str, tuple[int, tuple[float, ...]]]:
    """Number and place of each LED of the keys, by its name in lower case."""
    if part and part not in layout.part_names:
        raise SourceError(f"there is no part '{part}' for the keys", code=NEVER)
    shapes = [p.name for line in design.line for p in line.part if p.shape == "keys"]
    chosen = part or next((name for name in shapes if name in layout.part_names), "")
    if not chosen:
        return {}
    rows = layout.rows_of_part(chosen)
    position = layout.in_unit(layout.position[rows])
    names = [layout.names[row] for row in rows.tolist()]
    return {
        name.lower(): (number, tuple(float(v) for v in position[number]))
        for number, name in enumerate(names)
        if name
    }


def _why(path: Path, exc: OSError) -> str:
    if isinstance(exc, PermissionError):
        return "you have no permission; join its group: sudo usermod -aG input $USER"
    if isinstance(exc, FileNotFoundError):
        known = ", ".join(sorted(str(p) for p in Path("/dev/input").glob("event*")))
        return f"there is no {path}" + (f"; here are {known}" if known else "")
    return exc.strerror or str(exc)
