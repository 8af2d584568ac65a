"""From a design to a program, with every finding on the way."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import TypeAlias, TypeVar

from fendra.core.checks import CHECKS, Subject
from fendra.core.design import Design
from fendra.core.engine import Engine
from fendra.core.errors import DesignError
from fendra.core.film import Film
from fendra.core.findings import Report, errors_of
from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.core.layout import choose_all, place
from fendra.core.mix import Recording
from fendra.core.program import Program
from fendra.core.recording import record

P = TypeVar("P", bound=Program)


Render: TypeAlias = Callable[[Subject], Film]
"""Makes the film of a tape, of a design without errors."""


def examine(
    design: Design, dropped: Iterable[str] = (), render: Render | None = None
) -> tuple[Subject, Report]:
    """Place, choose and record a design, and run every check on it.

    dropped: names that were left out of the design since they were wrong; what follows
    from that is not reported again. render: what the design shows is checked as well, unless it has
    errors.
    """
    report = Report()
    dropped = frozenset(dropped)
    layout = place(design, report)
    choices = choose_all(design, layout, report, dropped)
    subject = Subject(design, layout, choices, record(design, layout, choices, report, dropped))
    checked = _checked(subject, report)
    if render is None or errors_of(checked):
        return subject, checked
    subject = replace(subject, film=render(subject))
    return subject, _checked(subject, report)


def _checked(subject: Subject, before: Report) -> Report:
    """What was found before, and what the checks find."""
    report = Report()
    report.extend(before)
    for run in CHECKS.values():
        run(subject, report)
    return report


def compile_design(
    design: Design,
    kind: type[P] = Program,  # type: ignore[assignment]
    engine: Callable[[Recording], Engine] = NumpyEngine,
) -> P:
    """A program that runs, of a kind that adds to `Program` if wanted.

    engine: makes what runs the recorded design. Raises DesignError with every finding of
    severity error.
    """
    subject = sound(design)
    return kind(design, subject.layout, subject.recording, engine(subject.recording))


def sound(design: Design) -> Subject:
    """What was made of a design without errors. Raises DesignError with every one otherwise."""
    subject, report = examine(design)
    errors = errors_of(report)
    if errors:
        raise DesignError(errors)
    return subject
