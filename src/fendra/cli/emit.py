"""`fendra emit`: firmware, as a folder that builds."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.check import check_on
from fendra.cli.film import say_if_unfed
from fendra.cli.options import DesignFile
from fendra.cli.screen import progress, say, say_findings

if TYPE_CHECKING:
    from fendra.firmware.project import Project
    from fendra.firmware.write import Written


def emit(
    design: DesignFile,
    target: Annotated[
        str | None,
        typer.Option(
            metavar="TARGET",
            help=(
                "A chip by its controller type (rp2040, atmega328p, stm32f405, ...), or a "
                "family for its first chip (avr, arm). generic: fill in the board "
                "yourself.  [default: the design's controller]"
            ),
            show_default=False,
        ),
    ] = None,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="FOLDER",
            help=(
                "The folder to write.  [default: NAME-TARGET; NAME-CONTROLLER-TARGET with "
                "several controllers]"
            ),
            show_default=False,
        ),
    ] = None,
    tape: Annotated[
        Path | None,
        typer.Option(
            metavar="TAPE",
            help=("Signals over time, CSV: to try the firmware on a computer before you flash it."),
            show_default=False,
        ),
    ] = None,
    controller: Annotated[
        str | None,
        typer.Option(
            metavar="NAME",
            help="One controller only.  [default: each that has lines, in its own folder]",
            show_default=False,
        ),
    ] = None,
    receiver: Annotated[
        bool,
        typer.Option(
            "--receiver",
            help=(
                "Write a receiver: it shows frames from a serial link, and the design's "
                "own light while none arrive."
            ),
        ),
    ] = False,
) -> None:
    """Write firmware: the light as C, the board around it, a program to try it here.

    The firmware shows the preview, byte for byte. Its folder has a README that says what to do.
    `make try` needs only a C compiler; `make` needs the controller's. Files that you changed stay.
    """
    from fendra.core.errors import DesignError
    from fendra.core.findings import errors_of
    from fendra.firmware.project import make_project
    from fendra.firmware.write import write_project

    checked, played = check_on(design, tape)
    if checked.has_errors or checked.subject is None:
        raise DesignError(errors_of(checked.findings))
    if played is not None:
        say_if_unfed(checked.subject.plan.fed, played)
    found = checked.subject.design
    several = [name for name in found.controllers if found.lines_of(name)]
    wanted = [controller] if controller or len(several) < 2 else several
    has_errors = False
    for each in wanted:
        with progress("writing"):
            project = make_project(
                checked.subject, target, tape=played, controller=each, is_receiver=receiver
            )
        words = [project.name, identifier_of(each) if len(several) > 1 else "",
                 "receiver" if receiver else "", project.kind]  # fmt: skip
        folder = Path("-".join(filter(None, words)))
        if out is not None:
            folder = out if len(wanted) == 1 else out / identifier_of(each)
        written = write_project(project.files, folder)
        say_project(project, written)
        say_findings(project.findings)
        has_errors |= bool(errors_of(project.findings))
    raise typer.Exit(1 if has_errors else 0)


def identifier_of(controller: str | None) -> str:
    """A controller's name as a part of a folder's."""
    from fendra.core.engines.c99.names import identifier

    return identifier(controller or "main").replace("_", "-")


def say_project(project: Project, written: Written) -> None:
    """Report what was written, the pins, the needs, and the next steps."""
    from fendra.core.names import listed

    lines = ", ".join(f"{line.line} {line.size} bytes" for line in project.emitted.lines)
    where = project.chip.about if project.chip else "a controller of your own"
    as_what = " as a receiver" if project.is_receiver else ""
    say(f"{project.title}{as_what}, for {where}: {lines}", style="bold")
    for pin, what in project.pins:
        say(f"   {pin:<9} {what}")
    for note in project.notes:
        say(f"   note: {note}", style="yellow")
    if project.unheard and project.chip is not None:
        names = listed([*project.unheard])
        say(f"note: no input feeds {names}: see README.md", style="yellow")
    if project.cost_rows:
        say()
        say("   It needs", style="bold")
    for row in project.cost_rows:
        say(f"   {row}")
    say()
    count = len(written.written) + 1
    say(f"{count} files in {written.folder}/; README.md says what to do")
    for path in written.kept:
        say(f"kept as you changed it: {path} (the new text is in {path}.new)", style="yellow")
    trying = f"make -C {written.folder} try"
    then = f"{written.folder}/board.c" if project.chip is None else f"make -C {written.folder}"
    doing = "then fill in your board" if project.chip is None else "then build it"
    width = max(len(trying), len(then)) + 3
    say(f"   {trying:<{width}} see it here first")
    say(f"   {then:<{width}} {doing}")
    if project.chip is not None and project.chip.lacks:
        say(f"to build it you need {project.chip.lacks}", style="yellow")
