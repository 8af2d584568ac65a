"""OSC 1.0 over UDP: a name is an address without its first stroke, `/car/speed` is `car/speed`."""

from __future__ import annotations

from fendra.core.design import Design
from fendra.core.drivers import Options
from fendra.core.layout import Layout
from fendra.sources import News, Source, package, split_address
from fendra.sources.udp import Datagrams


class OscOptions(Options):
    """What can be said to an OSC port.

    address: the port to listen at, with an address of this computer before it if wanted.
    """

    address: str = "9000"


class OscSource(Source):
    """A UDP port at which OSC messages and bundles come in. One value is that value, several are a
    list, none is 1: something happened.
    """

    Options = OscOptions
    example = "osc:9000"

    def __init__(self, address: str = "9000", **options: object) -> None:
        super().__init__(address or "9000", **options)
        self._host, self._port = split_address(self.options.address, "0.0.0.0", 9000)
        self._datagrams: Datagrams | None = None

    def __str__(self) -> str:
        return f"OSC port {self._port}"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._packets = package("pythonosc.osc_packet")
        self._datagrams = Datagrams(self._host, self._port)

    def _read(self, wait_s: float) -> News:
        assert self._datagrams is not None
        news: list[tuple[str, object]] = []
        for packet in self._datagrams.take(wait_s):
            try:
                messages = self._packets.OscPacket(packet).messages
            except Exception as exc:  # whatever somebody sends
                self.refuse(f"no OSC: {exc or type(exc).__name__}")
                continue
            for timed in messages:
                values = timed.message.params
                value = 1.0 if not values else values[0] if len(values) == 1 else [*values]
                news.append((timed.message.address.lstrip("/"), value))
        return news

    def _close(self) -> None:
        if self._datagrams is not None:
            self._datagrams.close()
            self._datagrams = None
