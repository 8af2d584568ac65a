"""Limits of lines, controllers and pins, and parts that do not fit: each is told with its figures."""

from __future__ import annotations

import pytest

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS, unfold_pins
from helpers import layer, strip


def findings(lines, **keys):
    """Every finding as text, but the note that a part is unlit."""
    made = fd.Design.from_values({"level": 0.25, "line": lines, "layer": [layer()], **keys})
    return [f"{finding.code}: {finding}" for finding in made.check()]


def line(name="a", count=8, at=0, **keys):
    return {"name": name, "part": [strip(f"bar-{name}", count, at=[0, at])], **keys}


TWO = [line("a", pin="D9"), line("b", at=50, pin="D3")]


@pytest.mark.parametrize(
    ("lines", "keys", "says"),
    [
        ([line(count=101, most_leds=100)], {}, "too-many-leds: error: line[1].most_leds: 101 addresses are 1 LED more than the 100 that this line can have."),
        (TWO, {"controllers": {"c": {"most_leds": 15}}}, "16 addresses are 1 LED more than the 15 that 'c' can have"),
        (TWO, {"controllers": {"c": {"most_leds_a_line": 7}}}, "8 addresses are 1 LED more than the 7 that a line of 'c' can have"),
        ([line(count=800, pin="D9")], {"controllers": {"c": {"type": "atmega328p"}}, "rate": 20}, "too-little-memory: error: controllers.c: the pixels of its lines need 2,400 bytes, and its RAM has 2,048"),
        ([line(count=600, pin="D9")], {"controllers": {"c": {"type": "atmega328p"}}, "rate": 20}, "too-little-memory: warning"),
        ([line(count=100)], {"controllers": {"c": {"ram": 299}}}, "need 300 bytes, and its RAM has 299"),
        ([line(pin="D14")], {"controllers": {"c": {"type": "atmega328p"}}}, "no-such-pin: error: line[1].pin: 'c' has no pin 'D14' for line 'a'."),
        ([line(pin="X1")], {"controllers": {"c": {"pins": ["X2-X4"]}}}, "'c' has no pin 'X1'"),
        ([line("a", pin="D9"), line("b", at=50, pin="D9")], {"controllers": {"c": {}}}, "pin-taken: error: line[2].pin: line 'a' and line 'b' both use pin D9."),
        ([line(pin="D9")], {"controllers": {"c": {"uses": {"servo": "D9"}}}}, "'servo' and line 'a' both use pin D9."),
        ([line(pin="D9")], {"controllers": {"c": {"uses": {"radio": "D10"}, "shared": {"timer 1": ["D9-D10"]}}}},
         "'radio' (pin D10) and line 'a' (pin D9) both need timer 1 of 'c', which only one can have."),
        ([line(pin="D9")], {"controllers": {"c": {"uses": {"sound": []}, "shared": {"timer 1": ["D9", "sound"]}}}},
         "line 'a' (pin D9) and 'sound' both need timer 1 of 'c'"),
        ([line(controller="d")], {"controllers": {"c": {}}}, "there is no controller 'd'"),
        (TWO, {"controllers": {"c": {}, "d": {}}}, "there are 2 controllers; which one is this line plugged into?"),
        ([line(controller="c")], {"controllers": {"c": {}, "d": {}}}, "unused: note: controllers.d: no line is plugged into controller 'd'"),
        ([line(supply="bak")], {"supplies": {"back": {"amps": 3}}}, "there is no supply 'bak'. Did you mean 'back'?"),
        ([line(order="GRBW")], {}, "ws2812b has 3 channels, and 'GRBW' 4"),
        ([line(led="sk6812-rgbw", order="RGB")], {}, "sk6812-rgbw has 4 channels, and 'RGB' 3"),
    ],
)  # fmt: skip
def test_each_limit_is_told(lines, keys, says):
    assert any(says in text for text in findings(lines, **keys)), findings(lines, **keys)


