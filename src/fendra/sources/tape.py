"""A tape, played in its own time."""

from __future__ import annotations

from fendra.core.signals.tape import Tape, TapeReader
from fendra.sources import Polled


class TapeSource(Polled):
    """Plays a tape, once or again and again.

    loop: start again one frame after the end. speed: this many times as fast. start_s: start at
    this time of the tape; at its beginning by default.
    """

    def __init__(
        self, tape: Tape, *, loop: bool = False, gap_s: float = 0.02, speed: float = 1.0,
        start_s: float | None = None,
    ) -> None:  # fmt: skip
        super().__init__()
        self._tape, self.loops, self.speed = tape, loop, speed
        self._from_s = tape.start_s if start_s is None else start_s
        self._round_s = tape.end_s - self._from_s + gap_s
        self._round = 0
        self._reader = TapeReader(tape)

    def __str__(self) -> str:
        return f"tape {self._tape.name}"

    @property
    def duration_s(self) -> float:
        """How long one round takes."""
        return (self._tape.end_s - self._from_s) / self.speed

    def news(self, at_s: float) -> dict[str, float]:
        """The tape's news up to now; from the middle on, also the last news before that."""
        at_s *= self.speed
        if self.loops and int(at_s // self._round_s) > self._round:
            self._round = int(at_s // self._round_s)
            self._reader = TapeReader(self._tape)
        start_s = self._from_s - self._round * self._round_s
        return self._reader.news_until(start_s + at_s + 1e-9)

    def has_ended(self, at_s: float) -> bool:
        return not self.loops and at_s > self.duration_s + 1e-9
