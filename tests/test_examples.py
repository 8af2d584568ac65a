"""The examples run and do what they say."""

from __future__ import annotations

import runpy
from pathlib import Path

import pytest
from PIL import Image

EXAMPLES = Path(__file__).parents[1] / "examples"


def test_the_brake_light_of_the_hand_set_example_brightens():
    reds = runpy.run_path(str(EXAMPLES / "hand_set.py"))["main"]()
    assert reds == sorted(reds)
    assert [reds[0] < 20, reds[-1] > 180] == [True, True]


def test_the_brake_light_follows_values_from_a_thread():
    """Dark at first and in the end, the running light, and then the brake."""
    reds = runpy.run_path(str(EXAMPLES / "live_values.py"))["main"]()
    assert reds[0] < 60  # a first value may come before the first frame
    assert reds[-1] == 0
    brake = next(place for place, red in enumerate(reds) if red > 180)
    before = reds[:brake]  # a busy machine leaves frames out: only their order is sure
    assert any(0 < red < 60 for red in before)
    assert all(red < 60 or before[place - 1] > 0 for place, red in enumerate(before))


@pytest.mark.parametrize(
    ("name", "pictures"),
    [("macro_pad", 2), ("drone_flight", 4), ("will_it_hold", 1), ("own_effect", 2)],
)
def test_an_example_draws_its_pictures(tmp_path, name, pictures):
    written = runpy.run_path(str(EXAMPLES / f"{name}.py"))["main"](tmp_path)
    assert len(written) == pictures
    for path in written:
        with Image.open(path) as picture:
            assert picture.size == (1280, 800)


def test_all_examples_are_tested():
    assert {path.stem for path in EXAMPLES.glob("*.py")} == {
        "hand_set",
        "live_values",
        "macro_pad",
        "drone_flight",
        "will_it_hold",
        "own_effect",
    }
