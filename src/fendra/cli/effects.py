"""`fendra effects`: the catalogue of effects, and one of them in full."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.options import AsJson
from fendra.cli.screen import progress, say, say_columns, say_json
from fendra.core.errors import FileError

if TYPE_CHECKING:
    from fendra.core.effects import Effect


def effects(
    name: Annotated[
        str | None,
        typer.Argument(
            metavar="[NAME]",
            help="One effect, with its parameters and an example.",
            show_default=False,
        ),
    ] = None,
    design: Annotated[
        Path | None,
        typer.Option(
            metavar="DESIGN", help="Also list this design's own effects.", show_default=False
        ),
    ] = None,
    full: Annotated[bool, typer.Option("--full", help="Show all of them in full.")] = False,
    sheet: Annotated[
        Path | None,
        typer.Option(
            metavar="PICTURE",
            help="Draw film strips of all effects, or of this one, into a picture.",
            show_default=False,
        ),
    ] = None,
    as_json: AsJson = False,
) -> None:
    """List the effects; or show one with its parameters and an example to paste."""
    from fendra.cli.effect_examples import example_films, example_text
    from fendra.core.effects import EFFECTS, by_family
    from fendra.core.names import did_you_mean

    known = {**EFFECTS, **_own(design)}
    if name is not None and name not in known:
        remedy = did_you_mean(name, known, "effects")
        raise typer.BadParameter(f"there is no effect '{name}'. {remedy}")
    if sheet is not None:
        from fendra.draw.effects_sheet import draw_effects
        from fendra.draw.style import save_figure

        if name is not None and name not in EFFECTS:
            raise FileError(
                f"'{name}' is an effect of your own design: look at it with `fendra film`."
            )
        with progress("drawing"):
            films = example_films(None if name is None else [name])
            say(f"effects: {save_figure(draw_effects(films), sheet)}")
        return
    if as_json:
        shown = [known[name]] if name is not None else by_family(known.values())
        say_json({"effects": [_plain(effect) for effect in shown]})
        return
    if name is not None:
        _say_one(known[name], example_text(name, "tail-bar"))
        return
    ordered = by_family(known.values())
    if full:
        for effect in ordered:
            _say_one(effect, example_text(effect.name))
            say()
        return
    say_columns(
        ("effect", "for", "what it looks like"),
        [(effect.name, effect.family, _first_sentence(effect.about)) for effect in ordered],
    )
    say()
    say("One effect with its parameters and an example: fendra effects NAME. All of them: --full.")
    say("As a picture: --sheet effects.png.")


def _plain(effect: Effect) -> dict[str, Any]:
    """An effect as plain values."""
    parameters = {
        name: {
            "kind": item.kind, "default": item.default_text, "unit": item.unit,
            "low": item.low if item.kind in ("number", "numbers") else None,
            "high": item.high if item.kind in ("number", "numbers") else None,
            "words": [*item.words], "about": item.about,
        }
        for name, item in effect.parameters.items()
    }  # fmt: skip
    return {
        "name": effect.name, "family": effect.family, "about": effect.about,
        "parameters": parameters,
    }  # fmt: skip


def _own(design: Path | None) -> dict[str, Effect]:
    if design is None:
        return {}
    from fendra.files.design_file import check_file

    checked = check_file(design)
    return {} if checked.subject is None else dict(checked.subject.media.effects)


def _first_sentence(about: str) -> str:
    """The first sentence about an effect, as far as it fits in one line."""
    text = " ".join(about.partition("\n\n")[0].split())
    for end in (": ", ". ", "; ", ", "):
        if len(text) > 56:
            text = text.partition(end)[0]
    return text.rstrip(".")


def _say_one(effect: Effect, example: str) -> None:
    say(effect.name, style="bold")
    say(effect.about)
    say()
    rows = [
        (name, item.default_text, item.unit, item.range_text, item.about)
        for name, item in effect.parameters.items()
    ]
    say_columns(("parameter", "default", "unit", "range", "what it is"), rows)
    say()
    say("Every number, colour and condition may be an expression in quotes. In a design:")
    say()
    say(example)
