"""HID devices of Linux: /dev/hidraw (linux/hidraw.h), found through /sys without opening any."""

from __future__ import annotations

import fcntl
import os
import sys
from collections.abc import Iterator
from pathlib import Path

assert sys.platform == "linux"  # the type checker reads this file for Linux alone

CLASS = Path("/sys/class/hidraw")
DEVICES = Path("/dev")
_SET, _GET = 0xC000_4806, 0xC000_4807
"""HIDIOCSFEATURE and HIDIOCGFEATURE: read and write, the group H, 6 and 7; the size comes above."""


def listed() -> Iterator[tuple[str, str, bytes]]:
    """Every HID device: address, name, report descriptor."""
    for entry in sorted(CLASS.glob("hidraw*")):
        try:
            descriptor = (entry / "device" / "report_descriptor").read_bytes()
            about = (entry / "device" / "uevent").read_text(encoding="utf-8", errors="replace")
        except OSError:
            continue  # unplugged meanwhile
        keys = dict(line.partition("=")[::2] for line in about.splitlines())
        yield str(DEVICES / entry.name), keys.get("HID_NAME", entry.name), descriptor


def cure(address: str) -> str:
    """The cure if a device may not be opened."""
    rule = 'KERNEL=="hidraw*", SUBSYSTEM=="hidraw", MODE="0660", TAG+="uaccess"'
    return (
        f"Let those at the computer use {address}: put the line {rule} into "
        "/etc/udev/rules.d/60-lamps.rules, and plug it in again"
    )


class Device:
    """A HID device that is open. Raises OSError."""

    def __init__(self, address: str) -> None:
        self.descriptor = next((told for path, _, told in listed() if path == address), b"")
        self._file = os.open(address, os.O_RDWR)

    def get_feature(self, report: int, size: int) -> bytes:
        held = bytearray(size)
        held[0] = report
        count = fcntl.ioctl(self._file, _GET | size << 16, held)
        return bytes(held[:count])

    def set_feature(self, data: bytes) -> None:
        fcntl.ioctl(self._file, _SET | len(data) << 16, bytearray(data))

    def close(self) -> None:
        if self._file >= 0:
            os.close(self._file)
            self._file = -1
