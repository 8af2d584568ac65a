"""A controller that writes lines of text, on a port without a device."""

from __future__ import annotations

from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn
from fendra.system.ends import far_end


class Lines(StandIn):
    """Makes a port and writes `name=value` pairs to it, a line for each moment."""

    about = "a controller on a serial port that writes lines"

    def start(self) -> str:
        self._end = far_end()
        return f"lines:{self._end.address}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        if values:
            pairs = " ".join(f"{name}={value:g}" for name, value in values.items())
            self._end.give(f"{pairs}\r\n".encode())

    def close(self) -> None:
        self._end.close()
