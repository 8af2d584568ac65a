"""Sources feed signals. One driver a file, opened by its name.

A source is written as `NAME:ADDRESS`, with options behind it, `udp:0.0.0.0:9400`, or as a table of
a design. To add one, write a class like `UdpSource` in udp.py and put it into `SOURCES`, or name it
in the entry-point group `fendra.sources` of another package.
"""

from __future__ import annotations

import importlib
from abc import ABC, abstractmethod
from collections.abc import Callable, Iterable
from types import ModuleType
from typing import Any, ClassVar, TypeAlias

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError
from fendra.core.layout import Layout
from fendra.core.names import did_you_mean
from fendra.core.quoting import visible
from fendra.drivers import Driver, Drivers, Options

News: TypeAlias = Iterable[tuple[str, Any]]
"""New values: for each, the source's own name of it, and the raw value."""

EXTRAS = {
    "can": "can", "cantools": "can", "evdev": "keys", "gpiozero": "gpio", "mss": "screen",
    "paho.mqtt.client": "mqtt", "psutil": "machine", "pygame": "gamepad", "pynput.keyboard": "keys",
    "pygame._sdl2.controller": "gamepad", "pymavlink.mavutil": "mavlink",
    "pymavlink.dialects.v20.common": "mavlink", "pythonosc.osc_packet": "osc",
    "soundcard": "sound", "sounddevice": "sound", "soundfile": "sound", "astral": "clock",
}  # fmt: skip
"""Packages that only some sources need, and the extra that brings each."""


class Source(Driver, ABC):
    """Waits for values in its own thread. A driver fills in `_open`, `_read` and `_close`.

    Everything raises SourceError if no values can arrive; the owner then closes it and retries.
    `refused` counts values that made no sense; `problem` is the last reason. `ends`: it can come to
    an end, as a file does; then `_read` raises `EndOfSource`. notice: something that the user
    should know, though it works. `skipped` counts values that arrived faster than it could read
    them. value_of: gives the value of a signal that it follows, as layers read it; None while it is
    not known. is_public: others than the user may send to it, as much as they like; so it gets
    only a share of the computer's time.
    """

    error = SourceError
    is_public: ClassVar[bool] = False
    brings_memory: ClassVar[bool] = False
    """Whether nodes that show one design talk by it."""

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self.refused = self.skipped = 0
        self.value_of: Callable[[str], float | None] = lambda _: None
        self.problem = self.notice = ""

    @property
    def follows(self) -> frozenset[str]:
        """The signals whose values its options have."""
        return frozenset()

    def check_signals(self, design: Design) -> None:
        """Check that the signals which it follows are there. Raises SourceError."""
        for name in sorted(self.follows - {*design.signals}):
            remedy = did_you_mean(name, design.signals, "signals")
            raise SourceError(f"there is no signal '{name}'. {remedy}", code=NEVER)

    def __str__(self) -> str:
        name = type(self).__name__.removesuffix("Source").lower()
        return f"{name} {self.options.address}".strip()

    def open(self, design: Design, layout: Layout) -> None:
        """Get ready: connect, bind, start. The design says which signals it needs, the layout where
        LEDs are.
        """
        self._open(design, layout)

    def read(self, wait_s: float) -> News:
        """The news; waits for it for at most this time, and returns nothing if none came."""
        return self._read(wait_s)

    def close(self) -> None:
        """Let go of everything; closing twice does no harm."""
        self._close()

    @property
    def hint(self) -> str:
        """The thing to try if nothing arrives, as "which ..."; empty if there is none."""
        return ""

    def say(self, name: str, value: Any) -> bool:
        """Send something to the source, for example to a broker; False if it takes nothing."""
        del name, value
        return False

    def refuse(self, problem: str) -> None:
        """Count something that came and made no sense."""
        self.refused += 1
        self.problem = visible(problem[:200])

    @abstractmethod
    def _open(self, design: Design, layout: Layout) -> None: ...

    @abstractmethod
    def _read(self, wait_s: float) -> News: ...

    @abstractmethod
    def _close(self) -> None: ...


class EndOfSource(Exception):  # noqa: N818 - it is no error
    """A source has ended."""


class Polled(Driver, ABC):
    """A source that the loop asks once a frame and that never waits: a tape, values set by hand.

    can_end: whether it can end, and a run with it. loops: whether it begins again at its end.
    """

    error = SourceError
    can_end: ClassVar[bool] = True
    loops: bool = False

    @abstractmethod
    def news(self, at_s: float) -> dict[str, float]:
        """All news since it was last asked, the newest of each signal.

        at_s: seconds since the run began.
        """

    def has_ended(self, at_s: float) -> bool:  # noqa: ARG002
        """Whether nothing more can come after `at_s`."""
        return False


def package(name: str) -> ModuleType:
    """An optional package. Raises SourceError, which names the extra that brings it."""
    try:
        return importlib.import_module(name)
    except (ImportError, OSError) as exc:  # OSError: a library of the system is missing
        extra = EXTRAS.get(name, name)
        top = name.partition(".")[0]
        if isinstance(exc, ModuleNotFoundError) and (exc.name or "").partition(".")[0] == top:
            problem = f"this source needs the package '{top}'"
            raise SourceError(f"{problem}: pip install 'fendra[{extra}]'", code=NEVER) from exc
        raise SourceError(f"the package '{top}' cannot be used here: {exc}", code=NEVER) from exc


def split_address(address: str, host: str, port: int) -> tuple[str, int]:
    """Host and port of `HOST:PORT`, `HOST`, `:PORT` or `PORT`. Raises SourceError.

    >>> split_address("9400", "127.0.0.1", 1), split_address("pi.local", "", 1883)
    (('127.0.0.1', 9400), ('pi.local', 1883))
    """
    first, colon, last = address.rpartition(":")
    if not colon:
        first, last = ("", address) if address.isdigit() else (address, "")
    if last and not (last.isdigit() and 0 < int(last) < 65536):
        raise SourceError(
            f"'{last}' is not a port; write HOST:PORT, as in {host or 'localhost'}:{port}"
        )
    return first or host, int(last or port)


SOURCES: dict[str, tuple[str, str]] = {
    "audio": ("fendra.sources.audio", "AudioSource"),
    "can": ("fendra.sources.can", "CanSource"),
    "clock": ("fendra.sources.clock", "ClockSource"),
    "gamepad": ("fendra.sources.gamepad", "GamepadSource"),
    "gpio": ("fendra.sources.gpio", "GpioSource"),
    "http": ("fendra.sources.http", "HttpSource"),
    "keys": ("fendra.sources.keys", "KeysSource"),
    "lines": ("fendra.sources.lines", "LinesSource"),
    "machine": ("fendra.sources.machine", "MachineSource"),
    "mavlink": ("fendra.sources.mavlink", "MavlinkSource"),
    "memory": ("fendra.sources.memory", "MemorySource"),
    "mqtt": ("fendra.sources.mqtt", "MqttSource"),
    "obd": ("fendra.sources.obd", "ObdSource"),
    "osc": ("fendra.sources.osc", "OscSource"),
    "screen": ("fendra.sources.screen", "ScreenSource"),
    "udp": ("fendra.sources.udp", "UdpSource"),
}
"""Name to module and class; the module is imported when it is first used."""

DRIVERS: Drivers[Source] = Drivers("source", SOURCES, SourceError)
__all__ = ["DRIVERS", "SOURCES", "EndOfSource", "News", "Options", "Polled", "Source", "package"]
