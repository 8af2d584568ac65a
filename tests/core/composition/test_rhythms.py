"""Rhythms: layers that share a beat stay in step, whichever of them is shown."""

from __future__ import annotations

import numpy as np
import pytest

from agreement import assert_same_light
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.native.engine import NativeEngine
from helpers import design, layer

SWITCHES = {name: {"kind": "switch"} for name in ("left", "right", "both")} | {"load": {}}


def indicators(effect="blink", rate=1.5, when="left or right or both", **keys):
    """Left on LED 0, right on LED 1, both on either; all in one rhythm."""
    groups = {"l": "index == 0", "r": "index == 1"}
    beat = {"rate": rate} if rate is not None else {}
    layers = [layer(effect, on=on, when=when, rhythm="flash", **keys)
              for on, when in (("l", "left"), ("r", "right"), ("all", "both"))]  # fmt: skip
    return design(*layers, count=2, groups=groups, signals=SWITCHES,
                  rhythms={"flash": beat | ({"when": when} if when else {})}, rate=50)  # fmt: skip


def lit(program, news):
    """For each frame at 50 a second whether LEDs 0 and 1 are lit. news: by the frame."""
    rows, known = [], dict.fromkeys(SWITCHES, 0.0)
    for i in range(200):
        known |= news.get(i, {})
        rows.append((program.frame(**known, at=i / 50).rgb[:, 0] > 0).tolist())
    return np.array(rows)


@pytest.mark.parametrize("rate", [1.25, "1.25 + load"])
def test_when_left_gives_way_to_both_the_flash_goes_on_where_it_is(rate):
    """Left at 0.1 s: on for 0.4 s, off for 0.4 s. Both at 0.7 s: still dark, on from 0.9 s."""
    rows = lit(indicators(rate=rate).compile(), {5: {"left": 1}, 35: {"left": 0, "both": 1}})
    assert rows[:5].sum() == 0
    assert (rows[5:25] == [True, False]).all()
    assert rows[25:45].sum() == 0
    assert (rows[45:65] == [True, True]).all()
    assert rows[65:85].sum() == 0


def test_when_none_is_on_the_next_begins_with_a_flash():
    rows = lit(indicators(rate=1.25).compile(), {5: {"left": 1}, 33: {"left": 0}, 41: {"right": 1}})
    assert rows[33:41].sum() == 0
    assert (rows[41:61] == [False, True]).all()


def test_without_a_condition_a_rhythm_goes_on_from_power_up():
    """1.25 Hz from 0 s on: whoever comes at 0.6 s waits for 0.8 s."""
    rows = lit(indicators(rate=1.25, when="").compile(), {30: {"right": 1}})
    assert rows[30:40].sum() == 0
    assert (rows[40:60] == [False, True]).all()


def test_a_rate_that_moves_keeps_all_in_step_to_the_bit():
    """Left, right and both in turn, at rates that change in every frame: as one layer that stays."""
    made = indicators(rate="1 + load", duty=0.4)
    alone = design(layer("blink", rate="1 + load", duty=0.4), count=2, signals=SWITCHES, rate=50)
    program, one = made.compile(), alone.compile()
    for i in range(400):
        name = ("left", "right", "both")[i // 7 % 3]
        news = {**dict.fromkeys(SWITCHES, 0.0), name: 1.0, "load": 1 + np.sin(i / 20)}
        shown = program.frame(news, at=i / 50).rgb[0 if name == "left" else 1].tolist()
        assert shown == one.frame({"load": news["load"]}, at=i / 50).rgb[0].tolist()


@pytest.mark.parametrize(
    "effect", ["blink", "turn", "fill", "pulse", "beacon", "march", "alternate"]
)
@pytest.mark.parametrize("rate", [1.5, "1 + load", None])
def test_layers_in_a_rhythm_are_the_same_in_c(compiler, effect, rate):
    plan = indicators(effect, rate).compile(engine="numpy").plan
    frames = [(20, {"left": float(i % 40 < 20), "both": float(i % 60 > 30), "load": i / 100})
              for i in range(120)]  # fmt: skip
    assert_same_light(NumpyEngine(plan), NativeEngine(plan), frames)


def test_an_effect_without_a_rate_shares_the_beginning():
    """A fill of one LED, on 0.1 s after left comes: both, which comes later, fill as one."""
    rows = lit(indicators("fill", None, step=0.1, hold=0.3, rest=0.3).compile(),
               {5: {"left": 1}, 12: {"left": 0, "both": 1}})  # fmt: skip
    assert rows[5:10].sum() == 0
    assert (rows[10:12] == [True, False]).all()


def test_a_rhythm_too_slow_for_an_effect_is_as_slow_as_that_can_be():
    """A turn indicator flashes at 0.5 Hz at the least: on for the first second of two."""
    rows = lit(indicators("turn", 0.1, run=0).compile(), {0: {"left": 1}})
    assert rows[:50, 0].all()
    assert rows[50:100].sum() == 0


def codes(**keys):
    given = {"count": 2, "signals": SWITCHES, "rhythms": {"flash": {"rate": 1.0}}} | keys
    return [(f.code, f.path, f.message) for f in design(*given.pop("layers"), **given).check()]


def test_a_rhythm_that_there_is_not_and_one_that_nobody_has_are_findings():
    found = codes(layers=[layer("blink", rhythm="flsh"), layer("blink", rhythm="flash", rate=2)])
    assert ("unknown-name", ("layer", 0, "rhythm"), "there is no rhythm 'flsh'.") in found
    assert (
        "no-effect",
        ("layer", 1, "rate"),
        "rhythm 'flash' sets the rate; `rate` has no effect.",
    ) in found
    found = codes(layers=[layer("blink")])
    assert ("unused", ("rhythms", "flash"), "no layer has rhythm 'flash'.") in found
    bad = codes(
        layers=[layer("blink", rhythm="flash")],
        rhythms={"flash": {"rate": "lod", "when": "left > "}},
    )
    assert {path for code, path, _ in bad} >= {
        ("rhythms", "flash", "rate"),
        ("rhythms", "flash", "when"),
    }
    never = codes(layers=[layer("blink", rhythm="flash")], rhythms={"flash": {"when": "1 > 2"}})
    assert any(
        path == ("rhythms", "flash", "when") and "never begins" in says for _, path, says in never
    )
