"""Electrical sums against figures worked out by hand, at limits, below and above them."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS, unfold_pins
from fendra.core.catalogue.leds import CATALOGUE, LED_TYPES, LedError, LedFigures, led_type
from fendra.core.catalogue.supplies import Battery, Converter, Supply
from fendra.core.catalogue.wires import Lead, awg_to_mm2
from fendra.core.electric.budget import make_budget
from fendra.core.electric.data import (
    baud_for,
    line_bits,
    line_time_s,
    sacn_mbit,
    serial_bytes,
    serial_rate_hz,
    universes,
)
from fendra.core.electric.draws import draw_of
from fendra.core.electric.ladder import Ladder, Tap
from fendra.core.electric.leads import bears_a, fuse_for, wire_for, wire_ohm
from fendra.core.electric.loads import make_loads
from fendra.core.engines.c99.lines_alone import lines_alone
from fendra.outputs.packets import frame_to_packets
from helpers import design, layer, strip, tape


def line(count=10, supply="s", **keys):
    return {"name": "a", "supply": supply, "part": [strip(count=count)], **keys}


def budget(count=10, film=None, **keys):
    line_keys = {key: keys.pop(key) for key in ("led", "feed", "jump") if key in keys}
    return design(layer(), line=[line(count, **line_keys)], **keys).budget(film)


def codes(made):
    return {(finding.code, str(finding.severity)) for finding in made.check()}


# ---- LED types ----------------------------------------------------------------------------------


@pytest.mark.parametrize("name", LED_TYPES)
def test_the_catalogue_is_whole(name):
    led = LED_TYPES[name]
    assert led.least_volts < led.volts < led.most_volts
    assert set(led.channel_ua) == set(led.order)
    assert led.bits == {"one-wire": 8, "clocked": 8}[led.data] * len(led.order) + (
        8 if led.data == "clocked" else 0
    )
    assert led.about
    assert led.channel_ua == led.sheet_ua


def test_a_measured_current_scales_the_channels():
    """0.42 A for 60 LEDs: 7 mA each, 1 mA of them dark; so 2 mA a channel."""
    figures = LedFigures.model_validate({"measured": {"amps": 0.42, "leds": 60}})
    led = led_type("ws2812b", figures, CATALOGUE)
    assert led.channel_ua == {"G": 2000, "R": 2000, "B": 2000}
    assert led.sheet_ua["G"] == 20_000
    assert led.white_a() == pytest.approx(0.007)
    # A 12 V strip of 60 LEDs has 20 chips: 0.31 A are 15.5 mA each.
    of_three = LedFigures.model_validate({"measured": {"amps": 0.31, "leds": 60}})
    assert led_type("ws2811", of_three, CATALOGUE).channel_ua["R"] == round(14_500 / 3)
    # Four channels: white by its own channel, or by all of them.
    white = LedFigures.model_validate({"measured": {"amps": 0.66, "leds": 60}})
    assert led_type("sk6812-rgbw", white, CATALOGUE).channel_ua["W"] == 10_000
    every = LedFigures.model_validate({"measured": {"amps": 2.46, "leds": 60, "lit": "RGBW"}})
    assert led_type("sk6812-rgbw", every, CATALOGUE).channel_ua["W"] == 10_000


def test_a_design_adds_and_changes_types():
    values = {
        "leds": {
            "ws2812b": {"idle_ma": 0.5},
            "tall": {"order": "RGB", "volts": 24, "channel_ma": {"R": 5, "G": 4, "B": 3},
                     "idle_ma": 1, "bit_us": 2.5, "leds_a_chip": 6},
        },
        "line": [line(12, led="tall"), {"name": "b", "part": [strip("b", 3, at=[0, 9])]}],
    }  # fmt: skip
    made = fd.Design.from_values(values)
    tall, changed = (each.led_type for each in made.line)
    assert (tall.channel_ua, tall.leds_a_chip) == ({"R": 5000, "G": 4000, "B": 3000}, 6)
    assert (changed.idle_ua, changed.channel_ua["R"]) == (500, 20_000)
    assert made.layout().line_sizes == (2, 3)
    frame = made.compile().frame(at=0.0)
    assert [len(data) for data in frame.line_bytes()] == [6, 9]
    assert line_time_s(2, tall) == pytest.approx(2 * 24 * 2.5e-6 + 280e-6)


@pytest.mark.parametrize(
    ("figures", "key"),
    [
        ({"order": "RGB", "volts": 5, "idle_ma": 1}, "channel_ma"),
        ({"like": "ws2812"}, "like"),
        ({"like": "ws2812b", "channel_ma": {"R": 1, "G": 1}}, "channel_ma"),
        ({"like": "ws2812b", "volts": 3.0, "least_volts": 4.0}, "volts"),
        ({"like": "ws2812b", "measured": {"amps": 0.06, "leds": 60}}, "measured"),
        ({"like": "ws2812b", "measured": {"amps": 1, "leds": 60, "lit": "RGBW"}}, "measured"),
        ({"like": "ws2812b", "channel_ma": 0, "measured": {"amps": 1, "leds": 60}}, "measured"),
    ],
)
def test_figures_that_make_no_type(figures, key):
    with pytest.raises(LedError) as caught:
        led_type("mine", LedFigures.model_validate(figures), CATALOGUE)
    assert caught.value.key == key


BAD_FIGURES = [
    ("supplies.s.volts", -5, "out of range"),
    ("supplies.s.volts", 0, "out of range"),
    ("supplies.s.volts", 230, "out of range"),
    ("supplies.s.amps", 0, "out of range"),
    ("supplies.s.amps", float("nan"), "out of range"),
    ("supplies.s.amps", 1e9, "out of range"),
    ("supplies.s.budget", -1, "out of range"),
    ("supplies.s.usb", "4.0", "this must be 2.0, 3.0,"),
    ("supplies.s.limiter", "yes", "this must be true or false"),
    ("supplies.s.wire", {"metres": -1}, "out of range"),
    ("supplies.s.wire", {"metres": 500}, "out of range"),
    ("supplies.s.wire", {"mm2": 0}, "out of range"),
    ("supplies.s.wire", {"awg": 99}, "out of range"),
    ("supplies.s.battery", {"ah": 0}, "out of range"),
    ("supplies.s.battery", {"volts": 12}, "'ah' is missing"),
    ("supplies.s.converter", {"efficiency": 1.5}, "out of range"),
    ("supplies.s.converter", {"efficiency": 90}, "out of range"),
    ("controllers.c.ram", 0, "out of range"),
    ("controllers.c.logic_volts", -3.3, "out of range"),
    ("controllers.c.link", {"baud": 9.6}, "whole number"),
    ("controllers.c.link", {"baud": 0}, "out of range"),
    ("leds.t.channel_ma", -20, "out of range"),
    ("leds.t.channel_ma", {"X": 20}, "this must be B, G, R or W"),
    ("leds.t.measured", {"amps": 0, "leds": 60}, "out of range"),
    ("leds.t.measured", {"amps": 1, "leds": 0}, "out of range"),
    ("leds.t.order", "RGBB", "each once"),
    ("leds.t.bit_us", 0, "out of range"),
]


@pytest.mark.parametrize(("place", "value", "words"), BAD_FIGURES)
def test_bad_figures_are_findings(place, value, words):
    """Negative, zero, absurd and of the wrong kind: told at their place, and once."""
    table, name, key = place.split(".")
    values = {"line": [{"name": "a", "part": [strip()]}], table: {name: {key: value}}}
    with pytest.raises(fd.DesignError) as caught:
        fd.Design.from_values(values)
    (finding,) = caught.value.findings
    assert words in str(finding)
    assert finding.path[:3] == (table, name, key)


# ---- Currents -----------------------------------------------------------------------------------


def test_currents_of_a_line_by_hand():
    """Ten LEDs: dark 10 mA, full white 10 * 61 mA. At level 0.5 the light is ((0.5 * 100 + 16) /
    116) ** 3 = 0.1842, byte 47 of 255: 10 * (1 + 60 * 47 / 255) mA."""
    (supply,) = budget(level=1.0).supplies
    assert (supply.idle_a, supply.white_a) == pytest.approx((0.010, 0.610))
    (half,) = budget(level=0.5).supplies
    assert half.white_a == pytest.approx(0.010 + 0.6 * 47 / 255)
    # Of an expression the highest value counts, as far as it is known.
    signals = {"s": {"range": [0.0, 0.25]}, "on": {"kind": "switch"}, "t": {"smooth": 0.1}}
    for level, same in (("0.5 if on else 0.2", 0.5), ("2 * s", 0.5), ("t", 1.0)):
        (bound,) = budget(level=level, signals=signals).supplies
        assert bound.white_a == pytest.approx(budget(level=same).supplies[0].white_a), level
    (white,) = budget(led="sk6812-rgbw").supplies
    assert white.white_a == pytest.approx(10 * 0.019)  # white's own channel alone
    assert white.most_a == pytest.approx(10 * 0.037)  # yellow: two channels of 18 mA


def test_a_film_s_currents_peak_mean_and_what_is_on():
    """Dark for 1 s, red for 1 s, white for 2 s, at 50 frames a second: 50, 50 and 101 frames."""
    red, white = layer(colour="red", when="s > 0.5"), layer(when="s > 1.5")
    made = design(red, white, line=[line()], signals={"s": {}}, supplies={"s": {"amps": 5}})
    film = made.compile().film(tape(1.0, s=[0, 1, 2, 2, 2]))
    total = made.budget(film)
    draw = total.draw
    assert draw.peak_a == pytest.approx(0.61)
    assert draw.mean_a == pytest.approx((50 * 0.01 + 50 * 0.21 + 101 * 0.61) / 201)
    assert draw.p99_a == pytest.approx(0.61)
    assert draw.at_s == 2.0
    assert draw.layers == ("0: solid layer", "1: solid layer")
    assert total.supplies[0].draw == draw
    (only,) = total.lines
    assert only.draw.peak_a == pytest.approx(0.61)
    assert only.worst.at_s == 2.0
    # White for half a second, then red for ten: looked at 256 frames at a time, the first are the worst.
    (only,) = made.budget(made.compile().film(tape(2.0, s=[2, *[1] * 20]))).lines
    assert only.worst.at_s < 0.5
    (only,) = made.budget(made.compile().film(tape(2.0, s=[*[1] * 20, 2]))).lines
    assert only.worst.at_s == 10.0


@pytest.mark.parametrize(
    ("supply", "amps", "kept"),
    [
        ({"amps": 6}, 6, 4.8),
        ({"usb": "2.0"}, 0.5, 0.4),
        ({"usb": "C 3 A", "amps": 2}, 2, 1.6),
        ({"converter": {"amps": 6}, "battery": {"volts": 12, "ah": 7}, "volts": 5}, 6, 4.8),
        ({"regulator_of": "c"}, 0.3, 0.24),
        ({"amps": 6, "budget": 5}, 6, 5),
        ({"amps": 6, "limiter": False}, 6, None),
        ({"budget": 2}, None, 2),
        ({"volts": 5}, None, None),
    ],
)
def test_what_a_supply_gives_and_what_the_limiter_keeps(supply, amps, kept):
    made = budget(controllers={"c": {"regulator_amps": 0.3}}, supplies={"s": supply})
    feeding = made.supplies[0].feeding
    assert feeding.amps == amps
    assert feeding.budget_a == (None if kept is None else pytest.approx(kept))


def test_a_battery_lasts_its_watt_hours_over_the_mean_watts():
    """48 V 15 Ah are 720 Wh; 90 % of them at 0.61 A and 5 V last 212.5 h, at 4 A 32.4 h."""
    supply = {
        "volts": 5, "battery": {"volts": 48, "ah": 15}, "limiter": False,
        "converter": {"efficiency": 0.9, "amps": 6},
    }  # fmt: skip
    assert budget(supplies={"s": supply}).supplies[0].hours == pytest.approx(648 / (0.61 * 5))
    kept = {**supply, "limiter": True, "budget": 4.0}
    assert budget(100, supplies={"s": kept}).supplies[0].hours == pytest.approx(32.4)
    direct = {"battery": {"ah": 2, "cells": 3}}
    (cell,) = budget(led="ws2815", supplies={"s": direct}).supplies
    assert cell.feeding.volts == pytest.approx(11.1)
    assert cell.hours == pytest.approx(2 / cell.white_a)


def test_fuses_wires_and_headroom():
    assert [fuse_for(amps) for amps in (0.4, 0.401, 4.0, 64.0, 64.1)] == [0.5, 1, 5, 80, None]
    assert [bears_a(area) for area in (0.5, 0.74, 0.75, 1.5)] == [3, 3, 6, 16]
    # 4.8 A at 5 V may lose 0.15 V: 0.8 m there and back at most 31.25 mohm, so 0.896 mm2.
    assert wire_for(4.8, 0.8, 5.0) == 1.0
    assert wire_for(4.8, 3.0, 5.0) == 4.0
    assert wire_for(4.8, 0.01, 5.0) == 1.0  # a fuse of 7.5 A: 0.75 mm2 bears 6
    assert [round(1000 * wire_ohm(1, awg_to_mm2(awg))) for awg in (22, 20, 18, 16)] == [
        54, 34, 21, 13,
    ]  # fmt: skip
    (supply,) = budget(supplies={"s": {"amps": 0.8}}).supplies
    assert supply.headroom == pytest.approx(1 - 0.61 / 0.8)
    assert (supply.fuse_a, supply.watts) == (1.0, pytest.approx(3.05))


def test_heat_of_a_metre():
    """101 LEDs 10 mm apart are 1.01 m of strip; 101 * 61 mA * 5 V over that: 30.5 W."""
    (only,) = budget(101, supplies={"s": {"amps": 50}}).lines
    assert only.metres == pytest.approx(1.01)
    assert only.watts_a_metre == pytest.approx(30.5)


def test_voltage_of_a_line_by_hand():
    """Two LEDs 1 m apart, lead 1 m of 1 mm2: 2 * 17.5 mohm * 0.122 A, then 0.2 ohm * 0.061 A."""
    part = {"name": "p", "shape": "strip", "start": [0.0, 0.0], "end": [1000.0, 0.0], "count": 2}
    supplies = {"s": {"volts": 5, "amps": 9, "wire": {"metres": 1.0, "mm2": 1.0}}}
    (only,) = (
        design(line=[{"name": "a", "supply": "s", "part": [part]}], supplies=supplies)
        .budget()
        .lines
    )
    first = 5 - 2 * 0.0175 * 0.122
    assert only.sag.volts == pytest.approx([first, first - 0.2 * 0.061])
    # Two strips in parallel: twice the current, half the resistance; the lead carries both.
    again = {**part, "name": "q", "parallel_to": "p"}
    lines = [{"name": "a", "supply": "s", "part": [part, again]}]
    (only,) = design(line=lines, supplies=supplies).budget().lines
    first = 5 - 2 * 0.0175 * 0.244
    assert only.sag.volts == pytest.approx([first, first - 0.1 * 0.122])
    # Two parts 0.5 m apart are joined by a wire of 0.5 mm2: 2 * 17.5 mohm a metre and mm2.
    ends = [strip("p", 1), {**strip("q", 1), "at": [500.0, 0.0]}]
    (only,) = (
        design(line=[{"name": "a", "supply": "s", "part": ends}], supplies=supplies).budget().lines
    )
    assert only.sag.volts[0] - only.sag.volts[1] == pytest.approx(2 * 0.0175 * 0.061)


def test_the_limiter_bounds_what_one_line_may_draw():
    """Two lines of ten; 0.5 A kept, of which 20 mA go to dark LEDs: one alone gets 0.48 + 0.01."""
    lines = [line(), {"name": "b", "supply": "s", "part": [strip("b", 10, at=[0, 9])]}]
    made = design(line=lines, supplies={"s": {"budget": 0.5}})
    assert [each.most_a for each in made.budget().lines] == pytest.approx([0.49, 0.49])
    assert made.budget().supplies[0].most_a == 0.5


# ---- Data and memory ----------------------------------------------------------------------------


def test_times_of_lines():
    assert line_time_s(1000, LED_TYPES["ws2812b"]) == pytest.approx(0.03028)
    assert line_time_s(100, LED_TYPES["sk6812-rgbw"]) == pytest.approx(0.00408)
    # 32 + 100 * 32 + 56 bits at 0.5 us: half a bit a chip at the end, in whole bytes.
    assert line_time_s(100, LED_TYPES["apa102"]) == pytest.approx(3288 * 0.5e-6)


@given(st.lists(st.integers(1, 2000), min_size=1, max_size=6))
def test_serial_bytes_are_those_of_the_stream_at_the_most(sizes):
    sent = len(frame_to_packets(1, [b"\xff" * size for size in sizes]))
    assert sent <= serial_bytes(sizes) <= sent + len(sizes)


def test_baud_and_network_by_hand():
    """A line of 30 pixels: 96 + 2 and the show packet's 8 bytes, 106; 50 frames are 53,000 baud."""
    assert serial_bytes([90]) == 106
    assert baud_for([90], 50) == 57_600
    assert baud_for([90], 57_600 / 1060) == 57_600
    assert baud_for([90], 57_601 / 1060) == 115_200
    assert baud_for([90_000], 250) is None
    assert serial_rate_hz([90], 53_000) == pytest.approx(50)
    assert universes([(170, 3)]) == 1
    assert universes([(171, 3), (128, 4), (129, 4)]) == 5
    assert sacn_mbit([(170, 3)], 44) == pytest.approx((510 + 126 + 46) * 8 * 44 / 1e6)


