"""Parts moved and turned by hand: the keys that change, and where the LEDs are then."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.core.layout.placing import middle_of, moved, turned
from fendra.core.layout.pose import Pose
from fendra.core.shapes import SHAPES
from strategies import examples

PARTS = {
    "strip": {"start": (3, -7, 40), "end": (113, 15, 40), "count": 5},
    "strip that goes on": {"start": (3, -7), "direction": 30, "count": 4, "pitch": 9},
    "ring": {"centre": (-42, 57, 4), "radius": 7.5, "count": 6, "start_angle": 20},
    "arc": {"centre": (5, 5), "radius": 30, "start_angle": 350, "end_angle": 460, "count": 4},
    "grid": {"centre": (1, 2, 3), "columns": 3, "rows": 2, "pitch": 10},
    "points": {"points": [(1, 0), (4, 4, 2), (9, -3)]},
    "path": {"points": [(0, 0), (20, 0), (20, 30)], "pitch": 10},
}
POSED = {"at": (30, -4, 2), "turn": 25, "tilt": (10, -35), "mirror": "x"}


def part(kind, **keys):
    shape = kind.partition(" ")[0]
    return SHAPES[shape].model_validate({"name": "p", "shape": shape, **PARTS[kind], **keys})


def places(one):
    return Pose.of(one).points(one.positions())


def changed(one, values):
    return type(one).model_validate({**one.model_dump(exclude_unset=True), **values})


def test_a_strip_of_inches_is_moved_by_its_ends_and_keeps_its_height():
    """1.5 to the right and 2 back, of a strip from (1, 2, 4) to (5, 2, 4)."""
    bar = part("strip", start=(1, 2, 4), end=(5, 2, 4))
    assert moved(bar, (1.5, -2, 0)) == {"start": (2.5, 0, 4), "end": (6.5, 0, 4)}


def test_a_part_that_has_a_pose_is_moved_by_at_alone():
    assert moved(part("ring", at=(1, 2)), (3, 4, 5)) == {"at": (4, 6, 5)}
    assert moved(part("points"), (3, 4, 5)) == {"at": (3, 4, 5)}


def test_a_ring_turns_by_its_angle_and_a_strip_by_its_ends():
    ring = part("ring")
    assert turned(ring, -30, middle_of(ring, 1)) == {"start_angle": 350.0}
    bar = part("strip", start=(0, 0), end=(20, 0))
    assert turned(bar, 90, (10, 0, 0)) == {"start": (10, -10, 0), "end": (10, 10, 0)}


def test_an_arc_keeps_how_far_it_goes():
    """From 350 to 460 degrees it goes 110 on; a turn by 20 begins it at 10."""
    bow = part("arc")
    assert turned(bow, 20, (5, 5, 0)) == {"start_angle": 10.0, "end_angle": 120.0}


@pytest.mark.parametrize("kind", PARTS)
@pytest.mark.parametrize("pose", [{}, {"turn": 90}, POSED])
def test_every_led_moves_by_as_much(kind, pose):
    one = part(kind, **pose)
    by = (12.5, -3, 7)
    after = changed(one, moved(one, by))
    assert np.allclose(places(after), places(one) + by, atol=0.002)


@pytest.mark.parametrize("kind", PARTS)
@pytest.mark.parametrize("pose", [{}, {"at": (9, 9, 9)}, POSED])
@given(st.integers(-1080, 1080))
@examples(20)
def test_every_led_turns_about_the_middle(kind, pose, degrees):
    one = part(kind, **pose)
    middle = np.array(middle_of(one, 1.0))
    after = changed(one, turned(one, degrees, middle))
    angle = np.radians(degrees)
    matrix = np.array(
        [[np.cos(angle), -np.sin(angle), 0], [np.sin(angle), np.cos(angle), 0], [0, 0, 1]]
    )
    assert np.allclose(places(after), middle + (places(one) - middle) @ matrix.T, atol=0.01)


def test_the_middle_is_that_of_the_box_round_its_leds():
    assert middle_of(part("points"), 1.0) == (5.0, 0.5, 1.0)
