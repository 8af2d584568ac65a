"""Frames over the SPI of a single-board computer, to one line of LEDs.

One-wire types read pulses: each of their bits is sent as three bits of SPI, 100 for a 0 and 110
for a 1. Clocked types are sent as they are.
"""

from __future__ import annotations

import contextlib
import stat
from pathlib import Path, PurePosixPath
from typing import Annotated, Any, BinaryIO, Protocol

import numpy as np
from pydantic import Field

from fendra.core.arrays import Bytes
from fendra.core.catalogue.leds import LedType
from fendra.core.document.design import Design
from fendra.core.errors import NEVER, OutputError, reason
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.outputs import Output, OutputOptions

BITS = 3
"""SPI bits for one of a one-wire type."""
CLOCKED_HZ = 4_000_000


class SpiOptions(OutputOptions):
    """Options of LEDs on SPI.

    Attributes:
        address: the device, such as `/dev/spidev0.0`; a file gets the same bytes
        speed: of the clock, Hz; by default three times the bit rate of a one-wire type, and
            4 MHz for a clocked one
    """

    address: Annotated[str, Field(min_length=1)]
    speed: Annotated[int, Field(ge=100_000, le=100_000_000)] | None = None


def coded(line: Bytes) -> Bytes:
    """A one-wire line's bytes, each as three: 100 for a 0, 110 for a 1, high bit first.

    >>> coded(np.array([0b10000001], np.uint8)).tobytes().hex()
    'd24926'
    """
    return np.asarray(_CODES[line].reshape(-1))


def _code(byte: int) -> list[int]:
    bits = "".join("110" if byte >> (7 - i) & 1 else "100" for i in range(8))
    return [int(bits[i : i + 8], 2) for i in range(0, 24, 8)]


_CODES = np.array([_code(byte) for byte in range(256)], np.uint8)


def one_wire(line: Bytes, led: LedType, speed_hz: int) -> bytes:
    """A line of one-wire LEDs as SPI bytes, with the silence that shows it before and behind.

    A low byte comes first: some machines begin with a level that is not their own.
    """
    silence = np.zeros(int(np.ceil(led.reset_s * speed_hz / 8)) + 1, np.uint8)
    return np.concatenate([silence[:1], coded(line), silence]).tobytes()


def clocked(line: Bytes, channels: int) -> bytes:
    """The bytes of a line of clocked LEDs: 32 zero bits, then a byte of full level before each LED,
    and half a bit for each LED at the end, so that the last one receives its own (data sheet,
    "cascading data").

    >>> clocked(np.array([1, 2, 3], np.uint8), 3).hex(" ")
    '00 00 00 00 ff 01 02 03 00 00 00 00'
    """
    leds = line.reshape(-1, channels)
    levels = np.full((len(leds), 1), 0xFF, np.uint8)
    end = bytes(4 + len(leds) // 16)
    return bytes(4) + np.hstack([levels, leds]).tobytes() + end


class _Device(Protocol):
    def writebytes2(self, data: bytes) -> None: ...
    def close(self) -> None: ...


class _FileDevice:
    """A file or a pipe in the place of a device."""

    def __init__(self, path: Path) -> None:
        self._file: BinaryIO = path.open("wb", buffering=0)

    def writebytes2(self, data: bytes) -> None:
        self._file.write(data)

    def close(self) -> None:
        self._file.close()


class SpiOutput(Output):
    """LEDs on the SPI of the computer that runs this; one line."""

    Options = SpiOptions
    options: SpiOptions
    example = "spi:/dev/spidev0.0,lines=tail"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._device: _Device | None = None

    def __str__(self) -> str:
        return f"SPI {self.address}"

    def check_from_design(self) -> None:
        """A design names a device of the SPI, and no file or pipe."""
        if not PurePosixPath(self.address).match("/dev/spidev*") or ".." in self.address:
            raise OutputError(
                (
                    "a design may only name an SPI device such as /dev/spidev0.0, not "
                    f"'{self.address}'. Name it yourself: --to spi:FILE"
                ),
                code="unsafe",
            )

    def most_frames_hz(self, design: Design) -> float | None:
        """How many frames a second the clock and the silence allow."""
        lines = self.lines_of(design)
        if len(lines) != 1:
            return None
        line, size = design.line[lines[0]], place(design).line_sizes[lines[0]]
        bits = size * line.led_type.bits
        if line.led_type.data == "clocked":
            return self._speed_of(line.led_type) / (bits + 64 + size / 2)
        return 1.0 / (bits * BITS / self._speed_of(line.led_type) + line.led_type.reset_s)

    def _speed_of(self, led: LedType) -> int:
        own = CLOCKED_HZ if led.data == "clocked" else round(BITS / led.bit_s)
        return self.options.speed or own

    def _open(self, design: Design) -> None:
        if len(self.wire.lines) != 1:
            names = ", ".join(line.name for line in design.line)
            raise OutputError(f"{self} takes one line; say which, as in lines=NAME, of {names}")
        self._line = design.line[self.wire.lines[0]]
        self._speed_hz = self._speed_of(self._line.led_type)
        path = Path(self.address)
        with contextlib.suppress(OSError):
            if not stat.S_ISCHR(path.stat().st_mode):
                self._device = _FileDevice(path)
                return
        self._device = self._spidev(path)

    def _spidev(self, path: Path) -> _Device:
        if not path.exists():
            known = ", ".join(sorted(str(p) for p in Path("/dev").glob("spidev*")))
            here = f"Devices: {known}." if known else "There are none; is SPI turned on?"
            raise OutputError(f"there is no {self}. {here}", code=NEVER)
        try:
            import spidev
        except ImportError as exc:
            raise OutputError(
                "this output needs the package 'spidev': pip install 'fendra[spi]'", code=NEVER
            ) from exc
        try:
            device = spidev.SpiDev()
            device.open_path(str(path))
            device.max_speed_hz = self._speed_hz
            device.mode = 0
        except OSError as exc:
            raise OutputError(f"{self} cannot be opened: {reason(exc)}") from exc
        found: _Device = device
        return found

    def _send(self, frame: Frame) -> None:
        assert self._device is not None
        (line,), led = self.wire.arrays(frame.rgb), self._line.led_type
        is_clocked = led.data == "clocked"
        channels = len(self._line.wire_order)
        data = clocked(line, channels) if is_clocked else one_wire(line, led, self._speed_hz)
        try:
            self._device.writebytes2(data)
        except OSError as exc:
            raise OutputError(f"{self} does not accept more bytes: {reason(exc)}") from exc

    def _close(self) -> None:
        if self._device is not None:
            with contextlib.suppress(OSError):
                self._device.close()
            self._device = None
