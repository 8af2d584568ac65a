"""MAVLink 2: what an autopilot sends about its flight, over UDP or a serial port.

Names: `armed`, `mode` (a word), `mode_number`, `state`, `roll`, `pitch`, `yaw` (degrees; roll to
the right and nose up are positive), `speed` and `airspeed` (m/s), `climb` (m/s), `altitude` (m),
`throttle` (0 to 1), `volts`, `amps`, `left` (of the battery, 0 to 1), `cells` (volts, a list),
`stick_1` to `stick_18` (-1 to 1), `rssi` (0 to 1), `satellites`.
"""

from __future__ import annotations

import contextlib
import math
from collections.abc import Mapping
from typing import Annotated, Any

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.drivers import Options
from fendra.sources import News, Source, package, split_address
from fendra.sources.ports import SerialPort
from fendra.sources.udp import HERE, Datagrams, hint_at, listened_at

ARMED = 128
"""MAV_MODE_FLAG_SAFETY_ARMED in HEARTBEAT.base_mode."""
STATES = (
    "unknown",
    "boot",
    "calibrating",
    "standby",
    "active",
    "critical",
    "emergency",
    "off",
    "ended",
)
"""MAV_STATE, by number."""
LONGEST = 4_096
"""Bytes of a packet over UDP, which holds some messages of 280 at most; a read from a
serial port is smaller."""
UNKNOWN_16, UNKNOWN_8 = 65_535, 255


class MavlinkOptions(Options):
    """Options of an autopilot.

    Attributes:
        address: the UDP port, 14550 by default, for programs on this computer;
            `0.0.0.0:14550` for all computers; or a serial port such as `/dev/ttyAMA0`
        baud: of a serial port
        system: the number of the vehicle, if there are several
    """

    address: str = "14550"
    baud: Annotated[int, Field(ge=1200, le=10_000_000)] = 57_600
    system: Annotated[int, Field(ge=1, le=255)] | None = None


def news_of(message: Any) -> dict[str, Any]:
    """The values of a message, by our names; none for messages without use for light."""
    match message.get_type():
        case "HEARTBEAT":
            return _heartbeat(message)
        case "ATTITUDE":
            angles = {"roll": message.roll, "pitch": message.pitch, "yaw": message.yaw}
            return {name: math.degrees(angle) for name, angle in angles.items()}
        case "VFR_HUD":
            return {
                "speed": message.groundspeed, "airspeed": message.airspeed,
                "throttle": message.throttle / 100, "climb": message.climb, "altitude": message.alt,
            }  # fmt: skip
        case "SYS_STATUS":
            known = {
                "volts": (message.voltage_battery, UNKNOWN_16, 0.001),
                "amps": (message.current_battery, -1, 0.01),
                "left": (message.battery_remaining, -1, 0.01),
            }
            return _known(known)
        case "BATTERY_STATUS":
            cells = [volts / 1000 for volts in message.voltages if volts not in (0, UNKNOWN_16)]
            return _known({"left": (message.battery_remaining, -1, 0.01)}) | {"cells": cells}
        case "RC_CHANNELS":
            sticks = {
                f"stick_{number}": (value - 1500) / 500
                for number in range(1, 19)
                if (value := getattr(message, f"chan{number}_raw")) not in (0, UNKNOWN_16)
            }
            return sticks | _known({"rssi": (message.rssi, UNKNOWN_8, 1 / 254)})
        case "GPS_RAW_INT":
            return _known({"satellites": (message.satellites_visible, UNKNOWN_8, 1)})
    return {}


def _heartbeat(message: Any) -> dict[str, Any]:
    if message.autopilot == 8:  # MAV_AUTOPILOT_INVALID: a ground station, a camera
        return {}
    state = STATES[message.system_status] if message.system_status < len(STATES) else "unknown"
    found: dict[str, Any] = {
        "armed": bool(message.base_mode & ARMED), "state": state,
        "mode_number": message.custom_mode,
    }  # fmt: skip
    with contextlib.suppress(Exception):  # an autopilot whose modes are not listed
        mode = package("pymavlink.mavutil").mode_string_v10(message)
        found["mode"] = str(mode).lower()
    return found


def _known(values: Mapping[str, tuple[float, float, float]]) -> dict[str, float]:
    """Values with their "unknown" value and their scale."""
    return {
        name: value * scale for name, (value, unknown, scale) in values.items() if value != unknown
    }


class MavlinkSource(Source):
    """An autopilot, listened to; nothing is ever sent."""

    is_public = True
    Options = MavlinkOptions
    options: MavlinkOptions
    example = "mavlink:14550 or mavlink:/dev/ttyAMA0,baud=57600"

    def __init__(self, address: str = "14550", **options: Any) -> None:
        super().__init__(address or "14550", **options)
        self._datagrams: Datagrams | None = None
        self._port: SerialPort | None = None

    def __str__(self) -> str:
        if self._is_serial:
            return f"MAVLink {self.options.address}"
        return f"MAVLink {listened_at(*split_address(self.options.address, HERE, 14_550))}"

    @property
    def hint(self) -> str:
        """Whether it only listens to this computer."""
        if self._is_serial:
            return ""
        return hint_at(*split_address(self.options.address, HERE, 14_550))

    @property
    def _is_serial(self) -> bool:
        address = self.options.address
        return address.startswith("/") or address.upper().startswith("COM")

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        dialect = package("pymavlink.dialects.v20.common")
        self._parser = dialect.MAVLink(None)
        self._parser.robust_parsing = True
        address = self.options.address
        if self._is_serial:
            self._port = SerialPort(address, self.options.baud)
            return
        self._datagrams = Datagrams(*split_address(address, HERE, 14_550))

    def _read(self, wait_s: float) -> News:
        news: list[tuple[str, object]] = []
        for data in self._come(wait_s):
            if len(data) > LONGEST:
                self.refuse(f"a packet of {len(data):,} bytes is longer than any of MAVLink")
                continue
            try:
                messages = self._parser.parse_buffer(data) or ()
            except Exception as exc:  # whatever somebody sends
                self.refuse(f"not MAVLink: {str(exc)[:100] or type(exc).__name__}")
                continue
            for message in messages:
                if message.get_type() == "BAD_DATA":
                    self.refuse("bytes that are not MAVLink")
                elif self.options.system in (None, message.get_srcSystem()):
                    news += news_of(message).items()
        return news

    def _come(self, wait_s: float) -> list[bytes]:
        if self._datagrams is not None:
            packets = self._datagrams.take(wait_s)
            self.skipped = self._datagrams.skipped
            return packets
        assert self._port is not None
        data = self._port.take(wait_s)
        return [data] if data else []

    def _close(self) -> None:
        if self._datagrams is not None:
            self._datagrams.close()
            self._datagrams = None
        if self._port is not None:
            self._port.close()
            self._port = None
