"""Ceilings, white balance, dither and rhythms on controllers: byte for byte those of the film."""

from __future__ import annotations

import numpy as np
import pytest

from helpers import design, finished, layer
from helpers import tape as tape_of
from targets import CORTEX, assert_same, frames_of, on_computer, on_cortex


@pytest.fixture(scope="module")
def frames():
    """Lopsided lines (see `finished`), a level that moves, a limiter, blinks in one rhythm, a fill and
    a run-up whose steps change, and a colour that comes in live.
    """
    made = design(
        layer("solid", colour="tint", level=0.15), layer("hue-drift", level=0.3, on="far", rate=0.9),
        layer("fill", step="0.02 + 0.06 * s", hold=0.04, rest=0.06, on="bar", blend="add"),
        layer("run-up", trigger="go", step="0.02 + 0.03 * s", stay=0.2, fade=0.2, both_ends=True, blend="max"),
        layer("blink", rhythm="beat", when="go", colour="#402010", blend="add"),
        layer("turn", rhythm="beat", when="not go", colour="#ff7a00", on="far"),
        **finished(
            signals={"s": {"range": [0, 1]}, "go": {"kind": "switch"}, "tint": {"kind": "colour"}},
            rhythms={"beat": {"rate": "2 + 3 * s", "when": "go"}},
            level="0.5 + 0.4 * s", rate=100, supplies={"s": {"budget": 0.25}},
        ),
    )  # fmt: skip
    course = 0.5 + 0.5 * np.sin(np.arange(40) / 7)
    tints = [0x8000FF, 0xFF8A01, 0x123457, 0xFF00FF]
    tape = tape_of(
        10.0, s=course, go=[float(i % 11 in (2, 3, 7)) for i in range(40)],
        tint=[float(tints[i // 5 % 4]) if i % 5 == 0 else None for i in range(40)],
    )  # fmt: skip
    return frames_of(made, tape)


def test_an_8_bit_part_finishes_its_light_as_the_film_does(avr, frames, tmp_path):
    assert_same(avr.film(frames, tmp_path, light=True).frames, frames)


@pytest.mark.parametrize("processor", CORTEX)
def test_a_cortex_m_finishes_its_light_as_the_film_does(arm, frames, tmp_path, processor):
    assert_same(on_cortex(processor, frames, tmp_path), frames)


@pytest.mark.parametrize("at_once", [None, 1, 5])
def test_the_sanitisers_find_nothing_where_light_is_finished(compiler, frames, tmp_path, at_once):
    assert_same(on_computer(compiler, frames, tmp_path, at_once=at_once), frames)


def test_the_film_shows_all_of_it(frames):
    """Odd and even bytes in turn, four channels a LED, and no byte above the ceiling of 0.8, 145."""
    assert frames.bytes.shape[1] == 7 * 3 + 5 * 4
    assert frames.bytes.max() <= 145
    moves = np.abs(np.diff(frames.bytes.astype(int), axis=0))
    assert (moves == 1).sum() > 500
