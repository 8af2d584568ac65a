"""An example of each effect: text to paste into a design, and a film of it."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from functools import cache
from typing import Any

import numpy as np

from fendra.core.effects import EFFECTS, by_family
from fendra.core.language.reader import names_in
from fendra.core.signals.tape import Tape
from fendra.core.toml_text import value_text
from fendra.demo import FILES
from fendra.front import Design, Film

EXAMPLES = FILES.with_name("effect_examples.toml")

SIGNALS: dict[str, dict[str, Any]] = {
    "beat": {"kind": "switch"},
    "bass": {"range": [0, 1]},
    "keys": {"kind": "vector", "size": 30, "range": [0, 1]},
    "level": {"range": [0, 1]},
    "mid": {"range": [0, 1]},
    "steer": {"range": [0, 1]},
    "treble": {"range": [0, 1]},
}
"""The signals that the examples read."""

PARTS = [
    {"name": "ring", "shape": "ring", "centre": [-110, 40], "radius": 40, "count": 24},
    {"name": "strip", "shape": "strip", "start": [-60, -40], "end": [140, -40], "count": 30},
    {"name": "grid", "shape": "grid", "columns": 8, "rows": 8, "pitch": 12, "centre": [90, 50]},
]

SECONDS = 5.0


@cache
def _examples() -> dict[str, dict[str, Any]]:
    return tomllib.loads(EXAMPLES.read_text(encoding="utf-8"))


def example_of(effect: str) -> Mapping[str, Any]:
    """The keys of a layer that shows an effect; none but the effect's name for one of others."""
    return _examples().get(effect, {})


def example_text(effect: str, on: str = "strip") -> str:
    """A layer with an effect, and the signals that it reads, to paste into a design."""
    keys = example_of(effect)
    read = [name for name in SIGNALS if name in names_in(keys) or _is_in_text(name, keys)]
    lines = []
    for name in read:
        lines += [f"[signals.{name}]"]
        lines += [f"{key} = {value_text(value)}" for key, value in SIGNALS[name].items()] + [""]
    lines += ["[[layer]]", f'name = "{effect}"', f'on = "{on}"', f'effect = "{effect}"']
    return "\n".join([*lines, *(f"{key} = {value_text(value)}" for key, value in keys.items())])


def _is_in_text(name: str, keys: Mapping[str, Any]) -> bool:
    return "text" in keys and name in str(keys["text"])


def example_design(effect: str) -> Design:
    """A design that shows an effect on a ring, a strip and a grid."""
    layers = [
        {"name": part["name"], "on": part["name"], "effect": effect, **example_of(effect)}
        for part in PARTS
    ]
    return Design.from_values(
        {
            "name": effect,
            "line": [{"name": "line", "part": PARTS}],
            "signals": SIGNALS,
            "layer": layers,
        },
        folder=FILES,
    )


def example_tape() -> Tape:
    """Five seconds of a beat, a level, bands, and keys that are pressed one after the other."""
    times = np.arange(round(SECONDS * 50) + 1) / 50
    signals: dict[str, Any] = {
        "beat": (((times * 10).astype(int) % 12) < 2) * 1.0,
        "bass": np.sqrt(np.abs(np.sin(times * 2.6))),
        "mid": 0.2 + 0.7 * np.abs(np.sin(times * 3.7 + 1)),
        "treble": np.abs(np.sin(times * 6.1 + 2)) * 0.8,
        "level": 0.5 + 0.5 * np.sin(2 * np.pi * (times / 2.5 - 0.25)),
        "steer": np.clip(times / 4, 0, 1),
    }
    pressed = (times * 10).astype(int) * 11 % 30
    signals |= {f"keys[{key}]": (pressed == key) * 1.0 for key in range(30)}
    return Tape(times, signals, "examples")


def example_film(effect: str) -> Film:
    """The film of an example."""
    return example_design(effect).compile("numpy").film(example_tape())


def example_films(names: Sequence[str] | None = None) -> dict[str, Film]:
    """A film of each effect, or of some of them, by its name."""
    ordered = [effect.name for effect in by_family(EFFECTS.values())]
    return {name: example_film(name) for name in names or ordered}
