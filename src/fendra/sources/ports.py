"""Ports that sources read bytes from, whatever the bytes mean."""

from __future__ import annotations

import contextlib

from fendra.core.errors import NEVER, SourceError
from fendra.system.ports import PortError, open_port, take_all


class SerialPort:
    """A serial port, open for reading by this program alone. Raises SourceError.

    address: a name such as `/dev/ttyACM0` or `COM3`, or `socket://HOST:PORT`. baud: bits a second.
    """

    def __init__(self, address: str, baud: int) -> None:
        self._what = f"port {address}"
        try:
            self._port = open_port(address, baud)
        except PortError as exc:
            raise SourceError(str(exc), code=NEVER if exc.is_missing else "") from exc
        except (OSError, ValueError) as exc:
            raise SourceError(f"{self._what} cannot be set to {baud} baud: {exc}") from exc

    def take(self, wait_s: float) -> bytes:
        """The bytes that arrived; waits for the first for at most this time."""
        try:
            self._port.timeout = wait_s
            return bytes(self._port.read(1)) + take_all(self._port)
        except OSError as exc:
            raise SourceError(f"{self._what} is gone; check plug and power") from exc

    def close(self) -> None:
        with contextlib.suppress(OSError):
            self._port.close()
