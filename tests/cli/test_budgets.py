"""Budgets on the screen and in JSON: figures that one can work out from the file."""

from __future__ import annotations

import json

import pytest

TWO_BOARDS = """
name = "Two boards"
rate = 40
[controllers.left]
type = "atmega328p"
link = { baud = 115200 }
[controllers.right]
type = "rp2040"
link = { network = "sacn", mbit = 10 }
[supplies.five]
volts = 5
amps = 2
wire = { metres = 0.5, mm2 = 1.0 }
[supplies.bag]
battery = { cells = 3, ah = 2 }
limiter = false
amps = 3
[[line]]
name = "near"
controller = "left"
pin = "D6"
supply = "five"
part = [{ name = "one", shape = "strip", start = [0, 0], end = [190, 0], count = 20 }]
[[line]]
name = "far"
controller = "right"
pin = "GP2"
led = "ws2815"
supply = "bag"
level_shifter = true
part = [{ name = "two", shape = "strip", start = [0, 50], end = [190, 50], count = 20 }]
[[layer]]
name = "glow"
on = "all"
effect = "solid"
"""


@pytest.fixture
def boards(tmp_path):
    path = tmp_path / "boards.toml"
    path.write_text(TWO_BOARDS, encoding="utf-8")
    return path


def test_the_json_holds_what_can_be_worked_out(fendra, boards):
    """20 LEDs: 1.22 A of 5 V; 20 of 12 V: 20 * 17 mA. 60 pixel bytes: a packet of 68 and one of 8."""
    code, out, _ = fendra("check", boards, "--json")
    assert code == 0
    said = json.loads(out)["budget"]
    five, bag = said["supplies"]
    assert (five["white_a"], five["idle_a"], five["budget_a"]) == pytest.approx((1.22, 0.02, 1.6))
    assert (five["most_a"], five["fuse_a"], five["wire_mm2"]) == (pytest.approx(1.22), 2.0, 0.5)
    assert five["headroom"] == pytest.approx(1 - 1.22 / 2)
    assert (bag["volts"], bag["white_a"]) == pytest.approx((11.1, 0.34))
    assert bag["budget_a"] is None
    assert bag["hours"] == pytest.approx(2 / 0.34)
    assert (bag["lines"], five["lines"]) == (["far"], ["near"])
    near, far = said["lines"]
    assert near["time_s"] == pytest.approx(20 * 30e-6 + 280e-6)
    assert near["metres"] == pytest.approx(0.2)
    assert near["watts_a_metre"] == pytest.approx(1.22 * 5 / 0.2)
    assert near["lowest_at"] == far["lowest_at"] == 19
    left, right = said["controllers"]
    assert (left["pixel_bytes"], left["serial_bytes"]) == (60, 76)
    assert left["link_hz"] == pytest.approx(11_520 / 76)
    assert left["load"] == pytest.approx(40 / (11_520 / 76))
    assert (right["universes"], right["logic_volts"]) == (1, 3.3)
    assert right["link_hz"] == pytest.approx(10e6 / 8 / (60 + 126 + 46))
    assert said["slowest"] == {"name": "the link of 'left'", "rate_hz": pytest.approx(11_520 / 76)}
    assert said["tape"] is None


def test_the_tables_name_each_supply_line_and_controller_once(fendra, boards):
    _, out, _ = fendra("check", boards)
    rows = [row.split() for row in out.splitlines() if row]
    firsts = [row[0] for row in rows]
    for name in ("five", "bag", "near", "far", "left", "right", "supply", "line", "controller"):
        assert firsts.count(name) == 1, name
    heads = next(row for row in out.splitlines() if row.startswith("supply"))
    assert "battery" in heads
    assert "peak" not in heads
    assert "The slowest is the link of 'left': at most 151.6 frames a second." in out


def test_columns_with_nothing_in_them_are_left_out(fendra, tmp_path):
    """No rating, no battery, no controller: what is not known is not spoken of."""
    path = tmp_path / "plain.toml"
    plain = '[[line]]\nname = "a"\npart = [{ name = "p", shape = "strip", start = [0, 0], end = [20, 0], count = 3 }]\n'
    path.write_text(plain + '[[layer]]\nname = "x"\non = "all"\neffect = "solid"\n')
    _, out, _ = fendra("check", path)
    assert "(none)" in out
    for word in ("limiter", "gives", "battery", "controller", "link", "on the tape"):
        assert word not in out, word


def test_a_design_with_errors_has_no_budget(fendra, boards):
    boards.write_text(TWO_BOARDS.replace("volts = 5", "volts = 9"), encoding="utf-8")
    code, out, _ = fendra("check", boards, "--json")
    assert code == 1
    assert json.loads(out)["budget"] is None
    assert "supply  feeds" not in fendra("check", boards)[1]
