"""Checks: each finding where it belongs, and none where all is well."""

from __future__ import annotations

import dataclasses

import pytest

from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.core.checks.firmware import Told
from fendra.core.engines.c99.cost import Cost
from fendra.core.findings import Report, Severity
from helpers import design, layer, strip


def codes(made) -> list[tuple[str, str]]:
    return [(str(finding.severity), finding.code) for finding in made.check()]


def test_a_sound_design_has_no_findings():
    assert codes(design(layer(level="s"), signals={"s": {}})) == []


@pytest.mark.parametrize(
    ("made", "code", "severity"),
    [
        (design(layer(when="1 > 2")), "never-shows", "warning"),
        (design(layer(when=False)), "never-shows", "warning"),
        (design(layer(level=0)), "never-shows", "warning"),
        (design(layer(on="g"), layer(), groups={"g": "x > 1000"}), "never-shows", "warning"),
        (design(layer("blink"), layer()), "never-shows", "warning"),
        (design(), "unlit", "note"),
        (design(layer(), signals={"s": {}}), "unread", "note"),
        (design(layer(level="s"), signals={"s": {"range": [1, 1]}}), "range", "error"),
        (design(layer(level="s"), signals={"s": {"range": [0, 1], "fallback": 2}}), "range", "warning"),
        (design(layer(level="s"), signals={"s": {"hold": 1}}), "no-effect", "warning"),
        (design(layer(when="s"), signals={"s": {"kind": "switch", "smooth": 1}}), "no-effect", "warning"),
        (design(layer(level="s"), signals={"s": {"of": "1", "lost_after": 1}}), "no-effect", "warning"),
        (design(layer(level="x"), signals={"x": {}}), "reserved-name", "error"),
        (design(layer(), count=2000), "slow-line", "warning"),
        (design(layer(level="s"), signals={"s": {"of": "t"}, "t": {"of": "s"}}), "expression", "error"),
        (design(layer(), groups={"bar": "x > 1"}), "duplicate-name", "error"),
        (design(layer("fill", step="x")), "effect", "error"),
        (design(layer("gauge", low=3, high=3)), "effect", "error"),
        (design(layer(when="x > 1")), "expression", "error"),
    ],
)  # fmt: skip
def test_each_defect_is_found(made, code, severity):
    assert (severity, code) in codes(made)


def test_a_slow_line_says_what_it_takes_and_the_rate_that_fits():
    """2,000 pixels x 24 bits x 1.25 us + 280 us = 60.28 ms: 16 frames a second."""
    (finding,) = [f for f in design(layer(), count=2000).check() if f.code == "slow-line"]
    assert "60.3 ms" in finding.message
    assert "rate = 16" in finding.remedy


def test_a_line_too_long_for_any_rate_has_to_be_split():
    (finding,) = [f for f in design(layer(), count=50_000).check() if f.code == "slow-line"]
    assert finding.remedy == "Split the line."


def test_names_that_stand_twice_are_errors():
    line = {"name": "l", "part": [strip("a"), strip("a")]}
    made = design(layer(), line=[line, line])
    found = [f.path for f in made.check() if f.code == "duplicate-name"]
    assert ("line", 0, "part", 1, "name") in found
    assert ("line", 1, "name") in found
    assert all(f.severity is Severity.ERROR for f in made.check() if f.code == "duplicate-name")


def test_a_group_that_is_not_there_is_taken_for_no_subtraction():
    """'tail-lef' is not `tail` minus `lef`."""
    made = design(
        layer(), groups={"tail-left": "x > 1"}, trails={"out": {"of": "tail-lef", "by": "x"}}
    )
    (finding,) = [f for f in made.check() if f.severity == "error"]
    assert "there is no part, line, group or trail 'tail-lef'" in finding.message
    assert finding.remedy == "Did you mean 'tail-left'?"


def test_signals_computed_in_a_circle_are_named():
    made = design(layer(level="s"), signals={"s": {"of": "t"}, "t": {"of": "s"}})
    assert any("'s' is computed from itself: s -> t -> s" in f.message for f in made.check())


@pytest.mark.parametrize(
    ("above", "is_hidden"),
    [
        (layer("solid"), True),
        (layer("solid", when="2 > 1"), True),  # always, however it is written
        (layer("fill", hides_below=True), True),
        (layer("solid", level=0), True),  # black covers as well
        (layer("solid", level="s"), True),
        (layer("solid", cover="s"), False),
        (layer("solid", cover=0.99), False),
        (layer("solid", when="s > 0.5"), False),
        (layer("solid", fade_in=1), False),  # one second after power-up it is not there whole
        (layer("solid", blend="max"), False),
        (layer("solid", scene="calm"), False),
        (layer("solid", on="front-half"), False),
        (layer("fill"), False),
    ],
)
def test_a_layer_is_hidden_by_one_that_always_covers_all_its_leds(above, is_hidden):
    made = design(
        layer("blink", when="s > 0.1"), above, signals={"s": {}}, groups={"front-half": "x > 0"},
        scene=[{"name": "calm", "when": "s > 0.3"}],
    )  # fmt: skip
    hidden = [f for f in made.check() if f.code == "never-shows" and f.path == ("layer", 0)]
    assert len(hidden) == is_hidden


