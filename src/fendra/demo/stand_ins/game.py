"""A game's telemetry: JSON over UDP."""

from __future__ import annotations

import json
import socket
from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn


class Game(StandIn):
    """Sends a JSON object for each moment."""

    about = "a game or simulator that sends JSON by UDP"

    def start(self) -> str:
        host, _, port = (self.address or "127.0.0.1:9400").rpartition(":")
        self._to = (host or "127.0.0.1", int(port))
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        return f"udp:{self._to[1]}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        if values:
            self._socket.sendto(json.dumps({"time": round(at_s, 3), **values}).encode(), self._to)

    def close(self) -> None:
        self._socket.close()
