"""Report a problem of an expression as a finding."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.errors import ExpressionError
from fendra.core.findings import KeyPath, Report


def report_expression(
    exc: ExpressionError, path: KeyPath, report: Report, dropped: Iterable[str],
    code: str = "expression",
) -> None:  # fmt: skip
    """An expression's error as a finding, unless it names what was dropped before."""
    if {*exc.names} & {*dropped}:
        return
    problem = exc.problem if exc.problem.endswith(".") else f"{exc.problem}."
    report.error(path, code, problem, exc.remedy, exc.excerpt)
