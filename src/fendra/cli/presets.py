"""`fendra presets`: settings of effects that are kept, and used in other designs."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Literal

import typer

from fendra.cli.screen import say, say_columns

Action = Literal["list", "save", "take", "drop", "reset"]


def presets(
    action: Annotated[
        Action,
        typer.Argument(
            help=(
                "list: presets of your library, and of a design. save: the settings of a "
                "layer or preset of DESIGN, into the library. take: a preset of the "
                "library, into DESIGN. drop: remove a preset from the library. reset: give "
                "a layer of DESIGN its effect's defaults."
            )
        ),
    ] = "list",
    first: Annotated[
        str | None, typer.Argument(metavar="[DESIGN]", help="A design.", show_default=False)
    ] = None,
    name: Annotated[
        str | None,
        typer.Argument(metavar="[NAME]", help="A layer or a preset.", show_default=False),
    ] = None,
    called: Annotated[
        str | None, typer.Option("--as", metavar="NAME", help="Its name there.")
    ] = None,
) -> None:
    """Keep the settings of an effect under a name, and use them in other designs."""
    match action:
        case "list":
            _list(first)
        case "drop":
            from fendra.files.preset_library import drop_preset

            wanted = _needed(first, "a preset of the library")
            say(f"dropped '{wanted}' from {drop_preset(wanted)}")
        case "save":
            _save(Path(_needed(first, "a design")), _needed(name, "a layer or a preset"), called)
        case "take":
            _take(
                Path(_needed(first, "a design")), _needed(name, "a preset of the library"), called
            )
        case "reset":
            _reset(Path(_needed(first, "a design")), _needed(name, "a layer"))


def _needed(given: str | None, what: str) -> str:
    if given is None:
        raise typer.BadParameter(f"name {what}; see fendra presets --help")
    return given


def _list(design: str | None) -> None:
    from fendra.files.preset_library import library_path, read_library
    from fendra.front import load

    library = read_library()
    found = [("library", name, preset) for name, preset in library.items()]
    if design is not None:
        found += [(design, name, preset) for name, preset in load(design).presets.items()]
    if not found:
        say(f"no presets yet; the library is {library_path()}")
        return
    rows = [
        (where, name, preset.effect, ", ".join(f"{k} = {v}" for k, v in preset.parameters.items()))
        for where, name, preset in found
    ]
    say_columns(("in", "preset", "effect", "settings"), rows)


def _save(design: Path, name: str, called: str | None) -> None:
    from fendra.core.document.layer import Preset
    from fendra.core.names import did_you_mean
    from fendra.files.preset_library import save_preset
    from fendra.front import load

    loaded = load(design)
    layer = next((layer for layer in loaded.layer if layer.name == name), None)
    if layer is not None:
        keys = loaded.settings_of(layer)
        preset = Preset.model_validate({"effect": loaded.effect_of(layer), **keys})
    elif name in loaded.presets:
        preset = loaded.presets[name]
    else:
        known = [*(layer.name for layer in loaded.layer), *loaded.presets]
        raise typer.BadParameter(
            f"{design} has no layer and no preset '{name}'. {did_you_mean(name, known, 'names')}"
        )
    say(f"saved '{called or name}' into {save_preset(called or name, preset)}")


def _take(design: Path, name: str, called: str | None) -> None:
    from fendra.files.preset_library import found_preset, read_library, with_preset
    from fendra.whole import read_text, write_text

    preset = found_preset(read_library(), name)
    write_text(design, with_preset(read_text(design), called or name, preset))
    say(
f"{design} now has preset '{called or name}'; use it in a layer: preset = "
f"\"{called or name}\""
)  # fmt: skip


def _reset(design: Path, layer: str) -> None:
    from fendra.core.effects import EFFECTS
    from fendra.files.preset_library import with_defaults
    from fendra.front import load
    from fendra.whole import read_text, write_text

    loaded = load(design)
    found = next((item for item in loaded.layer if item.name == layer), None)
    effect = None if found is None else loaded.effect_of(found)
    known = {**EFFECTS, **loaded.media.effects}
    parameters = known[effect].parameters if effect in known else {}
    before = read_text(design)
    text, taken = with_defaults(before, layer, frozenset(parameters), effect)
    if not taken:
        say(f"{design}: layer '{layer}' has the defaults already; nothing was written")
        return
    kept = write_text(design.with_name(f"{design.name}.bak"), before)
    write_text(design, text)
    say(
f"{design}: layer '{layer}' has the defaults of '{effect}' again; before, it "
f"set: {', '.join(taken)}"
)  # fmt: skip
    say(f"{kept}: the design before that")
