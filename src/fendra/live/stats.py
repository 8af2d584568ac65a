"""How even a run is: lateness, rate, dropped frames, and how often the limiter held back."""

from __future__ import annotations

from bisect import bisect_left
from collections import deque
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fendra.core.film import Frame
from fendra.core.shown import as_table, brief
from fendra.live.sender import Sender

STEPS_MS = (0.1, 0.2, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 50.0, 100.0)
"""Upper ends of the steps of a histogram; one more step is above the last."""
LATELY = 250
"""Frames that `lately` looks back."""


@dataclass(frozen=True)
class RunReport:
    """The results of a run.

    rendered: frames made. sent: frames delivered, on all outputs. replaced: frames that a newer one
    took the place of, since an output was busy. late: frames left out, since the loop was late.
    limited: frames that a limiter held back; least: the smallest share of the light that it let
    through, 0 to 1. last: the last frame delivered, if any. seconds: how long it ran.
    """

    rendered: int
    sent: int
    replaced: int
    late: int
    limited: int
    least: float
    last: Frame | None
    seconds: float

    def __str__(self) -> str:
        """In one line."""
        parts = [f"{self.sent} frames sent in {self.seconds:.1f} s"]
        if self.replaced:
            parts.append(f"{self.replaced} replaced by newer ones while an output was busy")
        if self.late:
            parts.append(f"{self.late} dropped, because this computer was late")
        if self.limited:
            parts.append(
                f"{self.limited} held back by the limiter, to {self.least:.0%} of the light"
            )
        return ", ".join(parts)

    def __repr__(self) -> str:
        return brief("RunReport", "", f"{self}")

    def _repr_markdown_(self) -> str:
        """Its figures, in a notebook."""
        rows = [(key, each) for key, each in vars(self).items() if key != "last"]
        return as_table("The run", ("what", "how many"), rows)


class Stats:
    """Counts what a loop does.

    lateness, work: how many frames began this late, and took this long to make and hand over, by
    `STEPS_MS`. rate_hz: the wanted rate.
    """

    def __init__(self, rate_hz: float) -> None:
        self.rate_hz = rate_hz
        self.rendered = self.late = self.limited = 0
        self.least = 1.0
        self.share = 1.0
        self.late_s = 0.0
        self.lateness = [0] * (len(STEPS_MS) + 1)
        self.work = [0] * (len(STEPS_MS) + 1)
        self._lately: deque[tuple[float, float]] = deque(maxlen=LATELY)
        self._at_s: deque[float] = deque(maxlen=LATELY)

    def note(self, late_s: float, work_s: float, frame: Frame) -> None:
        """Count a frame: how late it began, and how long it took."""
        self.rendered += 1
        self.late_s = late_s
        self.lateness[bisect_left(STEPS_MS, late_s * 1000)] += 1
        self.work[bisect_left(STEPS_MS, work_s * 1000)] += 1
        self._lately.append((late_s, work_s))
        self._at_s.append(frame.at_s + late_s)
        self.share = min(frame.let_through.values(), default=1.0)
        self.limited += self.share < 1.0
        self.least = min(self.least, self.share)

    def lately(self) -> tuple[float, float, float]:
        """Of the last seconds: frames a second, and the median and the 99th percentile of how late
        they began, in seconds.
        """
        if len(self._at_s) < 2:
            return 0.0, 0.0, 0.0
        rows = [*self._at_s]
        late = np.array([row[0] for row in [*self._lately]])
        span_s = rows[-1] - rows[0]
        rate_hz = (len(rows) - 1) / span_s if span_s > 0 else 0.0
        return rate_hz, float(np.median(late)), float(np.percentile(late, 99))

    def table(self) -> list[tuple[str, int, int]]:
        """A histogram: for each limit in ms, frames that began that late, and frames that took that
        long.
        """
        names = [f"up to {step:g}" for step in STEPS_MS] + [f"above {STEPS_MS[-1]:g}"]
        return [*zip(names, self.lateness, self.work, strict=True)]

    def report(self, senders: Sequence[Sender], seconds: float) -> RunReport:
        """The results of the run."""
        return RunReport(
            self.rendered,
            sum(sender.sent for sender in senders),
            sum(sender.mailbox.replaced for sender in senders if sender.sent),
            self.late,
            self.limited,
            self.least,
            senders[0].last if senders else None,
            seconds,
        )