@pytest.mark.parametrize(("below", "is_hidden"), [("s < -25", True), ("s < -15", False)])
def test_scenes_are_held_against_each_other_below_zero(below, is_hidden):
    """Between -20 and -15 the lower scene is there alone."""
    scenes = [{"name": "deep", "when": "s < -20"}, {"name": "lower", "when": below}]
    made = design(layer(), scene=scenes, signals={"s": {}})
    hidden = [f for f in made.check() if f.code == "never-shows" and f.path == ("scene", 1, "when")]
    assert len(hidden) == is_hidden


def test_a_kind_that_there_is_not_is_one_message_whatever_reads_the_signal():
    made = design(
        layer(when="tap"), layer("blink", when="tap and s > 0.2", colour="tap", level="2 * s"),
        layer("gauge", value="tap.x", when="lost(tap) or tap == 'go'"),
        layer("ripple", trigger="tap", cover="tap", when="both"),
        signals={
            "s": {}, "both": {"kind": "switch", "of": "tap and s > 0.3"},
            "tap": {"kind": "swich", "hold": 2, "choices": ["go", "stop"], "fallback": "go"},
        },
        scene=[{"name": "x", "when": "tap"}],
    )  # fmt: skip
    (found,) = [finding for finding in made.check() if finding.code != "unused"]
    assert (found.code, found.path) == ("wrong-value", ("signals", "tap", "kind"))
    assert "Did you mean 'switch'?" in found.remedy


def test_what_is_wrong_is_not_taken_for_always():
    """A layer of which nothing is known hides nothing."""
    for keys in ({"when": "ss > 0.5"}, {"cover": "ss"}, {"blend": "ovr"}):
        made = design(layer("blink"), layer(**keys), signals={"s": {}})
        assert "never-shows" not in [finding.code for finding in made.check()], keys


# ---- At their limits, with figures that are all unlike ----------------------------------------------------


def found(code, *layers, **keys):
    """Severity and text of each finding of a code."""
    made = design(*(layers or [layer()]), **keys)
    return [(str(f.severity), f"{f.message} {f.remedy}") for f in made.check() if f.code == code]


def lines(*counts, **keys):
    return [
        {"name": f"l{i}", "part": [strip(f"s{i}", count, at=[0, 9 * i])], **keys}
        for i, count in enumerate(counts)
    ]


AVR = {"c": {"type": "atmega328p"}}


def test_memory_is_told_from_three_quarters_on_and_beyond_it_is_an_error():
    """25 LEDs are 75 bytes: of 100 just three quarters, of 99 more, of 75 all, of 74 too little."""
    for ram, severity in (
        (100, None),
        (99, "warning"),
        (79, "warning"),
        (75, "warning"),
        (74, "error"),
    ):
        told = found("too-little-memory", line=lines(25), controllers={"c": {"ram": ram}})
        assert [each[0] for each in told] == ([severity] if severity else []), ram


def test_a_controller_s_leds_are_those_of_all_of_its_lines():
    keys = {"line": lines(5, 8), "controllers": {"c": {"most_leds": 12}}}
    ((severity, text),) = found("too-many-leds", **keys)
    assert (severity, "13 addresses are 1 LED more than the 12" in text) == ("error", True)


def test_a_pin_has_several_names_and_is_one():
    """D6 and PD6 are one pin of an ATmega328P; a voltage may be read where no data can go out."""
    line = [{**lines(3)[0], "pin": "D6"}, {**lines(3, 3)[1], "pin": "PD6"}]
    ((_, text),) = found("pin-taken", line=line, controllers=AVR)
    assert "D6, which is PD6" in text
    signals = {"s": {"pin": "A6"}}
    assert (
        found("no-such-pin", layer(level="s"), line=lines(3), controllers=AVR, signals=signals)
        == []
    )
    signals = {"s": {"pin": "A9"}}
    assert found("no-such-pin", layer(level="s"), line=lines(3), controllers=AVR, signals=signals)


def test_a_budget_below_what_dark_leds_draw_leaves_no_light():
    """30 LEDs, 30 mA dark: a rating of 1 A does not help a budget of 0.02."""
    line = lines(30, supply="s")
    for supply, is_told in (({"amps": 1, "budget": 0.02}, True), ({"amps": 1, "budget": 0.04}, False),
                            ({"amps": 0.02, "limiter": False}, True)):  # fmt: skip
        assert bool(found("no-current-left", line=line, supplies={"s": supply})) is is_told, supply


