"""Frames over a serial port, in the protocol of docs/serial-protocol.md."""

from __future__ import annotations

import contextlib
import time
from typing import Annotated, Any

import serial
from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.electric.data import serial_rate_hz
from fendra.core.errors import NEVER, OutputError
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.core.names import listed
from fendra.outputs import Output, OutputOptions
from fendra.outputs.packets import MOST_LINES, Answers, Identity, ask, frame_to_packets
from fendra.system.ports import PortError, host_of, open_port, still_leaving, take_all

BAUD = 500_000
"""A rate that 16 MHz controllers and the usual USB adapters hit exactly."""


ASK_S = 2.0
"""How long it is from one question to the next: many boards are just restarting at the first."""


class SerialOptions(OutputOptions):
    """Options of a controller on a serial port.

    Attributes:
        address: the port, such as `/dev/ttyUSB0` or `COM3`, or `socket://HOST:PORT` for a program
            that stands in for one
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
        self._port: Any = None
        self._answers = Answers()
        self.controller: Identity | None = None
        self._is_other = False

    def __str__(self) -> str:
        return f"port {self.address}"

    @property
    def host(self) -> str:
        """The host of a port that is a socket."""
        return host_of(self.address)

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
            self._port = open_port(self.address, self.baud, write_timeout=self.timeout_s)
            self._port.write(b"\0")
            self._asked_s = 0.0
            self.controller = None
        except serial.SerialTimeoutException as exc:
            raise OutputError(self._stuck()) from exc
        except PortError as exc:
            raise OutputError(str(exc), code=NEVER if exc.is_missing else "") from exc
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
        until_s = time.perf_counter() + 2 * ASK_S
        while time.perf_counter() < until_s:
            answer = self._listen(self._port)
            self._judge(answer)
            if answer is not None:
                return
            time.sleep(0.02)

    def _write(self, data: bytes) -> Any:
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

    def _listen(self, port: Any) -> Identity | None:
        """Ask the controller to identify itself, until it answers; returns the answer, if any."""
        answer = None
        try:
            for answer in self._answers.feed(take_all(port)):
                self.controller = answer
            if self.controller is None and time.perf_counter() - self._asked_s > ASK_S:
                port.write(ask())
                self._asked_s = time.perf_counter()
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

    def _drain(self, port: Any) -> None:
        """Wait until the system's buffer is empty: frames that queue there would be old light."""
        left, since_s = still_leaving(port), time.perf_counter()
        while left:
            time.sleep(0.001)
            now = still_leaving(port)
            if now < left:
                since_s = time.perf_counter()
            elif time.perf_counter() - since_s > self.timeout_s:
                raise serial.SerialTimeoutException
            left = now

    def _close(self) -> None:
        if self._port is not None:
            with contextlib.suppress(OSError):  # it may be gone by itself
                self._port.close()
            self._port = None
