"""Pins of a single-board computer: switches, pulses, analogue values through an SPI converter."""

from __future__ import annotations

import contextlib
import json
import time
from collections import deque
from collections.abc import Callable
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from fendra.core.document.design import Design
from fendra.core.errors import SourceError
from fendra.core.layout import Layout
from fendra.drivers import Options
from fendra.sources import News, Source, package
from fendra.sources.udp import Datagrams


class PinInput(BaseModel):
    """One input.

    kind: a switch; pulses, whose value is their number per second; or analogue, a share from 0 to
    1. pin: its number (Broadcom's). pull: what pulls it while nothing is connected; with `up` it is
    on when connected to ground. channel: of the converter. chip: which one, by its name. per:
    pulses of one turn, or of whatever is counted. quiet: after this time without pulses it is 0, s.
    """

    model_config = ConfigDict(extra="forbid", frozen=True)

    kind: Literal["switch", "pulses", "analogue"] = "switch"
    pin: Annotated[int, Field(ge=0, le=200)] | None = None
    pull: Literal["up", "down", "none"] = "up"
    channel: Annotated[int, Field(ge=0, le=7)] = 0
    chip: Literal["mcp3004", "mcp3008", "mcp3204", "mcp3208"] = "mcp3008"
    per: Annotated[float, Field(gt=0)] = 1.0
    quiet: Annotated[float, Field(gt=0, le=60)] = 1.5


class GpioOptions(Options):
    """Options of pins.

    Attributes:
        inputs: what is connected, by name
        rate: how often analogue values are read, Hz
        mock: made-up pins instead of real ones, set by JSON at this UDP port: `{"17": 1,
            "analogue 0": 0.5}`
    """

    inputs: Annotated[dict[str, PinInput], Field(min_length=1)]
    rate: Annotated[float, Field(gt=0, le=1000)] = 50.0
    mock: Annotated[int, Field(ge=0, le=65_535)] | None = None


class Pulses:
    """From the moments of pulses to their number per second."""

    def __init__(self, per: float, quiet_s: float) -> None:
        self._per, self._quiet_s = per, quiet_s
        self._moments: deque[float] = deque(maxlen=16)

    def note(self, now_s: float) -> None:
        """A pulse came."""
        self._moments.append(now_s)

    def rate_hz(self, now_s: float) -> float:
        """Pulses per second; it falls while none arrive, and is 0 after the quiet time.

        >>> pulses = Pulses(1, 1.5)
        >>> for moment in (0.0, 0.5, 1.0): pulses.note(moment)
        >>> pulses.rate_hz(1.1), pulses.rate_hz(2.0), pulses.rate_hz(3.0)
        (2.0, 1.0, 0.0)
        """
        moments = [moment for moment in [*self._moments] if now_s - moment <= 2 * self._quiet_s]
        if len(moments) < 2 or now_s - moments[-1] > self._quiet_s:
            return 0.0
        period_s = (moments[-1] - moments[0]) / (len(moments) - 1)
        return 1.0 / (max(period_s, now_s - moments[-1], 1e-6) * self._per)


class GpioSource(Source):
    """Pins that are looked at."""

    Options = GpioOptions
    options: GpioOptions

    def __init__(
        self, address: str = "", *, clock: Callable[[], float] = time.perf_counter, **options: Any
    ) -> None:
        super().__init__(address, **options)
        self._clock = clock
        self._devices: dict[str, Any] = {}
        self._mock: Datagrams | None = None
        for name, given in self.options.inputs.items():
            if given.kind != "analogue" and given.pin is None:
                raise SourceError(f"input '{name}' needs its pin, as in pin = 17")

    def __str__(self) -> str:
        return "pins"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        gpiozero = package("gpiozero")
        if self.options.mock is not None:
            self._open_mock(gpiozero)
        self._pulses: dict[str, Pulses] = {}
        self._before: dict[str, float] = {}
        try:
            for name, given in self.options.inputs.items():
                self._devices[name] = self._device(gpiozero, name, given)
        except Exception as exc:  # gpiozero and its back ends have errors of their own
            raise SourceError(f"pins: {type(exc).__name__}: {exc}") from exc

    def _open_mock(self, gpiozero: Any) -> None:
        from gpiozero.pins.mock import MockFactory

        if not isinstance(gpiozero.Device.pin_factory, MockFactory):
            gpiozero.Device.pin_factory = MockFactory()
        self._analogue: dict[int, float] = {}
        if self.options.mock:
            self._mock = Datagrams("127.0.0.1", self.options.mock)

    def _device(self, gpiozero: Any, name: str, given: PinInput) -> Any:
        if given.kind == "analogue":
            if self.options.mock is not None:
                return given.channel
            return getattr(gpiozero, given.chip.upper())(channel=given.channel)
        pulls: dict[str, Any] = {"up": True, "down": False, "none": None}
        more = {"active_state": True} if given.pull == "none" else {}
        device = gpiozero.DigitalInputDevice(given.pin, pull_up=pulls[given.pull], **more)
        if given.kind == "pulses":
            pulses = self._pulses[name] = Pulses(given.per, given.quiet)
            device.when_activated = lambda: pulses.note(self._clock())
        return device

    def _read(self, wait_s: float) -> News:
        step_s = min(1.0 / self.options.rate, wait_s)
        if self._mock is None:
            time.sleep(step_s)
        else:
            self._set_mock(self._mock.take(step_s))
        now_s = self._clock()
        return [
            (name, self._value(name, given, now_s)) for name, given in self.options.inputs.items()
        ]

    def _value(self, name: str, given: PinInput, now_s: float) -> float:
        device = self._devices[name]
        if given.kind == "pulses":
            return self._pulses[name].rate_hz(now_s)
        if isinstance(device, int):
            return self._analogue.get(device, 0.0)
        return float(device.value)

    def _set_mock(self, packets: list[bytes]) -> None:
        from gpiozero import Device

        for packet in packets:
            try:
                values = json.loads(packet)
                for name, value in values.items():
                    if name.startswith("analogue"):
                        self._analogue[int(name.split()[1])] = float(value)
                        continue
                    pin = Device.pin_factory.pin(int(name))
                    pin.drive_high() if value else pin.drive_low()
            except Exception as exc:  # a stand-in may send anything
                self.refuse(f"{packet[:40]!r}: {exc}")

    def _close(self) -> None:
        for device in self._devices.values():
            with contextlib.suppress(Exception):
                device.close()
        self._devices = {}
        if self._mock is not None:
            self._mock.close()
            self._mock = None
