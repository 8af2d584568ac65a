"""OSC 1.0 over UDP: a name is an address without its first slash; `/car/speed` is `car/speed`."""

from __future__ import annotations

import logging
from typing import Any

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.limits import PACKET_NAMES
from fendra.drivers import Options
from fendra.sources import News, package
from fendra.sources.udp import DatagramSource


def _is_not_of_osc(record: logging.LogRecord) -> bool:
    """Keep the package's message about each packet, with all its contents, off the log."""
    return "pythonosc" not in record.pathname


class OscOptions(Options):
    """Options of an OSC port.

    Attributes:
        address: the port, such as `9000`, for programs on this computer; `0.0.0.0:9000` for
            all computers and phones
    """

    address: str = "9000"


class OscSource(DatagramSource):
    """A UDP port that receives OSC messages and bundles. One value is that value, several are a
    list, none is 1: something happened.
    """

    Options = OscOptions
    usual_port = 9000
    example = "osc:9000"

    def __str__(self) -> str:
        return f"OSC {self._where}"

    def _open(self, design: Design, layout: Layout) -> None:
        self._packets = package("pythonosc.osc_packet")
        logging.getLogger().addFilter(_is_not_of_osc)
        super()._open(design, layout)

    def _news_of(self, packet: bytes) -> News:
        try:
            messages = self._packets.OscPacket(packet).messages
        except Exception as exc:  # whatever somebody sends
            raise ValueError(f"not OSC: {str(exc)[:100] or type(exc).__name__}") from exc
        if len(messages) > PACKET_NAMES.most:
            raise ValueError(f"more than {PACKET_NAMES.most:,} messages in one packet")
        news: list[tuple[str, Any]] = []
        for timed in messages:
            values = timed.message.params
            value = 1.0 if not values else values[0] if len(values) == 1 else [*values]
            news.append((timed.message.address.lstrip("/"), value))
        return news
