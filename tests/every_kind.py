"""One design with every kind of input, what happens to it, and what it must show: worked out by hand."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from helpers import strip


def every_kind(chip, pins, more=None):
    """The design on a chip. pins: of each input. more: signals that only some chips have."""
    one = {name: each[0] for name, each in pins.items()}
    signals = {
        "rpm": {"range": [0, 100], "pin": {"name": one["rpm"], "kind": "pulses", "per": 2,
                                           "quiet": 0.5}},
        "throttle": {"range": [0, 1], "lost_after": 0.1, "fallback": 0.2,
                     "pin": {"name": one["throttle"], "kind": "servo"}},
        "volume": {"range": [0, 1], "pin": {"name": one["volume"], "kind": "knob",
                                            "other": pins["volume"][1], "step": 0.1}},
        "mode": {"kind": "choice", "choices": ["a", "b", "c"], "lost_after": 0.5,
                 "pin": {"name": one["mode"], "kind": "servo"}},
        "dial": {"range": [0, 1], "pin": {"name": one["dial"], "calibrate": [0.25, 0.75]}},
        "down": {"kind": "vector", "size": 5, "pin": {
            "kind": "matrix", "rows": pins["rows"], "columns": pins["columns"],
            "order": [0, 2, 1, 3, -1, 4]}},
        "press": {"kind": "event", "pin": {"kind": "matrix", "of": "down", "part": "keys"}},
        "key": {"range": [0, 4], "pin": {"kind": "matrix", "of": "down"}},
        "horn": {"kind": "switch", "pin": {"name": one["horn"], "pull": "none"}},
        **(more or {}),
    }  # fmt: skip
    colours = (
        "rpm / 100, throttle, volume",
        "0.2 if mode == 'a' else 0.4 if mode == 'b' else 1, "
        f"{'heat / 100' if 'heat' in signals else 0}, dial",
        "down[0], down[1], down[2]", "down[3], down[4], key / 4",
        "(press.x + 200) / 400, press.y / 100, 1 if horn else 0",
        "1 if press else 0, 0, 0",
    )  # fmt: skip
    design = fd.Design.from_values({
        "name": "Every kind", "rate": 50, "controllers": {"main": {"type": chip}},
        "line": [
            {"name": "bar", "pin": one["bar"], "order": "RGB", "part": [strip("bar", 6)]},
            {"name": "keys", "pin": one["keys"], "led": "sk6812-rgbw", "part": [
                {"name": "keys", "shape": "keys", "columns": [{"keys": 2}, {"keys": 3}],
                 "at": [-140, 30]}]},
        ],
        "signals": signals,
        "layer": [
            {"name": f"l{i}", "on": f"bar[{i}]", "effect": "solid", "colour": f"rgb({text})"}
            for i, text in enumerate(colours)
        ],
    })  # fmt: skip
    assert [finding for finding in design.check() if finding.severity == "error"] == []
    return design


def happenings(pins):
    """What happens at the pins: rows of ms, what (pin, key or share), which pin, value.

    80 pulses a second up to 0.6 s; a servo's signal of 1.25 ms up to 0.5 s, and one of 1.6 ms up to
    1 s, none of them in step with the frames; three clicks on at 0.1 s and one back at 0.3 s; 60 % of
    the full scale; keys: row 0 and column 1 at 0.45 s for 0.2 s, then two at once at 0.75 s.
    """
    rows = []
    for name, from_ms, to_ms, period_ms, high_ms in (
        ("rpm", 1, 600, 12.5, 6), ("throttle", 4, 500, 21, 1.25), ("mode", 9, 1000, 18, 1.6),
    ):  # fmt: skip
        (pin,) = pins[name]
        for ms in map(float, np.arange(from_ms, to_ms, period_ms)):
            rows += [(ms, "pin", pin, 1), (ms + high_ms, "pin", pin, 0)]
    first, second = pins["volume"]
    rows += [(0, "pin", first, 1), (0, "pin", second, 1)]
    for at_ms, clicks in ((100, 3), (300, -1)):
        on, back = [(0, 1), (0, 0), (1, 0), (1, 1)], [(1, 0), (0, 0), (0, 1), (1, 1)]
        for i, (a, b) in enumerate((on if clicks > 0 else back) * abs(clicks)):
            rows += [(at_ms + 3 * i, "pin", first, a), (at_ms + 3 * i, "pin", second, b)]
    rows += [(0, "share", pins["dial"][0], 0.6), (0, "pin", pins["horn"][0], 0)]
    rows += [(0, "key", (row, column), 0) for row in pins["rows"] for column in pins["columns"]]
    (row, other), (column, second, third) = pins["rows"], pins["columns"]
    rows += [(450, "key", (row, second), 1), (650, "key", (row, second), 0)]
    rows += [(750, "key", (row, column), 1), (750, "key", (other, third), 1)]
    rows += [(800, "pin", pins["horn"][0], 1)]
    return sorted(rows, key=lambda each: each[0])


def assert_told(design, frames, loose=0.0, *, has_keys=True):
    """That frames (ms, bytes) show it; gives the bar near 0.4 s. loose: how far lengths of pulses may
    be off, of their range.

    Pulses: 80 Hz, two of a turn: 40 of 100, and 0 half a second after the last. 1.25 ms of 1 to 2 is a
    quarter, and the fallback 0.2 where it stays away. Three clicks of 0.1, one back. 1.6 ms is the middle
    one of three words. 60 % of 25 to 75 % is 0.7. Row 0, column 1 is key 2; of two keys that go down in
    one scan each has a frame of its own.
    """
    shown = {ms: np.frombuffer(data[:18], np.uint8).reshape(6, 3) / 255 for ms, data in frames}

    def at(ms):
        return shown[min(shown, key=lambda each: abs(each - ms))]

    near = 0.006 + loose
    assert at(250)[0] == pytest.approx([0.4, 0.25, 0.3], abs=near)
    assert at(400)[0] == pytest.approx([0.4, 0.25, 0.2], abs=near)
    assert at(700)[0, 1] == pytest.approx(0.2, abs=0.006)
    assert 0 < at(900)[0, 0] < 0.2
    assert at(1200)[0, 0] == 0
    assert (at(400)[1, 0], at(400)[1, 2]) == pytest.approx((0.4, 0.7), abs=0.006)
    assert at(400)[2:4].tolist() == [[0, 0, 0], [0, 0, 0]]
    assert (at(780)[4, 2], at(850)[4, 2]) == (0, 1)
    if not has_keys:
        return at(400)
    assert at(550)[2:4] == pytest.approx(np.array([[0, 0, 1], [0, 0, 0.5]]), abs=0.003)
    assert at(700)[2:4] == pytest.approx(np.array([[0, 0, 0], [0, 0, 0.5]]), abs=0.003)
    assert at(1000)[2:4] == pytest.approx(np.array([[1, 0, 0], [0, 1, 1]]), abs=0.003)
    told = [ms for ms, bar in shown.items() if bar[5, 0] == 1]
    assert len(told) == 3
    assert 450 < told[0] < 500  # an 8-bit part may wait for a servo first
    assert 0 < told[2] - told[1] < 46  # each has a frame of its own
    assert [shown[ms][3, 2] for ms in told] == pytest.approx([0.5, 0, 1], abs=0.003)
    layout = design.compile(engine="numpy").layout
    places = layout.position[layout.rows_of_part("keys")]
    for ms, key in zip(told, (2, 0, 4), strict=True):
        x, y = places[key][:2]
        wanted = [(x + 200) / 400, min(max(y / 100, 0), 1)]
        assert shown[ms][4, :2] == pytest.approx(wanted, abs=0.003)
    return at(400)
