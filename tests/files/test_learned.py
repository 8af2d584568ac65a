"""Ranges that were seen, and what of them goes into the design."""

from __future__ import annotations

import tomllib

import pytest

import fendra as fd
from fendra.files.learned import learn

HEAD = 'line = [{ name = "a", part = [{ name = "p", shape = "strip", start = [0, 0], end = [9, 0], count = 3 }] }]\n'


def learned(keys, seen):
    text = f"{HEAD}[signals.s]  # mine\n{keys}\n"
    after, told = learn(text, fd.Design.from_values(tomllib.loads(text)), {"s": seen})
    assert "# mine" in after
    return tomllib.loads(after)["signals"]["s"], told


@pytest.mark.parametrize(
    ("keys", "seen", "written"),
    [
        ("", (5, 25), {"range": [5, 25]}),
        ("range = [10, 20]", (5, 15), {"range": [10, 20], "calibrate": [5, 15]}),
        ("range = [10, 20]", (12, 25), {"range": [10, 20], "calibrate": [12, 25]}),
        ("range = [10, 20]", (10, 20), {"range": [10, 20]}),
        (
            "range = [0, 1]\ncalibrate = [100, 900]",
            (120, 830),
            {"range": [0, 1], "calibrate": [120, 830]},
        ),
        (
            "range = [0, 1]\ncalibrate = [900, 100]",
            (120, 830),
            {"range": [0, 1], "calibrate": [830, 120]},
        ),
        ("", (0.12346, 0.92346), {"range": [0.1235, 0.9235]}),
        ("", (7, 7), {}),
    ],
)
def test_both_ends_of_what_was_seen_count(keys, seen, written):
    assert learned(keys, seen)[0] == written


def test_what_is_written_and_what_is_left_is_told():
    assert learned("range = [10, 20]", (12, 18))[1] == [
        "s: 12 to 18, within its range; left as it is"
    ]
    assert learned("range = [0, 1]\ncalibrate = [9, 1]", (2, 8))[1] == ["s: calibrate = [8, 2]"]


@pytest.mark.parametrize(
    ("keys", "place", "written"),
    [
        ('source = "b:a"\npin = "A0"', 0, {"source": {"name": "b:a", "calibrate": [5, 25]}, "pin": "A0"}),
        ('source = ["b:a", { name = "c:d", invert = true }]', 1,
         {"source": ["b:a", {"name": "c:d", "invert": True, "calibrate": [5, 25]}]}),
        ('source = { name = "b:a", calibrate = [9, 1] }', 0,
         {"source": {"name": "b:a", "calibrate": [25, 5]}}),
    ],
)  # fmt: skip
def test_where_there_are_several_inputs_the_one_that_was_heard_learns(keys, place, written):
    text = f"{HEAD}[signals.s]  # mine\nrange = [0, 1]\n{keys}\n"
    made = fd.Design.from_values(tomllib.loads(text))
    after, _ = learn(text, made, {"s": (5, 25)}, place)
    assert tomllib.loads(after)["signals"]["s"] == {"range": [0, 1], **written}
