"""How long one frame takes; run with `make bench`."""

from __future__ import annotations

from itertools import count

import numpy as np
import pytest

from by_hand_c import HandWrittenC
from scene import HandWritten, fendra_program, plain_python, state

SPOTS = (30, 300, 3_000, 100_000)


@pytest.mark.parametrize("spots", SPOTS)
@pytest.mark.parametrize("engine", ["numpy", "native"])
def test_fendra(benchmark, engine, spots):
    program, clock = fendra_program(spots, engine), count()
    assert program.engine.name == engine

    def frame():
        at_s = next(clock) / 50
        return program.frame(state(at_s), at=at_s)

    benchmark(frame)


@pytest.mark.parametrize("spots", SPOTS)
@pytest.mark.parametrize("version", [HandWritten, HandWrittenC])
def test_by_hand(benchmark, version, spots):
    scene, clock = version(spots), count()

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
def test_all_show_the_same(spots):
    program, native = fendra_program(spots), fendra_program(spots, "native")
    by_hand, by_c = HandWritten(spots), HandWrittenC(spots)
    for at_s in np.arange(200) / 50:
        now = state(at_s)
        light = program.frame(now, at=at_s).rgb
        assert native.frame(now, at=at_s).rgb.tobytes() == light.tobytes()
        others = [
            by_hand.frame(at_s, **now), by_c.frame(at_s, **now),
            np.array(plain_python(spots, at_s, **now)),
        ]  # fmt: skip
        for other in others:
            assert np.abs(light.astype(int) - other.astype(int)).max() <= 1
