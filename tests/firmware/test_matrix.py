"""Matrices whose diodes let current through the other way, and what is wrong with one."""

from __future__ import annotations

import pytest

import fendra as fd
from helpers import strip


def design_of(down, more=None, leds=3):
    return fd.Design.from_values({
        "name": "keys", "controllers": {"main": {"type": "rp2040"}},
        "line": [{"name": "a", "pin": "GP2", "part": [strip("a", leds)]}],
        "signals": {"down": {"kind": "vector", "size": 6, "pin": {"kind": "matrix", **down}},
                    **(more or {})},
        "layer": [{"name": "x", "on": "all", "effect": "solid", "level": "down[5]"}],
    })  # fmt: skip


WIRES = {"rows": ["GP10", "GP11"], "columns": ["GP12", "GP13", "GP14"]}


def test_diodes_to_columns_drive_the_columns():
    """Two rows of three: pulled low is each column in turn, and key 1 is in its second."""
    text = design_of({**WIRES, "diodes": "to columns"}).firmware().files["board.c"]
    table = text.partition("down_order[3][2] = {")[2].partition("};")[0]
    assert table.split() == ["{0,", "3},", "{1,", "4},", "{2,", "5},"]
    scan = text.partition("static void down_scan(void)")[2]
    assert scan.index("1u << 12") < scan.index("1u << 13") < scan.index("1u << 14")


def test_diodes_to_rows_drive_the_rows():
    text = design_of(WIRES).firmware().files["board.c"]
    table = text.partition("down_order[2][3] = {")[2].partition("};")[0]
    assert table.split() == ["{0,", "1,", "2},", "{3,", "4,", "5},"]


@pytest.mark.parametrize(
    ("pin", "code", "words"),
    [
        ({}, "missing-key", "the matrix of 'down' needs its rows and columns"),
        ({**WIRES, "order": [0, 1]}, "wrong-value", "2 numbers for the 6 places of the matrix"),
        ({**WIRES, "order": [0, 1, 2, 2, 4, 5]}, "wrong-value", "key 2 appears twice"),
        ({**WIRES, "order": [0, 1, 2, 3, 4, -1]}, "wrong-value", "Write size = 5"),
        ({**WIRES, "of": "press"}, "wrong-value", "but it has rows and columns too. Remove `of`, or"),
        ({"of": "pess"}, "unknown-name", "'pess' has no matrix"),
        ({**WIRES, "part": "keyz"}, "unknown-name", "there is no part 'keyz'"),
        ({**WIRES, "per": 2}, "no-effect", "a pin of kind matrix has no `per`"),
        ({**WIRES, "rows": ["GP10", "GP12"]}, "pin-taken", "GP12"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_matrix(pin, code, words):
    with_press = {"press": {"kind": "event", "pin": {"kind": "matrix", "of": "down"}}}
    try:
        found = design_of(pin, with_press).check()
    except fd.DesignError as exc:
        found = exc.findings
    told = [f"{each.message} {each.remedy}" for each in found if each.code == code]
    assert any(words in text for text in told), [(f.code, f.message, f.remedy) for f in found]


@pytest.mark.parametrize(
    ("signal", "code", "words"),
    [
        ({"pin": {"name": "GP10", "kind": "knob"}}, "missing-key", "needs its second pin"),
        ({"pin": {"kind": "pulses"}}, "missing-key", "the pin of 's' has no name"),
        ({"kind": "event", "pin": {"name": "GP10", "kind": "servo"}}, "pin-cannot",
         "a pin of kind servo gives a choice, a number or a switch, but 's' is an event"),
        ({"kind": "vector", "size": 2, "pin": "GP10"}, "pin-cannot", "pin GP10 gives one value, but 's' is a vector. Only a pin of kind matrix"),
        ({"pin": {"name": "GP10", "kind": "servo"}}, "never-lost", "Add lost_after = 0.5"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_other_pins(signal, code, words):
    found = fd.Design.from_values({
        "name": "keys", "controllers": {"main": {"type": "rp2040"}}, "signals": {"s": signal},
        "line": [{"name": "a", "pin": "GP2", "level_shifter": True, "part": [strip("a", 3)]}],
        "layer": [{"name": "x", "on": "all", "effect": "solid"}],
    }).check()  # fmt: skip
    told = [f"{each.message} {each.remedy}" for each in found if each.code == code]
    assert any(words in text for text in told), [(f.code, f.message, f.remedy) for f in found]


def test_only_a_chip_with_a_thermometer_tells_its_temperature():
    signal = {"s": {"range": [0, 100], "pin": {"kind": "temperature"}}}
    for kind, is_able in (("rp2040", True), ("atmega328p", False)):
        found = fd.Design.from_values({
            "name": "warm", "controllers": {"main": {"type": kind}}, "signals": signal,
            "line": [{"name": "a", "part": [strip("a", 3)]}],
            "layer": [{"name": "x", "on": "all", "effect": "solid", "level": "s / 100"}],
        }).check()  # fmt: skip
        assert ("pin-cannot" in {each.code for each in found}) is not is_able
