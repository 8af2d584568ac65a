"""A tape, played in its own time."""

from __future__ import annotations

from fendra.core.tape import Tape, TapeReader
from fendra.sources import Source


class TapeSource(Source):
    """Plays a tape from its beginning, once or over and over.

    loop: begin again one frame after the end, without end.
    """

    def __init__(self, tape: Tape, *, loop: bool = False, gap_s: float = 0.02) -> None:
        self._tape = tape
        self._loop = loop
        self._round_s = tape.duration_s + gap_s
        self._round = 0
        self._reader = TapeReader(tape)

    def news(self, at_s: float) -> dict[str, float]:
        if self._loop and int(at_s // self._round_s) > self._round:
            self._round = int(at_s // self._round_s)
            self._reader = TapeReader(self._tape)
        start_s = self._tape.start_s - self._round * self._round_s
        return self._reader.news_until(start_s + at_s + 1e-9)

    def has_ended(self, at_s: float) -> bool:
        return not self._loop and at_s > self._tape.duration_s + 1e-9
