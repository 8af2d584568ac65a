"""A controller that writes lines of text, on a pseudo-terminal."""

from __future__ import annotations

import contextlib
import os
import tty
from collections.abc import Mapping

from fendra.demo.stand_ins import StandIn


class Lines(StandIn):
    """Makes a port and writes `name=value` pairs to it, a line for each moment."""

    about = "a controller on a serial port that writes lines"

    def start(self) -> str:
        self._ours, self._theirs = os.openpty()
        tty.setraw(self._theirs)
        os.set_blocking(self._ours, False)
        return f"lines:{os.ttyname(self._theirs)}"

    def say(self, at_s: float, values: Mapping[str, float]) -> None:
        del at_s
        if values:
            pairs = " ".join(f"{name}={value:g}" for name, value in values.items())
            with contextlib.suppress(BlockingIOError):  # nobody reads
                os.write(self._ours, f"{pairs}\r\n".encode())

    def close(self) -> None:
        os.close(self._ours)
        os.close(self._theirs)
