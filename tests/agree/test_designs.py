"""Designs give the same bits on every engine: the shipped ones over their tapes, and any."""

from __future__ import annotations

import runpy
from pathlib import Path

import numpy as np
import pytest
from hypothesis import Phase, assume, given, settings

import fendra as fd
from agreement import assert_same_light
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.layout.wire import LineBytes
from fendra.core.program import Program
from fendra.native.wasm import WasmEngine
from helpers import finished, layer, strip
from strategies import designs, news, plans

DEMO = Path(fd.demo_file("heron.toml")).parent
TAPES = sorted({*DEMO.glob("*.csv")} - {DEMO / "board.csv"})  # that one has places
EXAMPLES = Path(__file__).parents[2] / "examples"

COMPILED = (Phase.explicit, Phase.reuse, Phase.generate)
"""Without shrinking: each try takes a compiler half a second."""


def shipped(path):
    """A design that ships with every tape that has a signal of it; that of an example with its own."""
    if path.suffix == ".toml":
        fd.trust(DEMO / "stripes.py")
        design, tapes = fd.load(path), map(fd.read_tape, TAPES)
        tapes = [tape for tape in tapes if {*design.signals} & {*tape.signals}]
        return design, tapes or [fd.Tape([0.0, 4.0], {})]  # without signals only time passes
    names = runpy.run_path(str(path))
    return names["design"], [names["tape"]]


WITH_DESIGN = "\ndesign = fd.Design.from_values("
SHIPPED = sorted({*DEMO.glob("*.toml")} - {DEMO / "rally.toml"})
SHIPPED += [
    p for p in sorted(EXAMPLES.glob("*.py")) if WITH_DESIGN in p.read_text(encoding="utf-8")
]


@pytest.mark.parametrize("path", SHIPPED, ids=lambda path: path.stem)
def test_a_shipped_design_gives_the_same_bits_over_its_whole_tape(engine, path):
    design, tapes = shipped(path)
    assert tapes
    plain = design.compile(engine="numpy")
    other = Program(plain.plan, engine(plain.plan))
    for tape in tapes:
        film, expected = other.film(tape), plain.film(tape)
        assert film.rgb.tobytes() == expected.rgb.tobytes()
        for supply, shares in expected.let_through.items():
            assert (film.let_through[supply] == shares).all()
        times = tape.start_s + np.arange(int(tape.duration_s * design.rate)) / design.rate
        values, is_new = tape.heard(plain.fed, times)
        frames = [
            (20, {plain.fed[i]: values[row, i] for i in np.flatnonzero(is_new[row])})
            for row in range(len(times))
        ]
        assert_same_light(plain.engine, other.engine, frames, has_bytes=False)  # the film has them


def test_a_budget_is_kept_with_the_same_bytes_by_white_of_its_own(engine):
    """LEDs of unequal channels with and without white at one supply; each frame another colour."""
    channels = {"volts": 5, "channel_ma": {"R": 17, "G": 20, "B": 23}, "idle_ma": 1}
    white = {"volts": 5, "channel_ma": {"R": 20, "G": 17, "B": 23, "W": 5}, "idle_ma": 1}
    made = fd.Design.from_values({
        "leds": {"plain": {"order": "GRB", **channels}, "weak": {"order": "GRBW", **white}},
        "supplies": {"s": {"budget": 0.35}},
        "line": [{"name": "a", "led": "weak", "supply": "s", "part": [strip("a", 13)]},
                 {"name": "b", "led": "plain", "supply": "s", "part": [strip("b", 5, at=[0, 9])]}],
        "signals": {"t": {"kind": "colour"}},
        "layer": [{"name": "l", "on": "all", "effect": "solid", "colour": "t"}],
    })  # fmt: skip
    plan = made.compile(engine="numpy").plan
    rng = np.random.default_rng(5)
    frames = [(1500, {"t": float(each)}) for each in rng.integers(0x202020, 0xFFFFFF, 40)]
    numpy = NumpyEngine(plan)
    assert_same_light(numpy, engine(plan), frames)
    assert numpy.gains()[0] < 65_536


