"""Voltage along a strip: against closed forms, and against a network solved another way."""

from __future__ import annotations

from itertools import combinations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.core.electric.ladder import Ladder, Tap, extra_taps
from strategies import examples

NEAR_V = 1e-6


@pytest.mark.parametrize("count", [1, 2, 60, 500])
def test_uniform_load_and_one_feed_is_the_closed_form(count):
    """The last of n LEDs at i A each, r ohm apart, lead R: R n i + r i n (n - 1) / 2 below."""
    load, ohm, lead = 0.02, 0.004, 0.05
    ladder = Ladder(5.0, np.full(count - 1, ohm), (Tap(0, lead),))
    volts = ladder.volts_at(np.full(count, load))
    place = np.arange(count)
    expected = 5.0 - lead * count * load - ohm * load * (place * count - place * (place + 1) / 2)
    assert volts == pytest.approx(expected, abs=NEAR_V)
    assert 5.0 - volts[-1] == pytest.approx(
        lead * count * load + ohm * load * count * (count - 1) / 2, abs=NEAR_V
    )


@pytest.mark.parametrize("count", [2, 5, 60, 501])
def test_uniform_load_and_a_feed_at_each_end_is_the_closed_form(count):
    """Both give half; place k is R n i / 2 + r i k (n - 1 - k) / 2 below. The middle is lowest."""
    load, ohm, lead = 0.02, 0.004, 0.05
    ladder = Ladder(5.0, np.full(count - 1, ohm), (Tap(0, lead), Tap(count - 1, lead)))
    loads = np.full(count, load)
    place = np.arange(count)
    expected = 5.0 - lead * count * load / 2 - ohm * load * place * (count - 1 - place) / 2
    assert ladder.volts_at(loads) == pytest.approx(expected, abs=NEAR_V)
    assert ladder.tap_a(loads) == pytest.approx([count * load / 2] * 2, abs=NEAR_V)
    assert abs(int(np.argmin(ladder.volts_at(loads))) - (count - 1) / 2) <= 0.5


def by_nodes(volts, ohm, taps, load):
    """Plus and ground rail node by node, as Kirchhoff has it: each with half of every resistance."""
    count = len(load)
    matrix, right = np.zeros((2 * count, 2 * count)), np.zeros(2 * count)
    for rail, (source, sign) in enumerate(((volts, -1.0), (0.0, 1.0))):
        at = rail * count
        for i in range(count):
            right[at + i] += sign * load[i]
        for i, each in enumerate(ohm):
            g = 1.0 / (each / 2)
            matrix[at + i, at + i] += g
            matrix[at + i + 1, at + i + 1] += g
            matrix[at + i, at + i + 1] -= g
            matrix[at + i + 1, at + i] -= g
        for place, each in taps:
            matrix[at + place, at + place] += 1.0 / (each / 2)
            right[at + place] += source / (each / 2)
    found = np.linalg.solve(matrix, right)
    return found[:count] - found[count:]


@st.composite
def networks(draw, most=25):
    count = draw(st.integers(2, most))
    ohms = st.floats(0.001, 0.5)
    taps = draw(st.lists(st.tuples(st.integers(0, count - 1), ohms), min_size=1, max_size=5))
    ohm = draw(st.lists(ohms, min_size=count - 1, max_size=count - 1))
    load = draw(st.lists(st.floats(0, 0.3), min_size=count, max_size=count))
    return 5.0, np.array(ohm), [*dict(taps).items()], np.array(load)