# ---- At a limit, below and above it ---------------------------------------------------------------

LINK = {"controllers": {"c": {"type": "rp2040", "link": {"baud": 53_000}}}}


@pytest.mark.parametrize(
    ("keys", "line_keys", "expected"),
    [
        # Full white of 30 LEDs, 1.83 A, without a limiter: four fifths, the rating, above it.
        ({"supplies": {"s": {"amps": 2.2875, "limiter": False}}}, {}, None),
        ({"supplies": {"s": {"amps": 2.28, "limiter": False}}}, {}, ("derating", "note")),
        ({"supplies": {"s": {"amps": 1.83, "limiter": False}}}, {}, ("derating", "note")),
        ({"supplies": {"s": {"amps": 1.82, "limiter": False}}}, {}, ("over-rating", "warning")),
        ({"supplies": {"s": {"amps": 6, "budget": 4.8}}}, {}, None),
        ({"supplies": {"s": {"amps": 6, "budget": 4.81}}}, {}, ("derating", "warning")),
        ({"supplies": {"s": {"amps": 6, "budget": 6.01}}}, {}, ("over-rating", "error")),
        # Dark they draw 30 mA.
        ({"supplies": {"s": {"budget": 0.03}}}, {}, ("part-of-full", "note")),
        ({"supplies": {"s": {"budget": 0.0299}}}, {}, ("no-current-left", "error")),
        ({"supplies": {"s": {"volts": 5.5, "amps": 9}}}, {}, None),
        ({"supplies": {"s": {"volts": 5.51, "amps": 9}}}, {}, ("wrong-volts", "error")),
        ({"supplies": {"s": {"volts": 4.0, "amps": 9}}}, {}, ("low-voltage", "warning")),
        ({"supplies": {"s": {"volts": 3.99, "amps": 9}}}, {}, ("wrong-volts", "error")),
        # 1.83 A through a lead: 0.34 mm2 bears 2 A, 0.25 mm2 1 A.
        # Its fuse of 3 A asks for 0.5 mm2.
        ({"supplies": {"s": {"amps": 9, "wire": {"metres": 0.1, "mm2": 0.5}}}}, {}, None),
        ({"supplies": {"s": {"amps": 9, "wire": {"metres": 0.1, "mm2": 0.34}}}}, {}, ("thin-wire", "warning")),
        ({"supplies": {"s": {"amps": 9, "wire": {"metres": 0.1, "mm2": 0.33}}}}, {}, ("thin-wire", "error")),
        ({}, {"feed": [{"at": 29}]}, None),
        ({}, {"feed": [{"at": 30}]}, ("no-such-led", "error")),
        ({}, {"feed": [{"at": 29}, {"at": "end"}]}, ("duplicate-feed", "warning")),
        # 106 bytes a frame at 53,000 baud: 50 frames a second, told from 40 on.
        ({**LINK, "rate": 40.0}, {"level_shifter": True}, None),
        ({**LINK, "rate": 50.0}, {"level_shifter": True}, ("slow-link", "note")),
        ({**LINK, "rate": 50.1}, {"level_shifter": True}, ("slow-link", "warning")),
        ({"controllers": {"c": {"logic_volts": 3.5}}}, {}, None),
        ({"controllers": {"c": {"logic_volts": 3.49}}}, {}, ("logic-level", "warning")),
        ({"controllers": {"c": {"logic_volts": 3.3}}, "supplies": {"s": {"volts": 4.7, "amps": 9}}}, {}, None),
        ({"controllers": {"c": {"type": "rp2040"}}}, {"led": "ws2815"}, ("logic-level", "warning")),
        # Two parts of memory in three are told, and all of it and more.
        ({"controllers": {"c": {"ram": 120}}}, {}, None),
        ({"controllers": {"c": {"ram": 119}}}, {}, ("too-little-memory", "warning")),
        ({"controllers": {"c": {"ram": 90}}}, {}, ("too-little-memory", "warning")),
        ({"controllers": {"c": {"ram": 89}}}, {}, ("too-little-memory", "error")),
        # 30.28 ms for 1,000 LEDs: 33.03 frames a second.
        ({"controllers": {"c": {"type": "atmega328p", "link": {"baud": 1_000_000}}}}, {}, ("link-too-fast", "warning")),
        ({"controllers": {"c": {"type": "atmega328p", "link": {"baud": 460_800}}}}, {}, ("link-too-fast", "warning")),
        ({"supplies": {"s": {"usb": "2.0", "volts": 12}}}, {}, ("contradiction", "error")),
        ({"supplies": {"s": {"battery": {"volts": 12, "ah": 1}, "volts": 5}}}, {}, ("contradiction", "error")),
        ({"supplies": {"s": {"amps": 9, "wire": {"mm2": 1.31, "awg": 16}}}}, {}, None),
    ],
)  # fmt: skip
def test_at_a_limit_below_and_above(keys, line_keys, expected):
    supplies = keys.get("supplies", {"s": {"amps": 9, "wire": {"metres": 0.1, "mm2": 1.5}}})
    made = design(layer(), line=[line(30, **line_keys)], **{**keys, "supplies": supplies})
    told = codes(made) - {("thin-wire", "note"), ("low-voltage", "note"), ("heat", "note")}
    if expected is None:
        assert told == set()
    else:
        assert expected in told


