"""Effects and scenes: what each costs a frame, and the richest demo design as a whole."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.cli.effect_examples import example_of
from fendra.core.effects import EFFECTS

SPOTS = 300
FOLDER = fd.demo_file("heart.png").parent


@pytest.mark.parametrize("spots", [SPOTS])
@pytest.mark.parametrize("effect", EFFECTS)
def test_a_frame_of_an_effect(benchmark, effect, spots):
    """On a grid, with the keys of its example, as bytes."""
    part = {"name": "grid", "shape": "grid", "columns": spots // 10, "rows": 10, "pitch": 10}
    signals = {name: {} for name in ("level", "bass", "mid", "treble", "steer")}
    design = fd.Design.from_values(
        {
            "line": [{"name": "a", "part": [part]}],
            "signals": {**signals, "beat": {"kind": "switch"}},
            "layer": [{"name": "l", "on": "grid", "effect": effect, **example_of(effect)}],
        },
        folder=FOLDER,
    )
    program = design.compile(engine="numpy")
    program.frame(level=0.6, beat=1, bass=0.5, at=0.0)
    benchmark(program.frame, level=0.6)


@pytest.mark.parametrize("spots", [455])
def test_compiling_the_richest_demo_design(benchmark, spots):
    cabinet = fd.load(fd.demo_file("cabinet.toml"))
    program = benchmark.pedantic(cabinet.compile, ("numpy",), rounds=7, warmup_rounds=1)
    assert len(program.layout.leds) == spots


@pytest.mark.parametrize("spots", [455])
@pytest.mark.parametrize("engine", ["numpy", "native"])
def test_ninety_seconds_of_the_richest_demo_design(benchmark, engine, spots):
    """At 60 frames a second, the game three times over."""
    program = fd.load(fd.demo_file("cabinet.toml")).compile(engine=engine)
    game = fd.read_tape(fd.demo_file("game.csv"))
    times = np.concatenate([game.times + 30.0 * i for i in range(3)])
    keep = np.concatenate([[True], np.diff(times) > 1e-6])
    signals = {name: np.tile(values, 3)[keep] for name, values in game.signals.items()}
    film = benchmark.pedantic(
        program.film, (fd.Tape(times[keep], signals),), {"rate": 60}, rounds=3, warmup_rounds=1
    )
    assert len(film) == 5401
    assert len(film.layout.leds) == spots