def test_a_scene_of_layers_that_are_never_on_is_not_mixed(engine):
    """A third and two thirds of a light are not that light to the last bit."""
    made = fd.Design.from_values({
        "line": [{"name": "a", "part": [strip("a", 7)]}], "signals": {"s": {}},
        "scene": [{"name": "one", "when": "s > 0.5", "fade": 0.3}, {"name": "two", "fade": 0.3}],
        "layer": [{"name": "l", "on": "a", "effect": "gradient", "colours": ["#123456", "#fedcba"]},
                  {"name": "never", "on": "a", "effect": "solid", "scene": "one", "when": False}],
    })  # fmt: skip
    plan = made.compile(engine="numpy").plan
    frames = [(0, {"s": 0.0}), *((100, {"s": 1.0}) for _ in range(4))]
    assert_same_light(NumpyEngine(plan), engine(plan), frames)


@settings(max_examples=25, phases=COMPILED)
@given(designs(), news)
def test_any_design_gives_the_same_bits(engine, values, frames):
    design = fd.Design.from_values(values)
    assume(not any(finding.severity == "error" for finding in design.check()))
    plan = design.compile(engine="numpy").plan
    assert_same_light(
        NumpyEngine(plan), engine(plan),
        [(step_ms, {"s": s, "on": float(on)}) for step_ms, s, on in [(0, 0.5, True), *frames]],
    )  # fmt: skip


@settings(max_examples=40, phases=COMPILED)
@given(plans(), news)
def test_any_graph_gives_the_same_bits(engine, plan, frames):
    assert_same_light(
        NumpyEngine(plan), engine(plan),
        [(step_ms, {"s": s, "on": float(on)}) for step_ms, s, on in [(0, 0.5, True), *frames]],
    )  # fmt: skip


LIVE = {
    "raw": {"calibrate": [1000, 2000], "range": [-1, 1], "dead_band": 0.1, "smooth": [0.05, 0.4]},
    "lux": {"curve": [[0, 0], [50, 0.8], [1000, 1]], "average": 0.4, "lost_after": 0.6},
    "pack": {"cells": "guess", "slew": [0.5, 2], "lost_after": 1},
    "night": {"kind": "switch", "of": "lux", "on_at": 0.2, "off_at": 0.5, "dwell": 0.3},
    "left": {"kind": "switch", "debounce": 0.02, "hold": 0.4},
    "tint": {"kind": "colour", "smooth": 0.2, "fallback": "navy"},
    "say": {"kind": "text", "choices": ["go", "stop"]},
    "hit": {"kind": "event"},
    "sound": {"kind": "vector", "size": 3, "range": [0, 1], "smooth": [0.01, 0.3]},
}


def test_every_kind_and_every_conditioning_is_the_same(engine):
    """Random news in uneven frames, for every key and every function over time."""
    design = fd.Design.from_values({
        "line": [{"name": "a", "part": [strip()]}], "signals": LIVE,
        "layer": [
            {"name": "1", "on": "bar", "effect": "solid", "colour": "tint", "cover": "sound[2]"},
            {"name": "2", "on": "bar", "effect": "ripple", "trigger": "hit", "x": "hit.x",
             "strength": "hit.strength", "when": "toggle(say == 'go')", "blend": "add"},
            {"name": "3", "on": "bar", "effect": "bands", "levels": "sound", "cover": "0.5 + raw / 2",
             "level": "clamp(pack / 4 + slope(raw, 0.1), 0, 1)", "when": "night or left"},
            {"name": "4", "on": "bar", "effect": "solid", "cover": "clamp(rate_of(left) / 9, 0, 1)",
             "level": "average(raw * raw, 0.3)", "colour": "hue(slew(lux * 90, 40))"},
            {"name": "5", "on": "bar", "effect": "solid", "colour": "red",
             "when": "pulse(hit, 0.1) or starts(night) or switch(raw, 0.5, 0.1)"
                     " and dwell(debounce(lux > 0.3, 0.05), 0.2)"},
            {"name": "6", "on": "bar", "effect": "solid", "cover": "peak(sound[0], 0.1, 1)",
             "level": "curve(lux, 0, 1, 0.5, 0.2) - dead_band(raw, 0.3)", "blend": "max"},
        ],
    })  # fmt: skip
    plain = design.compile(engine="numpy")
    random = np.random.default_rng(7)
    spans = {
        "raw": (900, 2100),
        "lux": (0, 1100),
        "pack": (0, 17),
        "tint": (0, 0xFFFFFF),
        "hit.x": (0, 70),
    }
    frames = []
    for _ in range(600):
        news = {name: np.float32(random.uniform(*spans.get(name, (0, 1)))) for name in plain.fed}
        kept = {name: value for name, value in news.items() if random.random() < 0.3}
        frames.append((int(random.integers(1, 60)), kept))
    assert_same_light(plain.engine, engine(plain.plan), frames)


