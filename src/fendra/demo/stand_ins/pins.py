"""Pins of a single-board computer: a trike's levers and switches, for a source with `mock`."""

from __future__ import annotations

import json
import socket
from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn

PINS = {"brake": 17, "left": 22, "right": 23, "lights": 24}
"""Switches to ground: 0 is pressed."""
WHEEL = 27
"""A pulse for each turn of the wheel, of 2.1 m."""
METRES = 2.1


class Pins(StandIn):
    """Moves made-up pins: switches, pulses of a wheel, and a throttle on channel 0."""

    about = "levers and switches on the pins of a single-board computer (made-up pins)"

    hears = frozenset({*PINS, "throttle", "speed"})

    def start(self) -> str:
        self._to = ("127.0.0.1", int(self.address or 9417))
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._speed, self._turn, self._last_s = 0.0, 0.0, 0.0
        return f"gpio:,mock={self._to[1]} (its inputs stand in a design: see docs/live.md)"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        told: dict[str, float] = {
            str(pin): int(values[name] <= 0.5) for name, pin in PINS.items() if name in values
        }
        if "throttle" in values:
            told["analogue 0"] = values["throttle"]
        self._speed = values.get("speed", self._speed)
        before = int(self._turn)
        self._turn += max(at_s - self._last_s, 0.0) * self._speed / 3.6 / METRES
        self._last_s = at_s
        if told:
            self._send(told)
        for _ in range(int(self._turn) - before):
            self._send({str(WHEEL): 0})
            self._send({str(WHEEL): 1})

    def _send(self, values: Mapping[str, float]) -> None:
        self._socket.sendto(json.dumps(values).encode(), self._to)

    def close(self) -> None:
        self._socket.close()
