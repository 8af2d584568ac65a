"""Values set by hand: given at the start, and typed while it runs."""

from __future__ import annotations

from collections.abc import Mapping
from threading import Lock

import numpy as np

from fendra.core.document.design import Design
from fendra.core.signals.courses import Course, typed
from fendra.core.signals.inputs import fed
from fendra.sources import Polled


class HandSource(Polled):
    """Courses of signals: values that stay, sweeps and steps.

    courses: those of the start.
    """

    can_end = False

    def __init__(self, design: Design, courses: Mapping[str, Course] | None = None) -> None:
        super().__init__()
        self._design = design
        self._lock = Lock()
        self._courses = {name: (course, 0.0) for name, course in (courses or {}).items()}
        self._at_s = 0.0

    def __str__(self) -> str:
        return "values set by hand"

    def say(self, text: str) -> None:
        """Begin a course: `rpm=6200`, `rpm=0:8000:6s`, `mode=calm,wild:3s`; `rpm=` clears it.

        Raises SignalError.
        """
        name, sign, rest = text.partition("=")
        if sign and not rest.strip():
            with self._lock:
                self._courses.pop(name.strip(), None)
            return
        name, course = typed(self._design, text)
        with self._lock:
            self._courses[name] = course, self._at_s

    def use(self, design: Design) -> None:
        """Take courses for another design; courses of signals that it does not have end."""
        with self._lock:
            self._design = design
            self._courses = {n: c for n, c in self._courses.items() if n in fed(design)}

    def news(self, at_s: float) -> dict[str, float]:
        with self._lock:
            self._at_s = at_s
            courses = [*self._courses.items()]
        return {name: float(run(np.array([at_s - s]))[0]) for name, (run, s) in courses}