@pytest.mark.parametrize(("rate", "told"), [(33.02, False), (33.03, True)])
def test_a_line_at_its_frame_rate(rate, told):
    made = design(layer(), count=1000, rate=rate)
    assert (("slow-line", "warning") in codes(made)) is told


def test_a_line_that_sags_is_told_with_what_mends_it():
    made = design(layer(), line=[line(150)], supplies={"s": {"amps": 30, "wire": {"mm2": 6}}})
    (finding,) = [each for each in made.check() if each.code == "low-voltage"]
    (only,) = made.budget().lines
    assert only.extra
    assert f"Feed it at LED {only.extra[0]}" in finding.remedy
    feeds = [{"at": 0}, *({"at": place} for place in only.extra)]
    mended = design(
        layer(), line=[line(150, feed=feeds)], supplies={"s": {"amps": 30, "wire": {"mm2": 6}}}
    )
    assert "low-voltage" not in {each.code for each in mended.check() if each.severity == "warning"}
    assert mended.budget().lines[0].sag.lowest_v >= 4.0


def test_a_tape_decides_where_full_white_never_comes():
    """Without a limiter 30 LEDs could draw 1.83 A of 1 A; the tape shows 0.63 A, then 1.83."""
    keys = {
        "line": [line(30)],
        "supplies": {"s": {"amps": 1, "limiter": False}},
        "signals": {"s": {}},
    }
    made = design(layer(colour="red"), layer(when="s > 0.5"), **keys)
    for rows, expected in (([0, 0, 0], "note"), ([0, 1, 1], "error")):
        film = made.compile().film(tape(s=rows))
        _, report = made.examined.on_film(lambda _, film=film: film)
        (finding,) = [each for each in report if each.code == "over-rating"]
        assert finding.severity == expected, rows
    assert "by '0: solid layer' and '1: solid layer'" in finding.message


