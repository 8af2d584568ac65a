"""Sums as a maker would do them by hand: what is left, what a battery feels, which wire to buy."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.sheet.tables import materials, pin_table
from helpers import design, layer, strip, tape


def found(lit: fd.Design, code: str, film: fd.Film | None = None) -> list[tuple[str, str, str]]:
    return [(str(f.severity), f.message, f.remedy) for f in lit.check(film) if f.code == code]


def on_supply(count: int = 30, **supply: object) -> fd.Design:
    """One strip of ws2812b, 61 mA each at full white and 1 mA dark, on a supply."""
    line = {"name": "l", "supply": "s", "part": [strip("bar", count)]}
    return design(layer("solid", on="bar", colour="white"), line=[line], supplies={"s": supply})


def test_a_port_that_cannot_give_full_white_says_what_is_left_and_for_how_many_leds():
    """USB 2.0: 0.4 A of 0.5 are kept. 30 LEDs draw 1.83 A, 0.03 of them dark: (0.4 - 0.03) / 1.8 is
    21 % of the light; 0.4 A / 61 mA are 6 LEDs. A supply of 3 A gives 1.83 A at four fifths."""
    [(severity, message, remedy)] = found(on_supply(usb="2.0"), "part-of-full")
    assert severity == "note"
    assert message == "400 mA gives 21% of full white on 30 LEDs, or all of it on 6."
    assert "of 3 A" in remedy
    assert not found(on_supply(volts=5, amps=6), "part-of-full")


def test_a_regulator_without_a_limiter_says_so_in_its_error():
    """0.25 A: (0.25 - 0.02) / 1.2 is 19 %, and 0.25 A / 61 mA are 4 LEDs."""
    board = {"board": {"regulator_amps": 0.25}}
    supply = {"regulator_of": "board", "volts": 5, "limiter": False}
    line = {"name": "l", "supply": "s", "part": [strip("bar", 20)]}
    lit = design(layer("solid", on="bar"), line=[line], supplies={"s": supply}, controllers=board)
    [(severity, message, _)] = found(lit, "over-rating")
    assert severity == "error"
    assert "250 mA gives 19% of full white on 20 LEDs, or all of it on 4" in message


@pytest.mark.parametrize(("white_s", "warns"), [(0.2, True), (0.05, False)])
def test_a_limiter_that_holds_back_more_than_a_tenth_of_a_tape_is_a_warning(white_s, warns):
    """Two seconds, 40 frames, of which 8 or 2 are white; the limiter lets go again at once."""
    supply = {"volts": 5, "amps": 0.5}
    line = {"name": "l", "supply": "s", "part": [strip("bar", 30)]}
    shown = layer("solid", on="bar", colour="white", when="full")
    lit = design(shown, line=[line], supplies={"s": supply}, signals={"full": {"kind": "switch"}},
                 rate=20)  # fmt: skip
    rows = int(white_s * 40)
    film = lit.compile().film(tape(full=[0] * 4 + [1] * rows + [0] * (36 - rows)))
    held = np.count_nonzero(film.let_through["s"] < 1) / len(film)
    said = found(lit, "held-back", film)
    assert bool(said) == (held > 0.1)
    if warns:
        [(severity, message, remedy)] = said
        assert severity == "warning"
        assert f"{held:.0%} of the tape's frames" in message
        assert "use a supply of 3 A" in remedy


def test_the_battery_side_of_a_converter_has_its_current_fuse_and_wire():
    """4 A of 5 V are kept, 20 W; at 80 % from 38.4 V, four fifths of 48: 0.651 A. 1.25 times that is
    0.81 A: a fuse of 1 A, on the thinnest lead that is proposed."""
    lit = on_supply(
        100, volts=5, battery={"volts": 48, "ah": 10}, converter={"efficiency": 0.8, "amps": 5}
    )
    [supply] = lit.budget().supplies
    assert supply.battery_a == pytest.approx(20 / (0.8 * 38.4))
    assert (supply.battery_fuse_a, supply.battery_wire_mm2) == (1.0, 0.5)
    rows = {row[0]: row[1] for row in materials(lit.budget()).rows}
    assert rows["fuse and holder, 1 A"] == "1"


def test_a_converter_without_a_rating_gets_one_proposed():
    """40 LEDs draw 2.44 A; four fifths of 5 A are 4, of 3 A only 2.4: 5 A."""
    lit = on_supply(40, volts=5, battery={"volts": 12, "ah": 5}, converter={"efficiency": 0.9})
    [(severity, _, remedy)] = found(lit, "no-rating")
    assert severity == "note"
    assert "amps of its converter" in remedy
    assert "one of 5 A gives all the light" in remedy
    assert ("converter, 5 V, 5 A", "1", "proposed, because its rating is unknown") in materials(
        lit.budget()
    ).rows


def test_a_wire_thinner_than_its_fuse_asks_for_is_a_warning_and_is_not_bought():
    """3.05 A through 0.75 mm2, which bears 6 A; its fuse of 4 A asks for 0.75, and 2 m of it take
    2 x 2 x 0.0233 x 3.05 = 0.28 V, more than 3 % of 5 V: 1.5 mm2 take 0.142."""
    lit = on_supply(50, volts=5, amps=10, wire={"metres": 2, "mm2": 0.75})
    [(severity, message, remedy)] = found(lit, "thin-wire")
    assert severity == "warning"
    assert "has 0.75 mm²" in message
    assert "needs 1.5 mm²" in message
    assert remedy.startswith("Use 1.5 mm²")
    bought = [row[0] for row in materials(lit.budget()).rows if row[0].startswith("wire, ")]
    assert bought == ["wire, 1.5 mm²"]


def test_a_power_is_measured_as_well_as_a_current():
    """60 LEDs took 2.1 W at 5 V, 0.42 A: 7 mA each, 1 of them dark, 2 for each of three channels."""
    line = {"name": "l", "led": "mine", "part": [strip("bar", 60)]}
    leds = {"mine": {"like": "ws2812b", "measured": {"watts": 2.1, "leds": 60}}}
    lit = design(layer("solid", on="bar"), line=[line], leds=leds)
    assert lit.budget().full_a == pytest.approx(0.42)
    twice = {"mine": {"like": "ws2812b", "measured": {"watts": 2.1, "amps": 1, "leds": 60}}}
    with pytest.raises(fd.DesignError, match="write either `amps` or `watts`"):
        design(layer("solid", on="bar"), line=[line], leds=twice)


def test_keys_are_not_told_to_be_stuck_onto_metal():
    """40 keys in a row at 19.05 mm draw 12.2 W, 16 a metre; nobody sticks them onto aluminium."""
    places = [[19.05 * i, 0] for i in range(40)]
    keys = {"name": "pad", "shape": "points", "points": places}
    lit = design(layer("solid", on="pad"), line=[{"name": "l", "part": [keys]}])
    assert not found(lit, "heat")
    strips = design(layer("solid", on="bar"), line=[{"name": "l", "part": [
        {"name": "bar", "shape": "strip", "start": [0, 0], "end": [400, 0], "count": 40}]}])  # fmt: skip
    assert found(strips, "heat")


def test_given_ram_counts_in_what_is_told_of_firmware():
    """An ATmega328P of which 500 bytes are left: the firmware of 60 LEDs does not fit."""
    pinned = {"tap": {"kind": "switch", "pin": "D2"}}
    line = {"name": "l", "pin": "D6", "part": [strip("bar", 60)]}

    def lit(**more: object) -> fd.Design:
        board = {"main": {"type": "atmega328p", **more}}
        return design(
            layer("solid", on="bar", when="tap"), line=[line], controllers=board, signals=pinned
        )

    assert not found(lit(), "too-little-memory")
    [(_, message, _)] = found(lit(ram=400), "too-little-memory")
    assert "has 400" in message
    assert CONTROLLERS["atmega328p"].ram == 2048


def test_the_sheet_says_what_is_at_every_pin():
    """Lines, inputs, what else the controller does, and what its insides can do once at a time."""
    board = {
        "type": "atmega328p", "uses": {"horn relay": "D9", "radio": ["D10", "D11"]},
        "shared": {"timer 1": ["D9", "D5"]},
    }  # fmt: skip
    signals = {"tap": {"kind": "switch", "pin": "D2"}}
    line = {"name": "tail", "pin": "D6", "part": [strip("bar", 8)]}
    lit = design(layer("solid", on="bar"), line=[line], controllers={"hub": board}, signals=signals)
    assert pin_table(lit.budget()).rows == (
        ("hub", "D6", "data of line 'tail'"),
        ("hub", "D2", "input 'tap', switch"),
        ("hub", "D9", "in use: horn relay"),
        ("hub", "D10, D11", "in use: radio"),
        ("hub", "D9, D5", "share timer 1: one at a time"),
    )