@pytest.mark.parametrize(
    ("budget", "code"),
    [(0.8, None), (0.82, "derating"), (0.95, "derating"), (1.0, "derating"), (1.05, "over-rating")],
)
def test_a_budget_is_held_against_four_fifths_and_all_of_the_rating(budget, code):
    line = lines(30, supply="s")
    made = design(layer(), line=line, supplies={"s": {"amps": 1, "budget": budget}})
    told = {f.code for f in made.check()} & {"derating", "over-rating"}
    assert told == ({code} if code else set())


@pytest.mark.parametrize(("amps", "size"), [(2.9, "0.5 mm²"), (5.9, "0.75 mm²"), (9.9, "1 mm²")])
def test_the_wire_that_is_proposed_bears_the_current(amps, size):
    """61 mA an LED through a lead of 0.14 mm2."""
    line = lines(int(amps / 0.061), supply="s")
    supplies = {"s": {"amps": 50, "wire": {"metres": 0.1, "mm2": 0.14}}}
    texts = [text for _, text in found("thin-wire", line=line, supplies=supplies)]
    assert any(f"Use {size}, or" in text for text in texts), texts


@pytest.mark.parametrize(("rate", "is_told"), [(98, False), (100, True), (140, True)])
def test_a_line_that_is_slower_than_its_frames_is_told(rate, is_told):
    """328 LEDs take 328 * 30 us + 280 us = 10.12 ms: 98.8 frames a second."""
    assert bool(found("slow-line", line=lines(328), rate=rate)) is is_told


@pytest.mark.parametrize(
    ("rate", "severity"), [(39, None), (41, "note"), (44, "note"), (51, "warning")]
)
def test_a_link_is_told_from_four_fifths_of_what_it_carries_on(rate, severity):
    """A line of 90 bytes is 106 in the stream: 53,000 baud carry 50 frames a second."""
    controllers = {"c": {"type": "rp2040", "link": {"baud": 53_000}}}
    told = found(
        "slow-link", line=lines(30, level_shifter=True), rate=rate, controllers=controllers
    )
    assert [each[0] for each in told] == ([severity] if severity else [])


def test_what_an_8_bit_controller_hears_and_sends_has_to_fit_into_a_frame():
    """30 LEDs take 1.18 ms to be sent, and their 106 bytes 9.2 ms to come at 115,200 baud, ten bits
    each: 10.4 ms, 96 times a second."""
    controllers = {"c": {"type": "atmega328p", "link": {"baud": 115_200}}}
    assert not found("deaf", line=lines(30), controllers=controllers, rate=96)
    ((_, text),) = found("deaf", line=lines(30), controllers=controllers, rate=97)
    assert "takes 9.2 ms to arrive and 1.18 ms to send" in text
    assert "Set rate = 96" in text


@pytest.mark.parametrize(
    ("kind", "baud", "words"),
    [
        ("atmega328p", 500_000, None), ("atmega328p", 115_200, None), ("rp2040", 2_000_000, None),
        # 16 MHz by 220 cycles a byte, ten bits each; what divides 2 MHz is made exactly.
        ("atmega328p", 1_000_000, "can take 727,273 baud, not 1000000. Write link = { baud = 500000 }"),
        ("atmega2560", 460_800, "turns 460800 baud into 500,000, 8.5% off"),
        ("atmega328p", 230_400, "turns 230400 baud into 222,222, 3.5% off"),
    ],
)  # fmt: skip
def test_a_serial_port_that_a_receiver_cannot_follow(kind, baud, words):
    controllers = {"c": {"type": kind, "link": {"baud": baud}}}
    told = found("link-too-fast", line=lines(30, level_shifter=True), controllers=controllers)
    assert [words in text for _, text in told] == ([True] if words else [])


def test_a_level_shifter_mends_what_is_too_low():
    controllers = {"c": {"type": "rp2040"}}
    assert found("logic-level", line=lines(3), controllers=controllers)
    assert not found("logic-level", line=lines(3, level_shifter=True), controllers=controllers)


def test_a_hidden_layer_lies_under_one_that_covers_all_of_its_leds():
    """Under a part of it, a layer still shows."""
    groups = {"left": "x < 35", "more": "x < 55"}
    below, above = layer("blink", on="left"), layer(on="more")
    assert found("never-shows", below, above, groups=groups)
    assert not found("never-shows", layer("blink", on="more"), layer(on="left"), groups=groups)
    assert found("never-shows", layer("solid", cover=0.0, hides_below=True))


def test_strips_that_are_cut_wrong_are_told_with_what_is_left():
    """7 LEDs, three a chip: the last chip has one; six or nine are whole."""
    line = [{"name": "l", "part": [strip("s", 7, leds_per_address=3)]}]
    ((_, text),) = found("uneven", line=line)
    assert "drive 3 each; the last chip has 1" in text
    assert "count 9, or fewer" in text


