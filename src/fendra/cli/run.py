"""`fendra run`: a design live, its frames on a controller."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.film import compile_on, say_if_unfed
from fendra.cli.options import DesignFile, Engine, TapeFile
from fendra.cli.screen import progress, say

if TYPE_CHECKING:
    from fendra.core.design import Design
    from fendra.live.loop import RunReport
    from fendra.outputs import Output


def run(
    design: DesignFile,
    tape: TapeFile,
    to: Annotated[
        str,
        typer.Option(
            metavar="OUTPUT", help="Where frames go: serial:PORT[,baud=RATE].", show_default=False
        ),
    ],
    loop: Annotated[
        bool, typer.Option("--loop", help="Play the tape over and over, until Ctrl-C.")
    ] = False,
    engine: Engine = "auto",
) -> None:
    """Play a tape through a design in real time and send the frames to a controller."""
    from fendra.core.errors import OutputError
    from fendra.files.tape_file import read_tape
    from fendra.front import load
    from fendra.live.loop import run_live
    from fendra.outputs import make_output
    from fendra.sources.tape import TapeSource

    try:
        output = make_output(to)
    except OutputError as exc:
        raise typer.BadParameter(str(exc), param_hint="--to") from exc
    loaded = load(design)
    played = read_tape(tape, loaded.words)
    program = compile_on(loaded, engine)
    say_if_unfed(program.fed, played)
    say_if_several(loaded)
    say_if_slow(output, loaded)
    say(f"{loaded.name} to {output}, {played.duration_s:g} s; Ctrl-C ends it")
    length_s = max(played.duration_s, 1 / loaded.rate)
    with progress("running") as report:
        done = run_live(
            program,
            TapeSource(played, loop=loop),
            output,
            progress=lambda at_s: report(at_s % length_s, length_s),
        )
    say(what_came(done))


def say_if_several(design: Design) -> None:
    """Say that one stream carries the lines of every controller of the design."""
    if len(design.controllers) > 1:
        say(
            f"The design has {len(design.controllers)} controllers; all of their lines go to this "
            "one output.",
            style="yellow",
        )


def say_if_slow(output: Output, design: Design) -> None:
    """Say before it begins when the output cannot carry the design's rate."""
    most_hz = output.most_frames_hz(design)
    if most_hz is not None and most_hz < design.rate:
        say(
            f"{output} carries {most_hz:.0f} frames a second of this design, which makes "
            f"{design.rate:g}: the newest is sent. Raise the baud rate or lower the design's rate.",
            style="yellow",
        )


def what_came(report: RunReport) -> str:
    """A run in one line."""
    parts = [f"{report.sent} frames sent in {report.seconds:.1f} s"]
    if report.replaced:
        parts.append(f"{report.replaced} replaced by newer ones, since the output was busy")
    if report.late:
        parts.append(f"{report.late} left out, since this computer was late")
    if report.limited:
        parts.append(
            f"{report.limited} held back by the limiter, to {report.least:.0%} of the light"
        )
    return ", ".join(parts)
