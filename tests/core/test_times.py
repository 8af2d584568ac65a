"""Times that are no whole frames: what is said of them, and that the cure works."""

from __future__ import annotations

import re

import pytest

from fendra.core.checks.times import rate_for
from helpers import design, layer


def notes(frames=50, **keys):
    made = design(
        layer(**{"effect": "fill"} | keys), rate=frames,
        signals={"s": {}, "go": {"kind": "switch"}},
    )  # fmt: skip
    return [f for f in made.check() if f.code == "uneven-time"]


def test_25_ms_at_50_frames_a_second_is_told_with_the_rate_that_would_do():
    (note,) = notes(step=0.025)
    assert note.path == ("layer", 0, "step")
    assert note.severity == "note"
    assert note.message == "`step` is 1.25 frames at 50 a second, so some last 1 and some 2."
    assert note.remedy == "Write 0.02 or 0.04, or rate = 40 for the design."


def test_what_is_shorter_than_a_frame_is_told():
    (note,) = notes(effect="beacon", flash=0.01)
    assert note.message == "`flash` is 0.5 frames at 50 a second, shorter than one."
    assert note.remedy == "Write 0.02, or rate = 100 for the design."


@pytest.mark.parametrize(
    "keys",
    [{"step": 0.08}, {"step": 0.02, "hold": 0.0}, {"step": 0.06, "rest": 1.0}, {"step": "0.025 * s"},
     {"step": 0.025, "frames": 40}, {"step": 0.1, "frames": 30},
     {"step": 0.05, "frames": 60, "hold": 0.1},
     {"effect": "run-up", "trigger": "go", "step": 0.02, "fade": 0.333},
     {"effect": "pulse", "rate": 0.33}],
)  # fmt: skip
def test_whole_frames_and_what_is_soft_are_not(keys):
    assert notes(**keys) == []


@pytest.mark.parametrize("keys", [
    {"step": 0.025, "hold": 0.33}, {"step": 0.125, "rest": 0.05}, {"effect": "beacon", "flash": 0.05, "gap": 0.07},
    {"effect": "run-up", "trigger": "go", "step": 0.015},
])  # fmt: skip
def test_the_rate_that_is_advised_does_for_all_times_of_the_layer(keys):
    said = notes(**keys)
    assert said
    for note in said:
        rate = float(re.search(r"rate = ([\d.]+)", note.remedy)[1])
        assert notes(rate, **keys) == []
    nearest = {note.path[-1]: float(re.search(r"Write ([\d.]+)", note.remedy)[1]) for note in said}
    assert notes(**keys | nearest) == []


@pytest.mark.parametrize(
    ("rate", "times", "best"),
    [(50, [0.02], 50), (50, [0.025], 40), (50, [0.5], 50), (60, [0.1], 50), (30, [0.1], 20 * 2),
     (50, [0.007], 1000 / 7), (50, [0.003], None), (50, [0.0125], None), (50, [], None)],
)  # fmt: skip
def test_the_nearest_rate_of_whole_milliseconds_is_found(rate, times, best):
    """At 30 a second of 0.1 s: 25 ms are nearer to 33.3 than 50 are."""
    assert rate_for(rate, times) == best
