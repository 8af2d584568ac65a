"""The status of a run in the last line of the terminal, and the text that the user types there."""

from __future__ import annotations

import contextlib
import shutil
import sys
import time
from collections.abc import Callable, Iterator
from threading import Event, Lock, Thread
from typing import TYPE_CHECKING, Any

from fendra.core.errors import internal_error
from fendra.core.quoting import in_lines, visible
from fendra.core.shown import in_digits
from fendra.system.terminal import typed

if TYPE_CHECKING:
    from fendra.live.loop import Loop

EVERY_S = 0.25
ESCAPE_BOX = "\x1b[2K"


def status_line(loop: Loop, *, name: str = "") -> str:
    """The state of a run: frames a second, lateness, drops, limiter, scene, lost signals."""
    rate_hz, median_s, worst_s = loop.stats.lately()
    dropped = loop.stats.late + sum(sender.mailbox.replaced for sender in loop.senders)
    parts = [name] if name else []
    parts.append(f"{rate_hz:.1f} frames/s")
    parts.append(f"late {median_s * 1000:.1f}, {worst_s * 1000:.1f} ms")
    parts.append(f"dropped {dropped}")
    if loop.program.plan.limits:
        parts.append(f"limiter {loop.stats.share:.0%}")
    scene = loop.program.scene
    if scene:
        parts.append(f"scene {scene}")
    ill = [sender.output_name for sender in loop.senders if sender.trouble.problem]
    if ill:
        parts.append(f"waiting for {', '.join(ill)}")
    lost = loop.inbox.lost()
    if lost:
        more = f" and {len(lost) - 4} more" if len(lost) > 4 else ""
        parts.append(f"lost: {', '.join(lost[:4])}{more}")
    return "  ".join(parts)


class Foot:
    """The last line of the terminal: a status, the text that somebody types, and messages above it.
    Without a terminal only messages are written, each on a line.

    is_full: something else draws the rest of the screen, and nothing may scroll it.
    """

    def __init__(self, *, is_full: bool = False) -> None:
        self._lock = Lock()
        self._is_full = is_full and sys.stdout.isatty()
        self._is_terminal = sys.stderr.isatty()
        self._typed = ""
        self._status = ""
        self._message, self._told_s = "", 0.0

    def tell(self, text: str) -> None:
        """Say something that stays."""
        text = in_lines(text)
        with self._lock:
            if self._is_full:
                self._message, self._told_s = text, time.perf_counter()
                self._draw()
            elif self._is_terminal:
                self._write(f"\r{ESCAPE_BOX}{text}\n")
                self._draw()
            else:
                self._write(f"{text}\n")

    def show(self, status: str) -> None:
        """Say how it goes just now."""
        with self._lock:
            self._status = visible(status)
            self._draw()

    def type(self, text: str) -> None:
        """Show the unfinished line."""
        with self._lock:
            self._typed = visible(text)
            self._draw()

    def end(self) -> None:
        """Leave the last status on the screen."""
        with self._lock:
            if self._is_terminal and not self._is_full and self._status:
                self._write("\n")

    def _draw(self) -> None:
        if not self._is_terminal:
            return
        size = shutil.get_terminal_size()
        text = f"> {self._typed}" if self._typed else self._status
        text = text[: size.columns - 1]
        if not self._is_full:
            self._write(f"\r{ESCAPE_BOX}{text}")
            return
        message = self._message if time.perf_counter() - self._told_s < 10 else ""
        message = message.replace("\n", " ")[: size.columns - 1]
        self._write(
            f"\x1b7\x1b[{size.lines - 1};1H\x1b[0m{ESCAPE_BOX}{message}"
            f"\x1b[{size.lines};1H{ESCAPE_BOX}{text}\x1b8"
        )

    def _write(self, text: str) -> None:
        with contextlib.suppress(OSError, ValueError):  # the terminal may be gone
            sys.stderr.write(text)
            sys.stderr.flush()


class Ticker(Thread):
    """Calls something again and again, until it is stopped. tell: takes what fails, once."""

    def __init__(
        self, work: Callable[[], object], tell: Callable[[str], object], every_s: float = EVERY_S
    ) -> None:
        super().__init__(name="status", daemon=True)
        self._work, self._tell = work, tell
        self._every_s, self._stop_now = every_s, Event()

    def run(self) -> None:
        has_failed = False
        while not self._stop_now.wait(self._every_s):
            try:
                self._work()
            except Exception as exc:
                if not has_failed:
                    self._tell(internal_error(exc, "in the status line"))
                has_failed = True

    def stop(self) -> None:
        self._stop_now.set()
        self.join(2)


@contextlib.contextmanager
def typing(take: Callable[[str], object], show: Callable[[str], object]) -> Iterator[None]:
    """Read the lines that the user types at the terminal while the block runs; none without a
    terminal.

    take: gets each line. show: gets the unfinished line.
    """
    with typed() as keys:
        if keys is None:
            yield
            return
        over = Event()

        def read() -> None:
            line = ""
            while not over.is_set() and (letters := keys(0.1)) is not None:
                for letter in letters:
                    if letter in "\r\n":
                        done, line = line, ""
                        show("")
                        if done.strip():
                            take(done.strip())
                    elif letter in "\x7f\b":
                        line = line[:-1]
                    elif letter.isprintable():
                        line += letter
                if letters:
                    show(line)

        reader = Thread(target=read, name="typing", daemon=True)
        reader.start()
        try:
            yield
        finally:
            over.set()
            reader.join(1)


def said(value: Any) -> str:
    """A raw value in a few letters."""
    if isinstance(value, bool):
        return "on" if value else "off"
    if isinstance(value, float):
        return in_digits(value)
    if isinstance(value, (list, tuple)):
        return " ".join(said(item) for item in value)
    return str(value)
