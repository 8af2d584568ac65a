"""Made-up courses, the places of spaces, and pictures sampled at them."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.effects.pictures import Picture, sampled
from fendra.core.insight.timeline import Appearance
from fendra.core.layout.choice import choose_all, in_own_order
from fendra.core.layout.space import Space
from fendra.core.signals.courses import made_up, typed
from helpers import design, layer, strip, tape

SIGNALS = {"rpm": {}, "glow": {"kind": "colour"}, "left": {"kind": "switch"}, "gear": {},
           "mode": {"kind": "choice", "choices": {"calm": 2, "wild": 7}},
           "fast": {"of": "rpm * 2"}}  # fmt: skip


def course(name, at_s, **keys):
    made = made_up(design(layer(), signals=SIGNALS), **keys)
    return [float(np.interp(at, made.times, made.signals[name])) for at in at_s]


def test_a_sweep_goes_up_and_down_again():
    assert course("rpm", [0, 1.5, 3, 4.5, 6], sweeps=["rpm=1000:4000:3s"]) == pytest.approx(
        [1000, 2500, 4000, 2500, 1000]
    )


def test_steps_toggles_and_values_that_stay():
    keys = {"steps": ["mode=calm,wild,5:0.5"], "toggles": ["left=1s"], "sets": ["gear=3"]}
    assert course("mode", [0, 0.48, 0.5, 1.2, 1.5], **keys) == [2, 2, 7, 5, 2]
    assert course("left", [0, 0.98, 1.0, 1.98, 2.0], **keys) == [0, 0, 1, 1, 0]
    assert course("gear", [0, 2], **keys) == [3, 3]


def test_a_course_stands_for_a_signal_of_a_tape_and_keeps_the_others():
    ride = tape(rpm=[1, None, 3], gear=[1, 2, None])
    made = made_up(design(layer(), signals=SIGNALS), sets=["rpm=9"], tape=ride)
    assert set(made.signals["rpm"]) == {9}
    assert [news for _, news in made.news() if "gear" in news] == [
        {"rpm": 9.0, "gear": 1.0}, {"rpm": 9.0, "gear": 2.0}
    ]  # fmt: skip
    assert made.duration_s == ride.duration_s


def test_a_tape_is_twice_as_long_as_its_longest_course_if_nobody_says():
    lamp = design(layer(), signals=SIGNALS)
    assert made_up(lamp, sweeps=["rpm=0:1:4s"]).duration_s == 8
    assert made_up(lamp, sets=["rpm=1"]).duration_s == 5
    assert made_up(lamp, sets=["rpm=1"], duration_s=1.5).duration_s == 1.5


@pytest.mark.parametrize(
    ("keys", "says"),
    [
        ({"sets": ["fast=1"]}, "computed by the design"),
        ({"sets": ["rmp=1"]}, "Did you mean 'rpm'"),
        ({"sweeps": ["rpm=0:1:0s"]}, "not a time"),
        ({"sweeps": ["rpm=0:much:1s"]}, "'much' is not a number"),
        ({"steps": ["mode=wilder:1s"]}, "Its words are calm, wild"),
    ],
)
def test_what_is_written_wrong_is_said(keys, says):
    with pytest.raises(fd.SignalError, match=says):
        made_up(design(layer(), signals=SIGNALS), **keys)


def space(part, **keys):
    made = fd.Design.from_values({"line": [{"name": "l", "part": [part]}], **keys})
    layout = made.layout()
    return Space("all", layout, choose_all(made, layout, [])["all"])


def test_a_space_is_seen_from_the_side_that_shows_most_of_it():
    """A matrix that stands up and looks forward: seen from the front, x grows to the left."""
    grid = {"name": "g", "shape": "grid", "columns": 3, "rows": 2, "pitch": 10, "tilt": [90, 0],
            "turn": 180, "first": "bottom-left"}  # fmt: skip
    seen = space(grid)
    assert seen.view.name == "front"
    assert seen.values("across").tolist() == [0, 0.5, 1, 0, 0.5, 1]
    assert seen.values("up").tolist() == [0, 0, 0, 1, 1, 1]
    assert seen.pitch == pytest.approx(10)


def test_angles_and_radii_are_from_the_middle_of_the_spots():
    ring = {"name": "r", "shape": "ring", "centre": [100, 50], "radius": 20, "count": 4}
    seen = space(ring)
    assert seen.values("angle").tolist() == pytest.approx([0, 90, 180, 270])
    assert seen.values("radius").tolist() == pytest.approx([20] * 4)
    assert seen.middle == pytest.approx((100, 50, 0))


def test_one_spot_is_at_the_beginning_of_everything():
    seen = space(strip("one", 1))
    for name in ("across", "up", "along", "radius", "angle", "number", "of_part"):
        assert seen.values(name).tolist() == [0.0]


def test_a_sampled_picture_weighs_colour_by_what_it_covers():
    """Half a pixel of clear red and half of full blue: blue, at half cover."""
    pixels = np.array([[[[1, 0, 0, 0], [0, 0, 1, 1]]]], np.float32)
    (value,) = sampled(Picture(pixels, (1.0,)), [0.5], [0.5], (0.5, 1.0))[0]
    assert value.tolist() == [0, 0, 1, 0.5]
    outside = sampled(Picture(pixels, (1.0,)), [3.0], [0.5], (0.5, 1.0))
    assert outside[0, 0, 3] == 0


def test_the_mean_of_a_sampled_picture_is_its_own():
    rng = np.random.default_rng(2)
    pixels = np.concatenate([rng.random((1, 6, 8, 3)), np.ones((1, 6, 8, 1))], axis=-1)
    picture = Picture(pixels.astype(np.float32), (1.0,))
    x, y = np.meshgrid((np.arange(4) + 0.5) / 4, (np.arange(3) + 0.5) / 3)
    found = sampled(picture, x.ravel(), y.ravel(), (1 / 4, 1 / 3))
    assert found[0, :, :3].mean(axis=0) == pytest.approx(pixels[0, ..., :3].mean(axis=(0, 1)))


def test_a_course_is_cut_into_its_stretches():
    there = np.array([0, 0.5, 1, 0, 0, 1], np.float32)
    assert Appearance("a", "b", there).stretches() == [(1, 3), (5, 6)]
    assert Appearance("a", "b", there * 0).stretches() == []


# ---- Spaces whose spots are not evenly spread ------------------------------------------------------


def space_of(points, **keys):
    part = {"name": "p", "shape": "points", "points": points, **keys}
    made = fd.Design.from_values({"line": [{"name": "a", "part": [part]}]})
    layout = made.layout()
    return Space("p", layout, in_own_order("p", np.arange(len(layout)), layout))


def test_the_usual_distance_is_the_median_and_the_middle_that_of_the_box():
    """10 mm from one to the next, and one far away: 70 mm."""
    space = space_of([[0, 0], [10, 0], [20, 0], [30, 0], [100, 40]])
    assert space.pitch == 10
    assert space.middle == (50, 20, 0)
    assert space.values("radius")[0] == pytest.approx((50**2 + 20**2) ** 0.5)
    assert space.values("across").tolist() == pytest.approx([0, 0.1, 0.2, 0.3, 1])
    assert space.values("angle")[4] == pytest.approx(np.degrees(np.arctan2(20, 50)))


def test_seen_from_the_front_left_and_right_change_places():
    """Upright LEDs that face the front: who looks at them has the thing's right on the left."""
    space = space_of([[0, 0, 0], [100, 0, 0], [0, 0, 100]], facing="front")
    assert space.view.name == "front"
    assert space.values("across").tolist() == [1, 0, 1]
    assert space.values("up").tolist() == [0, 0, 1]
    space = space_of([[0, 0, 0], [100, 0, 0], [0, 0, 100]], facing="back")
    assert (space.view.name, space.values("across").tolist()) == ("back", [0, 1, 0])