def test_finished_light_gives_the_same_bits(engine):
    """White balances, ceilings that move, dither; two lines of unequal kinds."""
    keys = finished(signals={"s": {"smooth": 0.05}}, supplies={"s": {"budget": 0.2}})
    layers = [
        layer("gradient", name="a", colours=["white", "navy"]),
        layer("pulse", name="b", level="s", blend="add"),
        layer("flicker", name="c", on="face"),
    ]
    plan = fd.Design.from_values({"layer": layers, **keys}).compile(engine="numpy").plan
    frames = [(20, {"s": (i % 40) / 39}) for i in range(80)]
    assert_same_light(NumpyEngine(plan), engine(plan), frames)


def test_the_bytes_of_all_lines_are_those_that_go_down_the_wires():
    """A white channel, skipped addresses, another order, lines of unequal length."""
    design = fd.Design.from_values({
        "line": [{"name": "z", "part": [
                     {"name": "h", "shape": "hidden", "count": 3}, strip("z", 1, at=[0, 3])]},
                 {"name": "a", "led": "sk6812-rgbw", "part": [strip("a", 5, skip=[1, 2])]},
                 {"name": "b", "order": "BGR", "part": [strip("b", 9, at=[0, 7])]},
                 {"name": "c", "part": [strip("c", 2, at=[0, 9])]}],
        "layer": [layer("gradient", colours=["#ffe0c0", "#f0c0ff"])],
    })  # fmt: skip
    plan = design.compile(engine="numpy").plan
    for is_wide in (True, False):
        engine = WasmEngine(plan, is_wide=is_wide)
        out = np.empty((plan.spot_count, 3), np.uint8)
        engine.frame(40, {}, out)
        expected = LineBytes(design.layout(), design).bytes(out)
        assert [engine.bytes_of(line.name) for line in design.line] == expected
        assert (expected[0][:9], expected[1][4:12]) == (bytes(9), bytes(8))


def test_a_live_picture_gives_the_same_bits_and_is_black_again_after_a_reset(engine):
    """On part of the LEDs, off centre, in two layers; lost after half a second, then navy."""
    design = fd.Design.from_values({
        "line": [{"name": "a", "part": [strip("a", 9), strip("b", 6, at=[5, 20])]}],
        "signals": {"rim": {"kind": "picture", "on": "b", "lost_after": 0.5, "fallback": "navy"}},
        "groups": {"end": "index % 5 > 2"},
        "layer": [{"name": "1", "on": "b", "effect": "solid", "colour": "rim", "level": 0.7},
                  {"name": "2", "on": "end", "effect": "solid", "colour": "rim", "blend": "add"}],
    })  # fmt: skip
    plan = design.compile(engine="numpy").plan
    pair = [NumpyEngine(plan), engine(plan)]
    rng = np.random.default_rng(3)
    fed = plan.fed[0]
    for _ in range(2):
        lit = 0
        for number in range(40):
            if number in (2, 3, 20):
                light = rng.random((15, 3), np.float32)
                for each in pair:
                    each.picture("rim", light)
            news = {fed: 1.0} if number in (2, 3, 20) else {}
            (expected, _), (found, _) = (each.light(40 * number, news) for each in pair)
            assert found.tobytes() == expected.tobytes()
            lit += bool(found[:, 9:].any())
        assert lit > 30
        for each in pair:
            each.reset()
