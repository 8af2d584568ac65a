"""Serial ports: opening one, by its name or as a socket by URL, and why one does not open."""

from __future__ import annotations

import errno
import re
import socket
import sys
from pathlib import Path
from typing import Any

import serial
from serial.tools import list_ports
from serial.urlhandler import protocol_socket

if sys.platform == "win32":
    from fendra.system.windows import holders, may_not
else:
    from fendra.system.unix import holders, may_not

BY_SOCKET = "socket://"
MOST_AT_ONCE = 4096
"""Bytes that are taken at a time."""
_MISSING, _DENIED, _NOT_THERE, _SILENT = 2, 5, 31, 121
"""Windows' numbers: no such port, in use or not allowed, unplugged, a radio device out of reach."""


class PortError(Exception):
    """A port that cannot be opened. is_missing: there is none of this name."""

    def __init__(self, problem: str, *, is_missing: bool = False) -> None:
        super().__init__(problem)
        self.is_missing = is_missing


def host_of(address: str) -> str:
    """The host of a port that is a socket; empty for one of this computer.

    >>> host_of("socket://pi.local:5000"), host_of("socket://pi.local"), host_of("COM3")
    ('pi.local', 'pi.local', '')
    """
    if not address.lower().startswith(BY_SOCKET):
        return ""
    host, colon, port = address[len(BY_SOCKET) :].partition("/")[0].rpartition(":")
    return host if colon else port


def line_to(address: str, wait_s: float) -> socket.socket:
    """A line to the program that stands in for a device at `socket://HOST:PORT`. Raises OSError."""
    host, _, port = address[len(BY_SOCKET) :].rpartition(":")
    if not (port.isdigit() and 0 < int(port) < 65536):
        raise OSError(errno.EINVAL, f"'{port}' is not a port; write {BY_SOCKET}HOST:PORT")
    return socket.create_connection((host.strip("[]"), int(port)), timeout=wait_s)


def open_port(address: str, baud: int, **settings: Any) -> Any:
    """Open a port for this program alone: a name such as `/dev/ttyUSB0` or `COM3`, or
    `socket://HOST:PORT`. Gives what pyserial does. Raises PortError, and ValueError for settings
    that the port does not take.
    """
    try:
        if host_of(address):
            return protocol_socket.Serial(address, baud, **settings)
        return serial.Serial(address, baud, exclusive=True, **settings)
    except serial.SerialTimeoutException:
        raise
    except serial.SerialException as exc:
        raise PortError(_why(address, exc), is_missing=_number(exc) == errno.ENOENT) from exc


def take_all(port: Any) -> bytes:
    """The bytes that have come; a socket only tells that there is one more."""
    data = b""
    while len(data) < MOST_AT_ONCE and (waiting := port.in_waiting):
        data += port.read(waiting)
    return data


def still_leaving(port: Any) -> int:
    """The bytes that wait in the system's buffer; sockets do not tell, and hold few."""
    return int(getattr(port, "out_waiting", 0))


def plugged_in() -> list[Any]:
    """The ports of this computer as pyserial describes them, COM10 behind COM9."""
    return sorted(list_ports.comports(), key=lambda port: _by_number(port.device))


def known_ports() -> str:
    """The ports of this computer with what is plugged in, in words; empty if there are none."""
    return ", ".join(_named(port) for port in plugged_in())


def _by_number(name: str) -> tuple[str, int]:
    """A key that sorts COM10 behind COM9."""
    digits = re.search(r"\d+$", name)
    return name.rstrip("0123456789"), int(digits[0]) if digits else -1


def _named(port: Any) -> str:
    about = str(port.description or "")
    about = about.replace(f"({port.device})", "").strip()
    return f"{port.device} ({about})" if about not in ("", "n/a", port.name) else str(port.device)


def _number(exc: serial.SerialException) -> int:
    """The system's number of an error. On Windows only the text holds it."""
    if exc.errno is not None:
        return errno.ENOENT if exc.errno == errno.ENOTDIR else exc.errno
    told = re.search(r", (\d+)\)\W*$", str(exc))
    if told is None:
        return errno.ENOENT if "FileNotFoundError" in str(exc) else 0
    meant = {_MISSING: errno.ENOENT, _NOT_THERE: errno.ENOENT, _DENIED: errno.EBUSY,
             _SILENT: errno.ETIMEDOUT}  # fmt: skip
    return meant.get(int(told[1]), 0)


def _why(address: str, exc: serial.SerialException) -> str:
    """The reason in words, with its cure."""
    if host_of(address):
        if not re.search(r":\d+(/|$)", address):
            return f"port {address} names no number; write {BY_SOCKET}HOST:PORT."
        where = address.removeprefix(BY_SOCKET)
        return f"no program serves port {address}. Start it; does it listen at {where}?"
    match _number(exc):
        case errno.ENOENT:
            known = known_ports()
            return f"there is no port {address}. " + (
                f"Ports: {known}." if known else "There are none."
            )
        case errno.EBUSY | errno.EAGAIN:
            held = holders(Path(address))
            by = f" by {' and '.join(held)}" if held else " by another program"
            return f"port {address} is busy: it is in use{by}. End that program."
        case errno.EACCES | errno.EPERM:
            return f"you may not use port {address}. {may_not(Path(address))}"
        case errno.ETIMEDOUT:
            return f"the device at port {address} does not answer. Is it switched on and near?"
    cause = getattr(exc.__context__, "strerror", None) or exc
    return f"port {address} cannot be opened as a serial port ({str(cause).strip('. ')})."
