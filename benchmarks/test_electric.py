"""Electrical sums: ladders, further feeds, the limiter, and what a film draws."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.electric.budget import make_budget
from fendra.core.electric.ladder import Ladder, Tap, extra_taps
from fendra.core.electric.limiter import Limiter


@pytest.mark.parametrize(("spots", "feeds"), [(150, 2), (5000, 20)])
def test_voltage_along_a_line(benchmark, spots, feeds):
    places = np.linspace(0, spots - 1, feeds).astype(int).tolist()
    ladder = Ladder(5.0, np.full(spots - 1, 0.2 / 60), tuple(Tap(at, 0.02) for at in places))
    volts = benchmark(ladder.volts_at, np.full(spots, 0.02))
    assert len(volts) == spots


@pytest.mark.parametrize("spots", [150, 1000, 5000])
def test_further_feeds(benchmark, spots):
    ladder = Ladder(5.0, np.full(spots - 1, 0.2 / 60), (Tap(0, 0.02),))
    found = benchmark.pedantic(
        extra_taps, (ladder, np.full(spots, 0.05), 4.0, 0.02), rounds=3, warmup_rounds=1
    )
    assert found


@pytest.mark.parametrize("spots", [158])
@pytest.mark.parametrize("budget", ["ample", "tight"])
def test_the_limiter_on_a_frame_of_heron(benchmark, budget, spots):
    heron = fd.load(fd.demo_file("heron.toml"))
    limiter = Limiter(heron.compile(engine="numpy").plan.limits)
    frame = np.full((spots, 3), 90 if budget == "ample" else 250, np.uint8)
    benchmark(lambda: limiter.apply(20, frame.copy()))


@pytest.mark.parametrize("spots", [158])
def test_what_a_ride_draws(benchmark, spots):
    heron = fd.load(fd.demo_file("heron.toml"))
    film = heron.compile().film(fd.read_tape(fd.demo_file("ride.csv")))
    budget = benchmark.pedantic(
        make_budget, (heron, heron.layout(), 1.0, film), rounds=5, warmup_rounds=1
    )
    assert budget.draw.peak_a > 2
    assert len(film.layout) == spots
