"""Trouble: what fails is tried again, less and less often, and told once, not each time."""

from __future__ import annotations

import logging
from collections.abc import Callable

FIRST_S, LONGEST_S = 0.25, 5.0
"""How long to wait before the first try again, and at the most; each wait is twice the last."""

log = logging.getLogger("fendra.live")
log.addHandler(logging.NullHandler())  # whoever runs it says where messages go


class Trouble:
    """The state of one source or output: well, or failing since when and why.

    tell: takes each message once; the log has it as well.
    """

    def __init__(self, what: str, tell: Callable[[str], object] = lambda _: None) -> None:
        self.what = what
        self.problem = ""
        self._tell = tell
        self._wait_s = FIRST_S

    def failed(self, error: Exception) -> float:
        """Note a failure; gives how long to wait before trying again, in seconds."""
        problem = str(error).strip()
        if not self.problem:
            log.warning("%s", problem)
            end = "" if problem.endswith((".", "?")) else "."
            self._tell(f"{problem}{end} It is tried again.")
        elif problem != self.problem:
            log.info("%s", problem)
        self.problem = problem
        wait_s, self._wait_s = self._wait_s, min(2 * self._wait_s, LONGEST_S)
        return wait_s

    def works(self) -> None:
        """Note that it works, again or for the first time."""
        if self.problem:
            log.info("%s is back", self.what)
            self._tell(f"{self.what} is back.")
        self.problem, self._wait_s = "", FIRST_S
