"""Every effect gives the same bits on every engine, on every kind of choice of LEDs."""

from __future__ import annotations

import numpy as np
import pytest

from agreement import all_of, assert_same_light
from fendra.core.effects import EFFECTS
from fendra.core.engines.numpy.engine import NumpyEngine


@pytest.mark.parametrize("effect", EFFECTS)
def test_an_effect_gives_the_same_bits(engine, effect):
    design = all_of(effect)
    plan = design.compile(engine="numpy").plan
    values = 0.5 + 0.6 * np.sin(np.arange(90) / 9)
    frames = [(17 + i % 5, {"s": value} if i % 4 else {}) for i, value in enumerate(values)]
    # The clock wraps on the way; from 0 on a Cortex-M goes (tests/firmware).
    assert_same_light(NumpyEngine(plan), engine(plan), frames, start_ms=2**32 - 700)
