"""Trouble: a failure is retried less and less often, and reported once, not each time."""

from __future__ import annotations

import logging
import time
from collections.abc import Callable

from fendra.core.errors import NEVER
from fendra.core.quoting import visible

FIRST_S, LONGEST_S = 0.25, 5.0
"""How long to wait before the first try again, and at most; each wait is twice the last."""

log = logging.getLogger("fendra.live")
log.addHandler(logging.NullHandler())  # whoever runs it says where messages go


class Trouble:
    """The state of one source or output: well, or failing since when and why.

    tell: takes each message once; the log has it as well. since_s: when it began to fail, by the
    monotonic clock; None while it works.
    """

    def __init__(self, what: str, tell: Callable[[str], object] = lambda _: None) -> None:
        self.what = what
        self.problem = ""
        self.since_s: float | None = None
        self._tell = tell
        self._next_s = FIRST_S
        self.wait_s = 0.0
        self._noticed = ""

    def failed(self, error: Exception, *, is_last: bool = False) -> float:
        """Note a failure; returns how long to wait before the next try, in seconds.

        is_last: there is no next try.
        """
        problem = str(error).strip()
        self.since_s = time.perf_counter() if self.since_s is None else self.since_s
        if not self.problem or (is_last and problem != self.problem):
            log.warning("%s", visible(problem))
            end = "" if problem.endswith((".", "?")) else "."
            is_last = is_last or getattr(error, "code", "") == NEVER
            self._tell(f"{problem}{end}" if is_last else f"{problem}{end} Retrying.")
        elif problem != self.problem:
            log.info("%s", visible(problem))
        self.problem = problem
        self.wait_s, self._next_s = self._next_s, min(2 * self._next_s, LONGEST_S)
        return self.wait_s

    def note(self, notice: str) -> None:
        """Report something worth knowing that is no failure, once."""
        if notice not in ("", self._noticed):
            self._tell(notice)
            self._noticed = notice

    def works(self) -> None:
        """Note that it works, again or for the first time."""
        if self.problem:
            log.info("%s is back", self.what)
            self._tell(f"{self.what} works again.")
        self.problem, self.since_s, self._next_s = "", None, FIRST_S
