"""`fendra demo`: the whole job once, on the shipped design and tape."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.check import in_one_line
from fendra.cli.film import render, write_pictures
from fendra.cli.screen import count_findings, progress, say, say_findings, say_pixels
from fendra.core.electric.words import in_amps
from fendra.core.errors import EngineError
from fendra.core.quoting import shell_word
from fendra.system.process import ACTIVATE, NAME

if TYPE_CHECKING:
    from fendra.core.checks import Subject
    from fendra.core.document.design import Design as CoreDesign
    from fendra.core.signals.tape import Tape
    from fendra.front import Design, Film, Program
    from fendra.live.stats import RunReport

MOMENT_S = 23.6
ANIMATION_S = (20.5, 3.3)
STREAM_S = 3.0


def demo(
    into: Annotated[Path, typer.Option(metavar="FOLDER", help="The folder for all files.")] = Path(
        "fendra-demo"
    ),
    files: Annotated[
        bool, typer.Option("--files", help="Only copy the files that the docs use.")
    ] = False,
) -> None:
    """Try everything on Heron, a cargo trike, with a recorded ride: check, look, stream.

    It copies the designs, tapes and drawings that the docs use into FOLDER. It draws the map, the
    film strip, a still, an animation, the build sheet and a page for the browser. Then it streams
    the first seconds of the ride to a stand-in controller. Files that you changed stay as they are.
    """
    if files:
        say_files(into)
        return
    from fendra.core.signals.playing import frame_count
    from fendra.demo import copy_files, demo_file
    from fendra.draw.lean import lean_import
    from fendra.files.design_file import check_file
    from fendra.files.tape_file import read_tape
    from fendra.front import Design

    lean_import()
    say("1  The design and the tape", style="bold")
    design_path, tape_path = demo_file("heron.toml"), demo_file("ride.csv")
    checked = check_file(design_path, Design)
    design, tape = checked.design, read_tape(tape_path)
    if not isinstance(design, Design):
        say_findings(checked.findings)
        raise typer.Exit(1)
    assert checked.subject is not None
    say(f"   {in_one_line(checked.subject)}")
    say(f"   {tape_in_one_line(tape)}")

    say("2  Checked", style="bold")
    say_findings(checked.findings)
    say(f"   {count_findings(checked.findings)}")

    say("3  Rendered", style="bold")
    program = design.compile(frames=frame_count(tape, design.rate))
    film = render(program, tape)
    draw = film.budget().draw
    assert draw is not None
    say(f"   {len(film)} frames of {len(film.layout)} LEDs")
    say(f"   draws at most {in_amps(draw.peak_a)}, {in_amps(draw.mean_a)} on average")

    say(f"4  Written into {into}/", style="bold")
    for what, path in write_all(design, film, into).items():
        say(f"   {path.name:<18} {what}")
    copied = copy_files(into)
    say(f"   and {len(copied)} files that the docs use, from heron.toml to wing.toml")

    say("5  Streamed to a stand-in controller over a serial port", style="bold")
    is_same = stream(checked.subject, program, tape)

    say("6  Next", style="bold")
    for what, commands in next_steps(into).items():
        say(f"   {what}:")
        for command in commands:
            say(f"     {command}")
    raise typer.Exit(0 if is_same and not checked.has_errors else 1)


def write_all(design: Design, film: Film, into: Path) -> dict[str, Path]:
    """Everything there is to look at: what each file is, and its path."""
    written = {"map": design.save_map(into / "heron-map.png")}
    written |= write_pictures(film, into, "heron", MOMENT_S, *ANIMATION_S)
    written["build sheet"] = design.sheet(into / "heron-sheet.html", film)
    page = design.page(into / "heron.html", film.tape).path
    assert page is not None
    written["the page: open it in a browser, and move a slider"] = page
    return written


def next_steps(into: Path) -> dict[str, list[str]]:
    """The next things to try after the demo: a purpose, and the commands for it."""
    there = {"Go to the files": [*activation(), f"cd {shell_word(str(into))}"]}
    return there | {
        "Change a colour or a number in heron.toml, and look again": [
            "fendra check heron.toml --tape ride.csv",
            "fendra film heron.toml --tape ride.csv",
        ],
        "See a run in the browser, and steer it": [
            "fendra run heron.toml --tape ride.csv --loop --to null: --page",
        ],
        "See it live in the terminal, while a stand-in sends a ride (two terminals)": [
            "fendra simulate game",
            "fendra run heron.toml --from udp:9400 --to terminal:",
        ],
        "Begin a design of your own, like a trike, a drone, a pad or a cabinet": [
            "fendra new glider --like drone",
        ],
        "Put it on a controller: as firmware, or as a receiver of frames from this computer": [
            "fendra emit heron.toml --tape ride.csv",
            "fendra emit heron.toml --receiver",
        ],
    }


def activation() -> list[str]:
    """The command that makes `fendra` known in this terminal; none if it is known already."""
    if shutil.which("fendra") is not None or sys.prefix == sys.base_prefix:
        return []
    if NAME == "windows":
        return [str(Path(sys.prefix) / ACTIVATE)]
    near, whole = os.path.relpath(sys.prefix), sys.prefix
    return [". " + shell_word(f"{min(near, whole, key=len)}/{ACTIVATE}")]


def say_files(folder: Path) -> None:
    """Copy the shipped files, and list them."""
    from fendra.demo import ABOUT, copy_files

    copied = copy_files(folder)
    for (path, is_new), about in zip(copied.items(), ABOUT.values(), strict=True):
        say(f"{path.name:<14} {about}{'' if is_new else ' (exists, left as it is)'}")
    say(f"{len(copied)} files in {folder}/. Go there: cd {folder}")


def tape_in_one_line(tape: Tape) -> str:
    """A tape in one line."""
    rows_hz = (len(tape.times) - 1) / tape.duration_s
    names = ", ".join(tape.signals)
    return f"Tape {tape.name}: {tape.duration_s:g} s, {rows_hz:.0f} rows a second: {names}"


def stream(subject: Subject, program: Program, tape: Tape) -> bool:
    """Send the tape's first seconds to a controller in a process of its own, and compare."""
    from fendra.firmware.stand_in import CompiledReceiver

    start = tape.until(tape.start_s + STREAM_S)
    try:
        receiver = CompiledReceiver(subject)
    except EngineError as exc:
        say(f"   {exc} A stand-in in Python listens instead.", style="yellow")
        return stream_to_python(program, start)
    with receiver:
        sent = send(program, start, receiver.port)
        seen = receiver.report()
    say("   the controller is the C of `fendra emit --receiver`, compiled for this computer")
    return compare(program.design, receiver.port, sent, seen)


