"""Feeders: a thread for each source, which puts its news into the inbox and keeps it going."""

from __future__ import annotations

import time
from collections.abc import Callable
from threading import Event, Thread
from typing import Any

from fendra.core.document.design import Design
from fendra.core.errors import NEVER, FendraError, SourceError, internal_error
from fendra.core.layout import Layout
from fendra.live.inbox import Inbox
from fendra.live.trouble import Trouble
from fendra.sources import EndOfSource, Source

MEMORY = "state/memory"
"""The name of a leading node's memory."""
SHARE = 0.25
"""How much of the computer's time a source may take to which anybody can send."""
AT_ONCE_S = 0.01
"""How long it may work before it has to rest."""
WAIT_S = 0.1
"""How long a source waits for news before it looks whether the run is over."""


class Feeder(Thread):
    """Opens a source, and reopens it if it fails; passes on what it reads.

    name: the source's, in the design. has_ended: no more will come. can_never: nothing has come,
    and waiting will not help. remembered: takes the memory of a leading node; None if this run
    follows none.
    """

    def __init__(
        self, name: str, source: Source, inbox: Inbox, design: Design, layout: Layout,
        tell: Callable[[str], object] = lambda _: None,
        remembered: Callable[[Any], object] | None = None,
    ) -> None:  # fmt: skip
        super().__init__(name=f"reads {name}", daemon=True)
        self.source, self.source_name = source, name
        self.has_ended = self.can_never = self._has_opened = False
        self.trouble = Trouble(str(source), tell)
        self._remembered = remembered
        self._inbox, self._design, self._layout = inbox, design, layout
        self._stop_now = Event()

    def stop(self) -> None:
        """End as soon as the source lets it."""
        self._stop_now.set()

    def run(self) -> None:
        while not self._stop_now.is_set() and not self.has_ended:
            try:
                self.source.open(self._design, self._layout)
                self.can_never, self._has_opened = False, True
                self.trouble.note(self.source.notice)
                self._read_on()
            except FendraError as exc:
                self.can_never = exc.code == NEVER and not self._has_opened
                self._stop_now.wait(self.trouble.failed(exc))
            except EndOfSource:
                self.has_ended = True
            except Exception as exc:  # a driver of somebody's own may do anything
                error = SourceError(internal_error(exc, f"in {self.source}"))
                self._stop_now.wait(self.trouble.failed(error))
            finally:
                self._close()

    def _close(self) -> None:
        try:
            self.source.close()
        except Exception as exc:
            self.trouble.failed(SourceError(internal_error(exc, f"closing {self.source}")))

    def _read_on(self) -> None:
        allowance = Allowance(SHARE) if self.source.is_public else None
        while not self._stop_now.is_set():
            begun_s = time.thread_time()
            news = self.source.read(WAIT_S)
            for name, raw in news:
                if name == MEMORY and self.source.brings_memory:
                    if self._remembered is not None:
                        self._remembered(raw)
                else:
                    self._inbox.put(self.source_name, name, raw)
            self.trouble.works()
            self.trouble.note(self.source.notice)
            if allowance is not None:
                rest_s = allowance.rest_s(time.thread_time() - begun_s)
                if rest_s > 0:
                    self._stop_now.wait(rest_s)


class Allowance:
    """A share of the computer's time, and how long to rest after work that took more.

    share: 0 to 1. clock: seconds.

    >>> now = iter([0.0, 1.0, 1.0])
    >>> allowance = Allowance(0.25, clock=lambda: next(now))
    >>> allowance.rest_s(0.1), allowance.rest_s(0.1)  # a second paid for more than the first
    (0.0, 0.4)
    """

    def __init__(self, share: float, *, clock: Callable[[], float] = time.perf_counter) -> None:
        self._share, self._clock = share, clock
        self._at_s, self._debt_s = clock(), 0.0

    def rest_s(self, spent_s: float) -> float:
        """How long to rest now. spent_s: how long the work took, since this was last asked."""
        now_s = self._clock()
        paid_s = (now_s - self._at_s) * self._share
        self._at_s = now_s
        self._debt_s = max(self._debt_s + spent_s - paid_s, 0.0)
        return self._debt_s / self._share if self._debt_s > AT_ONCE_S else 0.0
