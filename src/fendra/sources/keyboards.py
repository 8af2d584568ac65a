"""Keyboards as each system gives them: by their device on Linux, all together elsewhere."""

from __future__ import annotations

import time
from contextlib import suppress
from pathlib import Path
from queue import Empty, Full, Queue
from typing import Any, Protocol

from fendra.core.errors import NEVER, SourceError
from fendra.core.names import listed
from fendra.sources import package
from fendra.sources.key_names import MAC_CODES, scan_name
from fendra.sources.linux_events import JOIN, KEY, LED, EventFile, input_devices
from fendra.sources.named_values import NamedValues
from fendra.system.devices import lights
from fendra.system.ports import host_of
from fendra.system.process import NAME

LIGHTS = {0: "num", 1: "caps", 2: "scroll"}
"""Lights of a keyboard, by Linux's codes."""
FIRST_BUTTON = 0x100
"""Linux' codes from here on are buttons of mice and controllers."""
LETTERS = frozenset({"KEY_A", "KEY_ENTER"})
"""Keys by which a keyboard is told from a power button or a remote control."""
MOST_WAITING = 1000
"""How many presses wait; nobody types faster than a run reads."""
REPEATED_S = 1.5
"""A key that is held is told again sooner than that; no system waits longer than a second."""
END_S = 2.0
"""How long its thread has to end."""
DOWN = (0x100, 0x104)
"""What Windows calls a key that goes down: WM_KEYDOWN, and WM_SYSKEYDOWN with Alt."""
FAR = 0x01
"""LLKHF_EXTENDED: the code has the prefix E0."""


class Keys(Protocol):
    """Keys by their names. `take` gives what was pressed (1) and released (0), and the lights that
    went on and off; it raises OSError if nothing can come any more.
    """

    def take(self, wait_s: float) -> list[tuple[str, int]]: ...

    def close(self) -> None: ...


def open_keys(address: str) -> Keys:
    """The keys behind an address. Raises SourceError and OSError."""
    if host_of(address):
        return NamedKeys(address)
    if NAME == "linux":
        return DeviceKeys(_device(address))
    if address:
        problem = f"this system gives the keys of all keyboards together, not of '{address}'"
        raise SourceError(f"{problem}. Leave out the address: keys:", code=NEVER)
    return HookKeys()


def keyboard_names() -> list[str]:
    """How the keyboards of this computer are named in an address. Raises SourceError."""
    return [name for name, _ in _devices()] if NAME == "linux" else [""]


class DeviceKeys:
    """A keyboard of Linux: the records of its device. Raises OSError."""

    def __init__(self, path: Path) -> None:
        self._codes = _codes()
        self._events = EventFile(path)

    def take(self, wait_s: float) -> list[tuple[str, int]]:
        found = []
        for kind, code, value in self._events.take(wait_s):
            if kind == LED and code in LIGHTS:
                found.append((LIGHTS[code], value))
            elif kind == KEY and value in (0, 1):  # 2 is a key that is held
                found.append((self._codes.get(code, f"KEY_{code}"), value))
        return found

    def close(self) -> None:
        self._events.close()


class HookKeys:
    """All keyboards of Windows or macOS together, by pynput. Raises SourceError."""

    def __init__(self) -> None:
        keyboard = package("pynput.keyboard")
        self._came: Queue[tuple[str, int]] = Queue(MOST_WAITING)
        self._held: dict[str, float] = {}
        self._lights: dict[str, bool] = {}
        if NAME == "windows":
            self._listener = keyboard.Listener(win32_event_filter=self._hooked)
        else:
            self._listener = keyboard.Listener(
                on_press=lambda key, *_: self._typed(key, 1),
                on_release=lambda key, *_: self._typed(key, 0),
            )
        self._listener.start()
        self._listener.wait()
        if not getattr(self._listener, "IS_TRUSTED", True):
            self.close()
            raise SourceError(
                "macOS does not let this program read keys. Allow the terminal in System Settings, "
                "Privacy & Security, Accessibility and Input Monitoring; then start it again",
                code=NEVER,
            )

    def _hooked(self, message: int, data: Any) -> None:
        """A key of Windows, by its place."""
        self._put(scan_name(data.scanCode, bool(data.flags & FAR)), int(message in DOWN))

    def _typed(self, key: Any, value: int) -> None:
        """A key of macOS: a member of an enumeration, or one of the others."""
        name = getattr(key, "name", "")
        if key is not None and not name.startswith("media"):
            self._put(MAC_CODES.get(getattr(key, "value", key).vk, ""), value)

    def _put(self, name: str, value: int) -> None:
        """Hand over a press or release. Systems repeat a key that is held; nobody tells that it was
        released on another desktop, such as that of a locked computer.
        """
        now_s, before_s = time.monotonic(), self._held.pop(name, -REPEATED_S)
        if value:
            self._held[name] = now_s
        is_repeated = value and now_s - before_s < REPEATED_S
        if not name or is_repeated:
            return
        with suppress(Full):  # nobody reads
            self._came.put_nowait((name, value))

    def take(self, wait_s: float) -> list[tuple[str, int]]:
        found = []
        with suppress(Empty):
            found.append(self._came.get(timeout=wait_s))
            while True:
                found.append(self._came.get_nowait())
        if not found and not self._listener.is_alive():
            raise OSError("this system gives no keys any more")
        now = lights()
        found += [(name, int(on)) for name, on in now.items() if self._lights.get(name) != on]
        self._lights = now
        return found

    def close(self) -> None:
        self._listener.stop()
        with suppress(Exception):  # it raises what ended it, which `take` has told
            self._listener.join(END_S)


class NamedKeys:
    """Keys that a program names, a line for each. Raises OSError."""

    def __init__(self, address: str) -> None:
        self._values = NamedValues(address)

    def take(self, wait_s: float) -> list[tuple[str, int]]:
        told = self._values.take(wait_s)
        return [(name, int(str(value))) for name, value in told if value in ("0", "1")]

    def close(self) -> None:
        self._values.close()


def _codes() -> dict[int, str]:
    """Linux's names of the keys, by code."""
    ecodes = package("evdev").ecodes
    return {
        code: names if isinstance(names, str) else names[0] for code, names in ecodes.KEY.items()
    }


def _devices(least: frozenset[str] = frozenset()) -> list[tuple[str, Path]]:
    """Name and device of each keyboard of Linux that can be read and has at least these keys."""
    wanted = {package("evdev").ecodes.ecodes[name] for name in least}
    found = []
    for device in input_devices():
        keys = device.capabilities().get(KEY, ())
        if any(key < FIRST_BUTTON for key in keys) and wanted <= {*keys}:
            found.append((str(device.name), Path(device.path)))
    return found


def _device(address: str) -> Path:
    """The device: by its path, else the first keyboard whose name has this text; without a text
    the first that has letters.
    """
    if "/" in address or (address and Path(address).exists()):
        return Path(address)
    for name, path in _devices() if address else _devices(LETTERS):
        if address.casefold() in name.casefold():
            return path
    names = keyboard_names()
    like = f" like '{address}'" if address else ""
    here = f"Here are: {listed(names)}" if names else f"If one is plugged in, {JOIN}"
    raise SourceError(f"there is no keyboard{like}. {here}", code=NEVER)