@given(networks())
def test_any_network_is_what_node_by_node_gives(network):
    volts, ohm, taps, load = network
    ladder = Ladder(volts, ohm, tuple(Tap(*tap) for tap in taps))
    assert ladder.volts_at(load) == pytest.approx(by_nodes(*network), abs=NEAR_V)
    assert ladder.tap_a(load).sum() == pytest.approx(load.sum(), abs=1e-6)
    both = ladder.volts_at(np.stack([load, 2 * load]))  # linear, and many frames at once
    assert volts - both[1] == pytest.approx(2 * (volts - both[0]), abs=NEAR_V)
    flow = ladder.flow_a(load)
    balance = np.concatenate([flow, [0]]) - np.concatenate([[0], flow])
    for tap, amps in zip(ladder.taps, ladder.tap_a(load), strict=True):
        balance[tap.at] -= amps
    assert balance + load == pytest.approx(np.zeros(len(load)), abs=1e-5)


@given(networks(), st.integers(0, 24), st.floats(0.001, 0.5))
def test_another_feed_lowers_no_voltage(network, place, lead):
    volts, ohm, taps, load = network
    ladder = Ladder(volts, ohm, tuple(Tap(*tap) for tap in taps))
    more = ladder.with_taps([place % len(ladder)], lead)
    assert (more.volts_at(load) >= ladder.volts_at(load) - 1e-9).all()


@examples(60)
@given(networks(most=9), st.floats(3.5, 4.99), st.floats(0.001, 0.3))
def test_the_fewest_further_feeds_are_those_that_trying_all_finds(network, least, lead):
    volts, ohm, taps, load = network
    ladder = Ladder(volts, ohm, tuple(Tap(*tap) for tap in taps))
    best = None
    for number in range(len(ladder) + 1):
        tried = [
            (ladder.with_taps(places, lead).volts_at(load).min(), places)
            for places in combinations(range(len(ladder)), number)
        ]
        lowest, _ = max(tried)
        if lowest >= least:
            best = number, lowest
            break
    found = extra_taps(ladder, load, least, lead)
    if best is None:
        assert found is None
        return
    number, lowest = best
    assert found is not None
    assert len(found) == number
    got = ladder.with_taps(found, lead).volts_at(load).min()
    assert got >= least - 1e-9
    if number:
        assert got >= lowest - 0.002 * (volts - least) - 1e-9


def test_a_long_line_is_fed_where_it_must_be():
    """600 LEDs at 30 mA, 60 a metre: from a feed on both sides one can go sqrt(2 U / (r i)) LEDs."""
    ladder = Ladder(5.0, np.full(599, 0.2 / 60), (Tap(0, 0.0),))
    load = np.full(600, 0.03)
    found = extra_taps(ladder, load, 4.5, 0.0)
    reach = (2 * 0.5 / (0.2 / 60 * 0.03)) ** 0.5  # 100 LEDs
    assert reach == pytest.approx(100)
    assert found is not None
    assert len(found) == 3  # (0), 200, 400, and 500 or later reach all 600
    assert ladder.with_taps(found, 0.0).volts_at(load).min() >= 4.5
    assert extra_taps(ladder, load, 5.0, 0.0) is None


def test_five_thousand_leds_with_twenty_feeds():
    """Far from the ends every 250 LEDs are alike: 125 to each side of a feed."""
    taps = tuple(Tap(125 + 250 * i, 0.02) for i in range(20))
    ladder = Ladder(5.0, np.full(4999, 0.2 / 60), taps)
    load = np.full(5000, 0.02)
    assert ladder.tap_a(load)[5:15] == pytest.approx(np.full(10, 250 * 0.02), rel=1e-3)
    middle = ladder.volts_at(load)[1250:3750]
    assert 5.0 - middle.max() == pytest.approx(0.02 * 5.0, rel=0.02)
    assert middle.max() - middle.min() == pytest.approx(0.2 / 60 * 0.02 * 125 * 125 / 2, rel=0.02)


def test_no_resistance_is_borne():
    ladder = Ladder(5.0, np.zeros(3), (Tap(0, 0.0), Tap(3, 0.0)))
    assert ladder.volts_at(np.full(4, 1.0)) == pytest.approx(np.full(4, 5.0), abs=1e-4)
    assert len(Ladder(5.0, np.zeros(0), (Tap(0, 0.1),)).volts_at(np.array([1.0]))) == 1
