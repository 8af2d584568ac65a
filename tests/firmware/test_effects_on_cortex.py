"""Every effect on a processor without a unit for floats, where LEDs are passed over: the same bits."""

from __future__ import annotations

import numpy as np
import pytest

from agreement import all_of
from fendra.core.effects import EFFECTS
from fendra.core.signals.tape import Tape
from targets import assert_same, frames_of, on_cortex

STEPS = 60


@pytest.fixture(scope="module")
def tape():
    """A signal that jumps about, stays at its ends, and goes through both scenes."""
    random = np.random.default_rng(4)
    values = random.random(STEPS)
    values[10:20], values[30:36] = 0.0, 1.0
    return Tape(np.arange(STEPS) * 0.037, {"s": values})


@pytest.mark.parametrize("effect", EFFECTS)
def test_an_effect_gives_the_same_bits_by_software(arm, tape, tmp_path, effect):
    """On a row, a ring, LEDs here and there and all, plain and with everything bound, in scenes that
    cross-fade; every other choice of LEDs is the same C, compiled and run in tests/agree."""
    frames = frames_of(all_of(effect, ("bar", "ring", "odd", "all")), tape)
    assert_same(on_cortex("cortex-m3", frames, tmp_path), frames)
