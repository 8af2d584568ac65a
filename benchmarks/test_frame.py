"""How long one frame takes; run with `make bench`."""

from __future__ import annotations

from itertools import count

import numpy as np
import pytest

from scene import HandWritten, fendra_program, plain_python, state

SPOTS = (30, 300, 3_000, 100_000)


@pytest.mark.parametrize("spots", SPOTS)
def test_fendra(benchmark, spots):
    program, clock = fendra_program(spots), count()

    def frame():
        at_s = next(clock) / 50
        return program.frame(state(at_s), at=at_s)

    benchmark(frame)


@pytest.mark.parametrize("spots", SPOTS)
def test_numpy_by_hand(benchmark, spots):
    scene, clock = HandWritten(spots), count()

    def frame():
        at_s = next(clock) / 50
        return scene.frame(at_s, **state(at_s))

    benchmark(frame)


@pytest.mark.parametrize("spots", SPOTS)
def test_plain_python(benchmark, spots):
    clock = count()

    def frame():
        at_s = next(clock) / 50
        return plain_python(spots, at_s, **state(at_s))

    if spots > 3_000:
        benchmark.pedantic(frame, rounds=5)
    else:
        benchmark(frame)


@pytest.mark.parametrize("spots", [30, 300])
def test_all_three_show_the_same(spots):
    program, by_hand = fendra_program(spots), HandWritten(spots)
    for at_s in np.arange(200) / 50:
        now = state(at_s)
        light = program.frame(now, at=at_s).rgb.astype(int)
        others = by_hand.frame(at_s, **now), np.array(plain_python(spots, at_s, **now))
        for other in others:
            assert np.abs(light - other.astype(int)).max() <= 1
