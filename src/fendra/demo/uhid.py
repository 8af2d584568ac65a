"""A stand-in lamp array as a HID device of Linux (/dev/uhid, linux/uhid.h): the system and all its
programs see a keyboard's lamps, though none is plugged in.

    sudo python -m fendra.demo.lamp_array --uhid
"""

from __future__ import annotations

import struct
from typing import BinaryIO, Protocol

DESTROY, GET_REPORT, GET_REPLY, CREATE, SET_REPORT, SET_REPLY = 1, 9, 10, 11, 13, 14
"""Kinds of events; the others need no answer."""
KIND = struct.Struct("=I")
CREATED = struct.Struct("=128s64s64sHHIIII")
ASKED = struct.Struct("=IBB")
ANSWERED = struct.Struct("=IHH")
TOLD = struct.Struct("=IBBH")
TAKEN = struct.Struct("=IH")
SIZE = 4380
"""Bytes of an event, whatever its kind."""
USB, REFUSED = 0x03, 5
VENDOR, PRODUCT = 0x1209, 0x0001


class Device(Protocol):
    """A HID device made up: feature reports, each with its number first."""

    def get(self, report: int) -> bytes | None: ...

    def set(self, data: bytes) -> bool: ...


def create(name: str, descriptor: bytes) -> bytes:
    """The event that makes the device."""
    head = CREATED.pack(
        name.encode()[:127], b"fendra", b"", len(descriptor), USB, VENDOR, PRODUCT, 1, 0
    )
    return (KIND.pack(CREATE) + head + descriptor).ljust(SIZE, b"\0")


def answer(device: Device, event: bytes) -> bytes:
    """The device's answer to an event of the system; empty if it needs none."""
    (kind,) = KIND.unpack_from(event)
    if kind == GET_REPORT:
        number, report, _ = ASKED.unpack_from(event, KIND.size)
        data = device.get(report)
        reply = ANSWERED.pack(number, REFUSED if data is None else 0, len(data or b""))
        return (KIND.pack(GET_REPLY) + reply + (data or b"")).ljust(SIZE, b"\0")
    if kind == SET_REPORT:
        number, _, _, size = TOLD.unpack_from(event, KIND.size)
        start = KIND.size + TOLD.size
        is_taken = device.set(event[start : start + size])
        reply = TAKEN.pack(number, 0 if is_taken else REFUSED)
        return (KIND.pack(SET_REPLY) + reply).ljust(SIZE, b"\0")
    return b""


def serve(device: Device, descriptor: bytes, system: BinaryIO) -> None:
    """Be the device until the program ends. system: /dev/uhid, open and unbuffered."""
    system.write(create("Fendra stand-in keyboard", descriptor))
    try:
        while event := system.read(SIZE):
            reply = answer(device, event)
            if reply:
                system.write(reply)
    finally:
        system.write(KIND.pack(DESTROY).ljust(SIZE, b"\0"))
