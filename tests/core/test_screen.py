"""Screens: areas, bars, and how strong and bright colours are."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.core.senses.screen import STEADY, ScreenLight, area_weights, at_least, find_bars
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
    deep = np.full((8, 8, 3), (40, 0, 0), np.uint8)
    raised = ScreenLight([(0.5, 0.5)], step=1, floor=0.1).look(deep)[0]
    assert raised == pytest.approx(
        [0.1 / 0.2126, 0, 0], rel=1e-4
    )  # as bright as grey of 0.1, and red
    white = np.full((8, 8, 3), 255, np.uint8)
    half = ScreenLight([(0.5, 0.5)], step=1, curve=[(0, 0), (1, 0.5)]).look(white)[0]
    assert half == pytest.approx([0.125] * 3)


def test_a_floor_that_a_colour_cannot_reach_keeps_the_colour():
    """Blue alone has at most 0.0722 of white's light: it is as bright as it can be, with its red."""
    (raised,) = at_least(np.array([[0.01, 0.0, 0.02]]), 0.5)
    assert raised == pytest.approx([0.5, 0.0, 1.0])


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


@pytest.mark.parametrize(("day", "declination"), [(1, -23.0), (35, -16.4), (183, 23.1)])
def test_at_noon_the_sun_stands_as_high_as_the_almanac_s_declination_says(day, declination):
    """1 January, 4 February and 2 July, at 40 degrees north."""
    highest = max(sun_height_deg(day, 11.5 + minute / 60, 40, 0, 0) for minute in range(60))
    assert highest == pytest.approx(90 - 40 + declination, abs=0.2)


def test_far_north_the_sun_stays_up_or_down():
    assert sun_times_h(172, 70, 20, 1) == (0.0, 24.0)
    assert sun_times_h(355, 70, 20, 1) == (12.0, 12.0)


# ---- Edges, uneven bars, and figures of one channel each ---------------------------------------------


def seen(picture, places, **keys):
    return ScreenLight(places, **{"step": 1, "finds_bars": False, **keys}).look(picture)


def test_an_area_is_a_share_of_the_shorter_side_and_lies_whole_inside_at_every_edge():
    """A tenth of 90 rows is 9 by 9 pixels: rows 81 on and columns 191 on for the last corner."""
    for box, place in (((0, 9, 0, 9), (0, 0)), ((81, 90, 191, 200), (1, 1)),
                       ((0, 9, 191, 200), (1, 0)), ((81, 90, 0, 9), (0, 1)),
                       ((41, 50, 0, 9), (0, 0.5))):  # fmt: skip
        picture = np.zeros((90, 200, 3), np.uint8)
        picture[box[0] : box[1], box[2] : box[3]] = 255
        assert seen(picture, [place], area=0.1)[0] == pytest.approx([1] * 3), place
        picture[...] = 255 - picture
        assert seen(picture, [place], area=0.1)[0] == pytest.approx([0] * 3, abs=1e-6), place


def test_an_area_between_pixels_begins_and_ends_at_the_nearest():
    """9 pixels round 100 are 95.5 to 104.5, and round 27 they are 22.5 to 31.5."""
    weights = area_weights([(0.5, 0.3)], 0.1, 200, 90, (0, 0, 200, 90)).toarray().reshape(90, 200)
    rows, columns = np.nonzero(weights)
    assert (rows.min(), rows.max(), columns.min(), columns.max()) == (23, 31, 96, 104)


def test_areas_lie_within_what_the_picture_fills():
    weights = area_weights([(0, 0), (1, 1)], 0.5, 12, 10, (2, 1, 10, 9))
    rows = weights.toarray().reshape(2, 10, 12)
    assert np.argwhere(rows[0]).min(axis=0).tolist() == [1, 2]
    assert np.argwhere(rows[0]).max(axis=0).tolist() == [4, 5]
    assert np.argwhere(rows[1]).max(axis=0).tolist() == [8, 9]


def test_bars_are_as_wide_as_the_narrower_and_not_a_third_of_the_picture():
    picture = np.full((90, 160, 3), 200, np.uint8)
    picture[:, :20], picture[:, -8:] = 0, 0
    assert find_bars(picture) == (8, 0, 152, 90)
    picture[:, -30:] = 0
    assert find_bars(picture) == (20, 0, 140, 90)
    picture[:31] = picture[-31:] = 0  # more than a third: it is a dark picture
    assert find_bars(picture) == (20, 0, 140, 90)
    picture = np.full((90, 160, 3), 200, np.uint8)
    picture[:10] = picture[-10:] = 14
    assert find_bars(picture) == (0, 10, 160, 80)
    picture[:10] = 15
    assert find_bars(picture) == (0, 0, 160, 90)


def test_bars_are_believed_at_the_eighth_picture():
    picture = np.full((90, 160, 3), 200, np.uint8)
    look = ScreenLight([(0.5, 0.0)], area=0.05, step=1)
    look.look(picture)
    picture[:12] = picture[-12:] = 0
    dark = [bool(look.look(picture)[0, 0] < 0.1) for _ in range(10)]
    assert dark == [True] * 7 + [False] * 3


def test_grey_and_saturation_keep_how_bright_a_colour_is():
    """Linear red 0.2126, green 0.7152 and blue 0.0722 of what the eye sees (IEC 61966-2-1)."""
    picture = np.full((8, 8, 3), (255, 0, 0), np.uint8)
    assert seen(picture, [(0.5, 0.5)], saturation=0)[0] == pytest.approx([0.2126] * 3, abs=1e-5)
    picture[...] = (0, 255, 0)
    assert seen(picture, [(0.5, 0.5)], saturation=0)[0] == pytest.approx([0.7152] * 3, abs=1e-5)
    light = ((180 / 255 + 0.055) / 1.055) ** 2.4
    picture[...] = (180, 0, 0)
    assert seen(picture, [(0.5, 0.5)], grey=light)[0] == pytest.approx(
        [0.2126 * light] * 3, rel=1e-3
    )
    assert seen(picture, [(0.5, 0.5)], grey=0.5 * light)[0] == pytest.approx(
        [light, 0, 0], abs=1e-5
    )


def test_a_curve_is_as_the_eye_sees_it():
    """Light 0.125 is half as bright; shown at 0.25 of the eye it is 1/64 of the light."""
    byte = round(255 * (1.055 * 0.125 ** (1 / 2.4) - 0.055))
    picture = np.full((8, 8, 3), byte, np.uint8)
    curve = [(0, 0), (0.5, 0.25), (1, 1)]
    assert seen(picture, [(0.5, 0.5)], curve=curve)[0] == pytest.approx([1 / 64] * 3, rel=0.02)


def test_the_sun_by_hand():
    """At the equator, on the day that day and night are even, noon is 90 degrees high at 0 degrees
    of longitude at 12:07 UTC; 15 degrees further west an hour later; 6 hours on it sets."""
    assert sun_height_deg(80, 12.12, 0, 0, 0) == pytest.approx(90, abs=0.7)
    assert sun_height_deg(80, 13.12, 0, -15, 0) == pytest.approx(90, abs=0.7)
    assert sun_height_deg(80, 14.12, 0, 0, 2) == pytest.approx(90, abs=0.7)
    assert sun_height_deg(80, 18.12, 0, 0, 0) == pytest.approx(0, abs=0.7)
    assert sun_height_deg(80, 15.12, 0, 0, 0) == pytest.approx(45, abs=0.7)
    rises, sets = sun_times_h(306, 0, 0, 0)  # 2 November: the sun is 16.4 minutes early
    assert (rises + sets) / 2 == pytest.approx(12 - 16.4 / 60, abs=0.01)
