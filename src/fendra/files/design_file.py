"""Designs in TOML files."""

from __future__ import annotations

import tomllib
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import TypeAlias, TypeVar

from fendra.core.checks import Subject
from fendra.core.checks.examine import Examined, Render, examine
from fendra.core.document.design import Design
from fendra.core.document.echoes import independent, without_echoes
from fendra.core.document.guard import too_much
from fendra.core.document.origin import Origin
from fendra.core.document.reading import read_document
from fendra.core.errors import DesignError
from fendra.core.findings import Finding, Report, Severity, errors_of, with_places
from fendra.core.limits import DESIGN_BYTES
from fendra.files.media import read_media
from fendra.files.part_files import fill_in
from fendra.files.toml_slips import syntax_finding
from fendra.toml_places import key_lines
from fendra.whole import read_text

D = TypeVar("D", bound=Design)


More: TypeAlias = Callable[[Design], Iterable[Finding]]
"""Finds more to say of a design than the core's checks do."""


@dataclass(frozen=True)
class Checked:
    """A design file and its findings.

    design: None if no design could be read at all. examined: what was made of it. subject: the
    same, with the film of a tape if one was rendered.
    """

    design: Design | None
    findings: tuple[Finding, ...]
    examined: Examined | None = None
    subject: Subject | None = None

    @property
    def has_errors(self) -> bool:
        return bool(errors_of(self.findings))


def check_text(
    text: str,
    name: str,
    model: type[Design] = Design,
    folder: Path | None = None,
    render: Render | None = None,
    more: More | None = None,
) -> Checked:
    """Read a design's text and run every check on it.

    name: the file's name, for the findings. folder: where the files are that its parts name; by
    default the folder of `name`. render: makes the film of a tape, to check that as well. more:
    adds further findings.
    """
    text = text.removeprefix("\ufeff")  # a byte order mark
    try:
        raw = tomllib.loads(text)
    except tomllib.TOMLDecodeError as exc:
        return Checked(None, (syntax_finding(exc, text, name),))
    except RecursionError:
        finding = Finding(
            "syntax", Severity.ERROR, "the file is nested too deeply.", file=name, line=1
        )
        return Checked(None, (finding,))
    if excess := too_much(raw):
        return Checked(None, tuple(with_places(excess, name, {})))
    examined, subject = None, None
    report = Report()
    report.extend(fill_in(raw, Path(name).parent if folder is None else folder))
    document = read_document(raw, model)
    report.extend(document.findings)
    is_whole = not errors_of(report)
    lines = key_lines(text)
    if document.design is not None and "line" in raw:  # else all that follows comes from that
        there = Path(name).parent if folder is None else folder
        examined = examine(
            document.design, document.dropped, media=read_media(document.design, there),
            origin=Origin(Path(name).name, str(there), lines),
        )  # fmt: skip
        subject, found = examined.subject, examined.report
        if render is not None:
            subject, found = examined.on_film(render)
        report.extend(independent(document.in_file(found), document))
        others = more(document.design) if more is not None else []
        report.extend(independent(document.in_file(others), document))
    # What was left out makes more findings than it deserves: then only errors are certain.
    shown = without_echoes(list(report)) if is_whole else errors_of(report)
    findings = with_places(shown, name, lines, text)
    findings.sort(key=lambda finding: ([*Severity].index(finding.severity), finding.line))
    return Checked(document.design, tuple(findings), examined, subject)


def check_file(
    path: str | Path,
    model: type[Design] = Design,
    render: Render | None = None,
    more: More | None = None,
) -> Checked:
    """Read a design file and run every check on it; see `check_text`. Raises FileError."""
    text = read_text(Path(path), DESIGN_BYTES)
    return check_text(text, str(path), model, render=render, more=more)


def read_design(path: str | Path) -> Design | None:
    """The design of a file as far as it can be read, unchecked; else None. Raises FileError."""
    try:
        raw = tomllib.loads(read_text(Path(path), DESIGN_BYTES))
    except (tomllib.TOMLDecodeError, RecursionError):
        return None
    return None if too_much(raw) else read_document(raw).design


def load_design(path: str | Path, model: type[D]) -> tuple[D, Examined]:
    """The design of a file, and everything made from it.

    Raises FileError if it cannot be read and DesignError, with every finding, where it
    has errors.
    """
    checked = check_file(path, model)
    if checked.has_errors:
        raise DesignError(errors_of(checked.findings))
    assert isinstance(checked.design, model)
    assert checked.examined is not None
    return checked.design, checked.examined
