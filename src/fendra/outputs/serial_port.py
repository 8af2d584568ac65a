"""Frames over a serial port, in the protocol of docs/serial-protocol.md."""

from __future__ import annotations

import contextlib
import errno
import time
from pathlib import Path
from typing import Annotated, Any

import serial
from pydantic import Field
from serial.tools import list_ports

from fendra.core.document.design import Design
from fendra.core.electric.data import serial_rate_hz
from fendra.core.errors import NEVER, OutputError
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.core.names import listed
from fendra.drivers import is_missing
from fendra.outputs import Output, OutputOptions
from fendra.outputs.packets import MOST_LINES, Answers, Identity, ask, frame_to_packets

BAUD = 500_000
"""A rate that 16 MHz controllers and the usual USB adapters hit exactly."""


ASK_S = 2.0
"""How long it is from one question to the next: many boards are just restarting at the first."""


class SerialOptions(OutputOptions):
    """Options of a controller on a serial port.

    Attributes:
        address: the port, such as `/dev/ttyUSB0` or `COM3`
        baud: bits a second
        timeout: the port counts as stuck after this time without taking a byte, s
    """

    address: Annotated[str, Field(min_length=1)]
    baud: Annotated[int, Field(ge=50, le=100_000_000)] = BAUD
    timeout: Annotated[float, Field(gt=0, le=3600)] = 2.0


