"""What the page's module tells of an LED is what `explain` says; and any design has a module."""

from __future__ import annotations

import base64

import numpy as np
import pytest
import wasmtime
from hypothesis import Phase, assume, given, settings

import fendra as fd
from agreement import all_of
from fendra.core.effects import EFFECTS
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.page.gather import look_of, tape_data
from helpers import design, layer, tape
from strategies import designs, news


class Running:
    """A look's module, by wasmtime."""

    def __init__(self, look):
        self.look, self.places = look, look.memory
        machine = wasmtime.Engine()
        self.store = wasmtime.Store(machine)
        module = wasmtime.Module(machine, base64.b64decode(look.module))
        self.exports = wasmtime.Instance(self.store, module, []).exports(self.store)
        self.call("init")

    def call(self, name, *args):
        return self.exports[name](self.store, *args)

    def at(self, address, kind="<f4"):
        size = np.dtype(kind).itemsize
        held = self.exports["memory"].read(self.store, address, address + size)
        return np.frombuffer(held, kind)[0].item()

    def put(self, address, value, kind="<f4"):
        self.exports["memory"].write(self.store, np.array([value], kind).tobytes(), address)

    def step(self, now_ms, news):
        for part, at in self.places.signals.items():
            self.put(at + 4, part in news, "<u4")
            if part in news:
                self.put(at, news[part])
        self.call("step", now_ms)

    def read(self, reading):
        if reading.at is None:
            return reading.value
        return self.at(reading.at, "<f4" if reading.kind == "f32" else "<u4")

    def rgb(self):
        at = self.places.rgb
        return bytes(self.exports["memory"].read(self.store, at, at + 3 * self.places.leds))


def test_it_tells_of_heron_what_explain_says():
    """At moments in which a turn signal, the brake and the hubs are on; three LEDs of each part."""
    made = fd.load(fd.demo_file("heron.toml"))
    ride = fd.read_tape(fd.demo_file("ride.csv"), made)
    film = made.compile(engine="numpy").film(ride)
    look = look_of(made.examined.sound, ride, "")
    running = Running(look)
    fed = made.compile().fed
    values, is_new = ride.heard(fed, film.times)
    wanted = {1140: ("tail-bar:4", "nose-bar:2"), 1430: ("deck-left:9", "hub-right:5")}
    compared = 0
    for frame in range(max(wanted) + 1):
        heard = {fed[i]: values[frame, i] for i in np.flatnonzero(is_new[frame])}
        running.step(20 * frame, heard)
        for name in wanted.get(frame, ()):
            told = film.explain(name, float(film.times[frame]))
            row = next(i for i in range(len(film.layout)) if _name(film.layout, i) == name)
            for touch in (touch for touch in told.touches if touch.is_on):
                layer = next(each for each in look.layers if each.name == touch.layer)
                painted = next(p for p in running.places.layers if p.number == layer.number)
                (place,) = [p + row - a for a, b, p in layer.runs if a <= row < b]
                if painted.tells:
                    running.call(f"tell{layer.number}", place, row)
                for what, expected in (("share", touch.cover), ("level", touch.level)):
                    found = painted.tells.get(what) or running.places.told.get(
                        f"why:layer:{layer.number}:{what}"
                    )
                    assert running.read(found) == pytest.approx(expected, abs=1e-7), (name, what)
                    compared += 1
        if frame in wanted:
            assert running.rgb() == film.rgb[frame].tobytes()
    assert compared >= 8


def _name(layout, row):
    return f"{layout.part_names[int(layout.part[row])]}:{int(layout.index[row])}"


@pytest.mark.parametrize("effect", EFFECTS)
def test_every_effect_is_told_of_on_every_led(effect):
    """With everything bound to a signal, on a strip and on every second LED."""
    look = look_of(all_of(effect, ("bar", "odd")).examined.sound, None, "")
    running = Running(look)
    running.step(0, {"s": 0.6})
    told = 0
    for each in running.places.layers:
        for first, end, place in look.layers[each.number].runs[:2]:
            for spot in range(first, min(end, first + 3)) if each.tells else ():
                running.call(f"tell{each.number}", place + spot - first, spot)
                told += all(np.isfinite(running.read(item)) for item in each.tells.values())
    assert told or not any(each.tells for each in running.places.layers)


@settings(max_examples=10, phases=(Phase.explicit, Phase.reuse, Phase.generate))
@given(designs(), news)
def test_any_design_has_a_page_whose_module_gives_its_bytes(values, frames):
    made = fd.Design.from_values(values)
    assume(not any(finding.severity == "error" for finding in made.check()))
    running = Running(look_of(made.examined.sound, None, ""))
    numpy = NumpyEngine(made.examined.sound.plan)
    out, now_ms = np.empty((numpy.plan.spot_count, 3), np.uint8), 0
    for step_ms, s, on in [(0, 0.5, True), *frames[:8]]:
        now_ms += step_ms
        heard = {"s": np.float32(s), "on": float(on)}
        running.step(now_ms, heard)
        numpy.frame(now_ms, heard, out)
        assert running.rgb() == out.tobytes()
    for each in running.places.layers:
        if each.tells:
            running.call(f"tell{each.number}", 0, 0)


def test_a_tape_is_packed_as_a_film_hears_it():
    """20 rows a second at 50 frames a second; a column with gaps, values beyond what is held."""
    made = design(layer(level="s"), signals={"s": {}, "far": {}})
    played = tape(s=[0.25, np.nan, 0.5, 0.75], far=[1, 2e9, 3, 4])
    told = tape_data(played, ("s", "far", "other"), made.rate)
    assert (told.frames, [*told.courses]) == (8, ["s", "far"])
    news = np.unpackbits(np.frombuffer(base64.b64decode(told.courses["s"].news), np.uint8),
                         bitorder="little")  # fmt: skip
    assert np.flatnonzero(news).tolist() == [0, 5]  # 0.1 s is frame 5; 0.15 s is after the last
    assert np.frombuffer(base64.b64decode(told.courses["s"].values), "<f4").tolist() == [0.25, 0.5]
    far = np.frombuffer(base64.b64decode(told.courses["far"].values), "<f4")
    assert far.max() == 1e9
    clock = np.frombuffer(base64.b64decode(told.clock_ms), "<u4")
    assert clock.tolist() == [20 * i for i in range(8)]


def test_a_live_picture_and_every_kind_of_signal_have_a_page():
    signals = {
        "tint": {"kind": "colour"}, "sound": {"kind": "vector", "size": 3, "range": [0, 2]},
        "mode": {"kind": "choice", "choices": ["a", "b"]}, "hit": {"kind": "event"},
        "say": {"kind": "text", "choices": ["go"]}, "rim": {"kind": "picture"},
        "pack": {"cells": 4, "range": [3.2, 4.2]}, "on": {"kind": "switch"},
    }  # fmt: skip
    made = design(layer(colour="rim"), layer("bands", levels="sound", blend="add"),
                  signals=signals, units="in")  # fmt: skip
    look = look_of(made.examined.sound, None, "")
    known = {signal.name: signal for signal in look.signals}
    assert known["hit"].parts == ["hit", "hit.x", "hit.y", "hit.z"]
    assert (known["pack"].low, known["pack"].high) == pytest.approx((12.8, 16.8))
    assert known["sound"].parts == ["sound[0]", "sound[1]", "sound[2]"]
    running = Running(look)
    running.step(0, {"rim": 1.0})
    running.call("tell0", 2, 2)
    assert look.unit_mm == 25.4
    assert running.rgb() == bytes(24)
