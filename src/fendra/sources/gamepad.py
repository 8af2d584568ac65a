"""A game controller, a joystick, a wheel with pedals: axes, buttons and hats.

Names: sticks and wheels `x`, `y`, `rx`, `ry` from -1 to 1, to the right and down; triggers and
pedals such as `z`, `rz`, `gas`, `brake` from 0 to 1; hats `hat_x`, `hat_y`, -1, 0 or 1; buttons as
switches, `south`, `east`, `west`, `north`, `start` and so on. `axis 1`, `axis 2` and `button 1`,
`button 2` count them as the system does. `fendra listen` shows which is which.
"""

from __future__ import annotations

import os
import time
from collections.abc import Iterator
from pathlib import Path
from typing import Any, Protocol

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, SourceError, reason
from fendra.core.layout import Layout
from fendra.core.names import listed
from fendra.drivers import Options
from fendra.sources import News, Source, package
from fendra.sources.linux_events import ABSOLUTE, JOIN, KEY, EventFile, input_devices
from fendra.sources.named_values import NamedValues
from fendra.system.ports import host_of
from fendra.system.process import NAME

CENTRED = {"x", "y", "rx", "ry", "wheel", "rudder", "hat_x", "hat_y"}
"""Axes that rest in their middle, whatever they say of themselves."""
BUTTONS = range(0x100, 0x2E0)
"""Codes of buttons (linux/input-event-codes.h, BTN_MISC to BTN_TRIGGER_HAPPY40)."""


class GamepadOptions(Options):
    """Options of a game controller.

    Attributes:
        address: a part of its name; on Linux also a device such as `/dev/input/event7`; the
            first by default; `socket://HOST:PORT` of a program that writes lines such as `x=0.5`
    """


class GamepadSource(Source):
    """A game controller."""

    Options = GamepadOptions
    options: GamepadOptions
    example = "gamepad: or gamepad:wheel"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._pad: Pad | None = None

    def __str__(self) -> str:
        return f"game controller {self.options.address}".strip()

    @property
    def host(self) -> str:
        """The host of a program that stands in for one."""
        return host_of(self.options.address)

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        address = self.options.address
        try:
            if self.host:
                self._pad = NamedValues(address)
            elif NAME == "linux":
                self._pad = EvdevPad(address)
            else:
                self._pad = SdlPad(address)
        except SourceError:
            raise
        except PermissionError as exc:
            raise SourceError(f"you may not read {self}; {JOIN}", code=NEVER) from exc
        except OSError as exc:
            raise SourceError(f"{self} cannot be opened: {reason(exc)}") from exc

    def _read(self, wait_s: float) -> News:
        assert self._pad is not None
        try:
            return self._pad.take(wait_s)
        except OSError as exc:
            raise SourceError(f"{self} is gone: {reason(exc)}") from exc

    def _close(self) -> None:
        if self._pad is not None:
            self._pad.close()
            self._pad = None


class Pad(Protocol):
    """A game controller that is open. `take` raises OSError if it is gone."""

    def take(self, wait_s: float) -> list[tuple[str, Any]]: ...

    def close(self) -> None: ...


def not_found(address: str, names: list[str]) -> SourceError:
    """The error for a controller that is not there. names: those that are."""
    here = f"Here are: {listed(names)}" if names else "There are none. Is it plugged in?"
    like = f" like '{address}'" if address else ""
    return SourceError(f"there is no game controller{like}. {here}")


def pad_names() -> list[str]:
    """The names of all game controllers of this computer. Raises SourceError."""
    return evdev_names() if NAME == "linux" else sdl_names()


def evdev_names() -> list[str]:
    """Those of Linux that can be read."""
    return [device.name for device in evdev_pads()]


def evdev_pads() -> Iterator[Any]:
    """The devices of Linux that have axes and buttons, open."""
    for device in input_devices():
        about = device.capabilities()
        if about.get(ABSOLUTE) and any(key in BUTTONS for key in about.get(KEY, ())):
            yield device


def sdl_pads() -> list[Any]:
    """All that SDL knows of."""
    os.environ.setdefault("PYGAME_HIDE_SUPPORT_PROMPT", "1")
    os.environ.setdefault("SDL_VIDEODRIVER", "dummy")
    os.environ.setdefault("SDL_JOYSTICK_ALLOW_BACKGROUND_EVENTS", "1")
    pygame = package("pygame")
    pygame.display.init()
    pygame.joystick.init()
    count = pygame.joystick.get_count()
    return [pygame.joystick.Joystick(number) for number in range(count)]


def sdl_names() -> list[str]:
    """The names of those."""
    return [pad.get_name() for pad in sdl_pads()]