def test_a_line_without_any_led_has_no_budget_and_no_crash():
    part = {
        "name": "p",
        "shape": "strip",
        "start": [0.0, 0.0],
        "end": [9.0, 0.0],
        "count": 3,
        "on": "p",
    }
    made = fd.Design.from_values({"line": [{"name": "a", "part": [part]}]})
    assert [finding.code for finding in made.check() if finding.severity == "error"] == ["circle"]


def test_plain_arrays_of_no_frames_and_of_one():
    made = design(layer(), line=[line()])
    loads = make_loads(made, made.layout())
    assert loads.line_a(np.zeros((0, 10, 3), np.uint8)).shape == (0, 1)
    assert loads.line_a(np.full((10, 3), 255, np.uint8)) == pytest.approx([0.61])


CONTRADICTIONS = [
    ({"amps": 6, "usb": "2.0"}, "warning", "amps 6 A, usb 0.5 A. The smallest counts"),
    ({"amps": 6, "converter": {"amps": 3}}, "warning", "amps 6 A, converter 3 A"),
    ({"amps": 0.51, "usb": "2.0"}, None, ""),  # near enough
    ({"usb": "3.0", "volts": 3.9}, "error", "a USB port gives 5 V, but volts is 3.9"),
    ({"battery": {"volts": 48, "cells": 4, "ah": 1}, "volts": 5, "converter": {}}, "error", "12.00 V a cell"),
    ({"battery": {"volts": 12, "cells": 60, "ah": 1}, "volts": 5, "converter": {}}, "error", "0.20 V a cell"),
    ({"battery": {"cells": 1, "ah": 1}, "volts": 5}, "error", "a battery of 3.7 V cannot give 5 V by itself"),
    ({"battery": {"cells": 1, "ah": 1}, "volts": 4.2}, None, ""),
    ({"battery": {"cells": 3, "ah": 1}, "volts": 5, "converter": {}}, None, ""),
    ({"battery": {"cells": 1, "ah": 1}, "converter": {}, "usb": "2.0"}, "warning", "it is a battery and another supply at once"),
    ({"wire": {"mm2": 1.5, "awg": 22}}, "error", "AWG 22 has 0.33 mm², but mm2 is 1.5"),
    ({"wire": {"mm2": 0.33, "awg": 22}}, None, ""),
]  # fmt: skip


