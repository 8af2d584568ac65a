"""Examining a design: it is placed and recorded once, and everything shares the result."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TypeAlias

from fendra.core.checks import CHECKS, Check, Subject
from fendra.core.composition.media import Media
from fendra.core.composition.record import record
from fendra.core.document.design import Design
from fendra.core.document.origin import Origin
from fendra.core.errors import DesignError, internal_error
from fendra.core.film import Film
from fendra.core.findings import Report, errors_of
from fendra.core.layout import choose_all, place

Render: TypeAlias = Callable[[Subject], Film]
"""Makes the film of a tape, of a design without errors."""


@dataclass(frozen=True)
class Examined:
    """A design that has been placed and recorded.

    subject: what was made of it. found: what was wrong on the way.
    """

    subject: Subject
    found: Report

    @cached_property
    def report(self) -> Report:
        """The findings of every check, and the findings from before."""
        return self._checked(self.subject)

    @cached_property
    def sound(self) -> Subject:
        """Everything made from a design without errors. Raises DesignError with every error.

        Only checks that can find errors are run, unless all have been.
        """
        is_checked = "report" in vars(self)
        errors = errors_of(self.report if is_checked else self._checked(self.subject, stops=True))
        if errors:
            raise DesignError(errors)
        return self.subject

    def on_film(self, render: Render) -> tuple[Subject, Report]:
        """The subject with a film of it, and the findings about both; without the film if the
        design has errors.
        """
        if errors_of(self.report):
            return self.subject, self.report
        subject = replace(self.subject, film=render(self.subject))
        return subject, self._checked(subject)

    def _checked(self, subject: Subject, *, stops: bool = False) -> Report:
        report = Report()
        report.extend(self.found)
        for name, check in CHECKS.items():
            if check.stops or not stops:
                _run(name, check, subject, report)
        return report


def _run(name: str, check: Check, subject: Subject, report: Report) -> None:
    """Run a check; if it fails, the others still report."""
    try:
        check.run(subject, report)
    except Exception as exc:
        report.warning((), "internal", internal_error(exc, f"in check '{name}'"))


def examine(
    design: Design, dropped: frozenset[str] = frozenset(), *, media: Media | None = None,
    origin: Origin | None = None, scene_by: str = "",
) -> Examined:  # fmt: skip
    """Place, choose and record a design.

    dropped: names that were left out of the design because they were wrong; nothing that follows
    from them is reported again. media: the contents of the files that it names. origin: the file it
    came from. scene_by: a number that chooses the scene by its place, unless it is below 0.
    """
    report, media = Report(), media or Media()
    layout = place(design, report)
    choices = choose_all(design, layout, report, dropped)
    recorded = record(
        design, layout, choices, report, dropped, media=media, origin=origin, scene_by=scene_by
    )
    return Examined(Subject(design, layout, choices, recorded, media), report)
