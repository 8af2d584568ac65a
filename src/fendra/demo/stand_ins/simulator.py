"""A rally simulator: binary packets over UDP, and the same bytes in shared memory."""

from __future__ import annotations

import socket
import struct
from collections.abc import Mapping
from multiprocessing.shared_memory import SharedMemory

from fendra.demo.stand_ins import StandIn

PERIOD_S = 1 / 60
CAR, PEOPLE = 2, 7
HEAD = struct.Struct("<BBH")
"""Version, kind, size."""
LITTLE = struct.Struct("<If")
BIG = struct.Struct(">H")
REST = struct.Struct("<BBhBbd4f16s")
TRACK = "Kiln Pass"


def car(number: int, values: Mapping[str, float]) -> bytes:
    """A packet of the car, 60 bytes, as rally.toml describes it."""
    value = {"speed": 0.0, "rpm": 0.0, "throttle": 0.0, "brake": 0.0, "lean": 0.0, **values}
    lamps = (value.get("left", 0) > 0.5) | (value.get("right", 0) > 0.5) << 1
    lamps |= (value.get("lights", 0) > 0.5) << 5
    gear = 1 if value["speed"] < 0.5 else 2 + int(value["speed"] // 12)
    rest = REST.pack(
        round(min(max(value["throttle"], 0.0), 1.0) * 255),
        round(min(max(value["brake"], 0.0), 1.0) * 255),
        round(value["lean"] * 100), lamps, gear, value.get("battery", 0.0),
        0.5, -0.25, 0.0, 1.5, TRACK.encode(),
    )  # fmt: skip
    body = LITTLE.pack(number, value["speed"] / 3.6) + BIG.pack(round(value["rpm"])) + rest
    return HEAD.pack(1, CAR, HEAD.size + len(body)) + body


def people(driver: str, mate: str) -> bytes:
    """A packet of the people in the car: their names behind their lengths."""
    body = b"".join(bytes([len(name.encode())]) + name.encode() for name in (driver, mate))
    return HEAD.pack(1, PEOPLE, HEAD.size + len(body)) + body


class Simulator(StandIn):
    """Sends 60 packets a second."""

    about = "a simulator that sends binary packets by UDP, 60 a second"
    source = "udp"

    def start(self) -> str:
        host, _, port = (self.address or "127.0.0.1:9410").rpartition(":")
        self._to = (host or "127.0.0.1", int(port))
        self._socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        self._begin()
        return f"udp:{self._to[1]},layout=rally.toml"

    def _begin(self) -> None:
        self._values: dict[str, float] = {}
        self._number = 0
        self._due_s = 0.0

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        self._values |= values
        if at_s < self._due_s:
            return
        self._due_s += PERIOD_S
        if at_s - self._due_s > 0.1:  # it was held up: it does not catch up
            self._due_s = at_s
        self._show(car(self._number, self._values))
        if self._number % 60 == 0:
            self._show(people("Ada", "Bo"))
        self._number += 1

    def _show(self, packet: bytes) -> None:
        self._socket.sendto(packet, self._to)

    def close(self) -> None:
        self._socket.close()


class Shared(Simulator):
    """The same simulator, which shares its bytes by a name."""

    about = "a simulator that shares its memory"
    source = "memory"

    def start(self) -> str:
        name = self.address or "rally"
        self._memory = SharedMemory(name, create=True, size=4096)
        self._begin()
        return f"memory:{name},layout=rally.toml,alive=frame"

    def _show(self, packet: bytes) -> None:
        if packet[1] == CAR and self._memory.buf is not None:
            self._memory.buf[: len(packet)] = packet

    def close(self) -> None:
        self._memory.close()
        self._memory.unlink()