@pytest.mark.parametrize(("supply", "severity", "words"), CONTRADICTIONS)
def test_figures_that_cannot_all_be_true(supply, severity, words):
    made = design(layer(), line=[line(2)], supplies={"s": supply})
    found = [each for each in made.check() if each.code == "contradiction"]
    if severity is None:
        assert found == []
    else:
        (finding,) = found
        assert (finding.severity, words in finding.message) == (severity, True), finding.message
        assert finding.path[:2] == ("supplies", "s")
        assert finding.remedy


@pytest.mark.parametrize(
    ("controllers", "supply", "code"),
    [
        ({}, {"regulator_of": "c"}, ("unknown-name", "error")),
        ({"c": {}}, {"regulator_of": "c"}, ("no-rating", "warning")),
        ({"c": {"regulator_amps": 0.5}}, {"regulator_of": "c"}, None),
        ({"c": {"regulator_amps": 0.5}}, {"regulator_of": "c", "limiter": False}, ("over-rating", "error")),
        ({"c": {"link": {}}}, {"amps": 9}, ("no-effect", "warning")),
        ({"c": {"link": {"baud": 9600, "network": "sacn"}}}, {"amps": 9}, ("contradiction", "error")),
        ({"c": {"link": {"network": "sacn", "mbit": 0.05}}}, {"amps": 9}, ("slow-link", "warning")),
        ({"c": {"link": {"network": "sacn", "mbit": 0.5}}}, {"amps": 9}, None),
    ],
)  # fmt: skip
def test_boards_regulators_and_links(controllers, supply, code):
    """Ten LEDs, 0.61 A at full white; a packet of 30 slots at 50 a second takes 0.081 Mbit/s."""
    made = design(layer(), line=[line()], controllers=controllers, supplies={"s": supply})
    told = codes(made)
    assert told == set() if code is None else code in told


def test_a_thin_jump_is_an_error_and_one_of_which_nothing_is_said_a_note():
    """100 LEDs behind a jump draw 6.1 A through it: 0.75 mm2 bears 6, 1 mm2 10."""
    parts = [strip("p", 1), strip("q", 100, at=[20.0, 0.0])]
    for jump, expected in (
        ({"mm2": 0.75}, {("thin-wire", "error")}),
        ({"mm2": 1.0}, set()),
        ({}, {("thin-wire", "note")}),
    ):
        lines = [{"name": "a", "supply": "s", "jump": jump, "part": parts}]
        supplies = {"s": {"amps": 30, "wire": {"metres": 0.1, "mm2": 2.5}}}
        made = design(layer(), line=lines, supplies=supplies)
        assert codes(made) - {("heat", "note"), ("low-voltage", "note")} == expected, jump


