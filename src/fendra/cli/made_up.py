"""Made-up courses on the command line: they replace a tape, or some of its signals."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, TypeAlias

import typer

if TYPE_CHECKING:
    from fendra.core.document.design import Design
    from fendra.core.signals.tape import Tape

AnyTape: TypeAlias = Annotated[
    Path | None,
    typer.Option(
        "--tape",
        metavar="TAPE",
        help="Signals over time: a CSV file with a column `time` in seconds.",
        show_default=False,
    ),
]
Sets: TypeAlias = Annotated[
    list[str] | None,
    typer.Option("--set", metavar="NAME=VALUE", help="A signal that stays at a value: rpm=6200."),
]
Sweeps: TypeAlias = Annotated[
    list[str] | None,
    typer.Option(
        "--sweep",
        metavar="NAME=LOW:HIGH:TIME",
        help="A signal that goes up in this time, and down again: rpm=0:8000:6s.",
    ),
]
Steps: TypeAlias = Annotated[
    list[str] | None,
    typer.Option(
        "--steps",
        metavar="NAME=A,B,...:TIME",
        help="A signal that takes values one after another: mode=calm,wild:3s.",
    ),
]
Toggles: TypeAlias = Annotated[
    list[str] | None,
    typer.Option(
        "--toggle",
        metavar="NAME=TIME",
        help="A switch that is off, then on, each for this time: left=2s.",
    ),
]
Long: TypeAlias = Annotated[
    float | None,
    typer.Option(
        "--for",
        metavar="SECONDS",
        min=0.1,
        max=3600,
        help="How long to make values up for, without a tape.",
        show_default=False,
    ),
]


def tape_for(
    design: Design,
    tape: Path | None,
    sets: list[str] | None,
    sweeps: list[str] | None,
    steps: list[str] | None,
    toggles: list[str] | None,
    duration_s: float | None,
) -> Tape:
    """The tape that a command plays: a file's, with made-up courses in it, or those alone."""
    from fendra.core.signals.courses import made_up
    from fendra.files.tape_file import read_tape

    played = None if tape is None else read_tape(tape, design)
    if not (sets or sweeps or steps or toggles):
        if played is not None:
            return played
        if design.signals and duration_s is None:
            raise typer.BadParameter(
                "give --tape TAPE, or make values up: --set, --sweep, --steps, --toggle, or --for "
                "SECONDS with all signals at their fallback"
            )
    return made_up(
        design, sets=sets or (), sweeps=sweeps or (), steps=steps or (), toggles=toggles or (),
        duration_s=duration_s, tape=played,
    )  # fmt: skip


def check_on_tape(what: str, at_s: float, tape: Tape) -> None:
    """A moment that an option names lies on the tape. Raises BadParameter."""
    if not tape.start_s <= at_s <= tape.end_s:
        raise typer.BadParameter(
            f"{what} {at_s:g} is not on the tape, which goes from {tape.start_s:g} to "
            f"{tape.end_s:g} s"
        )