class EvdevPad:
    """A game controller of Linux, by evdev. Raises SourceError and OSError."""

    def __init__(self, address: str) -> None:
        evdev = package("evdev")
        device = self._found(evdev, address)
        about = device.capabilities()
        codes = evdev.ecodes
        self._axes: dict[int, _Axis] = {}
        for place, (code, info) in enumerate(about.get(codes.EV_ABS, ()), 1):
            name = axis_name(str(_first(codes.ABS.get(code, f"ABS_{code}"))))
            self._axes[code] = _Axis(f"axis {place}", name, info.min, info.max, info.value)
        buttons = [code for code in about.get(codes.EV_KEY, ()) if code in BUTTONS]
        self._buttons = {
            code: (f"button {place}", button_name(_first(codes.BTN.get(code, f"BTN_{code}"))))
            for place, code in enumerate(buttons, 1)
        }
        self._first = [news for axis in self._axes.values() for news in axis.news(axis.rest)]
        held = {*device.active_keys()}
        for code, names in self._buttons.items():
            self._first += [(name, code in held) for name in names]
        path = Path(device.path)
        device.close()
        self._events = EventFile(path)

    @staticmethod
    def _found(evdev: Any, address: str) -> Any:
        """The device: by its path, else the first with axes whose name has this text."""
        if address.startswith("/"):
            return evdev.InputDevice(address)
        for device in evdev_pads():
            if address.casefold() in device.name.casefold():
                return device
        raise not_found(address, evdev_names())

    def take(self, wait_s: float) -> list[tuple[str, Any]]:
        if self._first:
            first, self._first = self._first, []
            return first
        news: list[tuple[str, Any]] = []
        for kind, code, value in self._events.take(wait_s):
            if kind == ABSOLUTE and code in self._axes:
                news += self._axes[code].news(value)
            elif kind == KEY and code in self._buttons and value in (0, 1):
                news += [(name, bool(value)) for name in self._buttons[code]]
        return news

    def close(self) -> None:
        self._events.close()


PLACES = ("BTN_SOUTH", "BTN_EAST", "BTN_NORTH", "BTN_WEST")
"""Names of buttons by their place, which are the same on each maker's controllers."""


def _first(names: Any) -> str:
    """One of several names of a code: by its place, if there is such."""
    every = [names] if isinstance(names, str) else [*names]
    return str(next((name for name in every if name in PLACES), every[0]))


def axis_name(name: str) -> str:
    """Linux's name of an axis as ours.

    >>> axis_name("ABS_RX"), axis_name("ABS_HAT0Y"), axis_name("ABS_HAT1X")
    ('rx', 'hat_y', 'hat2_x')
    """
    plain = name.removeprefix("ABS_").lower()
    if plain.startswith("hat") and len(plain) == 5:
        number = int(plain[3]) + 1
        return f"hat{number if number > 1 else ''}_{plain[4]}"
    return plain


def button_name(name: str) -> str:
    """Linux's name of a button as ours.

    >>> button_name("BTN_SOUTH"), button_name("BTN_TRIGGER_HAPPY3")
    ('south', 'trigger_happy3')
    """
    return name.removeprefix("BTN_").lower()


class _Axis:
    """An axis: raw numbers in, -1 to 1 or 0 to 1 out. rest: its raw number as it was opened."""

    def __init__(self, number: str, name: str, low: int, high: int, rest: int) -> None:
        self.number, self.name, self.rest = number, name, rest
        self._low, self._span = low, max(high - low, 1)
        at = (rest - low) / self._span
        self._is_centred = name in CENTRED or low < 0 or 1 / 3 < at < 2 / 3

    def news(self, raw: int) -> list[tuple[str, Any]]:
        share = min(max((raw - self._low) / self._span, 0.0), 1.0)
        value = round(share * 2 - 1, 6) if self._is_centred else round(share, 6)
        return [(self.name, value), (self.number, value)]


SDL_RATE_HZ = 120.0
SDL_AXES = ("x", "y", "rx", "ry", "z", "rz")
"""Axes of a controller that SDL knows, in its order: two sticks, two triggers."""
SDL_BUTTONS = (
    "south", "east", "west", "north", "select", "mode", "start", "thumbl", "thumbr", "tl", "tr",
    "dpad_up", "dpad_down", "dpad_left", "dpad_right",
)  # fmt: skip
_SDL_MOST = 32767


class SdlPad:
    """A game controller by SDL, through pygame-ce. Raises SourceError and OSError."""

    def __init__(self, address: str) -> None:
        self._pygame, pads = package("pygame"), sdl_pads()
        fits = [pad for pad in pads if address.casefold() in pad.get_name().casefold()]
        if not fits:
            raise not_found(address, [pad.get_name() for pad in pads])
        self._pad = fits[0]
        self._known = self._known_as(pads.index(self._pad))
        self._before: dict[str, Any] = {}

    def _known_as(self, number: int) -> Any:
        """The controller with SDL's names for its parts; None if SDL does not know it."""
        controller = package("pygame._sdl2.controller")
        controller.init()
        return controller.Controller(number) if controller.is_controller(number) else None

    def take(self, wait_s: float) -> list[tuple[str, Any]]:
        time.sleep(min(wait_s, 1 / SDL_RATE_HZ))
        self._pygame.event.pump()
        if not self._pad.get_init() or (self._known is not None and not self._known.attached()):
            raise OSError(19, "it was unplugged")
        now = self._values()
        news = [pair for pair in now.items() if self._before.get(pair[0]) != pair[1]]
        self._before = now
        return news

    def _values(self) -> dict[str, Any]:
        pad, found = self._pad, dict[str, Any]()
        for number in range(pad.get_numaxes()):
            found[f"axis {number + 1}"] = round(float(pad.get_axis(number)), 4)
        for number in range(pad.get_numbuttons()):
            found[f"button {number + 1}"] = bool(pad.get_button(number))
        for number in range(pad.get_numhats()):
            stem = f"hat{number + 1 if number else ''}"
            right, up = pad.get_hat(number)
            found |= {f"{stem}_x": right, f"{stem}_y": -up}
        if self._known is not None:
            for number, name in enumerate(SDL_AXES):
                found[name] = round(self._known.get_axis(number) / _SDL_MOST, 4)
            for number, name in enumerate(SDL_BUTTONS):
                found[name] = bool(self._known.get_button(number))
        elif pad.get_numaxes() >= 2:
            found |= {"x": found["axis 1"], "y": found["axis 2"]}
        return found

    def close(self) -> None:
        self._pad.quit()
