"""Checks, one a file: a design in, findings out.

To add one, write a file with a function like `dark_layers` in layers.py, marked with `@check`.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import TypeAlias, TypeVar

from fendra.core.design import Design
from fendra.core.findings import Report
from fendra.core.layout import Choice, Layout
from fendra.core.mix import Recording
from fendra.core.registry import Registry


@dataclass(frozen=True)
class Subject:
    """What a check looks at: a design and all that was made of it."""

    design: Design
    layout: Layout
    choices: Mapping[str, Choice]
    recording: Recording


Check: TypeAlias = Callable[[Subject, Report], None]
C = TypeVar("C", bound=Check)

CHECKS: Registry[Check] = Registry("fendra.core.checks", "fendra.checks")


def check(run: C) -> C:
    """Register a check under its function's name."""
    CHECKS.add(run.__name__, run)
    return run
