"""`fendra film`: a tape rendered, as pictures."""

from __future__ import annotations

import warnings
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.options import DesignFile, Engine, TapeFile
from fendra.cli.screen import progress, say
from fendra.core.layout.names import ViewName

if TYPE_CHECKING:
    from fendra.core.film import Film as CoreFilm
    from fendra.core.tape import Tape
    from fendra.front import Design, Film, Program
    from fendra.native.names import EngineName


def film(
    design: DesignFile,
    tape: TapeFile,
    into: Annotated[Path, typer.Option(metavar="FOLDER", help="Where the pictures go.")] = Path(),
    at: Annotated[
        float | None,
        typer.Option(
            metavar="SECONDS",
            help="Moment of the still.  [default: the middle]",
            show_default=False,
        ),
    ] = None,
    start: Annotated[
        float | None,
        typer.Option(
            metavar="SECONDS",
            help="Where the animation begins.  [default: 2 s before the still]",
            show_default=False,
        ),
    ] = None,
    seconds: Annotated[
        float,
        typer.Option(metavar="SECONDS", min=0.05, max=60, help="How long the animation is."),
    ] = 5.0,
    view: Annotated[
        ViewName, typer.Option(help="The side that still and animation are seen from.")
    ] = "top",
    engine: Engine = "auto",
) -> None:
    """Render a tape and write the film strip, a still and an animation."""
    from fendra.files.tape_file import read_tape
    from fendra.front import load

    loaded, played = load(design), read_tape(tape)
    moment = at if at is not None else (played.start_s + played.end_s) / 2
    first = start if start is not None else max(moment - 2.0, played.start_s)
    for what, value in (("--at", moment), ("--start", first)):
        if not played.start_s <= value <= played.end_s:
            raise typer.BadParameter(
                f"{what} {value:g} is not on the tape, which goes from {played.start_s:g} to "
                f"{played.end_s:g} s"
            )
    program = compile_on(loaded, engine)
    say_if_unfed(program.fed, played)
    rendered = render(program, played)
    written = write_pictures(rendered, into, design.stem, moment, first, seconds, view)
    for what, path in written.items():
        say(f"{what}: {path}")
    say_limiter(rendered)


def say_limiter(film: CoreFilm | None) -> None:
    """Say how often and how much the limiter acted, where it did."""
    for limited in film.limited() if film is not None else ():
        if limited.frames:
            say(str(limited))


def compile_on(design: Design, engine: EngineName) -> Program:
    """A program on an engine; a note says where it is not the one that was wanted."""
    from fendra.core.errors import EngineWarning

    with warnings.catch_warnings(record=True) as caught, progress("compiling"):
        warnings.simplefilter("always", EngineWarning)
        program = design.compile(engine)
    for warning in caught:
        say(f"note: {warning.message}", style="cyan")
    return program


def say_if_unfed(fed: Sequence[str], tape: Tape) -> None:
    """Say which signals the tape does not have, and which columns the design does not know.

    fed: the signals that the design takes.
    """
    missing = [name for name in fed if name not in tape.signals]
    unknown = [name for name in tape.signals if name not in fed]
    if missing:
        say(f"note: not on the tape, so at their fallback: {', '.join(missing)}", style="cyan")
    if unknown:
        say(f"note: on the tape, but no signals of the design: {', '.join(unknown)}", style="cyan")


def render(program: Program, tape: Tape) -> Film:
    """The film of a tape, with a bar while it is made."""
    with progress("rendering") as report:
        return program.film(tape, progress=report)


def write_pictures(
    film: Film,
    folder: Path,
    stem: str,
    at_s: float,
    start_s: float,
    seconds: float,
    view: ViewName = "top",
) -> dict[str, Path]:
    """Strip, still and animation into a folder; what each is, and where."""
    from fendra.draw.animation import write_animation
    from fendra.draw.strip import draw_strip
    from fendra.draw.style import save_figure

    title = f"{film.design.name}: {film.tape.name}"
    written = {
        "film strip": save_figure(draw_strip(film, title=title), folder / f"{stem}-strip.png")
    }
    written[f"still at {at_s:g} s"] = film.still(at_s, folder / f"{stem}-still.png", view=view)
    with progress("animating") as report:
        written["animation"] = write_animation(
            film, folder / f"{stem}.gif", start_s, seconds, view=view, progress=report
        )
    return written
