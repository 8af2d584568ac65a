"""Screens: areas, bars, and how strong and bright colours are."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.core.senses.screen import STEADY, ScreenLight, area_weights, find_bars
from fendra.core.senses.sun import sun_height_deg, sun_times_h


@given(
    st.lists(st.tuples(st.floats(0, 1), st.floats(0, 1)), min_size=1, max_size=9),
    st.floats(0.01, 1), st.integers(4, 60), st.integers(4, 60),
)  # fmt: skip
def test_each_led_sees_one_whole(places, area, width, height):
    weights = area_weights(places, area, width, height, (0, 0, width, height))
    assert weights.sum(axis=1) == pytest.approx(np.ones(len(places)), abs=1e-5)
    assert weights.min() >= 0


def test_an_led_sees_the_square_before_it():
    """A tenth of 100 rows is 10 by 10 pixels, which at an edge lie inside."""
    picture = np.zeros((100, 200, 3), np.uint8)
    picture[45:55, 95:105] = 255
    picture[:10, :10] = (255, 0, 0)
    look = ScreenLight(
        [(0.5, 0.5), (0, 0), (1, 1), (0.55, 0.5)], area=0.1, step=1, finds_bars=False
    )
    light = look.look(picture)
    assert light == pytest.approx(np.array([[1, 1, 1], [1, 0, 0], [0, 0, 0], [0, 0, 0]]), abs=1e-6)


def test_averages_are_of_light_and_not_of_bytes():
    """Half white, half black is half of the light."""
    picture = np.zeros((10, 10, 3), np.uint8)
    picture[:, :5] = 255
    light = ScreenLight([(0.5, 0.5)], area=1.0, step=1, finds_bars=False).look(picture)
    assert light[0] == pytest.approx([0.5] * 3)


def test_bars_are_found_once_they_stay():
    picture = np.full((90, 160, 3), 200, np.uint8)
    picture[:12] = picture[-15:] = 3
    assert find_bars(picture) == (0, 12, 160, 78)
    assert find_bars(np.zeros((9, 16, 3), np.uint8)) == (0, 0, 16, 9)
    look = ScreenLight([(0.5, 0.0)], area=0.05, step=1)
    whole = np.full((90, 160, 3), 200, np.uint8)
    look.look(whole)
    first = look.look(picture)
    assert first[0, 0] < 0.05
    for _ in range(STEADY):
        last = look.look(picture)
    assert last[0, 0] > 0.5


def test_saturation_floor_grey_and_curve():
    picture = np.full((8, 8, 3), (180, 160, 150), np.uint8)
    plain = ScreenLight([(0.5, 0.5)], step=1).look(picture)[0]
    strong = ScreenLight([(0.5, 0.5)], step=1, saturation=2.0).look(picture)[0]
    none = ScreenLight([(0.5, 0.5)], step=1, saturation=0.0).look(picture)[0]
    grey = ScreenLight([(0.5, 0.5)], step=1, grey=0.2).look(picture)[0]
    assert np.ptp(strong) == pytest.approx(2 * np.ptp(plain), rel=1e-4)
    assert np.ptp(none) == pytest.approx(0, abs=1e-6)
    assert grey == pytest.approx(none)
    dark = np.zeros((8, 8, 3), np.uint8)
    assert ScreenLight([(0.5, 0.5)], step=1, floor=0.1).look(dark)[0] == pytest.approx([0.1] * 3)
    white = np.full((8, 8, 3), 255, np.uint8)
    half = ScreenLight([(0.5, 0.5)], step=1, curve=[(0, 0), (1, 0.5)]).look(white)[0]
    assert half == pytest.approx([0.125] * 3)


def test_it_settles_from_one_picture_to_the_next():
    look = ScreenLight([(0.5, 0.5)], step=1, settle=0.25)
    look.look(np.zeros((8, 8, 3), np.uint8))
    assert look.look(np.full((8, 8, 3), 255, np.uint8))[0] == pytest.approx([0.25] * 3)


@pytest.mark.parametrize(
    ("day", "latitude", "longitude", "zone_h", "rises", "sets"),
    [
        (172, 52.52, 13.40, 2.0, 4 + 43 / 60, 21 + 33 / 60),  # Berlin, 21 June
        (355, 52.52, 13.40, 1.0, 8 + 15 / 60, 15 + 54 / 60),  # Berlin, 21 December
        (80, -33.87, 151.21, 11.0, 7 + 0 / 60, 19 + 8 / 60),  # Sydney, 21 March
        (15, 1.35, 103.82, 8.0, 7 + 10 / 60, 19 + 14 / 60),  # Singapore, 15 January
    ],
)
def test_the_sun_rises_and_sets_within_some_minutes_of_the_almanac(
    day, latitude, longitude, zone_h, rises, sets
):
    found = sun_times_h(day, latitude, longitude, zone_h)
    assert found == pytest.approx((rises, sets), abs=0.08)
    for hour in found:
        height = sun_height_deg(day, hour, latitude, longitude, zone_h)
        assert height == pytest.approx(-0.833, abs=0.15)


def test_far_north_the_sun_stays_up_or_down():
    assert sun_times_h(172, 70, 20, 1) == (0.0, 24.0)
    assert sun_times_h(355, 70, 20, 1) == (12.0, 12.0)
