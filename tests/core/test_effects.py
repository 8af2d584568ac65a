"""What each effect shows, against values worked out by hand. White: byte 255 is full."""

from __future__ import annotations

import numpy as np
import pytest

from agreement import BOUND, PLAIN, RING
from fendra.core.effects import EFFECTS
from helpers import design, layer, reds, strip, tape


def shown(effect: str, *times: float, count: int = 8, signals=None, news=None, **keys):
    """The red bytes at each of the times."""
    kinds = {name: {} for name in signals or ()}
    program = design(layer(effect, **keys), count=count, signals=kinds, rate=100).compile()
    return [reds(program.frame(news or {}, at=at_s)) for at_s in times]


def test_solid_is_one_colour():
    assert shown("solid", 0.0, colour="#fff") == [[255] * 8]


def test_gradient_goes_from_start_to_end_in_linear_light():
    (row,) = shown("gradient", 0.0, count=5, colours=["black", "white"])
    assert row == [0, 64, 128, 191, 255]


def test_gradient_drifts_there_and_back_without_a_seam():
    """Half a turn later, what was at the start is at the end: the colours have moved on."""
    rows = shown(
        "gradient", *np.arange(0, 4.01, 0.02), count=9, colours=["black", "white"], rate=0.5
    )
    assert rows[0] == [0, 32, 64, 96, 128, 159, 191, 223, 255]
    assert rows[50] == rows[0][::-1]  # one second: half a turn
    assert rows[100] == pytest.approx(rows[0], abs=1)
    assert np.abs(np.diff(np.array(rows, int), axis=0)).max() <= 6  # 255 * 2 * 0.5 * 0.02 = 5.1


@pytest.mark.parametrize(("at_s", "lit"), [(0.0, 0), (0.07, 0), (0.08, 1), (1.91, 23), (1.92, 24)])
def test_fill_of_24_at_80_ms_is_full_after_1920_ms(at_s, lit):
    (_, row) = shown("fill", 0.0, at_s, count=24, step=0.08)
    assert row == [255] * lit + [0] * (24 - lit)