def test_a_hot_strip_is_told_by_what_a_tape_shows():
    """144 LEDs a metre at full white all the time: 43.9 W a metre; dark most of the time: little."""
    part = {"name": "p", "shape": "strip", "start": [0.0, 0.0], "direction": "right", "count": 144,
            "per_metre": 144}  # fmt: skip
    lines = [{"name": "a", "supply": "s", "part": [part], "feed": [{"at": 0}, {"at": "end"}]}]
    supplies = {"s": {"amps": 30, "wire": {"metres": 0.1, "mm2": 2.5}}}
    made = design(layer(level="s"), line=lines, supplies=supplies, signals={"s": {}})
    assert ("heat", "note") in codes(made)
    for rows, expected in (([1] * 20, {"warning"}), ([1] + [0] * 19, set())):
        film = made.compile().film(tape(s=rows))
        _, report = made.examined.on_film(lambda _, film=film: film)
        assert {str(each.severity) for each in report if each.code == "heat"} == expected


# ---- Unequal channels, another voltage, several lines -------------------------------------------------

LOPSIDED = {
    "order": "GRBW",
    "volts": 5,
    "channel_ma": {"R": 10, "G": 20, "B": 30, "W": 40},
    "idle_ma": 2,
}


def test_white_of_a_type_with_a_white_channel_is_that_channel():
    """Idle 2 mA and 40 of white; half of the light is half of the 40."""
    led = led_type("mine", LedFigures.model_validate(LOPSIDED), CATALOGUE)
    assert led.white_letters == "W"
    assert led.white_a() == pytest.approx(0.042)
    assert led.white_a(0.5) == pytest.approx(0.022)
    assert led.bits == 32
    assert LED_TYPES["ws2812b"].white_a(0.25) == pytest.approx(0.001 + 0.25 * 0.06)


@pytest.mark.parametrize(
    ("channel_ma", "white_a", "full_a"),
    [
        # Two colours draw 20 + 30, white 40 or 60.
        ({"R": 10, "G": 20, "B": 30, "W": 40}, 0.042, 0.052),
        ({"R": 10, "G": 20, "B": 30, "W": 60}, 0.062, 0.062),
    ],
)
def test_the_colour_that_draws_most_is_two_channels_or_white(channel_ma, white_a, full_a):
    made = design(
        layer(), line=[line(4, led="mine")], leds={"mine": {**LOPSIDED, "channel_ma": channel_ma}}
    )
    loads = make_loads(made, made.layout())
    assert loads.white_line_a() == pytest.approx([4 * white_a])
    assert loads.full_line_a() == pytest.approx([4 * full_a])
    assert loads.full_line_a(0.5) == pytest.approx([4 * (0.002 + (full_a - 0.002) * 128 / 255)])
    cyan = np.full((4, 3), 255, np.uint8) * np.array([0, 1, 1], np.uint8)
    assert loads.line_a(cyan) == pytest.approx([4 * 0.052])
    assert loads.full_address_a(0, 1.0) == pytest.approx([full_a] * 4)


def test_a_type_at_another_voltage_has_limits_of_its_own():
    """Of 24 V, like one of 12: 19.2 to 26.4 V, and 3.5 V for a 1. Of 3.3 V: 2.31 V for a 1."""
    led = led_type("mine", LedFigures.model_validate({"like": "ws2815", "volts": 24}), CATALOGUE)
    assert (led.least_volts, led.most_volts) == pytest.approx((19.2, 26.4))
    assert led.logic_volts == pytest.approx(3.5)
    low = led_type("mine", LedFigures.model_validate({"like": "ws2812b", "volts": 3.3}), CATALOGUE)
    assert (low.least_volts, low.most_volts, low.logic_volts) == pytest.approx((2.64, 3.63, 2.31))
    said = {"like": "ws2815", "volts": 24, "least_volts": 20, "most_volts": 25, "logic_volts": 3}
    led = led_type("mine", LedFigures.model_validate(said), CATALOGUE)
    assert (led.least_volts, led.most_volts, led.logic_volts) == (20, 25, 3)
    same = led_type("mine", LedFigures.model_validate({"like": "ws2815", "volts": 12}), CATALOGUE)
    assert (same.least_volts, same.most_volts) == (9.5, LED_TYPES["ws2815"].most_volts)


def test_what_is_said_of_a_type_counts_and_0_is_said():
    led = led_type("mine", LedFigures.model_validate({"like": "ws2812b", "reset_us": 0}), CATALOGUE)
    assert led.reset_s == 0
    four = led_type(
        "mine",
        LedFigures.model_validate({"like": "ws2812b", "order": "GRBW", "channel_ma": 9}),
        CATALOGUE,
    )
    assert four.channel_ua == dict.fromkeys("GRBW", 9000)
    with pytest.raises(LedError) as caught:  # the currents of three channels say nothing of four
        led_type("mine", LedFigures.model_validate({"like": "ws2812b", "order": "GRBW"}), CATALOGUE)
    assert (caught.value.key, caught.value.is_missing) == ("channel_ma", True)


def test_white_of_four_channels_is_measured_by_white_alone():
    """0.62 A for 10 LEDs: 62 mA each, 2 of them dark: white draws 60, so all draw half more."""
    figures = {**LOPSIDED, "measured": {"amps": 0.62, "leds": 10}}
    led = led_type("mine", LedFigures.model_validate(figures), CATALOGUE)
    assert led.channel_ua == {"G": 30_000, "R": 15_000, "B": 45_000, "W": 60_000}
    figures = {**LOPSIDED, "measured": {"amps": 0.62, "leds": 10, "lit": "RGB"}}
    led = led_type("mine", LedFigures.model_validate(figures), CATALOGUE)
    assert led.channel_ua == {"G": 20_000, "R": 10_000, "B": 30_000, "W": 40_000}


