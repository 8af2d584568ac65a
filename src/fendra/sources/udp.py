"""Packets over UDP: telemetry of a game or a simulator, or from a program of your own.

Each packet is one JSON object, or `name=value` pairs; nested values are named `wheel.left`. With
`fields`, `packets` or `layout` it is binary.
"""

from __future__ import annotations

import contextlib
import errno
import socket
from abc import abstractmethod
from collections import deque
from typing import Any, ClassVar

from fendra.core.document.design import Design
from fendra.core.errors import SourceError, reason
from fendra.core.layout import Layout
from fendra.core.limits import PACKET_BYTES
from fendra.sources import News, Source, split_address
from fendra.sources.binary import BinaryOptions, Decoder
from fendra.sources.texts import parse_text

AT_ONCE = 64
"""Packets that are understood at a time: the newest. Of more the older ones are skipped."""
MOST_AT_ONCE = 2_000
"""Packets that are taken from the system at a time."""


class UdpOptions(BinaryOptions):
    """Options of a UDP port. Without `fields`, `packets` and `layout` packets are text.

    Attributes:
        address: the port, such as `9400`, for programs on this computer; `0.0.0.0:9400` for
            all computers
    """

    address: str = "9400"


HERE = "127.0.0.1"
"""The address by default: this computer alone."""


def hint_at(host: str, port: int) -> str:
    """The thing to try if nothing arrives at an address.

    >>> hint_at("127.0.0.1", 9400)
    'which only listens to programs on this computer; for others write 0.0.0.0:9400'
    """
    if not host.startswith("127."):
        return ""
    return f"which only listens to programs on this computer; for others write 0.0.0.0:{port}"


def listened_at(host: str, port: int) -> str:
    """An address that is listened at, in words.

    >>> listened_at("127.0.0.1", 9400), listened_at("0.0.0.0", 9400)
    ('127.0.0.1:9400', '0.0.0.0:9400 (every network)')
    """
    every = " (every network)" if host == "0.0.0.0" else ""  # nosec B104
    return f"{host}:{port}{every}"


class Datagrams:
    """A UDP port that is listened at. skipped: packets that came quicker than they can be read."""

    def __init__(self, host: str, port: int) -> None:
        self.socket = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
        try:
            self.socket.bind((host, port))
        except OSError as exc:
            self.socket.close()
            busy = exc.errno == errno.EADDRINUSE
            why = "another program uses that port" if busy else reason(exc)
            raise SourceError(f"cannot listen on UDP {host}:{port}: {why}") from exc
        self.skipped = 0

    def take(self, wait_s: float) -> list[bytes]:
        """The packets that arrived; waits for the first for at most this time."""
        packets: deque[bytes] = deque(maxlen=AT_ONCE)
        self.socket.settimeout(wait_s)
        try:
            for _ in range(MOST_AT_ONCE):
                packet = self.socket.recv(PACKET_BYTES.most)
                self.skipped += len(packets) == AT_ONCE
                packets.append(packet)
                self.socket.settimeout(0)
        except (TimeoutError, BlockingIOError):
            pass
        except OSError as exc:
            raise SourceError(f"UDP: {reason(exc)}") from exc
        return [*packets]

    def close(self) -> None:
        with contextlib.suppress(OSError):
            self.socket.close()


class DatagramSource(Source):
    """A UDP port, whose packets a driver understands by `_news_of`."""

    is_public = True
    usual_port: ClassVar[int]

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address or str(self.usual_port), **options)
        self._host, self._port = split_address(self.options.address, HERE, self.usual_port)
        self._datagrams: Datagrams | None = None

    @property
    def hint(self) -> str:
        """Whether it only listens to this computer."""
        return hint_at(self._host, self._port)

    @property
    def _where(self) -> str:
        return listened_at(self._host, self._port)

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._datagrams = Datagrams(self._host, self._port)

    def _read(self, wait_s: float) -> News:
        assert self._datagrams is not None
        news: list[tuple[str, Any]] = []
        for packet in self._datagrams.take(wait_s):
            try:
                news += self._news_of(packet)
            except ValueError as exc:  # a UnicodeDecodeError is one
                self.refuse(str(exc))
        self.skipped = self._datagrams.skipped
        return news

    def _close(self) -> None:
        if self._datagrams is not None:
            self._datagrams.close()
            self._datagrams = None

    @abstractmethod
    def _news_of(self, packet: bytes) -> News:
        """Read a packet. Raises ValueError for one that makes no sense."""


class UdpSource(DatagramSource):
    """A UDP port that receives JSON, or binary packets."""

    Options = UdpOptions
    options: UdpOptions
    usual_port = 9400
    example = "udp:9400"

    _decoder: Decoder | None = None

    def __str__(self) -> str:
        return f"UDP {self._where}"

    def check_files(self) -> None:
        """Check the layout of its packets."""
        self.options.decoder(self.folder)

    def _open(self, design: Design, layout: Layout) -> None:
        self._decoder = self.options.decoder(self.folder)
        super()._open(design, layout)

    def _news_of(self, packet: bytes) -> News:
        if self._decoder is not None:
            return self._decoder.decode(packet).items()
        return parse_text(packet.decode()).items()
