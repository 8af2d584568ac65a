"""The emitted C as a controller's maker compiles it: no warning, nothing undefined, same bytes."""

from __future__ import annotations

import subprocess
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from agreement import all_of
from fendra.core.effects import EFFECTS
from helpers import design, layer, strip

STRICT = ["-std=c99", "-Wall", "-Wextra", "-Wconversion", "-pedantic", "-Werror"]
SANE = ["-std=c99", "-O1", "-g", "-ffp-contract=off",
        "-fsanitize=address,undefined,float-cast-overflow,float-divide-by-zero",
        "-fno-sanitize-recover=all"]  # fmt: skip
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
    ("name", "level"),
    [
        *((name, "-O0") for name in DESIGNS),
        *((name, "-O3") for name in DESIGNS if name not in EFFECTS),
    ],
)
def test_emitted_c_compiles_without_a_warning(compiler, tmp_path, name, level):
    path = write(DESIGNS[name]().emit(), tmp_path)
    compile_c(compiler, [*STRICT, level, "-c"], path, into=tmp_path / "program.o")


@pytest.mark.parametrize("name", ["heron", "odd names"])
def test_the_header_is_c_plus_plus_too(compiler, tmp_path, name):
    emitted = DESIGNS[name]().emit()
    write(emitted, tmp_path)
    user = tmp_path / "user.cpp"
    user.write_text(
        f'#include "{emitted.name}.h"\nint x() {{ return {emitted.name.upper()}_LEDS; }}\n'
    )
    compile_c(compiler, ["-Wall", "-Werror", "-fsyntax-only"], user, into=tmp_path / "none")


@pytest.mark.parametrize(
    ("at_once", "budget"), [("default", 4.8), ("default", 1.2), ("16", 4.8), ("1", 1.2)]
)
def test_the_sanitisers_find_nothing_over_the_ride_and_the_bytes_are_the_films(
    compiler, tmp_path, at_once, budget
):
    """Out of bounds, undefined shifts and conversions, divisions by 0: none; painted whole and in
    pieces, as a controller with little memory does; held back by the limiter, and not."""
    heron, ride = fd.load(fd.demo_file("heron.toml")), fd.read_tape(fd.demo_file("ride.csv"))
    deck = heron.supplies["deck"].model_copy(update={"budget": budget})
    heron = heron.model_copy(update={"supplies": {"deck": deck}})
    film = heron.compile(engine="numpy").film(ride)
    emitted, fed = heron.emit(), [n for n, s in heron.signals.items() if s.of is None]
    path = write(emitted, tmp_path)
    defines = [
        f"-DPROGRAM={emitted.name}", f'-DPROGRAM_H="{emitted.name}.h"',
        f"-DLEDS={emitted.name.upper()}_LEDS", f"-DSIGNALS={len(fed)}", f"-I{tmp_path}",
        *([] if at_once == "default" else [f"-DAT_ONCE={at_once}"]),
    ]  # fmt: skip
    program = tmp_path / "replay"
    compile_c(compiler, [*SANE, *defines], path, Path(__file__).with_name("replay.c"), into=program)
    values, is_new = ride.heard(fed, film.times)
    row = [("now_ms", "<u4"), ("signals", [("value", "<f4"), ("is_new", "u1")], (len(fed),))]
    frames = np.zeros(len(film), np.dtype(row))
    frames["now_ms"] = np.rint((film.times - ride.start_s) * 1000)
    frames["signals"]["value"], frames["signals"]["is_new"] = values, is_new
    done = subprocess.run([program], input=frames.tobytes(), capture_output=True, check=False)
    assert done.returncode == 0, done.stderr.decode()[:2000]
    assert done.stdout == film.rgb.tobytes()
