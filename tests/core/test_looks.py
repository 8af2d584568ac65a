"""Which layers are on, and how high a number can become: against what really runs."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.graph.highest import highest
from fendra.core.insight.looks import layers_on
from fendra.core.insight.played import played
from fendra.core.insight.replay import frames_of
from helpers import design, layer, tape

SHIPPED = {"heron": "ride", "drone": "flight", "pad": "typing", "cabinet": "game", "bare": "lever"}


def shipped(name):
    """A design, its program, and the first ten seconds of its tape."""
    made = fd.load(fd.demo_file(f"{name}.toml"))
    ride = fd.read_tape(fd.demo_file(f"{SHIPPED[name]}.csv"))
    program = made.compile(engine="numpy")
    return made, program, program.film(ride.until(ride.start_s + 10))


@pytest.mark.parametrize("name", SHIPPED)
def test_the_layers_that_are_on_are_those_that_the_engine_runs(name):
    """Frame by frame over the first ten seconds of the shipped tape."""
    made, program, film = shipped(name)
    wanted = range(0, len(film), 7)
    told = layers_on(program.plan, film, wanted)
    program.reset()
    values, is_new = film.tape.heard(program.fed, film.times)
    for i, at_s in enumerate(film.times - film.tape.start_s):
        news = {program.fed[j]: values[i, j].item() for j in np.flatnonzero(is_new[i])}
        program.frame(news, at=float(at_s))
        if i in told:
            registers = program.engine._numbers._registers
            on = [
                made.layer[slot.layer].name
                for slot in program.plan.paints
                if registers[program.engine._numbers.register(slot.on)]
            ]
            assert list(told[i]) == on, i
    assert set(told) == set(wanted)


@pytest.mark.parametrize("name", SHIPPED)
def test_any_frame_is_come_back_to_with_the_numbers_that_it_had(name):
    """Backwards through ten seconds of the shipped tape, against the same frames in their order."""
    _, program, film = shipped(name)
    again, engine = played(program.plan, film), NumpyEngine(program.plan)
    before = [[*engine.numbers(*given)] for given in frames_of(program.plan, film)]
    for frame in (*range(len(film) - 1, 0, -23), 0):
        for expected, number in zip(before[frame], again.numbers(frame), strict=True):
            assert np.array_equal(expected, number, equal_nan=True), frame
    assert played(program.plan, film) is again


def test_a_layer_that_fades_out_is_still_on():
    made = design(
        layer(when="s > 0.5", fade_out=1.0), layer(colour="red", when="s < 0.5"), signals={"s": {}}
    )
    film = made.compile().film(tape(10.0, s=[1] * 5 + [0] * 20))
    told = layers_on(made.compile().plan, film, [0, 30, 60, 100])
    first, second = (each.name for each in made.layer)
    assert told == {0: (first,), 30: (first, second), 60: (first, second), 100: (second,)}
    assert layers_on(made.compile().plan, film, []) == {}


@pytest.mark.parametrize(
    ("level", "known"),
    [
        (0.5, 0.1842),
        ("0.2 if on else 0.5", 0.1842),
        ("0.5 * s", 0.1842),  # s goes to 1
        ("max(0.2, min(s, 0.5))", 0.1842),
        ("s + s", 1.0),  # held at 1
        ("0.5 - u", 1.0),  # u may be anything, below 0 as well
        ("0.5 * t", 1.0),  # behind `smooth` nothing is known
    ],
)
def test_the_highest_master_level(level, known):
    signals = {
        "s": {"range": [0, 1]},
        "t": {"range": [0, 1], "smooth": 0.1},
        "u": {},
        "on": {"kind": "switch"},
    }
    made = design(layer(), level=level, signals=signals)
    recording = made.compile(engine="numpy").plan
    assert highest(recording.graph, "master") == pytest.approx(known, abs=1e-3)


@pytest.mark.slow
@pytest.mark.parametrize("name", SHIPPED)
def test_no_light_of_a_ride_is_beyond_what_is_said_to_be_the_most(name):
    """Current, voltage and watts of each line over the whole tape, against those at the most."""
    made = fd.load(fd.demo_file(f"{name}.toml"))
    film = made.compile().film(fd.read_tape(fd.demo_file(f"{SHIPPED[name]}.csv")))
    budget = film.budget()
    for line in budget.lines:
        assert line.idle_a <= line.draw.mean_a <= line.draw.p99_a <= line.draw.peak_a + 1e-9
        assert line.draw.peak_a <= line.most_a + 1e-9
        assert line.worst.lowest_v >= line.sag.lowest_v - 1e-9
        assert line.worst.first_low is None
        assert line.extra == line.extra_in_film == ()
    for supply in budget.supplies:
        assert supply.draw.peak_a <= supply.most_a + 1e-9
        assert supply.headroom >= 0.2 - 1e-9
    assert budget.draw.peak_a <= sum(each.draw.peak_a for each in budget.supplies) + 1e-9
