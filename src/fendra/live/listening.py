"""Listening: sources without light, to see what arrives."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from types import TracebackType
from typing import Self

from fendra.core.composition.record import Recorded
from fendra.live.connect import Connected
from fendra.live.ear import Ear
from fendra.live.feeder import Feeder
from fendra.live.inbox import Inbox
from fendra.live.recorder import Recorder
from fendra.sources import Source


class Listening:
    """Sources that run during the block; `step` takes what has arrived.

    record: a tape to write.
    """

    def __init__(
        self, recorded: Recorded, connected: Connected, record: Path | None,
        tell: Callable[[str], object],
    ) -> None:  # fmt: skip
        design, layout = recorded.design, recorded.layout
        self.inbox = Inbox(design)
        self.ear = Ear(recorded, self.inbox)
        self._polled = connected.polled
        self._feeders = [
            Feeder(name, source, self.inbox, design, layout, tell)
            for name, source in connected.sources.items()
        ]
        self._recorder = None if record is None else Recorder(record, design, tell)
        self._start_s = time.perf_counter()

    def __enter__(self) -> Self:
        for thread in (*self._feeders, *filter(None, [self._recorder])):
            thread.start()
        self._start_s = time.perf_counter()
        return self

    def __exit__(
        self, kind: type[BaseException] | None, error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:  # fmt: skip
        for feeder in self._feeders:
            feeder.stop()
        for feeder in self._feeders:
            feeder.join(2)
        if self._recorder is not None:
            self._recorder.end()

    @property
    def sources(self) -> list[Source]:
        """The sources that run in threads."""
        return [feeder.source for feeder in self._feeders]

    @property
    def since_s(self) -> float:
        """How long it has been listened, in seconds."""
        return time.perf_counter() - self._start_s

    def step(self) -> bool:
        """Take what has arrived; False if nothing more can arrive."""
        now_s = self.since_s
        for name, source in self._polled.items():
            for part, value in source.news(now_s).items():
                self.inbox.put_number(name, part, value)
        news = self.ear.step()
        if self._recorder is not None:
            self._recorder.hear(now_s, news)
        ending = [source for source in self._polled.values() if source.can_end]
        is_over = bool(ending) and all(source.has_ended(now_s) for source in ending)
        return not is_over and not (self._feeders and all(f.has_ended for f in self._feeders))
