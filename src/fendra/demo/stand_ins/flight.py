"""An autopilot's telemetry: MAVLink 2 over UDP."""

from __future__ import annotations

import math
import socket
from collections.abc import Mapping
from typing import Any

from fendra.demo.stand_ins import StandIn

STICKS = ("stick_1", "stick_2", "stick_3", "stick_4")
"""Channels of the remote control: roll, pitch, throttle, yaw; -1 to 1."""


class Flight(StandIn):
    """Sends the same flight as a fixed wing's autopilot would."""

    about = "an autopilot that sends MAVLink by UDP"
    file = "flight.csv"
    design = "drone.toml"
    hears = frozenset({"armed", "mode", "throttle", "roll", "pitch", "battery", "rssi", *STICKS})

    def start(self) -> str:
        from pymavlink.dialects.v20 import common

        self._common = common
        host, _, port = (self.address or "127.0.0.1:14550").rpartition(":")
        self._to = (host or "127.0.0.1", int(port))
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._link = common.MAVLink(None, srcSystem=1, srcComponent=1)
        self._values: dict[str, float] = {}
        self._beat_s = -1e9
        return f"mavlink:{self._to[1]}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        self._values.update(values)
        now = self._values.get
        if at_s - self._beat_s >= 0.25 or at_s < self._beat_s:
            self._beat_s = at_s
            mode = self._common.MAV_MODE_FLAG_CUSTOM_MODE_ENABLED | (
                128 if now("armed", 0) > 0.5 else 0
            )
            self._send(
                self._link.heartbeat_encode(
                    self._common.MAV_TYPE_FIXED_WING, self._common.MAV_AUTOPILOT_ARDUPILOTMEGA,
                    mode, int(now("mode", 0)), self._common.MAV_STATE_ACTIVE,
                )
            )  # fmt: skip
            volts = round(now("battery", 0) * 1000)
            self._send(self._link.sys_status_encode(0, 0, 0, 0, volts, 850, 62, 0, 0, 0, 0, 0, 0))
        if values:
            roll, pitch = (math.radians(now(name, 0)) for name in ("roll", "pitch"))
            self._send(self._link.attitude_encode(round(at_s * 1000), roll, pitch, 0.0, 0, 0, 0))
            throttle = round(now("throttle", 0) * 100)
            self._send(self._link.vfr_hud_encode(18.0, 17.0, 90, throttle, 60.0, 0.5))
            stands = {"stick_3": now("throttle", 0) * 2 - 1, **self._values}
            sticks = [round(1500 + 500 * stands.get(name, 0)) for name in STICKS]
            rssi = round(now("rssi", 200 / 254) * 254)
            channels = [*sticks, *[0] * (18 - len(sticks))]
            self._send(
                self._link.rc_channels_encode(round(at_s * 1000), len(sticks), *channels, rssi)
            )

    def _send(self, message: Any) -> None:
        self._socket.sendto(message.pack(self._link), self._to)
        self._link.seq = (self._link.seq + 1) % 256

    def close(self) -> None:
        self._socket.close()
