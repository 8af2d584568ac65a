"""HTTP connections that may not wait for ever, nor be too many of one address."""

from __future__ import annotations

import asyncio
from collections import Counter
from typing import Any
from weakref import WeakKeyDictionary, WeakSet

from uvicorn.protocols.http.h11_impl import H11Protocol

MOST_OF_ONE = 40
"""Connections of one address."""
SILENT_S = 10.0
"""A connection that has asked for nothing for so long is closed."""

_open: Counter[str] = Counter()
_transports: WeakKeyDictionary[asyncio.AbstractEventLoop, WeakSet[Any]] = WeakKeyDictionary()
"""What each server's loop sends through, pages' sockets included."""


async def cut_all() -> None:
    """End the connections of this loop at once, before it ends: one whose far end reads nothing
    would wait to send, and never be closed.
    """
    for transport in _transports.pop(asyncio.get_running_loop(), ()):
        transport.abort()
    for _ in range(3):  # a loop closes in the next of its rounds, and under TLS in one more
        await asyncio.sleep(0)


class Patient(H11Protocol):
    """One connection. It is closed if it sends no request, or its address has too many."""

    _is_counted = False
    _seen: object = None
    """The request that was answered last, when it was looked at last; none yet at first."""

    def connection_made(self, transport: Any) -> None:
        super().connection_made(transport)
        _transports.setdefault(asyncio.get_running_loop(), WeakSet()).add(transport)
        peer = self.client[0] if self.client else ""
        if _open[peer] >= MOST_OF_ONE:
            transport.abort()
            return
        _open[peer] += 1
        self._is_counted = True
        asyncio.get_running_loop().call_later(SILENT_S, self._look, transport)

    def connection_lost(self, exc: Exception | None) -> None:
        if self._is_counted:
            self._is_counted = False
            self._uncount()
        super().connection_lost(exc)

    def _uncount(self) -> None:
        peer = self.client[0] if self.client else ""
        _open[peer] -= 1
        if _open[peer] <= 0:
            del _open[peer]

    def _look(self, transport: Any) -> None:
        """Close a connection that has brought no whole head since it was looked at last; one that
        has become a socket of a page is another's.
        """
        if transport.is_closing() or transport.get_protocol() is not self:
            return
        waits = self.cycle is None or self.cycle.response_complete
        if waits and self.cycle is self._seen:
            transport.abort()
            return
        self._seen = self.cycle if waits else self
        asyncio.get_running_loop().call_later(SILENT_S, self._look, transport)
