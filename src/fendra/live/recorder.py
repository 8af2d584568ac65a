"""Records incoming values as a tape, in its own thread: a full disk stops nothing else."""

from __future__ import annotations

import csv
from collections.abc import Callable, Mapping
from pathlib import Path
from queue import Full, Queue
from threading import Thread
from typing import Any, TextIO

from fendra.core.document.design import Design
from fendra.core.errors import FileError, reason
from fendra.core.signals.inputs import colours, fed
from fendra.live.steering import STEERED
from fendra.live.trouble import log

MOST_WAITING = 2000
"""Rows that wait for a slow disk; more are lost, and counted."""


class Recorder(Thread):
    """Writes rows of news into a CSV file that `read_tape` reads.

    rows: written. lost: that could not be. problem: why, once something failed.
    """

    def __init__(
        self, path: Path, design: Design, tell: Callable[[str], object] = lambda _: None
    ) -> None:
        super().__init__(name=f"records {path}", daemon=True)
        self.path, self._tell = path, tell
        self._names = tuple(name for name in fed(design) if name not in STEERED)
        self._colours = colours(design)
        self._queue: Queue[tuple[float, Mapping[str, Any]] | None] = Queue(MOST_WAITING)
        self.rows = self.lost = 0
        self.problem = ""
        try:
            self._file: TextIO = path.open("w", newline="", encoding="utf-8")
        except OSError as exc:
            raise FileError(f"'{path}' cannot be written: {reason(exc)}") from exc

    def hear(self, at_s: float, news: Mapping[str, Any]) -> None:
        """Take the news of a frame; never waits."""
        if news:
            try:
                self._queue.put_nowait((at_s, news))
            except Full:
                self.lost += 1

    def end(self) -> None:
        """Write the rest, and close the file."""
        self._queue.put(None)
        self.join(5)

    def run(self) -> None:
        writer = csv.writer(self._file)
        self._try(lambda: writer.writerow(["time", *self._names]))
        while (item := self._queue.get()) is not None:
            at_s, news = item
            row = [f"{at_s:.3f}", *(self._cell(name, news.get(name)) for name in self._names)]
            if any(row[1:]):
                self._try(lambda row=row: self._write(writer, row))  # type: ignore[misc]
        self._try(self._file.close)

    def _cell(self, name: str, value: Any) -> str:
        if not isinstance(value, (int, float)):
            return ""
        return f"#{round(value):06x}" if name in self._colours else f"{value:.9g}"

    def _write(self, writer: Any, row: list[str]) -> None:
        writer.writerow(row)
        if self._queue.empty() or self.problem:  # only write again what is on the disk
            self._file.flush()
        self.rows += 1

    def _try(self, work: Callable[[], object]) -> None:
        try:
            work()
        except (OSError, ValueError) as exc:
            self.lost += 1
            if not self.problem:
                self.problem = f"'{self.path}' cannot be written: {reason(exc)}"
                log.warning("%s", self.problem)
                self._tell(f"{self.problem}. The light continues; the tape has a gap.")
        else:
            if self.problem and self._file and not self._file.closed:
                self.problem = ""
                self._tell(f"'{self.path}' can be written again.")