def test_batteries_and_ratings():
    """3.7 V a cell unless volts are said; behind a converter their voltage is not the LEDs'."""
    cells = Battery(ah=2, cells=3)
    assert (cells.nominal_volts, cells.watt_hours) == pytest.approx((11.1, 22.2))
    assert Battery(ah=2, cells=3, volts=9.6).nominal_volts == 9.6
    assert Supply(battery=cells).known_volts() == pytest.approx(11.1)
    assert Supply(battery=cells, converter=Converter()).known_volts() is None
    assert Supply(usb="2.0").known_volts() == 5
    ratings = Supply(amps=6, usb="C 3 A", converter=Converter(amps=2)).ratings_a(0.5)
    assert ratings == {"amps": 6, "usb": 3, "converter": 2, "regulator_of": 0.5}
    (supply,) = budget(supplies={"s": {"amps": 6, "converter": {"amps": 2}}}).supplies
    assert supply.feeding.amps == 2
    assert supply.feeding.budget_a == pytest.approx(1.6)  # four fifths
    (supply,) = budget(supplies={"s": {"amps": 6, "budget": 0.4}}).supplies
    assert supply.feeding.budget_a == 0.4


def test_wires_by_their_gauge_and_what_they_bear():
    assert awg_to_mm2(16) == pytest.approx(1.309, abs=1e-3)
    assert awg_to_mm2(10) == pytest.approx(5.261, abs=1e-3)
    assert Lead(metres=2, awg=16).ohm == pytest.approx(2 * 0.0175 / 1.309, rel=1e-3)
    assert Lead(metres=2).ohm == pytest.approx(2 * 0.0175 / 0.5)
    assert [bears_a(area) for area in (0.14, 0.25, 0.34, 0.5, 0.75, 1.0, 2.5, 4, 6, 10, 16, 0.07)] == [
        0.5, 1, 2, 3, 6, 10, 25, 32, 40, 63, 80, 0.25,
    ]  # fmt: skip


def test_pins_are_known_by_every_name_and_to_the_end_of_their_range():
    assert unfold_pins(["PA8-PA11", "X"]) == ["PA8", "PA9", "PA10", "PA11", "X"]
    chip = CONTROLLERS["atmega328p"]
    assert [chip.own_name(pin) for pin in ("D0", "D13", "A5", "PB0")] == [
        "PD0",
        "PB5",
        "PC5",
        "PB0",
    ]
    assert "PC5" in chip.analogue_pins


def test_time_of_clocked_leds_ends_in_whole_bytes():
    """17 chips: 32 + 17 * 32 bits, and half a bit a chip more, 8.5: two bytes, 16 bits."""
    assert line_bits(17, LED_TYPES["apa102"]) == 32 + 17 * 32 + 16
    assert line_bits(16, LED_TYPES["apa102"]) == 32 + 16 * 32 + 8


def test_the_limiter_knows_what_all_lines_draw_dark():
    """Two lines, 10 and 40 dark LEDs: 0.05 A of 0.3 go to them. White on the first wants 0.6 A."""
    lines = [line(10), {"name": "b", "supply": "s", "part": [strip("b", 40, at=[0, 9])]}]
    made = design(layer(), line=lines, supplies={"s": {"budget": 0.3}})
    first, second = made.budget().lines
    assert first.most_a == pytest.approx(0.01 + 0.25)
    assert second.most_a == pytest.approx(0.04 + 0.25)
    (supply,) = made.budget().supplies
    assert (supply.most_a, supply.headroom) == (0.3, None)
    (limit,) = made.compile(engine="numpy").plan.limits
    assert limit.most == 250_000 * 255
    too_many = design(layer(), line=lines, supplies={"s": {"budget": 0.03}})
    assert make_budget(too_many, too_many.layout()).supplies[0].most_a == 0.05  # even dark


def test_figures_of_a_film():
    """0.1 A for 98 of 100 frames, then 0.2 and 0.9: passed in one frame of a hundred is 0.2."""
    draw = draw_of(np.array([0.1] * 98 + [0.2, 0.9]), np.arange(100) / 10)
    assert (draw.peak_a, draw.frame, draw.at_s) == (0.9, 99, 9.9)
    assert draw.mean_a == pytest.approx(0.109)
    assert draw.p99_a == pytest.approx(np.interp(0.99 * 99, [98, 99], [0.2, 0.9]))


def test_a_battery_behind_a_converter_lasts_less_long():
    """44.4 Wh at 90 % are 39.96 Wh; 3.05 W: 13.1 h."""
    supply = {"volts": 5, "battery": {"cells": 4, "ah": 3}, "converter": {"efficiency": 0.9}}
    (found,) = budget(supplies={"s": supply}).supplies
    assert found.hours == pytest.approx(3.7 * 4 * 3 * 0.9 / 3.05)


def test_the_first_chip_reads_a_share_of_its_own_supply():
    """3.5 V at 5 V is 3.15 V at 4.5; a 12 V type makes its own 5 V."""
    (only,) = budget(supplies={"s": {"volts": 4.5, "amps": 9}}).lines
    assert only.logic_volts == pytest.approx(3.15)
    (only,) = budget(led="ws2815", supplies={"s": {"volts": 11, "amps": 9}}).lines
    assert only.logic_volts == LED_TYPES["ws2815"].logic_volts


def test_two_controllers_share_a_supply_s_budget_by_what_their_lines_may_draw():
    """Eight of 60 mA and four of 50: 0.48 and 0.2 A; of 0.5 A 0.016 go to dark LEDs (1 and 2 mA)."""
    lines = [
        {**line(8), "controller": "one"},
        {"name": "b", "led": "mine", "supply": "s", "controller": "two", "part": [strip("b", 4, at=[0, 9])]},
    ]  # fmt: skip
    made = design(layer(), line=lines, supplies={"s": {"budget": 0.5}}, leds={"mine": LOPSIDED},
                  controllers={"one": {}, "two": {}})  # fmt: skip
    plan = made.compile(engine="numpy").plan
    light_ua = 500_000 - 8 * 1000 - 4 * 2000
    (whole,) = plan.limits
    assert whole.most == light_ua * 255
    for number, mine in ((0, 480_000), (1, 200_000)):
        alone = lines_alone(plan, [number])
        (limit,) = alone.limits
        assert limit.most == light_ua * 255 * mine // 680_000
        assert alone.spot_count == (8, 4)[number]
        assert (limit.spans[0].first, limit.spans[-1].end) == (0, alone.spot_count)


