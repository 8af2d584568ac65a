"""Designs give the same bits natively as in NumPy: the shipped ones over their tapes, and any."""

from __future__ import annotations

import runpy
from pathlib import Path

import numpy as np
import pytest
from hypothesis import Phase, assume, given, settings

import fendra as fd
from agreement import assert_same_light
from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.native.engine import NativeEngine
from strategies import designs, news, recordings

DEMO = Path(fd.demo_file("heron.toml")).parent
EXAMPLES = Path(__file__).parents[2] / "examples"

COMPILED = (Phase.explicit, Phase.reuse, Phase.generate)
"""Without shrinking: each try takes a compiler half a second."""


def shipped():
    """Every design that ships with every tape that has a signal of it, and those of the examples."""
    tapes = [fd.read_tape(path) for path in sorted(DEMO.glob("*.csv"))]
    for path in sorted(DEMO.glob("*.toml")):
        design = fd.load(path)
        own = [tape for tape in tapes if {*design.signals} & {*tape.signals}]
        yield pytest.param(design, own, id=path.stem)
    for path in sorted(EXAMPLES.glob("*.py")):
        names = runpy.run_path(str(path))
        if "design" in names:
            yield pytest.param(names["design"], [names["tape"]], id=path.stem)


@pytest.mark.parametrize(("design", "tapes"), [*shipped()])
def test_a_shipped_design_gives_the_same_bits_over_its_whole_tape(compiler, design, tapes):
    assert tapes
    plain, native = (design.compile(engine=engine) for engine in ("numpy", "native"))
    assert (plain.engine.name, native.engine.name) == ("numpy", "native")
    for tape in tapes:
        assert native.film(tape).rgb.tobytes() == plain.film(tape).rgb.tobytes()
        times = tape.start_s + np.arange(int(tape.duration_s * design.rate)) / design.rate
        values, is_new = tape.heard(plain.fed, times)
        frames = [
            (20, {plain.fed[i]: values[row, i] for i in np.flatnonzero(is_new[row])})
            for row in range(len(times))
        ]
        assert_same_light(plain.engine, native.engine, frames)


@settings(max_examples=25, phases=COMPILED)
@given(designs(), news)
def test_any_design_gives_the_same_bits(compiler, values, frames):
    design = fd.Design.from_values(values)
    assume(not any(finding.severity == "error" for finding in design.check()))
    recording = design.compile(engine="numpy").recording
    assert_same_light(
        NumpyEngine(recording), NativeEngine(design, recording),
        [(step_ms, {"s": s, "on": float(on)}) for step_ms, s, on in [(0, 0.5, True), *frames]],
    )  # fmt: skip


@settings(max_examples=40, phases=COMPILED)
@given(recordings(), news)
def test_any_graph_gives_the_same_bits(compiler, made, frames):
    design, recording = made
    assert_same_light(
        NumpyEngine(recording), NativeEngine(design, recording),
        [(step_ms, {"s": s, "on": float(on)}) for step_ms, s, on in [(0, 0.5, True), *frames]],
    )  # fmt: skip