def stream_to_python(program: Program, tape: Tape) -> bool:
    """The same with a controller that needs no compiler."""
    command = [sys.executable, "-m", "fendra.demo.controller", "--json"]
    for size, line in zip(program.layout.line_sizes, program.design.line, strict=True):
        command += ["--line", f"{size}x{len(line.wire_order)}"]
    with subprocess.Popen(command, stdout=subprocess.PIPE, encoding="utf-8") as controller:
        assert controller.stdout is not None
        try:
            port = heard(controller.stdout.readline())["port"]
            sent = send(program, tape, port)
            seen = heard(controller.stdout.readline())
        finally:
            controller.terminate()
    return compare(program.design, port, sent, seen)


def send(program: Program, tape: Tape, port: str) -> RunReport:
    """Play a tape to a port, with a bar."""
    from fendra.live.loop import run_live
    from fendra.outputs.serial_port import SerialOutput
    from fendra.sources.tape import TapeSource

    with progress("streaming") as report:
        return run_live(
            program,
            TapeSource(tape),
            SerialOutput(port),
            progress=lambda at_s: report(at_s, STREAM_S),
        )


def heard(line: str) -> dict[str, Any]:
    """One line from the controller. Raises OutputError if none comes."""
    from fendra.core.errors import OutputError

    if not line:
        raise OutputError("the stand-in controller has ended early")
    said: dict[str, Any] = json.loads(line)
    return said


def compare(design: CoreDesign, port: str, sent: RunReport, seen: dict[str, Any]) -> bool:
    """Report what arrived, and whether the controller shows the last frame that was sent."""
    say(f"   sent to {port}: {sent}")
    say(
        f"   controller:  {seen['frames']} frames shown, {seen['lost']} lost, "
        f"{seen['incomplete']} incomplete, {seen['damaged']} damaged"
    )
    ours = [] if sent.last is None else sent.last.line_bytes()
    theirs = [bytes.fromhex(text) for text in seen["lines"]]
    for line, pixels in zip(design.line, theirs, strict=False):
        say_pixels(f"     {line.name:<8}", pixels, line.wire_order)
    is_same = bool(ours) and ours == theirs
    verdict = "the same bytes as" if is_same else "NOT the bytes of"
    say(f"   its last frame: {verdict} the program's", style="green" if is_same else "bold red")
    return is_same