def test_what_fits_is_not_spoken_of():
    """At each limit exactly; pins of two controllers may have one name; a use may have no rival."""
    assert findings([line(count=100, most_leds=100)]) == []
    assert (
        findings(TWO, controllers={"c": {"most_leds": 16, "most_leds_a_line": 8, "ram": 64}}) == []
    )
    lines = [line("a", pin="D9", controller="c"), line("b", at=50, pin="D9", controller="d")]
    shared = {"timer 1": ["D9", "D10"]}
    assert findings(lines, controllers={"c": {"shared": shared}, "d": {}}) == []


@pytest.mark.parametrize("name", sorted(CONTROLLERS))
def test_every_controller_type_has_pins_and_memory(name):
    kind = CONTROLLERS[name]
    assert kind.ram >= 512
    pins = unfold_pins(kind.pins)
    assert len(pins) == len({*pins}) >= 5
    assert (
        findings([line(pin=pins[0], level_shifter=True)], controllers={"c": {"type": name}}) == []
    )


@pytest.mark.parametrize(
    ("part", "says"),
    [
        # 100 mm hold 11 LEDs at 10 mm, the first and last at the ends.
        ({"shape": "strip", "start": [0, 0], "end": [100, 0], "count": 12, "pitch": 10.0},
         "length: warning: line[1].part[1].count: 12 LEDs, 10 from one to the next, need 110, and the strip is 100 long, enough for 11."),
        ({"shape": "strip", "start": [0, 0], "end": [100, 0], "count": 9, "pitch": 10.0}, "enough for 11"),
        ({"shape": "path", "points": [[0, 0], [30, 0], [30, 20]], "count": 7, "pitch": 10.0}, "need 60, and the path is 50 long, enough for 6"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "leds_per_address": 3}, "5 LEDs do not fit chips that drive 3 each; the last chip has 2"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "skip": [5]}, "there is no place 5: they go from 0 to 4"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "skip": ["3-x"]}, "'3-x' is not a place: write 4, or '4-9'"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "names": ["a"]}, "1 names for 5 LEDs"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "facing": ["up", "left"]}, "2 facings for 5 LEDs"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "on": "nobody"}, "there is no part 'nobody' to place it on"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "on": "p"}, "parts are placed on each other in a circle: p -> p"),
        ({"shape": "strip", "start": [0, 0], "end": [40, 0], "count": 5, "parallel_to": "q"}, "its line has no part 'q' for `parallel_to`"),
        ({"shape": "strip", "start": [0, 0], "end": [900_000, 0], "pitch": 1.0}, "a part has at most 100000 LEDs"),
        ({"shape": "strip", "start": [0, 0], "end": [900_000, 0], "per_metre": 1000.0}, "a part has at most 100000 LEDs"),
        ({"shape": "arc", "radius": 900_000.0, "start_angle": 0.0, "end_angle": 90.0, "pitch": 1.0}, "a part has at most 100000 LEDs"),
        ({"shape": "assembly", "use": "nothing"}, "there is no assembly 'nothing'"),
        ({"shape": "assembly", "use": "self"}, "assembly 'self' contains itself: self -> self"),
        ({"shape": "assembly", "use": "one", "only": ["tow"]}, "assembly 'one' has no part 'tow'. Did you mean 'two'?"),
        ({"shape": "assembly", "use": "one", "facing": "left"}, "`facing` has no effect on a part of shape 'assembly'"),
        ({"shape": "hidden", "turn": 5.0}, "`turn` has no effect on a part of shape 'hidden'"),
    ],
)  # fmt: skip
def test_parts_that_do_not_fit_are_told(part, says):
    assemblies = {
        "self": {"part": [{"name": "again", "shape": "assembly", "use": "self"}]},
        "one": {"part": [strip("two", 2)]},
    }
    found = findings([{"name": "a", "part": [{"name": "p", **part}]}], assemblies=assemblies)
    assert any(says in text for text in found), found


def test_parts_at_one_place_are_told_and_copies_longer_than_their_original():
    same = [{"name": "a", "part": [strip("one", 3), strip("two", 2)]}]
    (text,) = findings(same)
    assert "LED 0 of 'one' and LED 0 of 'two' are at the same place" in text
    long = [{"name": "a", "part": [strip("one", 3), strip("two", 4, at=[0, 9], parallel_to="one")]}]
    assert any(
        "has 4 addresses, but 'one', whose data it shows, has 3" in text for text in findings(long)
    )
