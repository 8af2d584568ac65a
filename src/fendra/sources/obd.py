"""OBD-II over CAN: requests a vehicle's numbers one after another (SAE J1979, ISO 15765-4)."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import SourceError
from fendra.core.layout import Layout
from fendra.core.signals.inputs import split_source
from fendra.drivers import Names
from fendra.sources import News, Source, package
from fendra.sources.can import BusOptions, open_bus

REQUEST, REPLIES = 0x7DF, range(0x7E8, 0x7F0)
CURRENT_DATA = 0x01
REPLY_S = 0.2
"""How long a reply is waited for."""


@dataclass(frozen=True)
class Pid:
    """One number to request: its code, its size in bytes, and its formula."""

    code: int
    size: int
    value: Callable[[bytes], float]
    unit: str


PIDS: dict[str, Pid] = {
    "load": Pid(0x04, 1, lambda d: d[0] * 100 / 255, "%"),
    "coolant": Pid(0x05, 1, lambda d: d[0] - 40.0, "C"),
    "rpm": Pid(0x0C, 2, lambda d: (256 * d[0] + d[1]) / 4, "1/min"),
    "speed": Pid(0x0D, 1, lambda d: float(d[0]), "km/h"),
    "throttle": Pid(0x11, 1, lambda d: d[0] * 100 / 255, "%"),
    "volts": Pid(0x42, 2, lambda d: (256 * d[0] + d[1]) / 1000, "V"),
}
"""SAE J1979, mode 01."""


class ObdOptions(BusOptions):
    """Options of a vehicle's diagnostic plug.

    Attributes:
        bitrate: bits a second
        ask: what to request, of load, coolant, rpm, speed, throttle, volts; what signals
            need by default
        pace: minimum time from one request to the next, s
    """

    bitrate: int | None = 500_000
    ask: Names = ()
    pace: Annotated[float, Field(ge=0.005, le=60)] = 0.03


class Replies:
    """Puts the frames of replies together (ISO 15765-2). It knows no bus.

    `feed` gives a whole reply, or None; `flow` is set if a frame must be answered.
    """

    def __init__(self) -> None:
        self._begun: dict[int, tuple[int, bytearray, int]] = {}
        self.flow: int | None = None

    def feed(self, sender: int, data: bytes) -> bytes | None:
        """Take a frame. What makes no sense is dropped."""
        self.flow = None
        if not data:
            return None
        kind = data[0] >> 4
        if kind == 0:  # all in one frame
            size = data[0] & 15
            return data[1 : 1 + size] if 0 < size < len(data) else None
        if kind == 1 and len(data) == 8:  # the first of several
            self._begun[sender] = ((data[0] & 15) << 8 | data[1], bytearray(data[2:]), 1)
            self.flow = sender - 8
            return None
        if kind == 2 and sender in self._begun:  # one that follows
            size, held, number = self._begun.pop(sender)
            if data[0] & 15 != number & 15:
                return None
            held += data[1:]
            if len(held) >= size:
                return bytes(held[:size])
            self._begun[sender] = size, held, number + 1
        return None


class ObdSource(Source):
    """A vehicle that answers requests. Values that it does not answer are requested less and less
    often.
    """

    Options = ObdOptions
    options: ObdOptions
    example = "obd:can0"

    def __init__(
        self, address: str = "can0", *, clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address or "can0", **options)
        self._clock, self._sleep = clock, sleep
        self._bus: Any = None
        unknown = [name for name in self.options.ask if name not in PIDS]
        if unknown:
            raise SourceError(f"'{unknown[0]}' cannot be requested; there are {', '.join(PIDS)}")

    def __str__(self) -> str:
        return f"OBD {self.options.address}"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        signals = design.signals.values()
        named = [split_source(given.name)[1] for signal in signals for given in signal.sources]
        wanted = [name for name in PIDS if name in named or name in design.signals]
        self._names = [*self.options.ask] or wanted or [*PIDS]
        self._waits = dict.fromkeys(self._names, 0)
        self._misses = dict.fromkeys(self._names, 0)
        self._place = 0
        self._replies = Replies()
        self._asked_s = -1e9
        self._bus = open_bus(self.options, str(self))

    def _read(self, wait_s: float) -> News:
        assert self._bus is not None
        name = self._following()
        if name is None:
            self._sleep(min(wait_s, self.options.pace))
            return ()
        self._sleep(max(self._asked_s + self.options.pace - self._clock(), 0.0))
        self._asked_s = self._clock()
        value = self._ask(PIDS[name])
        if value is None:
            self._misses[name] += 1
            self._waits[name] = min(2 ** self._misses[name], 256)
            return ()
        self._misses[name] = 0
        return [(name, value)]

    def _following(self) -> str | None:
        """The value to ask for next; None if none of them has been answered lately."""
        for _ in self._names:
            name = self._names[self._place % len(self._names)]
            self._place += 1
            if self._waits[name] == 0:
                return name
            self._waits[name] -= 1
        return None

    def _ask(self, pid: Pid) -> float | None:
        can = package("can")
        try:
            question = bytes([2, CURRENT_DATA, pid.code, 0, 0, 0, 0, 0])
            self._bus.send(can.Message(arbitration_id=REQUEST, data=question, is_extended_id=False))
            until_s = self._clock() + REPLY_S
            while (left_s := until_s - self._clock()) > 0:
                message = self._bus.recv(left_s)
                if message is None or message.arbitration_id not in REPLIES:
                    continue
                reply = self._replies.feed(message.arbitration_id, bytes(message.data))
                if self._replies.flow is not None:
                    go_on = bytes([0x30, 0, 0, 0, 0, 0, 0, 0])
                    self._bus.send(
                        can.Message(
                            arbitration_id=self._replies.flow, data=go_on, is_extended_id=False
                        )
                    )
                if reply and reply[:2] == bytes([0x40 | CURRENT_DATA, pid.code]):
                    if len(reply) >= 2 + pid.size:
                        return pid.value(reply[2:])
                    self.refuse(f"a reply of {len(reply)} bytes to {pid.code:#04x}")
        except (can.CanError, OSError) as exc:
            raise SourceError(f"{self} is gone: {exc}") from exc
        return None

    def _close(self) -> None:
        if self._bus is not None:
            self._bus.shutdown()
            self._bus = None
