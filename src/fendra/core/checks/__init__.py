"""Checks, one a file: a design in, findings out.

To add one, write a file with a function like `dark_layers` in layers.py, marked with `@check`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import TypeAlias, TypeVar, overload

from fendra.core.composition.media import Media
from fendra.core.composition.plan import Plan
from fendra.core.composition.record import Recorded
from fendra.core.document.design import Design
from fendra.core.electric.budget import Budget
from fendra.core.film import Film
from fendra.core.findings import Report
from fendra.core.insight.budget import budget_of
from fendra.core.layout import Choices, Layout
from fendra.core.registry import Registry


@dataclass(frozen=True)
class Subject:
    """The input of a check: a design and everything made from it.

    media: the contents of the files that it names. film: of a tape, if there is one.
    """

    design: Design
    layout: Layout
    choices: Choices
    recorded: Recorded
    media: Media
    film: Film | None = None

    @property
    def plan(self) -> Plan:
        """The steps that are run and written."""
        return self.recorded.plan

    @cached_property
    def budget(self) -> Budget:
        """All electrical sums of the design, and of the film."""
        return budget_of(self.plan, self.film)


Run: TypeAlias = Callable[[Subject, Report], None]
R = TypeVar("R", bound=Run)


@dataclass(frozen=True)
class Check:
    """A registered check. stops: whether it may find errors, without which nothing is compiled."""

    run: Run
    stops: bool


CHECKS: Registry[Check] = Registry("fendra.core.checks", "fendra.checks", "a check")


@overload
def check(run: R) -> R: ...
@overload
def check(*, stops: bool) -> Callable[[R], R]: ...
def check(run: R | None = None, *, stops: bool = True) -> R | Callable[[R], R]:
    """Register a check under its function's name.

    stops: false for a check that finds no errors: it runs when the user asks for findings,
    and not before a design is compiled.
    """

    def register(run: R) -> R:
        CHECKS.add(run.__name__, Check(run, stops), run)
        return run

    return register if run is None else register(run)
