"""The far end of a serial port that has no device: a stand-in reads and writes here.

With pseudo-terminals the port is one of them. Elsewhere it is a socket of this computer, which
programs open as `socket://127.0.0.1:PORT`.
"""

from __future__ import annotations

import socket
import sys
from collections.abc import Callable
from contextlib import suppress
from typing import Protocol


class FarEnd(Protocol):
    """One end of a port. address: what a program opens to have the other end."""

    address: str

    def take(self, wait_s: float) -> bytes | None:
        """The bytes that came; waits for the first for at most this time. None: the program at the
        other end has left.
        """

    def give(self, data: bytes) -> None:
        """Send bytes; they are dropped if nobody reads."""

    def hang_up(self) -> None:
        """Leave the port to the program that opened it, so that its leaving is seen."""

    def close(self) -> None:
        """Let go of everything; closing twice does no harm."""


class SocketEnd:
    """A port by a socket: the other end is opened by URL, one program at a time."""

    def __init__(self) -> None:
        self._door = socket.create_server(("127.0.0.1", 0), backlog=1)
        self.address = f"socket://127.0.0.1:{self._door.getsockname()[1]}"
        self._line: socket.socket | None = None

    def take(self, wait_s: float) -> bytes | None:
        line = self._joined(wait_s)
        if line is None:
            return b""
        try:
            line.settimeout(max(wait_s, 0.001))
            data = line.recv(65536)
        except TimeoutError:
            return b""
        except OSError:
            data = b""
        if not data:
            self._leave()
        return data or None

    def give(self, data: bytes) -> None:
        line = self._joined(0.0)
        if line is not None:
            with suppress(OSError):  # nobody reads
                line.settimeout(0.5)
                line.sendall(data)

    def hang_up(self) -> None:
        """A socket sees by itself that the other end leaves."""

    def close(self) -> None:
        self._leave()
        self._door.close()

    def _joined(self, wait_s: float) -> socket.socket | None:
        if self._line is None:
            self._door.settimeout(wait_s)
            with suppress(OSError):
                self._line, _ = self._door.accept()
        return self._line

    def _leave(self) -> None:
        if self._line is not None:
            self._line.close()
            self._line = None


def far_end() -> FarEnd:
    """A port of its own: a pseudo-terminal, or a socket where there are none."""
    for form in FORMS[:-1]:
        with suppress(OSError):  # a container may have none
            return form()
    return FORMS[-1]()


FORMS: tuple[Callable[[], FarEnd], ...]
"""The ways to have one, the best first; the last always works."""
if sys.platform == "win32":
    FORMS = (SocketEnd,)
else:
    from fendra.system.unix import PseudoTerminal

    FORMS = (PseudoTerminal, SocketEnd)