class SerialOutput(Output):
    """A controller on a serial port.

    controller: its identity; None until it has answered. Not all answer.
    """

    Options = SerialOptions
    options: SerialOptions
    example = "serial:/dev/ttyUSB0,baud=500000"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self.baud, self.timeout_s = self.options.baud, self.options.timeout
        self._port: serial.Serial | None = None
        self._answers = Answers()
        self.controller: Identity | None = None
        self._is_other = False

    def __str__(self) -> str:
        return f"port {self.address}"

    def most_frames_hz(self, design: Design) -> float:
        """How many frames a second the port carries: baud / 10 / bytes a frame."""
        sizes, lines = place(design).line_sizes, self.lines_of(design)
        loads = [sizes[number] * len(design.line[number].wire_order) for number in lines]
        return serial_rate_hz(loads, self.baud)

    def _open(self, design: Design) -> None:  # noqa: ARG002 - the stream says what it holds
        if len(self.wire.sizes) > MOST_LINES:
            count = len(self.wire.sizes)
            problem = f"{self} carries at most {MOST_LINES} lines; there are {count}"
            raise OutputError(f"{problem}; choose some with lines=A+B", code=NEVER)
        try:
            self._port = serial.Serial(
                self.address, self.baud, write_timeout=self.timeout_s, exclusive=True
            )
            self._port.write(b"\0")
            self._asked_s = 0.0
            self.controller = None
        except serial.SerialTimeoutException as exc:
            raise OutputError(self._stuck()) from exc
        except serial.SerialException as exc:
            code = NEVER if is_missing(exc) else ""
            raise OutputError(self._why_not_open(exc), code=code) from exc
        except (OSError, ValueError) as exc:
            raise OutputError(f"{self} cannot be set to {self.baud} baud: {exc}") from exc

    def _use(self, design: Design) -> None:
        """The port stays open: many boards restart when it is opened."""

    def _send(self, frame: Frame) -> None:
        if self._is_other:  # it may have been given its own firmware meanwhile
            self._await_other()
        port = self._write(frame_to_packets(self.sent, self.wire.bytes(frame.rgb)))
        self._judge(self._listen(port), frame.design)

    def _judge(self, answer: Identity | None, design: Design | None = None) -> None:
        """Compare the controller's identity with the design. Raises OutputError."""
        if answer is None:
            return
        self._is_other = answer.sizes != tuple(self.wire.sizes)
        if self._is_other:
            raise OutputError(self._other_lines(answer))
        if design is not None and answer.name not in ("", design.name):
            self.notice = (
                f"the controller at {self} was made for '{answer.name}', and this "
                f"is '{design.name}'. Its lines fit, but it has the other design's "
                "light when frames stop. Regenerate it with `fendra emit --receiver`."
            )

    def _await_other(self) -> None:
        """Send nothing to a controller with other lines until it says that it has these."""
        assert self._port is not None
        until_s = time.monotonic() + 2 * ASK_S
        while time.monotonic() < until_s:
            answer = self._listen(self._port)
            self._judge(answer)
            if answer is not None:
                return
            time.sleep(0.02)

    def _write(self, data: bytes) -> serial.Serial:
        """Bytes to the port, and out of the system's buffer."""
        assert self._port is not None
        try:
            self._port.write(data)
            self._drain(self._port)
        except serial.SerialTimeoutException as exc:
            raise OutputError(self._stuck()) from exc
        except OSError as exc:
            raise OutputError(self._gone()) from exc
        return self._port

    def _gone(self) -> str:
        return f"{self} is gone after {self.sent} frames; check plug and power"

    def _listen(self, port: serial.Serial) -> Identity | None:
        """Ask the controller to identify itself, until it answers; returns the answer, if any."""
        answer = None
        try:
            if port.in_waiting:
                for answer in self._answers.feed(port.read(port.in_waiting)):
                    self.controller = answer
            if self.controller is None and time.monotonic() - self._asked_s > ASK_S:
                port.write(ask())
                self._asked_s = time.monotonic()
        except serial.SerialTimeoutException as exc:
            raise OutputError(self._stuck()) from exc
        except OSError as exc:
            raise OutputError(self._gone()) from exc
        return answer

    def _other_lines(self, controller: Identity) -> str:
        theirs, ours = (
            listed([f"{size}" for size in sizes]) for sizes in (controller.sizes, self.wire.sizes)
        )
        return (
            f"the controller at {self} is '{controller.name}', whose lines have "
            f"{theirs} bytes; this design's have {ours}. Regenerate its receiver "
            "with `fendra emit --receiver`, or choose lines or controller"
        )

    def _stuck(self) -> str:
        return f"{self} has taken no bytes for {self.timeout_s:g} s; is the controller reading?"

    def _drain(self, port: serial.Serial) -> None:
        """Wait until the system's buffer is empty: frames that queue there would be old light."""
        left, since_s = port.out_waiting, time.monotonic()
        while left:
            time.sleep(0.001)
            now = port.out_waiting
            if now < left:
                since_s = time.monotonic()
            elif time.monotonic() - since_s > self.timeout_s:
                raise serial.SerialTimeoutException
            left = now

    def _close(self) -> None:
        if self._port is not None:
            with contextlib.suppress(OSError):  # it may be gone by itself
                self._port.close()
            self._port = None

    def _why_not_open(self, exc: serial.SerialException) -> str:
        code = exc.errno
        if is_missing(exc):
            known = ", ".join(sorted(port.device for port in list_ports.comports()))
            return f"there is no {self}. " + (f"Ports: {known}." if known else "There are none.")
        if code in (errno.EBUSY, errno.EAGAIN):
            holders = _holders(Path(self.address))
            by = f" by {' and '.join(holders)}" if holders else " by another program"
            return f"{self} is busy: it is in use{by}. End that program."
        if code in (errno.EACCES, errno.EPERM):
            group = Path(self.address).group()
            return f"you may not write to {self}. Join its group: sudo usermod -aG {group} $USER."
        return f"{self} cannot be opened as a serial port ({_reason(exc)})."


def _reason(exc: serial.SerialException) -> str:
    cause = exc.__context__
    return str(getattr(cause, "strerror", None) or exc).strip(". ")


def _holders(port: Path) -> list[str]:
    """The processes that hold a port, as `name (process 123)`; on Linux from /proc."""
    target = port.resolve()
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        try:
            if any(handle.resolve() == target for handle in (process / "fd").iterdir()):
                name = (process / "comm").read_text().strip()
                found.append(f"{name} (process {process.name})")
        except OSError:
            continue  # ended meanwhile, or not ours to see
    return found
