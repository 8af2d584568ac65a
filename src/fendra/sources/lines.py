"""Lines of text over a serial port: JSON, `name=value` pairs, or values in columns."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.drivers import Names, Options
from fendra.sources import News, Source
from fendra.sources.ports import SerialPort
from fendra.sources.texts import parse_text
from fendra.system.ports import host_of

LONGEST = 4096
"""Longest line, in bytes; longer ones are dropped."""


class LinesOptions(Options):
    """Options of a serial port that sends lines.

    Attributes:
        address: the port
        baud: bits a second
        columns: names of the values, if lines hold only values, such as `acc[0]` for a
            number of a vector; in a text, put + between them
    """

    address: Annotated[str, Field(min_length=1)]
    baud: Annotated[int, Field(ge=50, le=100_000_000)] = 115_200
    columns: Names = ()


class LineCutter:
    """Bytes in, as they come; whole lines out. It knows no port."""

    def __init__(self, longest: int = LONGEST) -> None:
        self._longest, self._begun, self._is_skipping = longest, b"", False
        self.too_long = 0

    def feed(self, data: bytes) -> list[bytes]:
        """The lines that end in these bytes, without their ends; empty ones are left out."""
        *lines, self._begun = (self._begun + data).split(b"\n")
        if lines and self._is_skipping:
            lines, self._is_skipping = lines[1:], False
        if len(self._begun) > self._longest:
            self.too_long += not self._is_skipping
            self._begun, self._is_skipping = b"", True
        kept = [line.rstrip(b"\r") for line in lines if len(line) <= self._longest]
        self.too_long += len(lines) - len(kept)
        return [line for line in kept if line]


class LinesSource(Source):
    """A controller, a GPS, a bike computer on a serial port."""

    Options = LinesOptions
    options: LinesOptions
    example = "lines:/dev/ttyACM0,baud=115200"

    def __init__(self, address: str = "", **options: object) -> None:
        super().__init__(address, **options)
        self._port: SerialPort | None = None

    def __str__(self) -> str:
        return f"port {self.options.address}"

    @property
    def host(self) -> str:
        """The host of a port that is a socket."""
        return host_of(self.options.address)

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._port = SerialPort(self.options.address, self.options.baud)
        self._cutter = LineCutter()

    def _read(self, wait_s: float) -> News:
        assert self._port is not None
        data = self._port.take(wait_s)
        news: list[tuple[str, object]] = []
        before = self._cutter.too_long
        for line in self._cutter.feed(data):
            try:
                news += parse_text(line.decode(), self.options.columns).items()
            except ValueError as exc:
                self.refuse(str(exc))
        for _ in range(self._cutter.too_long - before):
            self.refuse(f"a line of more than {LONGEST} bytes")
        return news

    def _close(self) -> None:
        if self._port is not None:
            self._port.close()
            self._port = None
