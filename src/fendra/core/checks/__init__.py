"""Checks, one a file: a design in, findings out.

To add one, write a file with a function like `dark_layers` in layers.py, marked with `@check`.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import TypeAlias, TypeVar

from fendra.core.design import Design
from fendra.core.electric.budget import Budget, budget_of
from fendra.core.film import Film
from fendra.core.findings import Report
from fendra.core.layout import Choice, Layout
from fendra.core.mix import Recording
from fendra.core.registry import Registry


@dataclass(frozen=True)
class Subject:
    """What a check looks at: a design and all that was made of it.

    film: of a tape, where there is one.
    """

    design: Design
    layout: Layout
    choices: Mapping[str, Choice]
    recording: Recording
    film: Film | None = None

    @cached_property
    def budget(self) -> Budget:
        """All electrical sums of the design, and of what it shows in the film."""
        return budget_of(self.design, self.layout, self.recording, self.film)


Check: TypeAlias = Callable[[Subject, Report], None]
C = TypeVar("C", bound=Check)

CHECKS: Registry[Check] = Registry("fendra.core.checks", "fendra.checks")


def check(run: C) -> C:
    """Register a check under its function's name."""
    CHECKS.add(run.__name__, run)
    return run
