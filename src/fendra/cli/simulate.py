"""`fendra simulate`: stand-ins for what a design connects to."""

from __future__ import annotations

import time
from pathlib import Path
from typing import Annotated

import typer

from fendra.cli.screen import progress, say, say_columns

STEP_S = 0.01


def simulate(
    name: Annotated[
        str,
        typer.Argument(
            metavar="[NAME]",
            help=("Which one, or the source that should receive it; without it, all are listed."),
        ),
    ] = "",
    at: Annotated[
        str,
        typer.Option(metavar="ADDRESS", help="Where it sends values: a port, a file, a bus."),
    ] = "",
    tape: Annotated[
        Path | None,
        typer.Option(metavar="TAPE", help="The tape to play, instead of its usual one."),
    ] = None,
    once: Annotated[bool, typer.Option("--once", help="End with the tape.")] = False,
    seconds: Annotated[
        float | None, typer.Option("--for", metavar="SECONDS", min=0.1, help="End after this time.")
    ] = None,
) -> None:
    """Play a tape as a game, a bus, an autopilot or a broker would send it.

    It prints the `fendra run` command that receives it, and plays until Ctrl-C.
    """
    from fendra.core.errors import SourceError
    from fendra.core.names import did_you_mean, listed
    from fendra.demo import demo_file
    from fendra.demo.stand_ins import BY_SOURCE, STAND_INS, WritesFiles, stand_in
    from fendra.files.tape_file import read_tape
    from fendra.sources.tape import TapeSource

    if not name:
        sources = {of: source for source, of in reversed(BY_SOURCE.items())}
        rows = [
            (each, kind.source or sources.get(each, each), kind.about, kind.design)
            for each, kind in ((name, stand_in(name)) for name in STAND_INS)
        ]
        say_columns(("name", "source", "what it plays", "suits"), rows)
        return
    name = name if name in STAND_INS else BY_SOURCE.get(name, name)
    if name not in STAND_INS:
        raise typer.BadParameter(
            f"there is no stand-in '{name}'. "
            f"{did_you_mean(name, [*STAND_INS, *BY_SOURCE], 'stand-ins and sources')}"
        )
    made = stand_in(name)(at)
    played = read_tape(tape or demo_file(made.file))
    try:
        hint = made.start()
    except ImportError as exc:
        raise SourceError(f"this stand-in needs the package '{exc.name}'") from exc
    except (OSError, ValueError) as exc:
        raise SourceError(f"{name} cannot start at '{at or 'its place'}': {exc}") from exc
    say(f"{made.about[:1].upper()}{made.about[1:]}. To receive it:")
    say(f"  fendra run {made.design} --from {hint} --to terminal:")
    if isinstance(made, WritesFiles):
        return
    mute = [] if made.hears is None else sorted({*played.signals} - made.hears)
    if mute:
        say(f"It cannot send {listed(mute)}: these columns are left out.", style="yellow")
    say(f"Playing {played.name}, {played.duration_s:g} s, {'once' if once else 'again and again'}.")
    source = TapeSource(played, loop=not once)
    start_s = time.perf_counter()
    try:
        with progress("telling") as report:
            while not source.has_ended(at_s := time.perf_counter() - start_s):
                made.say(at_s, source.news(at_s))
                report(at_s % played.duration_s, played.duration_s)
                if seconds is not None and at_s >= seconds:
                    break
                time.sleep(STEP_S)
    except KeyboardInterrupt:
        pass  # the usual way to end it
    finally:
        made.close()
