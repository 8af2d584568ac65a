"""`fendra compare`: two designs, or one with a parameter at several values, on the same tape."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, NamedTuple

import typer

from fendra.cli.film import compile_on, render, say_if_unfed
from fendra.cli.made_up import AnyTape, Long, Sets, Steps, Sweeps, Toggles, tape_for
from fendra.cli.options import AsJson, DesignFile
from fendra.cli.screen import said_aside, say, say_columns, say_json

if TYPE_CHECKING:
    from fendra.front import Design, Film


def compare(
    design: DesignFile,
    other: Annotated[
        Path | None,
        typer.Argument(metavar="[OTHER]", help="The design to compare with.", show_default=False),
    ] = None,
    vary: Annotated[
        str | None,
        typer.Option(
            metavar="LAYER.KEY=A,B,...",
            help="With one design: a key of a layer, at several values.",
            show_default=False,
        ),
    ] = None,
    tape: AnyTape = None,
    sets: Sets = None,
    sweeps: Sweeps = None,
    steps: Steps = None,
    toggles: Toggles = None,
    duration: Long = None,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="PICTURE", help="The picture.  [default: DESIGN-compare.png]",
            show_default=False,
        ),
    ] = None,
    as_json: AsJson = False,
) -> None:  # fmt: skip
    """Draw films of the same tape above each other, and mark what differs."""
    from fendra.core.signals.playing import frame_count
    from fendra.draw.compare import differing, draw_compare
    from fendra.draw.style import save_figure
    from fendra.front import load

    loaded = load(design)
    if (other is None) == (vary is None):
        raise typer.BadParameter("give another design, or --vary LAYER.KEY=A,B")
    designs, names = side_by_side(loaded, design, other, vary)
    title = f"{loaded.name}: {(vary or '').partition('=')[0]}"
    if other is not None:
        title = f"{design.name} and {other.name}"
    played = tape_for(loaded, tape, sets, sweeps, steps, toggles, duration)
    films: list[Film] = []
    for made in designs:
        program = compile_on(made, "auto", frame_count(played, made.rate))
        if not films:
            with said_aside(as_json):
                say_if_unfed(program.fed, played)
        films.append(render(program, played))
    apart = differing(films)
    found = [
        Apart(part, int(values.max()), float((values > 1).mean()),
              float(films[0].times[int(values.argmax())]))
        for part, values in apart.items()
    ]  # fmt: skip
    figure = draw_compare(films, names, f"{title}, {played.name}")
    picture = save_figure(figure, out or Path(f"{design.stem}-compare.png"))
    if as_json:
        parts = [each._asdict() for each in found]
        say_json({"designs": names, "tape": played.name, "parts": parts, "picture": str(picture)})
        return
    if found:
        heads = ("part", "most, of 255", "of the frames", "at")
        rows = [
            (each.part, f"{each.most}", f"{each.share:.1%}", f"{each.at_s:.2f} s") for each in found
        ]
        say_columns(heads, rows, right=heads[1:])
    else:
        say("no LED differs")
    say(f"picture: {picture}")


class Apart(NamedTuple):
    """The difference of two films in a part: the largest, of 255; the share of frames; when."""

    part: str
    most: int
    share: float
    at_s: float


def side_by_side(
    loaded: Design, path: Path, other: Path | None, vary: str | None
) -> tuple[list[Design], list[str]]:  # fmt: skip
    """A design and another, or itself with a key at several values; and what to call each."""
    from fendra.front import load

    if other is not None:
        return [loaded, load(other)], [path.stem, other.stem]
    return varied(loaded, vary or "")


def varied(design: Design, text: str) -> tuple[list[Design], list[str]]:
    """A design with a key of a layer at several values; and what to call each."""
    from fendra.core.names import did_you_mean

    place, sign, listed = text.partition("=")
    name, dot, key = place.strip().rpartition(".")
    if not sign or not dot:
        raise typer.BadParameter(
            f"'{text}' is not LAYER.KEY=VALUES. Write it as in --vary 'rpm.threshold=4000,4700'"
        )
    names = [layer.name for layer in design.layer]
    if name not in names:
        remedy = did_you_mean(name, names, "layers")
        raise typer.BadParameter(f"there is no layer '{name}'. {remedy}")
    made, called = [], []
    for item in listed.split(","):
        value = _value(item.strip())
        plain = design.model_dump(mode="python", by_alias=True, exclude_unset=True)
        plain["layer"][names.index(name)][key] = value
        made.append(design.with_values(plain))
        called.append(f"{key} = {item.strip()}")
    return made, called


def _value(text: str) -> bool | float | str:
    if text in ("true", "false"):
        return text == "true"
    try:
        return float(text)
    except ValueError:
        return text
