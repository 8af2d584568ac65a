"""The examples run and do what they say."""

from __future__ import annotations

import runpy
from pathlib import Path

from PIL import Image

EXAMPLES = Path(__file__).parents[1] / "examples"


def test_the_brake_light_of_the_hand_set_example_brightens():
    reds = runpy.run_path(str(EXAMPLES / "hand_set.py"))["main"]()
    assert reds == sorted(reds)
    assert [reds[0] < 20, reds[-1] > 180] == [True, True]


def test_the_macro_pad_example_draws_two_pictures(tmp_path):
    written = runpy.run_path(str(EXAMPLES / "macro_pad.py"))["main"](tmp_path)
    for path in written:
        with Image.open(path) as picture:
            assert picture.size == (1280, 800)


def test_both_examples_are_tested():
    assert {path.name for path in EXAMPLES.glob("*.py")} == {"hand_set.py", "macro_pad.py"}
