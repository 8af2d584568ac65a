"""HID devices of Windows and macOS, by the package hidapi, which is imported as `hid`."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

LIGHTING = 0x59
"""The usage page of devices that are opened; no keyboard or mouse is."""


def listed() -> Iterator[tuple[str, str, bytes]]:
    """Every HID device of lamps that can be opened: address, name, report descriptor."""
    import hid

    for about in hid.enumerate():
        if about.get("usage_page") != LIGHTING:
            continue
        device = hid.device()
        try:
            device.open_path(about["path"])
            descriptor = bytes(device.get_report_descriptor())
        except (OSError, ValueError):
            continue  # the system keeps it to itself
        finally:
            device.close()
        address = about["path"].decode("utf-8", errors="replace")
        yield address, about.get("product_string") or address, descriptor


def cure(address: str) -> str:
    """The cure if a device may not be opened."""
    del address
    return "Another program may have it; on macOS allow Input Monitoring for the terminal"


class Device:
    """A HID device that is open. Raises OSError."""

    def __init__(self, address: str) -> None:
        import hid

        self._device: Any = hid.device()
        self._device.open_path(address.encode())
        self.descriptor = bytes(self._device.get_report_descriptor())

    def get_feature(self, report: int, size: int) -> bytes:
        found = bytes(self._device.get_feature_report(report, size))
        if not found:
            raise OSError(5, "it does not answer")
        return found

    def set_feature(self, data: bytes) -> None:
        if self._device.send_feature_report(data) < 0:
            raise OSError(5, self._device.error() or "it does not take a report")

    def close(self) -> None:
        self._device.close()
