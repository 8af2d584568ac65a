"""The bytes of a UDP port, or of shared memory, as they are."""

from __future__ import annotations

import time
from contextlib import AbstractContextManager
from typing import Protocol

from fendra.core.errors import SourceError, reason
from fendra.core.limits import PACKET_BYTES
from fendra.sources import split_address
from fendra.sources.udp import HERE, Datagrams, listened_at
from fendra.system.shared import SharedMemory

MEMORY_RATE_HZ = 30.0


class Raw(AbstractContextManager["Raw"], Protocol):
    """Bytes as they are. `take` waits for the first for at most this time."""

    def take(self, wait_s: float) -> list[bytes]: ...


class RawDatagrams:
    """Packets of a UDP port."""

    def __init__(self, host: str, port: int) -> None:
        self._where = listened_at(host, port)
        self._datagrams = Datagrams(host, port)

    def __str__(self) -> str:
        return f"UDP {self._where}"

    def take(self, wait_s: float) -> list[bytes]:
        return self._datagrams.take(wait_s)

    def __enter__(self) -> RawDatagrams:
        return self

    def __exit__(self, *_: object) -> None:
        self._datagrams.close()


class RawMemory:
    """Memory that a program shares, without the zeros at its end."""

    def __init__(self, name: str) -> None:
        self._name = name
        try:
            self._memory = SharedMemory(name)
        except OSError as exc:
            raise SourceError(f"there is no memory '{name}': {reason(exc)}") from exc
        self._length = 0

    def __str__(self) -> str:
        return f"memory {self._name}"

    def take(self, wait_s: float) -> list[bytes]:
        time.sleep(max(wait_s, 1 / MEMORY_RATE_HZ))
        data = self._memory.read(PACKET_BYTES.most)
        self._length = max(self._length, -(-len(data.rstrip(b"\0")) // 4) * 4)
        return [data[: self._length]] if self._length else []

    def __enter__(self) -> RawMemory:
        return self

    def __exit__(self, *_: object) -> None:
        self._memory.close()


def open_raw(address: str) -> RawDatagrams | RawMemory:
    """Open `udp:PORT`, `PORT` or `memory:NAME`. Raises SourceError, and ValueError for others.

    >>> open_raw("can:can0")
    Traceback (most recent call last):
    ...
    ValueError: 'can' has no raw bytes here; write udp:PORT or memory:NAME
    """
    kind, colon, where = address.partition(":")
    if kind == "memory" and where:
        return RawMemory(where)
    if colon and kind != "udp":
        raise ValueError(f"'{kind}' has no raw bytes here; write udp:PORT or memory:NAME")
    return RawDatagrams(*split_address(where if colon else address, HERE, 9400))
