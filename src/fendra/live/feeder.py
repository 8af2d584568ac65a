"""Feeders: a thread for each source, which puts its news into the inbox and keeps it going."""

from __future__ import annotations

from collections.abc import Callable
from threading import Event, Thread
from typing import Any

from fendra.core.document.design import Design
from fendra.core.errors import SourceError, internal_error
from fendra.core.layout import Layout
from fendra.live.inbox import Inbox
from fendra.live.trouble import Trouble
from fendra.sources import EndOfSource, Source

MEMORY = "state/memory"
"""What a leading node's memory is called."""
WAIT_S = 0.1
"""How long a source waits for news before it looks whether the run is over."""


class Feeder(Thread):
    """Opens a source, and again whenever it fails; passes on what it reads.

    name: the source's, in the design. has_ended: nothing more will come. remembered: takes what a
    leading node says that it remembers.
    """

    def __init__(
        self, name: str, source: Source, inbox: Inbox, design: Design, layout: Layout,
        tell: Callable[[str], object] = lambda _: None,
        remembered: Callable[[Any], object] = lambda _: None,
    ) -> None:  # fmt: skip
        super().__init__(name=f"reads {name}", daemon=True)
        self.source, self.source_name = source, name
        self.has_ended = False
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
                self._read_on()
            except SourceError as exc:
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
        while not self._stop_now.is_set():
            news = self.source.read(WAIT_S)
            for name, raw in news:
                if name == MEMORY:
                    self._remembered(raw)
                else:
                    self._inbox.put(self.source_name, name, raw)
            self.trouble.works()
