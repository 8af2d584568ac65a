"""Sine, directions, Oklab, chance and lookups against other ways to the same numbers."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fendra.core.errors import GraphError
from fendra.core.graph import functions as f
from fendra.core.graph.ops import Kind, Lookup
from fendra.core.graph.trace import Tracer
from helpers import design, layer


def number(build, *values):
    """What a function of numbers gives for constants: they are folded at once."""
    tracer = Tracer()
    return build(*(tracer.const(float(value)) for value in values)).number


def colour(build, *colours_and_numbers):
    tracer = Tracer()
    return build(*(tracer.const(item) for item in colours_and_numbers)).node.payload


@given(st.floats(-20, 20, width=32))
def test_sine_is_the_sine(turn):
    assert number(f.sine, turn) == pytest.approx(math.sin(2 * math.pi * turn), abs=2e-5)


@given(st.floats(-1e3, 1e3, width=32), st.floats(-1e3, 1e3, width=32))
def test_turn_of_is_the_direction_of_a_vector(up, across):
    found = number(f.turn_of, up, across)
    if max(abs(up), abs(across)) < 1e-30:  # as good as no length
        assert 0 <= found < 1
        return
    away = (found - math.atan2(up, across) / (2 * math.pi)) % 1
    assert min(away, 1 - away) < 1e-5
    assert 0 <= found < 1


@pytest.mark.parametrize(
    ("seconds", "ms"),
    [(0.127, 127.0), (0.08, 80.0), (0.0125, 12.5), (0.0333, 33.3), (0.0, 0.0), (3600.0, 3.6e6)],
)
def test_seconds_that_are_written_are_the_milliseconds_that_are_meant(seconds, ms):
    """In float32, 0.127 times 1000 would be 127.00001."""
    assert f.to_ms(Tracer().const(seconds)).number == np.float32(ms)


@given(st.floats(0, 1, width=32))
def test_cube_root_is_a_cube_root(x):
    expected = x ** (1 / 3) if x > 1e-12 else 0.0
    assert number(f.cube_root, x) == pytest.approx(expected, rel=1e-5, abs=1e-7)


OKLAB = {  # CSS Color 4, section 9.2: the corners of sRGB, to three digits
    (1.0, 1.0, 1.0): (1.0, 0.0, 0.0),
    (1.0, 0.0, 0.0): (0.628, 0.225, 0.126),
    (0.0, 1.0, 0.0): (0.866, -0.234, 0.179),
    (0.0, 0.0, 1.0): (0.452, -0.032, -0.312),
    (0.0, 0.0, 0.0): (0.0, 0.0, 0.0),
}


@pytest.mark.parametrize(("light", "lab"), OKLAB.items())
def test_oklab_is_that_of_the_standard(light, lab):
    found = f.to_oklab(Tracer().const(light))
    assert [value.number for value in found] == pytest.approx(lab, abs=1e-3)


lights = st.tuples(*3 * [st.floats(0, 1, width=32)])


@given(lights)
def test_oklab_and_back_is_the_same_light(light):
    assert colour(lambda c: f.from_oklab(f.to_oklab(c)), light) == pytest.approx(light, abs=3e-6)


@given(lights, lights)
def test_an_even_mix_begins_and_ends_at_its_colours_and_keeps_within_light(a, b):
    assert colour(f.even_mix, a, b, 0.0) == pytest.approx(a, abs=1e-5)
    assert colour(f.even_mix, a, b, 1.0) == pytest.approx(b, abs=1e-5)
    assert all(0 <= channel <= 1 for channel in colour(f.even_mix, a, b, 0.4))


def test_the_middle_of_an_even_mix_of_black_and_white_is_half_as_light():
    """Half of the lightness is an eighth of the light; in linear light it is half."""
    black, white = (0.0,) * 3, (1.0,) * 3
    assert colour(f.even_mix, black, white, 0.5) == pytest.approx((0.125,) * 3, abs=1e-5)
    assert colour(f.mix, black, white, 0.5) == (0.5,) * 3


@pytest.mark.parametrize(
    ("degrees", "light"),
    [(0, (1, 0, 0)), (60, (1, 1, 0)), (90, (0.5, 1, 0)), (120, (0, 1, 0)), (180, (0, 1, 1)),
     (240, (0, 0, 1)), (300, (1, 0, 1)), (360, (1, 0, 0)), (-120, (0, 0, 1)), (7200, (1, 0, 0))],
)  # fmt: skip
def test_hue_goes_through_the_corners_of_the_colour_circle(degrees, light):
    assert colour(f.hue, float(degrees)) == pytest.approx(light, abs=1e-5)


def test_a_hue_that_is_shifted_round_is_the_same_and_half_way_is_its_opposite():
    light = (0.3, 0.2, 0.25)
    assert colour(f.shift_hue, light, 360.0) == pytest.approx(light, abs=1e-5)
    (one, *first), (other, *second) = (
        [value.number for value in f.to_oklab(Tracer().const(each))]
        for each in (light, colour(f.shift_hue, light, 180.0))
    )
    assert one == pytest.approx(other, abs=1e-5)
    assert first == pytest.approx([-value for value in second], abs=1e-5)


@pytest.mark.slow
def test_chance_is_even_and_neighbours_have_nothing_in_common():
    tracer = Tracer()
    draws = np.array([
        [f.chance(tracer.const(i, Kind.UINT), seed, 3).number for i in range(2000)]
        for seed in (1, 2)
    ])  # fmt: skip
    assert draws.min() >= 0
    assert draws.max() < 1
    counts = np.histogram(draws, 16, (0, 1))[0]
    assert ((counts - 250) ** 2 / 250).sum() < 37.7  # chi squared, 15 degrees: 0.1 %
    for a, b in ((draws[0, :-1], draws[0, 1:]), (draws[0], draws[1])):
        assert abs(np.corrcoef(a, b)[0, 1]) < 0.08


def test_one_bit_more_or_less_turns_about_half_of_all_bits():
    tracer, flipped = Tracer(), []
    rng = np.random.default_rng(4)
    for _ in range(200):
        value, bit = int(rng.integers(2**32)), 1 << int(rng.integers(32))
        one, other = (
            f.scramble(tracer.const(v, Kind.UINT), 9).node.payload[0] for v in (value, value ^ bit)
        )
        flipped.append(bin(one ^ other).count("1"))
    assert np.mean(flipped) == pytest.approx(16, abs=0.8)
    assert min(flipped) >= 5


def test_a_table_gives_its_last_number_behind_its_end_and_takes_one_place():
    tracer = Tracer()
    table = Lookup([0.5, 2.0, 7.0])
    found = [tracer.take(table, tracer.const(i, Kind.UINT)).number for i in (0, 2, 3, 2**31)]
    assert found == [0.5, 7.0, 7.0, 7.0]
    assert tracer.take(Lookup([3, 9], Kind.UINT), tracer.const(1, Kind.UINT)).node.payload == (9,)
    assert table == Lookup(np.array([0.5, 2, 7]))
    assert table != Lookup([0.5, 2.0])
    assert len({table, Lookup([0.5, 2.0, 7.0])}) == 1
    with pytest.raises(GraphError, match="one number"):
        tracer.take(table, tracer.const((1, 2, 3), Kind.UINT))


def test_the_channels_of_a_colour_are_numbers_and_those_of_a_number_itself():
    tracer = Tracer()
    light = tracer.const((0.25, 0.5, 1.0))
    assert [tracer.channel(light, i).number for i in range(3)] == [0.25, 0.5, 1.0]
    assert tracer.channel(tracer.const(0.3), 2).number == pytest.approx(0.3)


def test_a_palette_passes_through_its_colours():
    tracer = Tracer()
    row = [tracer.const(c) for c in ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))]
    for place, expected in ((0.0, (1, 0, 0)), (0.5, (0.5, 0.5, 0)), (1.0, (0, 1, 0)),
                            (2.0, (0, 0, 1))):  # fmt: skip
        shares = [tracer.const(min(max(place - i, 0.0), 1.0)) for i in range(2)]
        assert f.palette(row, shares).node.payload == pytest.approx(expected)
    picked = [f.pick(row, tracer.const(float(i))).node.payload for i in range(3)]
    assert picked == [(1, 0, 0), (0, 1, 0), (0, 0, 1)]


# ---- Numbers by hand, where the standard or the page gives them ----------------------------------


@pytest.mark.parametrize(
    ("level", "light"),
    # CIE 1976: Y = ((L* + 16) / 116)^3 above L* = 8, else L* / 903.3.
    [(0.0, 0.0), (0.04, 4 / 903.2963), (0.079, 7.9 / 903.2963), (0.081, (24.1 / 116) ** 3),
     (0.25, (41 / 116) ** 3), (0.5, (66 / 116) ** 3), (1.0, 1.0)],
)  # fmt: skip
def test_levels_are_lightness(level, light):
    assert number(f.lightness_to_linear, level) == pytest.approx(light, rel=1e-5)


def test_soft_and_even_courses_by_hand():
    assert [number(f.smooth, x) for x in (0, 0.25, 0.5, 0.9, 1)] == pytest.approx(
        [0, 0.15625, 0.5, 0.972, 1]
    )
    assert [number(f.to_and_fro, x) for x in (0, 0.25, 0.5, 0.8)] == pytest.approx([0, 0.5, 1, 0.4])
    assert [number(f.fraction, x) for x in (2.25, -0.25)] == pytest.approx([0.25, 0.75])
    assert [number(f.reached, x) for x in (2.9985, 2.9995, 3.2)] == [2, 3, 3]


def test_a_dead_band_keeps_its_centre():
    found = [number(lambda x: f.dead_band(x, 1.0, 4.0), x) for x in (7, 4.9, 2, 4)]
    assert found == pytest.approx([6, 4, 3, 4])


def test_a_ramp_may_fall_and_is_level_outside():
    found = [number(lambda x: f.ramp(x, 10.0, 2.0), x) for x in (12, 10, 8, 2, 0)]
    assert found == pytest.approx([0, 0, 0.25, 1, 1])


def test_a_curve_begins_at_its_first_value():
    curve = [(0.0, 2.0), (10.0, 4.0), (20.0, 1.0)]
    found = [number(lambda x: f.curve(x, curve), x) for x in (-5, 0, 5, 10, 15, 30)]
    assert found == pytest.approx([2, 2, 3, 4, 2.5, 1])


@pytest.mark.parametrize(
    ("degrees", "light"), [(30, (1, 0.5, 0)), (100, (1 / 3, 1, 0)), (200, (0, 2 / 3, 1))]
)
def test_hues_lie_between_their_corners(degrees, light):
    assert colour(f.hue, float(degrees)) == pytest.approx(light, abs=1e-5)


def test_a_shifted_hue_goes_the_way_of_the_colour_circle():
    """A quarter of a turn on (a, b) becomes (-b, a): in Oklab a is red, b is yellow."""
    light = (0.3, 0.22, 0.25)
    one, a, b = (value.number for value in f.to_oklab(Tracer().const(light)))
    turned = colour(f.shift_hue, light, 90.0)
    found = [value.number for value in f.to_oklab(Tracer().const(turned))]
    assert found == pytest.approx([one, -b, a], abs=1e-4)


def test_an_even_palette_of_three_passes_through_its_middle_colour():
    tracer = Tracer()
    row = [tracer.const(c) for c in ((1.0, 0.0, 0.0), (0.0, 0.5, 0.0), (0.0, 0.0, 1.0))]
    for shares, expected in (((0, 0), (1, 0, 0)), ((1, 0), (0, 0.5, 0)), ((1, 1), (0, 0, 1))):
        found = f.palette(row, [tracer.const(float(s)) for s in shares], even=True)
        assert found.node.payload == pytest.approx(expected, abs=2e-5)
    half = f.palette(row, [tracer.const(1.0), tracer.const(0.5)], even=True).node.payload
    assert half == pytest.approx(
        colour(f.even_mix, (0.0, 0.5, 0.0), (0.0, 0.0, 1.0), 0.5), abs=1e-5
    )


def test_nothing_has_no_cube_root_and_every_direction_its_eighth():
    assert number(f.cube_root, 0.0) == 0.0
    for degrees in range(0, 360, 15):
        up, across = math.sin(math.radians(degrees)), math.cos(math.radians(degrees))
        away = (number(f.turn_of, up, across) - degrees / 360 + 0.5) % 1 - 0.5
        assert abs(away) < 2e-5


def test_whole_numbers_are_the_nearest():
    tracer = Tracer()
    found = [f.to_uint(tracer.const(x)).node.payload[0] for x in (2.4, 2.5, 2.6, -3.0)]
    assert found == [2, 3, 3, 0]
    assert f.to_uint(tracer.const(900.0), 255.0).node.payload == (255,)


def test_a_number_over_0_is_0():
    tracer = Tracer()
    bound = tracer.input("value:s", Kind.FLOAT)
    with pytest.raises(GraphError, match="divides by 0"):
        tracer.const(1.0) / 0.0
    assert (tracer.const(1.0) / bound).node.op == "select"
    quotient = layer("field", red="s / t", green="0.2 + (s % t) / 10", blue="0.4 - s // t")
    program = design(quotient, signals={"s": {}, "t": {}}, count=1).compile()
    assert program.frame(s=4.0, t=0.0).rgb[0].tolist() == [0, 153, 102]  # 4 % 0 is 4, all of it
    assert program.frame(s=0.0, t=0.0).rgb[0].tolist() == [0, 51, 102]
