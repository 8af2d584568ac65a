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
    into: Annotated[
        Path, typer.Option(metavar="FOLDER", help="Where everything is written.")
    ] = Path("fendra-demo"),
) -> None:
    """Try it all on Heron, a cargo trike, and a recorded ride: check, look, stream.

    Writes the map, the film strip, a still, an animation, the build sheet and a page for the
    browser, and streams the ride's first seconds to a stand-in controller.
    """
    from fendra.core.signals.playing import frame_count
    from fendra.demo import demo_file
    from fendra.files.design_file import check_file
    from fendra.files.tape_file import read_tape
    from fendra.front import Design

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
    say(f"   draws {in_amps(draw.peak_a)} at the most, {in_amps(draw.mean_a)} in the mean")

    say(f"4  Written into {into}/", style="bold")
    written = write_all(design, film, into)
    for what, path in written.items():
        say(f"   {path.name:<18} {what}")

    say("5  Streamed to a stand-in controller over a serial port", style="bold")
    is_same = stream(checked.subject, program, tape)

    say("6  Next", style="bold")
    say(f"   Change a colour or a number in {into}/heron.toml, then look again:")
    files = f"{into}/heron.toml --tape {into}/ride.csv"
    say(f"     {typed()} check {into}/heron.toml")
    say(f"     {typed()} film {files} --into {into}")
    say(f"     {typed()} page {files} --out {into}/heron.html")
    say("   Begin a design of your own, like a trike, a drone, a pad or a cabinet:")
    say(f"     {typed()} new NAME --like drone")
    say("   See it live in the terminal, from something that sends a ride, in two terminals:")
    say(f"     {typed()} simulate game")
    say(f"     {typed()} run {into}/heron.toml --from udp:9400 --to terminal:")
    say("   Steer it in a browser, and drag its parts; 0.0.0.0:8080 behind --page lets a phone in:")
    say(f"     {typed()} run {files} --loop --to null: --page")
    say("   Put it on a controller: as firmware, or as a receiver of what this computer sends:")
    say(f"     {typed()} emit {files} --out {into}/firmware")
    say(f"     {typed()} emit {into}/heron.toml --receiver --out {into}/receiver")
    say(f"     {typed()} run {files} --to serial:/dev/ttyUSB0")
    raise typer.Exit(0 if is_same and not checked.has_errors else 1)


def write_all(design: Design, film: Film, into: Path) -> dict[str, Path]:
    """All that can be looked at, the design and the tape; what each is, and where."""
    from fendra.demo import demo_file

    written = {"map": design.save_map(into / "heron-map.png")}
    written |= write_pictures(film, into, "heron", MOMENT_S, *ANIMATION_S)
    written["build sheet"] = design.sheet(into / "heron-sheet.html", film)
    page = design.page(into / "heron.html", film.tape).path
    assert page is not None
    written["the page: open it in a browser, and move a slider"] = page
    for path in (demo_file("heron.toml"), demo_file("ride.csv")):
        written[f"the {'design' if path.suffix == '.toml' else 'tape'}"] = copy_once(path, into)
    return written


def tape_in_one_line(tape: Tape) -> str:
    """A tape in one line."""
    rows_hz = (len(tape.times) - 1) / tape.duration_s
    names = ", ".join(tape.signals)
    return f"Tape {tape.name}: {tape.duration_s:g} s, {rows_hz:.0f} rows a second: {names}"


def typed() -> str:
    """How this program is called from here: by its name, or by its path where that is not found."""
    if shutil.which("fendra") is not None:
        return "fendra"
    path = Path(sys.argv[0])
    return min(os.path.relpath(path), str(path), key=len) if path.name == "fendra" else "fendra"


def copy_once(path: Path, folder: Path) -> Path:
    """Copy a shipped file to where it can be edited; one that was edited stays."""
    target = folder / path.name
    if not target.exists():
        shutil.copyfile(path, target)
    return target


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
    with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as controller:
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
    """What the controller says in one line. Raises OutputError where it says nothing."""
    from fendra.core.errors import OutputError

    if not line:
        raise OutputError("the stand-in controller has ended early; it needs a pseudo-terminal")
    said: dict[str, Any] = json.loads(line)
    return said


def compare(design: CoreDesign, port: str, sent: RunReport, seen: dict[str, Any]) -> bool:
    """Say what came, and whether what the controller shows is what was sent last."""
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
