"""What is told of firmware before it is flashed, against what it takes: never too little.

None of these designs was among those that the figures were fitted on.
"""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.firmware.write import write_project
from targets import frames_of, make, size_of

PINS = {
    "atmega328p": ("D6", ("D2", "D3", "A0")),
    "stm32f103": ("PA8", ("PB0", "PB1", "PA1")),
    "rp2040": ("GP6", ("GP2", "GP3", "GP26")),
}
TOOLS = {
    "atmega328p": "avr-size",
    "stm32f103": "arm-none-eabi-size",
    "rp2040": "arm-none-eabi-size",
}
KEYS = [[19.05 * x, -19.05 * y] for y in range(4) for x in range(6)]
SCENES = [
    {"name": "alarm", "when": "al"},
    {"name": "night", "when": "tap", "fade": 0.5},
    {"name": "day"},
]


def strip(name="p", count=20):
    return {"name": name, "shape": "strip", "start": [0, 0], "end": [300, 0], "count": count}


def grid(name, columns, rows):
    return {
        "name": name,
        "shape": "grid",
        "columns": columns,
        "rows": rows,
        "pitch": [10, 10],
        "first": "top-left",
    }


def layer(effect, on="all", **keys):
    return {"effect": effect, "on": on, **keys}


DESIGNS = {
    "plain": ([strip(), strip("q")], [
        layer("solid", colour="red"), layer("blink", "q", colour="orange", when="tap")], {}),
    "half keyboard": ([{"name": "pad", "shape": "points", "points": KEYS}], [
        layer("gradient", colours=["#102040", "#402010"]), layer("ripple", colour="white"),
        layer("gauge", value="lev", colours=["green", "red"])], {}),
    "text matrix": ([grid("p", 12, 8)], [
        layer("text", text="GO {lev:3.1}", colour="orange"), layer("cloud", colour="#001030", priority=-1)], {}),
    "four channels": ([strip(), strip("q", 30)], [
        layer("gradient", colours=["white", "orange"]), layer("sweep", colour="red", when="tap")],
        {"led": "sk6812-rgbw"}),
    "scenes": ([strip(), strip("q")], [
        layer("solid", colour="white", scene="day"), layer("comet", colour="blue", scene="night"),
        layer("cloud", colour="navy", scene="night"), layer("pulse", colour="red", scene="alarm")],
        {"scene": SCENES}),
    "motion": ([strip(count=40)], [
        layer("comet", colour="white", rate="0.2+lev"), layer("glint", colour="gold"),
        layer("wave", colour="blue", blend="add")], {}),
    "gauges": ([strip(count=12), grid("q", 5, 5)], [
        layer("field", "q", colour="blue"), layer("gauge", "p", value="lev", colours=["lime", "gold", "red"], peak=True),
        layer("beacon", "p", colour="red", when="tap")], {"level": "0.4+0.5*lev"}),
    "flames": ([strip(count=36)], [
        layer("fill", colour="orange", when="tap"), layer("flicker", colour="orange"),
        layer("spin", colour="white", when="al")], {"dither": True, "rate": 100}),
}  # fmt: skip


def design_of(name, chip):
    parts, layers, more = DESIGNS[name]
    out, (tap, al, lev) = PINS[chip]
    line = {"name": "l", "pin": out, "part": parts, "led": more.get("led", "ws2812b")}
    signals = {
        "tap": {"kind": "switch", "pin": tap}, "al": {"kind": "switch", "pin": al},
        "lev": {"range": [0, 1], "smooth": 0.2, "pin": {"name": lev, "kind": "analogue"}},
    }  # fmt: skip
    text = f"{more} {layers}"
    return fd.Design.from_values({
        "name": name, "rate": 40, "controllers": {"main": {"type": chip}}, "line": [line],
        "layer": [{"name": f"{i}", **each} for i, each in enumerate(layers)],
        "signals": {key: signals[key] for key in signals if key in text},
        **{key: each for key, each in more.items() if key != "led"},
    })  # fmt: skip


@pytest.mark.parametrize("chip", [*PINS])
@pytest.mark.parametrize("name", [*DESIGNS])
def test_no_size_is_told_too_small(avr, arm, tmp_path, chip, name):
    """Flash as the linker counts it, and what stands in RAM; the RP2040 runs its program from there.
    The smallest program is told up to a quarter too large, others by an eighth at the most."""
    for receiver in (False, True) if name in ("scenes", "four channels") else (False,):
        project = design_of(name, chip).firmware(receiver=receiver)
        folder = tmp_path / f"{receiver}"
        write_project(project.files, folder)
        make(folder)
        flash, memory = size_of(TOOLS[chip], folder / f"{project.name}.elf")
        told = project.told.cost
        memory += flash if chip == "rp2040" else 0
        most = 1.25 if name == "plain" else 1.13
        assert flash <= told.flash <= most * flash
        assert memory <= told.memory <= most * memory


@pytest.mark.parametrize("name", [*DESIGNS])
def test_no_frame_takes_longer_than_is_told(avr, tmp_path, name):
    """Cycles of an emulated ATmega328P, with every layer and scene on for a while, and its stack."""
    lit = design_of(name, "atmega328p")
    rows = np.arange(80)
    course = {"tap": rows // 7 % 2, "al": rows // 11 % 2, "lev": rows % 33 / 32}
    signals = {key: course[key].astype(float) for key in lit.signals}
    ran = avr.film(frames_of(lit, fd.Tape(rows / lit.rate, signals)), tmp_path)
    told = lit.firmware().told.cost
    assert ran.cycles.max() <= told.work <= 1.35 * ran.cycles.max()
    assert ran.stack <= told.stack
    assert told.rate_hz <= 1 / (ran.cycles.max() / told.hz + told.line_s)
