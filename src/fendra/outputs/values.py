"""Values of signals over a serial port, for a controller that makes the light itself.

docs/peers.md has the packets.
"""

from __future__ import annotations

import time
from collections.abc import Mapping
from threading import Lock
from typing import Any

from fendra.core.document.design import Design
from fendra.core.film import Frame
from fendra.core.signals.inputs import fed
from fendra.outputs.packets import news_packet
from fendra.outputs.serial_port import SerialOutput


class ValuesOutput(SerialOutput):
    """A controller whose design says `values`: it gets values of signals, and no frames.

    Values that arrive between two packets are sent together, so that none is left out.
    """

    example = "values:/dev/ttyUSB0,baud=500000"
    hears_news = True

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._lock, self._news = Lock(), dict[str, float]()

    def most_frames_hz(self, design: Design) -> float:
        """How often all values together fit: baud / 10 / bytes."""
        return (
            self.baud / 10 / len(news_packet([*fed(design)], dict.fromkeys(fed(design), 0.0), 0, 0))
        )

    def hear(self, news: Mapping[str, Any]) -> None:
        """Take the values that arrived since the last frame."""
        known = {
            name: float(value) for name, value in news.items() if isinstance(value, (int, float))
        }
        with self._lock:
            self._news |= known

    def _open(self, design: Design) -> None:
        super()._open(design)
        self._fed = [*fed(design)]

    def _use(self, design: Design) -> None:
        self._fed = [*fed(design)]

    def _send(self, frame: Frame) -> None:
        del frame
        with self._lock:
            news, self._news = self._news, {}
        if not news:
            return
        now_ms = int(time.perf_counter() * 1000)
        self._write(news_packet(self._fed, news, self.sent, now_ms))