def test_leds_of_two_parts_at_one_place_are_told_and_of_one_part_not():
    line = [
        {"name": "l", "part": [strip("a", 3), strip("b", 3, at=[20, 0]), strip("c", 2, at=[0, 50])]}
    ]
    ((_, text),) = found("same-place", line=line)
    assert "LED 2 of 'a' and LED 0 of 'b'" in text
    once = {"name": "p", "shape": "points", "points": [[0, 0], [0, 0]]}
    assert not found("same-place", line=[{"name": "l", "part": [once]}])


@pytest.mark.parametrize(
    ("fallback", "is_told"), [(2, False), (5, False), (1.9, True), (5.1, True)]
)
def test_a_fallback_may_be_an_end_of_the_range(fallback, is_told):
    signals = {"s": {"range": [2, 5], "fallback": fallback}}
    assert bool(found("range", layer(level="s"), signals=signals)) is is_told


@pytest.mark.parametrize(
    ("volts", "told"), [(3.9, True), (4.0, False), (5.5, False), (5.6, True), (6.5, True)]
)
def test_voltages_that_leds_do_not_bear(volts, told):
    supplies = {"s": {"volts": volts, "amps": 9}}
    assert bool(found("wrong-volts", line=lines(3, supply="s"), supplies=supplies)) is told


@pytest.mark.parametrize(("volts", "told"), [(5.5, True), (5.6, False), (9.2, False), (9.3, True)])
def test_a_battery_gives_its_own_voltage_within_a_quarter(volts, told):
    """Two cells of 3.7 V: 5.55 to 9.25 V."""
    supplies = {"s": {"volts": volts, "battery": {"cells": 2, "ah": 1}}}
    line = lines(3, supply="s", led="mine")
    leds = {"mine": {"like": "ws2815", "volts": 7, "least_volts": 5, "most_volts": 10}}
    assert bool(found("contradiction", line=line, supplies=supplies, leds=leds)) is told


@pytest.mark.parametrize(
    ("lead_ohm", "severity"), [(0.5, None), (0.8, None), (0.9, "note"), (1.1, "warning")]
)
def test_a_voltage_just_above_what_leds_need_is_a_note(lead_ohm, severity):
    """17 LEDs at 61 mA draw 1.037 A: of the volt between 5 and 4 less than a tenth is left from
    0.868 ohm of lead on, there and back, and nothing from 0.964 on."""
    part = {"name": "p", "shape": "points", "points": [[i / 1000, 0] for i in range(17)]}
    line = [{"name": "l", "supply": "s", "part": [part]}]
    wire = {"metres": lead_ohm / 2 * 2.5 / 0.0175, "mm2": 2.5}
    supplies = {"s": {"volts": 5, "amps": 9, "limiter": False, "wire": wire}}
    told = found("low-voltage", line=line, supplies=supplies)
    assert [each[0] for each in told] == ([severity] if severity else [])


def test_only_checks_that_can_stop_a_design_run_before_it_is_compiled():
    """A dark layer is a warning, and no compile waits for it."""
    made = design(layer(level=0))
    made.compile()
    assert "never-shows" in [f.code for f in made.check()]


def test_a_firmware_that_may_not_fit_is_a_warning_up_to_a_quarter_more():
    cost = Cost(flash=0, memory=100, stack=50, operations=1, work=1000, layers=((0, 900), (1, 100)),
                rest=0, mix=0, hz=16e6, line_s=0.0, waits=True)  # fmt: skip
    kind = CONTROLLERS["atmega328p"]
    made = design(layer(), layer("blink"))
    for flash, severity in (
        (kind.flash, "note"),
        (int(1.2 * kind.flash), "warning"),
        (int(1.3 * kind.flash), "error"),
    ):
        report = Report()
        Told(made, kind, dataclasses.replace(cost, flash=flash)).report((), report)
        (told,) = report
        assert (str(told.severity), told.code) == (
            severity, "firmware" if severity == "note" else "too-little-flash"
        )  # fmt: skip


def test_a_firmware_s_speed_is_that_of_the_tape_where_there_is_one():
    """400,000 cycles of 16 MHz are 40 a second; on the tape 200,000 at the most, 80."""
    cost = Cost(flash=10, memory=100, stack=50, operations=1, work=400_000, layers=(), rest=0, mix=0,
                hz=16e6, line_s=0.0, waits=True)  # fmt: skip
    kind, made = CONTROLLERS["atmega328p"], design(layer(), rate=50)
    for on_tape, codes in ((None, ["firmware-slow"]), ((1e5, 2e5, 3.0), ["firmware"])):
        report = Report()
        Told(made, kind, cost, on_tape).report((), report)
        assert [finding.code for finding in report] == codes
