"""A vehicle's bus: Heron's broadcast frames, and answers to OBD-II questions."""

from __future__ import annotations

import struct
from collections.abc import Mapping
from typing import Any

from fendra.demo.stand_ins import StandIn

MOTION, BODY, POWER = 0x120, 0x130, 0x140
"""Frames; heron.dbc describes them."""
REQUEST, REPLY = 0x7DF, 0x7E8


def frames(values: Mapping[str, float]) -> dict[int, bytes]:
    """The data of the bus, frame by frame: low byte first.

    >>> frames({"speed": 25.6, "rpm": 3000})[MOTION].hex()
    '0001b80b00000000'
    """

    def of(name: str) -> float:
        return values.get(name, 0.0)

    motion = struct.pack(
        "<HHBBH", round(of("speed") * 10), round(of("rpm")), round(of("throttle") * 255),
        round(of("brake") * 255), 0,
    )  # fmt: skip
    bits = (of("left") > 0.5) | (of("right") > 0.5) << 1 | (of("lights") > 0.5) << 2
    body = struct.pack("<Bh", bits, round(of("lean") * 10))
    return {MOTION: motion, BODY: body, POWER: struct.pack("<H", round(of("battery") * 100))}


def answer(pid: int, values: Mapping[str, float]) -> bytes | None:
    """The data of a reply to a question of mode 01 (SAE J1979); None if it is not known.

    >>> answer(0x0C, {"rpm": 3000}).hex()
    '2ee0'
    """

    def of(name: str) -> float:
        return values.get(name, 0.0)

    match pid:
        case 0x00:
            known = sum(1 << (32 - code) for code in (0x05, 0x0C, 0x0D, 0x11))
            return struct.pack(">I", known)
        case 0x05:
            return bytes([60 + 40])
        case 0x0C:
            return struct.pack(">H", round(of("rpm") * 4))
        case 0x0D:
            return bytes([round(of("speed"))])
        case 0x11:
            return bytes([round(of("throttle") * 255)])
    return None


class Vehicle(StandIn):
    """Sends Heron's frames, and answers as a vehicle's diagnostic plug does."""

    about = "a vehicle on a CAN bus (by UDP, within this computer)"
    hears = frozenset(
        {"speed", "rpm", "throttle", "brake", "left", "right", "lights", "lean", "battery"}
    )
    GROUP = "239.74.163.2"

    def start(self) -> str:
        import can

        interface, _, channel = (self.address or f"udp_multicast:{self.GROUP}").partition(":")
        self._can = can
        self._bus: Any = can.Bus(interface=interface, channel=channel)
        self._values: dict[str, float] = {}
        return f"can:{channel},interface={interface},dbc=heron.dbc"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        self._values.update(values)
        if values:
            for number, data in frames(self._values).items():
                self._send(number, data)
        while (asked := self._bus.recv(0)) is not None:
            self._reply(asked)

    def _reply(self, asked: Any) -> None:
        data = bytes(asked.data)
        if asked.arbitration_id != REQUEST or len(data) < 3 or data[:2] != b"\x02\x01":
            return
        found = answer(data[2], self._values)
        if found is not None:
            reply = bytes([2 + len(found), 0x41, data[2]]) + found
            self._send(REPLY, reply.ljust(8, b"\0"))

    def _send(self, number: int, data: bytes) -> None:
        self._bus.send(self._can.Message(arbitration_id=number, data=data, is_extended_id=False))

    def close(self) -> None:
        self._bus.shutdown()
