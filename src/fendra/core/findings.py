"""Findings: what a check reports, where, and how to correct it."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import asdict, dataclass, replace
from enum import StrEnum
from typing import Any, TypeAlias

from fendra.core.shown import brief

KeyPath: TypeAlias = tuple[str | int, ...]


class Severity(StrEnum):
    """How bad it is: an error stops the design, a warning does not, a note informs."""

    ERROR = "error"
    WARNING = "warning"
    NOTE = "note"


@dataclass(frozen=True)
class Finding:
    """One thing that a check reports.

    Attributes:
        path: the place in the design: `("layer", 2, "when")`
        file: set if the design came from a file
        line: set if the design came from a file
        excerpt: the text, with a caret under the place
    """

    code: str
    severity: Severity
    message: str
    remedy: str = ""
    path: KeyPath = ()
    file: str | None = None
    line: int | None = None
    excerpt: str = ""

    def __repr__(self) -> str:
        return brief(
            "Finding", self.code, f"{self.severity}: {path_to_text(self.path)}{self.message}"
        )

    def __str__(self) -> str:
        place = f"{self.file}:{self.line}: " if self.file and self.line else ""
        remedy = f" {self.remedy}" if self.remedy else ""
        excerpt = f"\n{self.excerpt}" if self.excerpt else ""
        where = path_to_text(self.path)
        return f"{place}{self.severity}: {where}{self.message}{remedy}{excerpt}"

    def to_dict(self) -> dict[str, Any]:
        """The finding as plain values, for JSON."""
        return asdict(self) | {"severity": str(self.severity), "path": list(self.path)}


def path_to_text(path: KeyPath) -> str:
    """A path as people read it, with a colon behind; nothing for the whole design.

    >>> path_to_text(("line", 0, "part", 2, "count"))
    'line[1].part[3].count: '
    """
    text = ""
    for step in path:
        text += f"[{step + 1}]" if isinstance(step, int) else f".{step}" if text else step
    return f"{text}: " if text else ""


class Report:
    """Collects findings; every check and compile step writes into one."""

    def __init__(self) -> None:
        self._findings: dict[Finding, None] = {}  # in their order, each once

    def error(
        self, path: KeyPath, code: str, message: str, remedy: str = "", excerpt: str = ""
    ) -> None:
        self.add(Finding(code, Severity.ERROR, message, remedy, path, excerpt=excerpt))

    def warning(self, path: KeyPath, code: str, message: str, remedy: str = "") -> None:
        self.add(Finding(code, Severity.WARNING, message, remedy, path))

    def note(self, path: KeyPath, code: str, message: str, remedy: str = "") -> None:
        self.add(Finding(code, Severity.NOTE, message, remedy, path))

    def add(self, finding: Finding) -> None:
        self._findings.setdefault(finding)

    def extend(self, findings: Iterable[Finding]) -> None:
        for finding in findings:
            self.add(finding)

    def __iter__(self) -> Iterator[Finding]:
        return iter([*self._findings])


def errors_of(findings: Iterable[Finding]) -> list[Finding]:
    """The findings of severity error."""
    return [finding for finding in findings if finding.severity is Severity.ERROR]


def with_places(
    findings: Iterable[Finding], file: str, lines: Mapping[KeyPath, int], text: str = ""
) -> list[Finding]:
    """Fill in file and line: the line of the longest known beginning of each path.

    text: the file's; an error without an excerpt shows its line of it.
    """
    written = text.split("\n")
    found = []
    for finding in findings:
        line = line_of(finding.path, lines) or 1
        excerpt = finding.excerpt
        if finding.severity is Severity.ERROR and not excerpt and line_of(finding.path, lines):
            excerpt = below(written[line - 1]) if line <= len(written) else ""
        found.append(replace(finding, file=file, line=line, excerpt=excerpt))
    return found


def below(line: str) -> str:
    """A line of a file for printing below a message; empty for an empty one."""
    line = line.strip()
    return f"    {line if len(line) <= 100 else line[:97] + '...'}" if line else ""


def line_of(path: KeyPath, lines: Mapping[KeyPath, int]) -> int | None:
    """The line of the longest known beginning of a path; None if no part of it is known."""
    while path and path not in lines:
        path = path[:-1]
    return lines.get(path)
