"""`fendra check`: everything there is to say about a design."""

from __future__ import annotations

from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.budgets import budget_to_plain, say_budget
from fendra.cli.film import render, say_if_unfed, say_limiter
from fendra.cli.options import AsJson, DesignFile
from fendra.cli.screen import count_findings, say, say_findings, say_json
from fendra.core.names import counted

if TYPE_CHECKING:
    from fendra.core.checks import Subject
    from fendra.core.checks.examine import Render
    from fendra.core.film import Film
    from fendra.core.signals.tape import Tape
    from fendra.files.design_file import Checked


def check(
    design: DesignFile,
    tape: Annotated[
        Path | None,
        typer.Option(
            metavar="TAPE",
            help="Signals over time, CSV: also check the light that they give.",
            show_default=False,
        ),
    ] = None,
    as_json: AsJson = False,
) -> None:
    """Check a design: list what is wrong, each with its line and its cure, and what it draws.

    The tables show what each supply gives, how far the voltage falls along each line, how long a
    frame takes, and what the controller needs; docs/electric.md explains them.

    Exit codes: 0 without errors, 1 with errors, 2 if a file cannot be read.
    """
    checked, played = check_on(design, tape)
    subject = checked.subject
    is_sound = subject is not None and not checked.has_errors
    if as_json:
        say_json(to_plain(design, checked))
    else:
        say_findings(checked.findings)
        if subject is not None and is_sound:
            if played is not None:
                say_if_unfed(subject.plan.fed, played)
            say(in_one_line(subject))
            say_budget(subject.budget)
            say_limiter(subject.film)
        say(f"{design}: {count_findings(checked.findings)}")
    raise typer.Exit(1 if checked.has_errors else 0)


def check_on(design: Path, tape: Path | None) -> tuple[Checked, Tape | None]:
    """Check a design, with its light on a tape if there is one; also return the tape."""
    from fendra.files.design_file import check_file, read_design
    from fendra.files.tape_file import read_tape
    from fendra.live.connect import check_connections

    played = None if tape is None else read_tape(tape, read_design(design))
    render = None if played is None else renderer(played)
    more = partial(check_connections, folder=design.parent)
    return check_file(design, render=render, more=more), played


def renderer(tape: Tape) -> Render:
    """A function that makes the film of a tape and shows a progress bar."""
    from fendra.core.signals.playing import frame_count
    from fendra.front import Program
    from fendra.native.choose import choose_engine

    def made(subject: Subject) -> Film:
        engine, _ = choose_engine(subject.plan, "auto", frame_count(tape, subject.design.rate))
        program = Program(subject.plan, engine)
        return render(program, tape)

    return made


def in_one_line(subject: Subject) -> str:
    """A design in one line."""
    design = subject.design
    about = f" ({design.about})" if design.about else ""
    counts = [
        counted(len(subject.layout.leds), "LED"),
        counted(len(design.line), "line"),
        counted(len(design.signals), "signal"),
        *([counted(len(design.scene), "scene")] if design.scene else []),
        counted(len(design.layer), "layer"),
    ]
    return f"{design.name}{about}: {', '.join(counts)}, {design.rate:g} frames a second"


def to_plain(path: Path, checked: Checked) -> dict[str, Any]:
    """The values that `--json` writes."""
    subject = checked.subject
    is_sound = subject is not None and not checked.has_errors
    return {
        "file": str(path),
        "design": checked.design.name if checked.design is not None else None,
        "ok": not checked.has_errors,
        "findings": [finding.to_dict() for finding in checked.findings],
        "budget": budget_to_plain(subject.budget) if subject is not None and is_sound else None,
    }