def test_from_above_counts_twice():
    """100 across, 60 deep and 100 high: 6,000 from above, twice that; 10,000 from the front."""
    space = space_of([[0, 0, 0], [100, 60, 100]], facing="front")
    assert space.view.name == "top"
    assert space_of([[0, 0, 0], [100, 45, 100]], facing="front").view.name == "front"


# ---- Courses ------------------------------------------------------------------------------------------


def test_a_sweep_comes_back_as_it_went_and_begins_with_its_tape():
    """2 to 10 in 2 s and back in 2: at 3 s it is 6 again. On a tape that begins at 5 s: from there."""
    assert course("rpm", (0, 1, 2, 3, 4), sweeps=["rpm=2:10:2s"], duration_s=4) == [2, 6, 10, 6, 2]
    late = fd.Tape(np.array([5.0, 9.0]), {"left": np.array([0.0, 1.0])})
    made = made_up(design(layer(), signals=SIGNALS), sweeps=["rpm=2:10:2s"], tape=late)
    assert float(np.interp(6.0, made.times, made.signals["rpm"])) == pytest.approx(6)
    assert (made.start_s, made.end_s) == (5, 9)


def test_a_tape_of_steps_is_as_long_as_all_of_them():
    """Four steps of 2 s: 8 s. Three of 1 s are 3 s, and 5 s at the least."""
    made = design(layer(), signals=SIGNALS)
    assert made_up(made, steps=["gear=1,2,3,4:2s"]).end_s == pytest.approx(8)
    assert made_up(made, steps=["gear=1,2,3:1s"]).end_s == pytest.approx(5)
    assert made_up(made, sweeps=["rpm=0:1:6s"]).end_s == pytest.approx(12)
    assert made_up(made, toggles=["left=3s"]).end_s == pytest.approx(6)


@pytest.mark.parametrize(
    ("text", "at_1_s", "at_3_s"),
    [("rpm=6200", 6200, 6200), ("rpm=0:8:4s", 2, 6), ("gear=1,2,3:2s", 1, 2), ("left=on", 1, 1),
     ("mode=wild", 7, 7), ("mode=calm,wild:2s", 2, 7), ("glow=#ff0001", 0xFF0001, 0xFF0001)],
)  # fmt: skip
def test_what_is_typed_is_a_value_a_sweep_or_steps(text, at_1_s, at_3_s):
    name, made = typed(design(layer(), signals=SIGNALS), text)
    assert name == text.partition("=")[0]
    assert made(np.array([1.0, 3.0])).tolist() == [at_1_s, at_3_s]


def test_one_step_of_a_time_is_no_list_of_steps():
    with pytest.raises(fd.SignalError, match="is not a number"):
        typed(design(layer(), signals=SIGNALS), "rpm=5:2s")


def test_a_sampled_picture_has_its_foot_below():
    """Above red and below half of blue: the upper of two LEDs is red."""
    pixels = np.array([[[[1, 0, 0, 1]], [[0, 0, 1, 0.5]]]], np.float32)
    found = sampled(Picture(pixels, (1.0,)), [0.5, 0.5], [0.75, 0.25], (1.0, 0.5))
    assert found[0].tolist() == [[1, 0, 0, 1], [0, 0, 1, 0.5]]
