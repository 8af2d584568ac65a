"""Shapes, wire order, groups and trails."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.layout import choose_all, place
from fendra.core.shapes import SHAPES
from fendra.core.shapes.ring import Ring
from fendra.core.shapes.strip import Strip
from helpers import design, layer, strip


def test_a_strip_goes_from_end_to_end():
    bar = Strip(name="a", shape="strip", start=(0, 0, 0), end=(30, 40, 0), count=3)
    assert bar.positions().tolist() == [[0, 0, 0], [15, 20, 0], [30, 40, 0]]


@pytest.mark.parametrize(("pitch", "count"), [(10, 6), (12, 5), (50, 2), (60, 1), (16.666667, 4)])
def test_a_strip_by_pitch_has_as_many_leds_as_fit(pitch, count):
    """50 mm long; a rounding error of a thousandth of a pitch does not cost an LED."""
    bar = Strip(name="a", shape="strip", start=(0, 0, 0), end=(30, 40, 0), pitch=pitch)
    points = bar.positions()
    assert len(points) == count
    steps = np.linalg.norm(np.diff(points, axis=0), axis=1)
    assert steps == pytest.approx([pitch] * (count - 1))


@pytest.mark.parametrize(
    ("way", "second"), [("counter-clockwise", [0, 5, 2]), ("clockwise", [0, -5, 2])]
)
def test_a_ring_begins_at_its_angle_and_goes_its_way(way, second):
    ring = Ring(name="r", shape="ring", centre=(0, 0, 2), radius=5, count=4, direction=way)
    assert ring.positions()[:2].round(9).tolist() == [[5, 0, 2], second]
    turned = ring.model_copy(update={"start_angle": 90.0}).positions()
    assert turned[0].round(9).tolist() == [0, 5, 2]


@given(st.integers(1, 300), st.floats(0.1, 1e5), st.floats(-720, 720))
def test_a_ring_is_round_and_even(count, radius, angle):
    ring = Ring(
        name="r", shape="ring", centre=(1, 2, 3), radius=radius, count=count, start_angle=angle
    )
    out = ring.positions() - (1, 2, 3)
    assert np.linalg.norm(out, axis=1) == pytest.approx(np.full(count, radius), rel=1e-6)
    if count > 1:
        steps = np.linalg.norm(out - np.roll(out, 1, axis=0), axis=1)
        assert steps == pytest.approx(np.full(count, steps[0]), rel=1e-6)


def test_every_shape_says_what_it_is():
    for name, shape in SHAPES.items():
        assert len(shape.__doc__ or "") > 40, name


def test_the_table_is_in_wire_order_line_after_line():
    made = fd.Design.from_values(
        {
            "line": [
                {"name": "one", "part": [strip("a", 2), strip("b", 3, facing="back")]},
                {"name": "two", "part": [strip("c", 2)]},
            ]
        }
    )
    table = made.layout().table()
    ways = ["facing_x", "facing_y", "facing_z"]
    assert list(table) == ["line", "address", "part", "index", "name", "x", "y", "z", *ways]
    assert table["part"].tolist() == ["a", "a", "b", "b", "b", "c", "c"]
    assert table["address"].tolist() == [0, 1, 2, 3, 4, 0, 1]
    assert table["index"].tolist() == [0, 1, 0, 1, 2, 0, 1]
    assert table[ways].to_numpy().tolist() == [[0, 0, 1]] * 2 + [[0, -1, 0]] * 3 + [[0, 0, 1]] * 2
    assert table["x"].tolist() == [0, 10, 0, 10, 20, 0, 10]


def chosen(made: fd.Design):
    from fendra.core.findings import Report

    report = Report()
    return choose_all(made, place(made), report), list(report)


def test_groups_and_trails_choose_and_order_by_expression():
    """8 LEDs at 0, 10, ... 70 mm; outward from the middle, 35, two stand at each rank."""
    choices, findings = chosen(
        design(
            groups={"right": "x > 35", "ends": "index == 0 or index == 7", "both": "right"},
            trails={"out": {"of": "all", "by": "abs(x - 35)"}, "back": {"of": "right", "by": "-x"}},
        )
    )
    assert findings == []
    assert choices["right"].spots.tolist() == choices["both"].spots.tolist() == [4, 5, 6, 7]
    assert choices["ends"].spots.tolist() == [0, 7]
    assert choices["out"].rank.tolist() == [3, 2, 1, 0, 0, 1, 2, 3]
    assert choices["out"].ranks == 4
    assert choices["out"].along == pytest.approx([1, 2 / 3, 1 / 3, 0, 0, 1 / 3, 2 / 3, 1])
    assert choices["back"].rank.tolist() == [3, 2, 1, 0]


def test_a_trail_may_join_parts_of_different_lines():
    made = fd.Design.from_values(
        {
            "line": [
                {"name": "l", "part": [{**strip("a", 3), "start": [-30, 0], "end": [-10, 0]}]},
                {"name": "r", "part": [{**strip("b", 3), "start": [10, 0], "end": [30, 0]}]},
            ],
            "trails": {"across": {"of": "part == 'a' or part == 'b'", "by": "x"}},
        }
    )
    choices, _ = chosen(made)
    assert choices["across"].along.tolist() == pytest.approx([0, 1 / 6, 1 / 3, 2 / 3, 5 / 6, 1])


WAYS = ["left", "right", "front", "back", "up", "down"]


@pytest.mark.parametrize("way", WAYS)
def test_an_expression_knows_which_leds_face_a_way(way):
    """One strip of unequal length for each way, and only that of the way is lit."""
    line = [{"name": "l", "part": [
        strip(each, 2 + i, facing=each, at=[0, 20 * i]) for i, each in enumerate(WAYS)]}]  # fmt: skip
    made = design(layer("field", red=f"1 if facing_{way} else 0", green=0, blue=0), line=line)
    program = made.compile()
    lit = program.frame().rgb[:, 0] > 0
    assert lit[program.layout.spots_of_part(way)].all()
    assert lit.sum() == 2 + WAYS.index(way)


def test_facing_is_three_columns():
    made = design(groups={"up": "facing_z > 0.5", "side": "facing_x != 0"})
    choices, findings = chosen(made)
    assert len(choices["up"].spots) == 8
    assert [f.code for f in findings] == ["empty"]


def test_line_bytes_follow_wire_and_colour_order():
    made = fd.Design.from_values(
        {
            "line": [
                {"name": "one", "order": "BRG", "part": [strip("a", 1), strip("b", 1)]},
                {"name": "two", "part": [strip("c", 1)]},
            ],
            "layer": [layer(colour="red"), {**layer(colour="lime", on="b"), "name": "second"}],
        }
    )
    frame = made.compile().frame(at=0)
    assert frame.line_bytes() == [bytes([0, 255, 0, 0, 0, 255]), bytes([0, 255, 0])]
    assert frame.part("b").tolist() == [[0, 255, 0]]
