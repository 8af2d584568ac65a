"""Values that a program writes by their names, a line for each, at `socket://HOST:PORT`."""

from __future__ import annotations

import contextlib

from fendra.sources.lines import LineCutter
from fendra.sources.texts import pairs_of
from fendra.system.ports import line_to

_ANSWERS_S = 5.0


class NamedValues:
    """A program's lines such as `x=0.5`. Raises OSError."""

    def __init__(self, address: str) -> None:
        self._line = line_to(address, _ANSWERS_S)
        self._cutter = LineCutter()

    def take(self, wait_s: float) -> list[tuple[str, object]]:
        """The values that came, as texts; waits for the first at most so long."""
        self._line.settimeout(max(wait_s, 0.001))
        try:
            data = self._line.recv(4096)
        except TimeoutError:
            return []
        if not data:
            raise OSError(104, "its program has ended")
        lines = [line.decode("utf-8", errors="replace") for line in self._cutter.feed(data)]
        return [pair for line in lines for pair in pairs_of(line).items()]

    def close(self) -> None:
        """Let go of it."""
        with contextlib.suppress(OSError):
            self._line.close()
