"""`fendra film`: a tape rendered, as pictures."""

from __future__ import annotations

import warnings
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.made_up import (
    AnyTape,
    Long,
    Sets,
    Steps,
    Sweeps,
    Toggles,
    check_on_tape,
    tape_for,
)
from fendra.cli.options import DesignFile, Engine
from fendra.cli.screen import progress, say
from fendra.core.names import ViewName
from fendra.draw.kinds import AnimationName

if TYPE_CHECKING:
    from fendra.core.film import Film as CoreFilm
    from fendra.core.signals.tape import Tape
    from fendra.front import Design, Film, Program
    from fendra.native.names import EngineName


def film(
    design: DesignFile,
    tape: AnyTape = None,
    sets: Sets = None,
    sweeps: Sweeps = None,
    steps: Steps = None,
    toggles: Toggles = None,
    duration: Long = None,
    into: Annotated[Path, typer.Option(metavar="FOLDER", help="The pictures' folder.")] = Path(),
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
        ViewName, typer.Option(help="The side that still and animation show.")
    ] = "top",
    diffuser: Annotated[
        float,
        typer.Option(
            metavar="MM", min=0, max=1000,
            help="Show it through opal acrylic or paper at this distance from the LEDs.",
        ),
    ] = 0.0,
    kind: Annotated[
        AnimationName, typer.Option("--animation", help="The kind of animation; mp4 needs ffmpeg.")
    ] = "gif",
    timeline: Annotated[
        bool, typer.Option("--timeline", help="Also draw when each layer and scene was on.")
    ] = False,
    scenes: Annotated[
        bool, typer.Option("--scenes", help="Also draw each scene, side by side.")
    ] = False,
    engine: Engine = "auto",
) -> None:  # fmt: skip
    """Draw a tape, or made-up values, as film strip, still and animation."""
    from fendra.core.signals.playing import frame_count
    from fendra.front import load

    loaded = load(design)
    played = tape_for(loaded, tape, sets, sweeps, steps, toggles, duration)
    moment = at if at is not None else (played.start_s + played.end_s) / 2
    first = start if start is not None else max(moment - 2.0, played.start_s)
    check_on_tape("--at", moment, played)
    check_on_tape("--start", first, played)
    program = compile_on(loaded, engine, frame_count(played, loaded.rate))
    say_if_unfed(program.fed, played)
    rendered = render(program, played)
    written = write_pictures(
        rendered, into, design.stem, moment, first, seconds, view, diffuser_mm=diffuser, kind=kind
    )
    written |= write_courses(rendered, into, design.stem, view, timeline=timeline, scenes=scenes)
    for what, path in written.items():
        say(f"{what}: {path}")
    say_limiter(rendered)


def say_limiter(film: CoreFilm | None) -> None:
    """Say how often and how much the limiter acted, if it did."""
    for limited in film.limited() if film is not None else ():
        if limited.frames:
            say(str(limited))


def compile_on(design: Design, engine: EngineName, frames: int = 0) -> Program:
    """A program on an engine; a note says if it is not the wanted one.

    frames: how many of a film it is for.
    """
    from fendra.core.errors import EngineWarning

    with warnings.catch_warnings(record=True) as caught, progress("compiling"):
        warnings.simplefilter("always", EngineWarning)
        program = design.compile(engine, frames=frames)
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
        say(
            f"note: not on the tape, so they have their fallback: {', '.join(missing)}",
            style="cyan",
        )
    if unknown:
        say(f"note: on the tape, but not signals of the design: {', '.join(unknown)}", style="cyan")


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
    *,
    diffuser_mm: float = 0.0,
    kind: AnimationName = "gif",
) -> dict[str, Path]:
    """Write strip, still and animation into a folder; returns a name and a path for each."""
    if kind == "mp4":  # before the long work
        from fendra.draw.mp4 import find_ffmpeg

        find_ffmpeg()
    from fendra.draw.animation import write_animation
    from fendra.draw.strip import draw_strip
    from fendra.draw.style import save_figure

    title = f"{film.design.name}: {film.tape.name}"
    written = {
        "film strip": save_figure(draw_strip(film, title=title), folder / f"{stem}-strip.png")
    }
    written[f"still at {at_s:g} s"] = film.save_still(
        folder / f"{stem}-still.png", at_s, view=view, diffuser_mm=diffuser_mm
    )
    with progress("animating") as report:
        written["animation"] = write_animation(
            film, folder / f"{stem}.{kind}", start_s, seconds, view=view,
            diffuser_mm=diffuser_mm, progress=report,
        )  # fmt: skip
    return written


def write_courses(
    film: Film, folder: Path, stem: str, view: ViewName, *, timeline: bool, scenes: bool
) -> dict[str, Path]:
    """Write the timeline and a picture of each scene, if asked; returns name and path of each."""
    from fendra.draw.scenes import draw_scenes
    from fendra.draw.style import save_figure
    from fendra.draw.timeline import draw_timeline_figure

    if not (timeline or scenes):
        return {}
    courses = film.timeline()
    written = {}
    if timeline:
        figure = draw_timeline_figure(film, courses)
        written["timeline"] = save_figure(figure, folder / f"{stem}-timeline.png")
    if scenes:
        figure = draw_scenes(film, courses, view)
        written["scenes"] = save_figure(figure, folder / f"{stem}-scenes.png")
    return written
