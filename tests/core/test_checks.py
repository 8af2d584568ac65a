"""Checks: each finding where it belongs, and none where all is well."""

from __future__ import annotations

import pytest

from fendra.core.findings import Severity
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
    assert "there is no 'tail-lef' above" in finding.message
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
