"""Keys of a keyboard: each press is an event, at the place of its LED.

Names: `press` and `release`, events with a place; `key`, the LED's number on its part; `KEY_A` and
so on, a switch for each key, by the names of Linux; `caps`, `num` and `scroll`, the keyboard's
lights (macOS tells `caps` alone). A key is named by its place: KEY_Q is the one right of Tab, in
every language.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError, reason
from fendra.core.layout import Layout
from fendra.core.signals.raw import Event
from fendra.drivers import Options
from fendra.sources import News, Source
from fendra.sources.keyboards import LIGHTS, Keys, open_keys
from fendra.sources.linux_events import JOIN
from fendra.system.ports import host_of


class KeysOptions(Options):
    """Options of a keyboard.

    Attributes:
        address: on Linux a part of the keyboard's name, or a device such as `/dev/input/event3`;
            by default the first keyboard, on Windows and macOS all of them;
            `socket://HOST:PORT` of a program that writes a line such as `KEY_A=1` for each press,
            and `KEY_A=0` for each release
        part: the part with its LEDs; the first part of keys by default
        names: the LED of a key, if it has another name than the key: `{ KEY_ESC = "esc" }`
    """

    part: str = ""
    names: dict[str, str] = {}


class KeysSource(Source):
    """A keyboard; other programs get its keys as well."""

    Options = KeysOptions
    options: KeysOptions
    example = "keys: or keys:/dev/input/event3"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._keys: Keys | None = None

    def __str__(self) -> str:
        return f"keyboard {self.options.address}".strip()

    @property
    def host(self) -> str:
        """The host whose program names the keys."""
        return host_of(self.options.address)

    def _open(self, design: Design, layout: Layout) -> None:
        self._places = _places(design, layout, self.options.part)
        address = self.options.address
        try:
            self._keys = open_keys(address)
        except SourceError:
            raise
        except OSError as exc:
            if self.host:
                raise SourceError(f"{self} cannot be reached: {reason(exc)}") from exc
            why = _why(Path(address), exc)
            raise SourceError(f"{self} cannot be read: {why}", code=NEVER) from exc

    def _read(self, wait_s: float) -> News:
        assert self._keys is not None
        try:
            pressed = self._keys.take(wait_s)
        except OSError as exc:
            raise SourceError(f"{self} is gone: {reason(exc)}") from exc
        return [one for name, value in pressed for one in self._news_of(name, value)]

    def _news_of(self, name: str, value: int) -> list[tuple[str, object]]:
        if name in LIGHTS.values():
            return [(name, value)]
        led = self.options.names.get(name, name.removeprefix("KEY_").lower())
        news: list[tuple[str, object]] = [(name, value)]
        place = self._places.get(led.lower())
        if place is None:
            return [*news, ("press" if value else "release", 1.0)]
        number, at = place
        event = Event(1.0, *at)
        return [*news, ("key", number), ("press" if value else "release", event)]

    def _close(self) -> None:
        if self._keys is not None:
            self._keys.close()
            self._keys = None


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
        return f"you have no permission; {JOIN}"
    if isinstance(exc, FileNotFoundError):
        known = ", ".join(sorted(str(p) for p in Path("/dev/input").glob("event*")))
        return f"there is no {path}" + (f"; here are {known}" if known else "")
    return reason(exc)
