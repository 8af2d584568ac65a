"""The presets of a user: one TOML file in the folder that the system has for such things."""

from __future__ import annotations

import os
import tomllib
from pathlib import Path
from typing import Any

import tomlkit
from pydantic import ValidationError

from fendra.core.document.layer import Preset
from fendra.core.errors import FileError
from fendra.core.names import NAME, did_you_mean
from fendra.core.toml_text import value_text
from fendra.whole import read_text, write_text

FILE = "presets.toml"


def library_path() -> Path:
    """Where it is: FENDRA_PRESETS, if that is set, else in the user's own folder."""
    from platformdirs import user_data_path

    given = os.environ.get("FENDRA_PRESETS")
    return Path(given) if given else user_data_path("fendra", appauthor=False) / FILE


def read_library() -> dict[str, Preset]:
    """Every preset by its name. Raises FileError if the file is not a library."""
    path = library_path()
    if not path.exists():
        return {}
    try:
        raw = tomllib.loads(read_text(path))
        return {name: Preset.model_validate(keys) for name, keys in raw.items()}
    except (tomllib.TOMLDecodeError, ValidationError) as exc:
        raise FileError(f"'{path}' has no readable presets: {str(exc).splitlines()[0]}") from exc


def save_preset(name: str, preset: Preset) -> Path:
    """Put a preset into the library, in place of one of its name. Raises FileError."""
    if not NAME.fullmatch(name):
        raise FileError(f"'{name}' cannot be a name. Use letters, digits, _, - and spaces.")
    return _write({**read_library(), name: preset})


def drop_preset(name: str) -> Path:
    """Remove a preset from the library. Raises FileError for an unknown name."""
    found = read_library()
    found_preset(found, name)
    del found[name]
    return _write(found)


def found_preset(library: dict[str, Preset], name: str) -> Preset:
    """The preset of a name. Raises FileError."""
    if name not in library:
        remedy = did_you_mean(name, library, "presets of the library")
        raise FileError(f"the library has no preset '{name}'. {remedy}")
    return library[name]


def _write(presets: dict[str, Preset]) -> Path:
    text = "\n\n".join(preset_text(f"[{_key(name)}]", presets[name]) for name in sorted(presets))
    return write_text(library_path(), f"{text}\n" if text else "")


def preset_text(head: str, preset: Preset) -> str:
    """A preset as a table of TOML. head: its first line."""
    keys: dict[str, Any] = {"effect": preset.effect}
    keys |= {"about": preset.about} if preset.about else {}
    return "\n".join(
        [head, *(f"{k} = {value_text(v)}" for k, v in (keys | preset.parameters).items())]
    )


def _key(name: str) -> str:
    return tomlkit.key(name).as_string()


def with_preset(text: str, name: str, preset: Preset) -> str:
    """A design's text with one more preset, at its end. Raises FileError if it has it already."""
    if name in tomllib.loads(text).get("presets", {}):
        raise FileError(
            f"the design already has a preset '{name}'; give this one another name with --as."
        )
    return f"{text.rstrip()}\n\n{preset_text(f'[presets.{_key(name)}]', preset)}\n"


def with_defaults(
    text: str, layer: str, parameters: frozenset[str], effect: str | None
) -> tuple[str, list[str]]:
    """A design's text in which a layer has no own or preset parameters any more, and the parameters
    that it had.

    effect: the layer's, written out if a preset named it. Comments and order stay. Raises FileError
    for an unknown layer.
    """
    document = tomlkit.parse(text)
    layers = document.get("layer", [])
    for table in layers:
        if table.get("name") == layer:
            taken = [key for key in [*table] if key in parameters]
            for key in taken:
                table.remove(key)
            if "preset" in table:
                taken.append(f"preset '{table['preset']}'")
                table.remove("preset")
                if effect is not None and "effect" not in table:
                    table["effect"] = effect
            return tomlkit.dumps(document), taken
    names = [str(table.get("name")) for table in layers]
    raise FileError(f"the design has no layer '{layer}'. {did_you_mean(layer, names, 'layers')}")