def test_fill_stays_then_empties_in_the_same_order_and_begins_anew():
    """4 LEDs, 0.1 s a step: full from 0.4 to 0.9, off one by one until 1.2, dark until 1.7."""
    times = [0.0, 0.39, 0.4, 0.89, 0.9, 1.0, 1.19, 1.2, 1.69, 1.7, 1.8, 2.0, 2.49, 2.5]
    rows = shown("fill", *times, count=4, step=0.1, hold=0.5, rest=0.5)
    assert [sum(row) // 255 for row in rows] == [0, 3, 4, 4, 3, 2, 1, 0, 0, 1, 2, 4, 4, 3]
    assert rows[5] == [0, 0, 255, 255]


def test_fill_can_go_off_all_at_once_and_run_from_the_other_end():
    rows = shown(
        "fill", 0.0, 0.2, 0.89, 0.9, count=4, step=0.1, hold=0.5, empty=False, reverse=True
    )
    assert rows == [[0] * 4, [0, 0, 255, 255], [255] * 4, [0] * 4]


def test_fill_begins_when_its_layer_comes_on():
    program = design(
        layer("fill", step=0.1, when="go"), count=4, signals={"go": {"kind": "switch"}}
    ).compile()
    sums = [sum(reds(program.frame(go=at_s >= 0.35, at=at_s))) // 255 for at_s in (0, 0.35, 0.45)]
    assert sums == [0, 0, 1]


def test_fill_step_may_be_bound_and_never_skips_back():
    program = design(
        layer("fill", step="0.05 + 0.1 * s", hold=60), count=24, signals={"s": {}}
    ).compile()
    lit = [
        sum(reds(program.frame(s=0.5 + 0.5 * np.sin(at_s), at=at_s))) // 255
        for at_s in np.arange(0, 3, 0.02)
    ]
    assert lit == sorted(lit)
    assert lit[-1] > 20


def changing(first, then, at_s, count=4, **keys):
    """LEDs that are lit of a fill in each of 120 frames, where s goes from one value to another."""
    program = design(layer("fill", **keys), count=count, signals={"s": {}}, rate=50).compile()
    return [
        sum(reds(program.frame(s=first if i / 50 < at_s else then, at=i / 50))) // 255
        for i in range(120)
    ]


def test_fill_with_times_that_are_bound_and_stay_the_same_is_as_with_plain_ones():
    """Frame by frame, with 7 LEDs at 0.06 s, and with stages of no length at all."""
    for keys in ({"hold": 0.3, "rest": 0.22}, {"hold": 0.0, "rest": 0.1}, {"hold": 0.1, "rest": 0},
                 {"hold": 0.3, "rest": 0.1, "empty": False}, {"hold": 0, "rest": 0}):  # fmt: skip
        plain = changing(1, 1, 9, count=7, step=0.06, **keys)
        assert plain == changing(1, 1, 9, count=7, step="0.06 * s", **keys)
        bound = {name: f"{value} * s" for name, value in keys.items() if name != "empty"}
        assert plain == changing(1, 1, 9, count=7, step=0.06, **keys | bound)
    keys = {"hold": 0.11, "rest": 0.07}  # between frames: what is over counts to what comes next
    assert changing(1, 1, 9, count=7, step=0.05, **keys) == changing(
        1, 1, 9, count=7, step="0.05 * s", **keys
    )


def test_fill_goes_on_where_it_is_when_its_step_changes():
    """10 LEDs: 5 are lit after 0.5 s at 0.1 s; then one each 0.2 s, and all stay on for 0.3 s."""
    lit = changing(0.1, 0.2, 0.51, count=10, step="s", hold=0.3, rest=0.3)
    assert lit[24:27] == [4, 5, 5]
    assert lit[34:36] == [5, 6]
    assert lit[74:76] == [9, 10]
    assert lit[89:91] == [10, 9]


def test_fill_goes_on_where_it_is_when_it_holds_longer():
    """2 LEDs, full at 0.2 s. A third of 0.3 s has passed when 0.6 s are asked for: 0.4 s are left."""
    lit = changing(0.3, 0.6, 0.31, count=2, step=0.1, hold="s", rest=0.3)
    assert (lit[10], lit[34], lit[35]) == (2, 2, 1)


def test_blink_is_on_first_and_for_its_share():
    times = [0.0, 0.12, 0.13, 0.49, 0.5, 0.63]
    rows = shown("blink", *times, rate=2, duty=0.25)
    assert [row[0] for row in rows] == [255, 255, 0, 0, 255, 0]


def test_pulse_swells_from_low_to_high_and_back():
    """Smoothed: a quarter of the way up, 0.5, is reached at a quarter of the time."""
    rows = shown("pulse", 0.0, 0.25, 0.5, 0.75, 1.0, rate=1, low=0.2, high=0.6)
    assert [row[0] for row in rows] == [51, 102, 153, 102, 51]


@pytest.mark.parametrize(
    ("value", "row"),
    [(0, [0, 0, 0, 0]), (25, [255, 0, 0, 0]), (62.5, [255, 255, 128, 0]), (100, [255] * 4),
     (-5, [0] * 4), (400, [255] * 4)],
)  # fmt: skip
def test_gauge_is_lit_as_far_as_the_value_says(value, row):
    white = {"colours": ["white"], "high": 100}
    assert shown("gauge", 0.0, count=4, value=value, **white) == [row]
    whole = [255 if byte >= 128 else 0 for byte in row]
    assert shown("gauge", 0.0, count=4, value=value, whole=True, **white) == [whole]


def test_gauge_has_a_ramp_of_three_colours_and_blinks_at_the_red_line():
    colours = {"colours": ["black", "red", "black"], "value": "s", "threshold": 0.9}
    rows = shown("gauge", 0.0, 0.1, 0.3, count=5, signals=["s"], news={"s": 0.89}, **colours)
    assert rows == [[0, 128, 255, 128, 0]] * 3
    rows = shown("gauge", 0.0, 0.1, 0.3, count=5, signals=["s"], news={"s": 1}, rate=2.5, **colours)
    assert [row[2] for row in rows] == [255, 255, 0]  # 2.5 Hz: on for 0.2 s, off for 0.2 s


def test_sweep_runs_to_and_fro_with_soft_edges():
    """One run there and back in 2 s; the dot is 0.5 wide: its light ends 0.25 from its middle."""
    rows = shown("sweep", 0.0, 0.5, 1.0, 1.5, count=9, rate=0.5, width=0.5)
    edge = round(255 * 0.5)  # half way to the edge, smoothed: 0.5
    assert rows[0] == [255, edge, 0, 0, 0, 0, 0, 0, 0]
    assert rows[1] == [0, 0, 0, edge, 255, edge, 0, 0, 0]
    assert rows[2] == rows[0][::-1]
    assert rows[3] == pytest.approx(rows[1], abs=1)


GRID = {"name": "grid", "shape": "grid", "columns": 4, "rows": 3, "pitch": 12}
PARTS = {"one": strip("one", 1), "two": strip("two", 2), "ring": RING, "grid": GRID}


@pytest.mark.parametrize("name", EFFECTS)
def test_every_effect_keeps_within_full_light_on_any_choice_and_is_the_same_twice(name):
    """On one LED, two, a ring, a grid and none; with its defaults, and with all that can be bound
    bound to a signal that goes over its whole range.
    """
    effect = EFFECTS[name]
    assert len(effect.about) > 20
    assert all(item.about for item in effect.parameters.values())
    bound = {
        key: BOUND[item.kind](item)
        for key, item in effect.parameters.items()
        if item.kind in BOUND and (name, key) not in PLAIN
    }
    for keys in ({}, bound):
        layers = [layer(name, **keys) | {"on": on} for on in (*PARTS, "none")]
        made = design(
            *layers, line=[{"name": "l", "part": [*PARTS.values()]}], signals={"s": {}},
            groups={"none": "x < -1e6"},
        )  # fmt: skip
        engine, runs = made.compile("numpy").engine, []
        for _ in range(2):
            engine.reset()
            light = [engine.light(step * 77, {"s": step / 39})[0].copy() for step in range(40)]
            runs.append(np.array(light))
        assert np.isfinite(runs[0]).all()
        assert runs[0].min() >= 0
        assert runs[0].max() <= 1.00001
        assert runs[0].tobytes() == runs[1].tobytes()


@pytest.mark.parametrize("name", [n for n, e in EFFECTS.items() if "seed" in e.parameters])
def test_another_seed_gives_another_film(name):
    films = [
        design(layer(name, seed=seed), count=30).compile().film(tape(s=[0] * 100)).rgb
        for seed in (1, 1, 2)
    ]
    assert films[0].tobytes() == films[1].tobytes() != films[2].tobytes()
