"""The emitted C as a controller's maker compiles it: no warning, nothing undefined, same bytes."""

from __future__ import annotations

import subprocess

import pytest

import fendra as fd
from agreement import all_of
from fendra.core.effects import EFFECTS
from helpers import design, layer, strip

STRICT = ["-std=c99", "-Wall", "-Wextra", "-Wconversion", "-pedantic", "-Werror"]
ODD_NAMES = {
    "name": "int",
    "line": [{"name": "a", "part": [strip("float", 5)]}],
    "signals": {
        "int": {"unit": "*/ of a length ??/ " * 12}, "state": {}, "new": {},
        "light": {"kind": "switch"}, "k": {},
        "first": {"of": "int * 2"},
    },
    "layer": [
        {"name": "for", "on": "float", "effect": "solid", "level": "int + state + k + first",
         "when": "light"},
        {"name": "*/ end /* ??/ \\", "on": "float", "effect": "pulse", "rate": "new"},
        {"name": "large", "on": "float", "effect": "solid",
         "level": "k * (x * 1e9 * 1e9 * 1e9 * 1e9 * 1e9) / 1e9"},
        {"name": "日本", "on": "float", "effect": "sweep"},
        {"name": "for!", "on": "float", "effect": "blink", "rate": "k"},
    ],
}  # fmt: skip
BUDGETS = {
    "name": "draw",
    "supplies": {"deck": {"budget": 0.3}, "scale": {"budget": 3000.0}},
    "line": [
        {"name": "a", "supply": "deck", "part": [strip("a", 9), strip("b", 4, parallel_to="a")]},
        {"name": "c", "supply": "scale", "part": [strip("c", 60_000)]},
        {"name": "d", "supply": "deck", "led": "sk6812-rgbw", "part": [strip("d", 3)]},
    ],
    "layer": [layer()],
}
THIRDS = {"third": "index % 3 == 1"}
DESIGNS = {
    "heron": lambda: fd.load(fd.demo_file("heron.toml")),
    **{effect: lambda effect=effect: all_of(effect) for effect in EFFECTS},
    "no signals": lambda: design(layer("solid")),
    "no layers": design,
    "one LED": lambda: design(layer("sweep"), count=1),
    "300 LEDs, scattered": lambda: design(layer(on="third"), count=300, groups=THIRDS),
    "40,000 LEDs, scattered": lambda: design(
        layer("gauge", value="s"), layer(on="third", level="s"), count=40_000,
        signals={"s": {}}, groups=THIRDS,
    ),
    "a live picture": lambda: design(
        layer(colour="rim", level=0.5), layer(on="third", colour="rim", blend="max"), count=9,
        signals={"rim": {"kind": "picture", "lost_after": 1}}, groups=THIRDS,
    ),
    "budgets": lambda: fd.Design.from_values(BUDGETS),
    "odd names": lambda: fd.Design.from_values(ODD_NAMES),
}  # fmt: skip


def write(emitted, folder):
    (folder / f"{emitted.name}.h").write_text(emitted.header, encoding="utf-8")
    path = folder / "program.c"
    path.write_text(emitted.source, encoding="utf-8")
    return path


def compile_c(compiler, flags, *paths, into):
    done = subprocess.run(
        [*compiler.command, *flags, *map(str, paths), "-o", str(into), "-lm"],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr[:2000]


@pytest.mark.parametrize(
    ("name", "how"),
    [
        *((name, "-fsyntax-only") for name in EFFECTS),
        *((name, "-O3") for name in DESIGNS if name not in EFFECTS),
    ],
)
def test_emitted_c_compiles_without_a_warning(compiler, tmp_path, name, how):
    path = write(DESIGNS[name]().emit(), tmp_path)
    compile_c(compiler, [*STRICT, how, "-c"], path, into=tmp_path / "program.o")


@pytest.mark.parametrize("name", ["heron", "odd names"])
def test_the_header_is_c_plus_plus_too(compiler, tmp_path, name):
    emitted = DESIGNS[name]().emit()
    write(emitted, tmp_path)
    user = tmp_path / "user.cpp"
    user.write_text(
        f'#include "{emitted.name}.h"\nint x() {{ return {emitted.name.upper()}_LEDS; }}\n'
    )
    compile_c(compiler, ["-Wall", "-Werror", "-fsyntax-only"], user, into=tmp_path / "none")
