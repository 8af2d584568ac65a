"""Ports that sources read bytes from, whatever the bytes mean."""

from __future__ import annotations

import contextlib

import serial

from fendra.core.errors import NEVER, SourceError
from fendra.drivers import is_missing


class SerialPort:
    """A serial port, open for reading by this program alone. Raises SourceError.

    baud: bits a second.
    """

    def __init__(self, address: str, baud: int) -> None:
        self._what = f"port {address}"
        try:
            self._port = serial.Serial(address, baud, exclusive=True)
        except (OSError, ValueError) as exc:
            reason = str(getattr(exc.__context__, "strerror", None) or exc)
            code = NEVER if is_missing(exc) else ""
            raise SourceError(f"{self._what} cannot be opened: {reason}", code=code) from exc

    def take(self, wait_s: float) -> bytes:
        """The bytes that arrived; waits for the first for at most this time."""
        try:
            self._port.timeout = wait_s
            data = self._port.read(1)
            return bytes(data + self._port.read(self._port.in_waiting))
        except OSError as exc:
            raise SourceError(f"{self._what} is gone; check plug and power") from exc

    def close(self) -> None:
        with contextlib.suppress(OSError):
            self._port.close()
