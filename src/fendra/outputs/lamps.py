"""Lamp arrays: keyboards, mice and cases whose lamps any computer can set over USB.

The device says where its lamps are and how quickly it takes colours (USB HID Usage Tables, page
0x59); `fendra import lamps:` makes parts of them. While frames arrive it shows nothing of its own;
at the end it gets control back.
"""

from __future__ import annotations

import contextlib
import time
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any, Literal

import numpy as np

from fendra.core.arrays import Bytes
from fendra.core.document.design import Design
from fendra.core.errors import NEVER, OutputError, reason
from fendra.core.film import Frame
from fendra.core.light.colours import linear_to_srgb
from fendra.core.names import listed
from fendra.lamps.array import LampArray
from fendra.lamps.reports import is_lamp_array
from fendra.outputs import Output, OutputOptions
from fendra.system import hid
from fendra.system.ports import host_of


class LampsOptions(OutputOptions):
    """Options of a lamp array.

    Attributes:
        address: a part of its name or its address, if there are several; `socket://HOST:PORT` for
            a program that stands in for one
        curve: `linear`: a level is a share of the light, as most devices have it; `screen`: levels
            are like those of a screen (sRGB)
    """

    curve: Literal["linear", "screen"] = "linear"


NEEDS_PACKAGE = "lamp arrays need the package 'hidapi': pip install 'fendra[lamps]'"


@dataclass(frozen=True)
class FoundArray:
    """A lamp array of this computer. address: how it is opened. name: its product's."""

    address: str
    name: str


def lamp_arrays() -> list[FoundArray]:
    """All lamp arrays of this computer. Raises OutputError where a package is missing."""
    try:
        return [
            FoundArray(address, name)
            for address, name, descriptor in hid.listed()
            if is_lamp_array(descriptor)
        ]
    except ImportError as exc:
        raise OutputError(NEEDS_PACKAGE, code=NEVER) from exc


def open_array(address: str) -> tuple[LampArray, str]:
    """Open a lamp array: the only one, the one whose name or address has this text, or a program
    at `socket://HOST:PORT`. Returns its name as well. Raises OutputError.
    """
    if host_of(address):
        chosen = FoundArray(address, "lamps")
    else:
        every = lamp_arrays()
        wanted = address.casefold()
        found = [a for a in every if wanted in a.name.casefold() or wanted == a.address.casefold()]
        if not found:
            here = f"Here are: {listed([a.name for a in every])}" if every else "There are none"
            like = f" like '{address}'" if address else ""
            raise OutputError(f"there is no lamp array{like}. {here}", code=NEVER)
        if len(found) > 1:
            names = listed([f"{each.name} ({each.address})" for each in found])
            raise OutputError(
                f"there are several lamp arrays: {names}. Name one, as in lamps:{found[0].address}",
                code=NEVER,
            )
        (chosen,) = found
    what = f"lamp array '{chosen.name}'"
    try:
        device = hid.open_device(chosen.address)
    except ImportError as exc:
        raise OutputError(NEEDS_PACKAGE, code=NEVER) from exc
    except PermissionError as exc:
        raise OutputError(f"you may not use {what}. {hid.cure(chosen.address)}") from exc
    except OSError as exc:
        raise OutputError(f"{what} cannot be opened: {reason(exc)}") from exc
    try:
        return LampArray(device), chosen.name
    except (OSError, ValueError) as exc:
        device.close()
        raise OutputError(f"{what} does not keep to the standard: {reason(exc)}") from exc


class LampsOutput(Output):
    """A lamp array. `array` is the device, once it is open."""

    Options = LampsOptions
    options: LampsOptions
    example = "lamps: or lamps:keyboard"

    def __init__(
        self, address: str = "", *, clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address, **options)
        self._clock, self._sleep = clock, sleep
        self.array: LampArray | None = None

    def __str__(self) -> str:
        return f"lamp array {self.options.address}".strip()

    @property
    def host(self) -> str:
        """The host of a program that stands in for a device."""
        return host_of(self.options.address)

    def most_frames_hz(self, design: Design) -> float | None:  # noqa: ARG002 - the device says it
        """The updates a second that the device takes; None before it is open."""
        if self.array is None or not self.array.least_interval_us:
            return None
        return 1e6 / self.array.least_interval_us

    def _open(self, design: Design) -> None:
        array, name = open_array(self.options.address)
        self.array = array
        self._check_count(name, design)
        self._try(array.take)
        self._due_s = self._clock()

    def _check_count(self, name: str, design: Design) -> None:
        assert self.array is not None
        leds = sum(size // len(order) for size, order in self._shapes())
        if leds != len(self.array.lamps):
            lines = listed([f"'{design.line[number].name}'" for number in self.wire.lines])
            raise OutputError(
                f"'{name}' has {len(self.array.lamps)} lamps, and {lines} of this design "
                f"{leds} LEDs. Import it anew: fendra import lamps:{self.options.address}",
                code=NEVER,
            )

    def _shapes(self) -> list[tuple[int, str]]:
        return [*zip(self.wire.sizes, self.wire.orders, strict=True)]

    def _use(self, design: Design) -> None:
        """The device stays open: it would show its own light for a moment."""
        self._check_count(str(self), design)

    def _send(self, frame: Frame) -> None:
        assert self.array is not None
        wait_s = self._due_s - self._clock()
        if wait_s > 0:
            self._sleep(wait_s)
        if self._try(partial(self.array.show, self._rgb(frame))):
            self._due_s = self._clock() + self.array.least_interval_us / 1e6

    def _rgb(self, frame: Frame) -> Bytes:
        """The colours of all lamps, (lamps, 3) uint8: as red, green and blue, whatever the order of
        the line; a white channel is part of all three.
        """
        parts = []
        for line, order in zip(self.wire.arrays(frame.rgb), self.wire.orders, strict=True):
            pixels = line.reshape(-1, len(order)).astype(np.int64)
            rgb = pixels[:, [order.index(letter) for letter in "RGB"]]
            white = pixels[:, [order.index("W")]] if "W" in order else 0
            parts.append(np.minimum(rgb + white, 255))
        light = np.concatenate(parts)
        if self.options.curve == "screen":
            light = np.round(linear_to_srgb(light / 255) * 255)
        return light.astype(np.uint8)

    def _try(self, work: Callable[[], Any]) -> Any:
        try:
            return work()
        except (OSError, ValueError) as exc:
            raise OutputError(f"{self} is gone: {reason(exc)}") from exc

    def _close(self) -> None:
        if self.array is not None:
            with contextlib.suppress(OSError, ValueError):  # it may be gone
                self.array.give_back()
            self.array.device.close()
            self.array = None