def test_links_by_hand():
    """A packet of 30 slots is 202 bytes: at 50 a second 0.0808 Mbit/s, of 0.1 that is 61.9 frames."""
    link = {"network": "sacn", "mbit": 0.1}
    (controller,) = budget(controllers={"c": {"link": link}}, rate=25).controllers
    assert controller.link_hz == pytest.approx(0.1e6 / (202 * 8))
    assert controller.load == pytest.approx(25 / controller.link_hz)


def test_taps_that_share_a_place_and_an_unfed_end():
    """Five rungs, 0.1 ohm between, 1 A at each; fed at the second through 0.1 ohm."""
    ladder = Ladder(5.0, np.full(4, 0.1), (Tap(1, 0.1),))
    assert ladder.drop(np.ones(5)) == pytest.approx([0.6, 0.5, 0.8, 1.0, 1.1])
    # Two leads of 0.2 ohm at one place are one of 0.1.
    twice = Ladder(5.0, np.full(4, 0.1), (Tap(1, 0.2), Tap(1, 0.2)))
    assert twice.drop(np.ones(5)) == pytest.approx([0.6, 0.5, 0.8, 1.0, 1.1], abs=1e-6)
    assert ladder.flow_a(np.ones(5)) == pytest.approx([-1, 3, 2, 1], abs=1e-6)
    assert twice.tap_a(np.ones(5)) == pytest.approx([2.5, 2.5], abs=1e-5)


@pytest.mark.parametrize(
    ("amps", "told"), [(2.29, None), (2.28, "note"), (1.84, "note"), (1.82, "warning")]
)
def test_derating_begins_at_four_fifths(amps, told):
    """30 LEDs, 1.83 A at white: four fifths of 2.2875 A."""
    supplies = {"s": {"amps": amps, "limiter": False, "wire": {"metres": 0.1, "mm2": 1.5}}}
    made = design(layer(), line=[line(30)], supplies=supplies)
    found = {str(f.severity) for f in made.check() if f.code in ("derating", "over-rating")}
    assert found == ({told} if told else set())


@pytest.mark.parametrize(
    ("rows", "code"), [([0.79], None), ([0.81], "derating"), ([1.01], "over-rating")]
)
def test_a_tape_derates_by_its_peak(rows, code):
    """Red LEDs: 100 of them, 20 mA each at full, 0.1 A dark; a supply of 1 A without a limiter."""
    made = design(
        layer("field", red="s", green=0, blue=0), line=[line(100)], signals={"s": {}},
        supplies={"s": {"amps": 1, "limiter": False, "wire": {"metres": 0.1, "mm2": 2.5}}},
    )  # fmt: skip
    share = (rows[0] - 0.1) / 2.0
    film = made.compile().film(tape(s=[share, share]))
    _, report = made.examined.on_film(lambda _: film)
    found = {f.code for f in report if f.severity != "note"} & {"derating", "over-rating"}
    assert found == ({code} if code else set())


@pytest.mark.parametrize(
    ("per_metre", "count", "told"),
    # 61 mA at 5 V are 0.305 W an LED: 49 a metre are 14.9 W, 50 are 15.3 W; 9 W in all need no word.
    [(49, 49, False), (50, 50, True), (60, 30, False), (60, 34, True)],
)
def test_heat_begins_at_15_watts_a_metre_and_10_in_all(per_metre, count, told):
    part = {"name": "p", "shape": "strip", "start": [0.0, 0.0], "direction": "right", "count": count,
            "per_metre": per_metre}  # fmt: skip
    supplies = {"s": {"amps": 30, "wire": {"metres": 0.1, "mm2": 2.5}}}
    made = design(layer(), line=[{"name": "a", "supply": "s", "part": [part]}], supplies=supplies)
    assert ("heat" in {finding.code for finding in made.check()}) is told


@pytest.mark.parametrize(("level", "severity"), [(0.55, "note"), (0.58, "warning")])
def test_heat_seen_on_a_tape_is_a_warning_from_25_watts_on(level, severity):
    """144 LEDs a metre: 43.9 W at white; 0.72 W of them dark, so 24.5 W at 0.55, 25.8 at 0.58."""
    part = {"name": "p", "shape": "strip", "start": [0.0, 0.0], "direction": "right", "count": 144,
            "per_metre": 144}  # fmt: skip
    lines = [{"name": "a", "supply": "s", "part": [part], "feed": [{"at": 0}, {"at": "end"}]}]
    supplies = {"s": {"amps": 30, "wire": {"metres": 0.1, "mm2": 2.5}}}
    made = design(
        layer("field", red="s", green="s", blue="s"),
        line=lines,
        supplies=supplies,
        signals={"s": {}},
    )
    film = made.compile().film(tape(s=[level] * 10))
    _, report = made.examined.on_film(lambda _: film)
    assert {str(each.severity) for each in report if each.code == "heat"} == {severity}


def test_leds_that_are_wired_twice_draw_twice_and_those_beside_them_once():
    """Four addresses of seven have a copy: 20, 40 and 60 mA there, 10, 20 and 30 behind."""
    leds = {"mine": {"order": "GRB", "volts": 5, "channel_ma": {"R": 10, "G": 20, "B": 30},
                     "idle_ma": 1}}  # fmt: skip
    parts = [strip("a", 4), strip("copy", 4, at=[0, 9], parallel_to="a"), strip("b", 3, at=[50, 0])]
    line = [{"name": "l", "led": "mine", "part": parts}]
    made = fd.Design.from_values({"leds": leds, "line": line})
    spans = make_loads(made, made.layout()).spans
    assert [(span.first, span.end, span.ua) for span in spans] == [
        (0, 4, (20_000, 40_000, 60_000)), (4, 7, (10_000, 20_000, 30_000)),
    ]  # fmt: skip
