"""Ceilings, white balance and dither: what is done to the light of all layers together."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from agreement import assert_same_light
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.film import as_seen
from fendra.core.insight.explain import explain
from fendra.core.light.balance import gains_of
from fendra.core.light.dither import dither_frames, offset_arrays
from fendra.core.signals.tape import Tape
from fendra.native.engine import NativeEngine
from helpers import design, finished, layer, strip
from strategies import examples


def bytes_of(*layers, at=0.0, news=None, **keys):
    return design(*layers, **keys).compile(engine="numpy").frame(news or {}, at=at).rgb.tolist()


# ---- Ceilings ------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("most", "byte"),
    [(0.0, 0), (0.1, 3), (0.25, 11), (0.5, 47), (0.75, 123), (0.9, 195), (1.0, 255)],
)
def test_white_under_a_ceiling_is_as_bright_as_that_level(most, byte):
    """The table of the docs: ((level * 100 + 16) / 116) cubed, of 255."""
    assert bytes_of(layer(), most=most, count=1) == [[byte] * 3]
    assert bytes_of(layer(level=most), count=1) == [[byte] * 3]


def test_a_ceiling_caps_and_does_not_scale():
    """What is below 47 of 255 stays to the bit; what is above becomes 47, with its hue."""
    ramp = layer("field", red="index / 15", green="index / 30", blue=0)
    free, capped = (
        design(ramp, count=16, **keys).compile(engine="numpy").frame().rgb
        for keys in ({}, {"most": 0.5})
    )
    below = free[:, 0] < 47
    assert below.sum() == 3
    assert (capped[below] == free[below]).all()
    assert capped[~below].tolist() == [[47, 23, 0]] * 13


def test_a_ceiling_holds_for_light_of_several_layers_and_with_the_master_level():
    """Red and blue added up, each within; and a master of 0.8: 145 of 255 stay under 195."""
    both = layer(colour="red"), layer(colour="blue", blend="add")
    assert bytes_of(*both, most=0.5, count=1) == [[47, 0, 47]]
    assert bytes_of(layer(), layer(blend="add"), most=0.5, count=1) == [[47] * 3]
    assert bytes_of(layer(), most=0.9, level=0.8, count=1) == [[145] * 3]
    assert bytes_of(layer(), most=0.5, level=0.8, count=1) == [[47] * 3]


def test_each_line_and_group_may_have_one_and_the_lowest_holds():
    line = [
        {"name": "a", "most": 0.75, "part": [strip("bar", 3)]},
        {"name": "b", "part": [strip("far", 2)]},
    ]
    groups = {"face": {"of": "index == 1", "most": 0.5}, "tail": "index == 2"}
    rows = bytes_of(layer(), line=line, groups=groups, most=0.9)
    assert [row[0] for row in rows] == [123, 47, 123, 195, 47]


def test_a_ceiling_may_follow_a_signal_and_differ_from_led_to_led():
    night = {"signals": {"lux": {"range": [0, 100]}}, "most": "0.5 if lux < 10 else 1"}
    assert bytes_of(layer(), news={"lux": 5}, count=1, **night) == [[47] * 3]
    assert bytes_of(layer(), news={"lux": 50}, count=1, **night) == [[255] * 3]
    assert [row[0] for row in bytes_of(layer(), most="along", count=3)] == [0, 47, 255]


def test_scenes_that_take_over_from_each_other_stay_under_it():
    made = design(
        layer(scene="one"), layer(colour="red", scene="two"), most=0.5, count=1, signals={"s": {}},
        scene=[{"name": "one", "when": "s < 1"}, {"name": "two", "fade": 1.0}],
    )  # fmt: skip
    program = made.compile(engine="numpy")
    rows = [program.frame(s=min(i, 1), at=i / 10).rgb[0].tolist() for i in range(8)]
    assert max(max(row) for row in rows) == 47
    assert rows[0] == [47, 47, 47]


def test_a_ceiling_lowers_what_full_white_draws():
    """At 0.5 the light is 0.184: ten LEDs of 60 mA draw 47 of 255 of it, and 10 mA while dark."""
    assert design(layer(), most=0.5, count=10).budget().white_a == pytest.approx(
        0.01 + 0.6 * 47 / 255
    )


def test_explain_names_the_ceiling_and_the_balance():
    made = design(layer(), most=0.5, count=1, leds={"ws2812b": {"white": [1.0, 0.5, 0.25]}})
    film = made.compile(engine="numpy").film(Tape(np.array([0.0, 0.1]), {}))
    (first, second) = explain(made.examined.sound.recorded.reasons, film, 0, 0.0).finished
    assert (first[0], first[1]) == (("most",), (1, 1, 1))
    assert first[2] == pytest.approx((0.1842,) * 3, abs=1e-4)
    assert second[0] == ("leds", "ws2812b")
    assert second[2] == pytest.approx((0.1842, 0.0921, 0.046), abs=1e-4)


def test_a_ceiling_that_is_wrong_is_a_finding():
    found = [(f.path, f.code) for f in design(layer(), most="lux").check()]
    assert (("most",), "expression") in found
    found = [
        (f.path, f.code) for f in design(layer(), groups={"a": {"of": "all", "most": 2}}).check()
    ]
    assert (("groups", "a", "most"), "out-of-range") in found


# ---- White balance --------------------------------------------------------------------------------------


def test_three_gains_make_white_of_an_led_type():
    leds = {"ws2812b": {"white": [1.0, 0.8, 0.6]}}
    assert bytes_of(layer(), leds=leds, count=1) == [[255, 204, 153]]
    assert bytes_of(layer(level=0.5), leds=leds, count=1) == [[47, 38, 28]]
    assert bytes_of(layer(colour="lime"), leds=leds, count=1) == [[0, 204, 0]]


def test_only_lines_of_that_type_are_balanced():
    line = [
        {"name": "a", "led": "cold", "part": [strip("bar", 1)]},
        {"name": "b", "part": [strip("far", 1)]},
    ]
    leds = {"cold": {"like": "ws2812b", "white": [1.0, 0.8, 0.6]}}
    assert bytes_of(layer(), leds=leds, line=line) == [[255, 204, 153], [255, 255, 255]]


def test_a_white_channel_is_white_by_itself():
    """What is beside white is balanced: 128 in common, 127 of red, and 64 of green at 0.5."""
    line = [{"name": "a", "led": "sk6812-rgbw", "part": [strip("bar", 1)]}]
    leds = {"sk6812-rgbw": {"white": [1.0, 0.5, 0.25]}}
    look = layer("field", red=1.0, green=192 / 255, blue=128 / 255)
    made = design(look, line=line, leds=leds)
    frame = made.compile(engine="numpy").frame()
    assert frame.rgb.tolist() == [[255, 160, 128]]
    assert frame.line_bytes() == [bytes([32, 127, 0, 128])]
    assert frame.seen.tolist() == [[255, 192, 128]]  # 128 + (127, 32, 0) over the shares
    assert bytes_of(layer(), line=line, leds=leds) == [[255, 255, 255]]


def test_a_measured_white_point_gives_the_gains():
    """By hand for x = 0.28, y = 0.29: XYZ = (0.9655, 1, 1.4828); in sRGB 0.8525, 1.0018, 1.4174;
    the least of them over each.
    """
    assert gains_of(0.28, 0.29) == pytest.approx((1.0, 0.851, 0.6014), abs=2e-4)
    assert gains_of(0.3127, 0.329) == pytest.approx((1, 1, 1), abs=2e-3)
    rows = bytes_of(layer(), leds={"ws2812b": {"white_point": [0.28, 0.29]}}, count=1)
    assert rows == [[255, 217, 153]]
    warm = gains_of(0.38, 0.38)
    assert warm[2] == 1
    assert warm[0] < warm[1] < 1


@pytest.mark.parametrize(
    ("keys", "says"),
    [({"white": [1.0, 0.8]}, "too few values"), ({"white": [1.0, 0.8, 1.2]}, "1.2 is out of range"),
     ({"white": [1, 1, 1], "white_point": [0.3, 0.3]}, "mean the same. Remove one of them"),
     ({"white_point": [0.7, 0.28]}, "no share of red, green and blue makes white of x = 0.7, y = 0.28")],
)  # fmt: skip
def test_a_white_that_cannot_be_is_a_finding(keys, says):
    with pytest.raises(fd.DesignError, match=says):
        design(layer(), leds={"ws2812b": keys}).compile()


def test_a_wrong_white_of_a_type_of_its_own_is_one_finding():
    line = [{"name": "a", "led": "cold", "part": [strip("bar", 2)]}]
    leds = {"cold": {"like": "ws2812b", "white_point": [0.6, 0.6]}}
    (found,) = [f for f in design(layer(), line=line, leds=leds).check() if f.severity == "error"]
    assert found.path == ("leds", "cold", "white_point")
    assert "Daylight white is [0.3127, 0.329]" in found.remedy


def test_pictures_show_white_where_the_bytes_are_balanced():
    line = [
        {"name": "a", "led": "cold", "part": [strip("bar", 2)]},
        {"name": "b", "part": [strip("far", 1)]},
    ]
    leds = {"cold": {"like": "ws2812b", "white": [1.0, 0.8, 0.6]}}
    made = design(layer(colour="#c08040"), leds=leds, line=line)
    frame = made.compile(engine="numpy").frame()
    seen = as_seen(frame.rgb, frame.layout, frame.design)
    assert np.abs(seen.astype(int) - frame.rgb[2].astype(int)).max() <= 1
    assert frame.seen.tolist() == seen.tolist()
    plain = design(layer()).compile(engine="numpy").frame()
    assert plain.seen is plain.rgb


# ---- Dither ---------------------------------------------------------------------------------------------

WARM = layer("field", red=4.4 / 255, green=2.3 / 255, blue=1.25 / 255)


def film_of(look, frames=64, count=6, rate=50, **keys):
    program = design(look, count=count, rate=rate, **keys).compile(engine="numpy")
    return np.array([program.frame(at=i / rate).rgb for i in range(frames)], float)


def test_dither_is_off_unless_it_is_asked_for():
    assert (film_of(WARM) == [4, 2, 1]).all()


def test_a_warm_white_keeps_its_hue():
    """4.4, 2.3 and 1.25 of 255: halves at 50 frames a second, quarters of blue; without it 4, 2
    and 1.
    """
    mean = film_of(WARM, dither=True).mean(axis=0)
    assert mean == pytest.approx(np.array([[4.5, 2.5, 1.25]] * 6))
    assert film_of(WARM, rate=100, dither=True).mean(axis=0)[0] == pytest.approx([4.5, 2.25, 1.25])
    assert film_of(WARM, rate=200, dither=True).mean(axis=0)[0] == pytest.approx(
        [4.375, 2.25, 1.25]
    )


@pytest.mark.parametrize("rate", [50, 60, 100, 125, 200, 250])
def test_no_pattern_is_slower_than_25_a_second_and_none_steps_by_more_than_one(rate):
    """Of red and green; blue takes twice as many frames."""
    frames = dither_frames(rate)
    assert rate / frames >= 25
    film = film_of(
        layer("field", red="index / 1000", green=0.0123, blue=0.0077), 48, 9, rate, dither=True
    )
    assert (film[frames:, :, :2] == film[:-frames, :, :2]).all()
    assert (film[2 * frames :] == film[: -2 * frames]).all()
    assert (film.max(axis=0) - film.min(axis=0)).max() == 1


@given(st.floats(1.0, 255.0), st.sampled_from([50, 100, 250]))
@examples(60)
def test_the_mean_is_as_near_as_its_frames_allow(level, rate):
    """Half a step of a pattern of 2, 4 or 8; the brightest stays full."""
    film = film_of(layer("field", red=level / 255, green=0, blue=0), 16, 2, rate, dither=True)
    assert film[..., 0].mean(axis=0) == pytest.approx(level, abs=0.5 / dither_frames(rate) + 1e-3)


def test_neighbours_go_up_and_down_against_each_other():
    """The light of two LEDs side by side is the same in every frame; green goes against red."""
    film = film_of(layer("field", red=3.5 / 255, green=2.5 / 255, blue=0), dither=True)
    assert (film[:, 0] + film[:, 1] == film[0, 0] + film[0, 1]).all()
    assert (np.diff(film[:, 0, 0]) == -np.diff(film[:, 0, 1])).all()


def test_the_light_of_an_led_changes_little():
    """In the light that the eye weighs (0.2126, 0.7152, 0.0722) a warm white of 2 % goes up and down
    by less than a tenth, a lone LED, 25 times a second; two side by side by less than a fiftieth.
    """
    light = film_of(layer("field", red=5.1 / 255, green=3.4 / 255, blue=1.6 / 255), dither=True) @ [
        0.2126,
        0.7152,
        0.0722,
    ]
    alone, pair = light[:, 0], light[:, 0] + light[:, 1]
    assert (alone.max() - alone.min()) / (alone.max() + alone.min()) < 1 / 10
    assert (pair.max() - pair.min()) / (pair.max() + pair.min()) < 1 / 50


def test_an_led_below_one_byte_does_not_blink():
    film = film_of(layer("field", red=0.9 / 255, green=0.6 / 255, blue=0.3 / 255), dither=True)
    assert (film == [1, 1, 0]).all()


def test_full_light_and_darkness_stay_as_they_are():
    assert (film_of(layer(), dither=True) == 255).all()
    assert (film_of(layer(colour="black"), dither=True) == 0).all()
    assert (film_of(layer(colour="red"), dither=True) == [255, 0, 0]).all()


def test_dither_comes_before_the_limiter():
    """A tenth of the light is let through: its bytes are scaled after they were dithered."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    supplies = {"s": {"budget": 0.07}}
    made = design(layer(level=0.999), line=line, supplies=supplies, dither=True)
    program = made.compile(engine="numpy")
    bytes_ = {tuple(row) for i in range(6) for row in program.frame(at=i / 50).rgb.tolist()}
    assert len(bytes_) <= 2
    assert max(max(row) for row in bytes_) <= 26


@pytest.mark.parametrize("rate", [30, 24])
def test_below_50_frames_a_second_dither_is_refused_with_the_cure(rate):
    made = design(WARM, rate=rate, dither=True)
    (note,) = [f for f in made.check() if f.path == ("dither",)]
    assert note.code == "no-effect"
    assert "rate = 50" in note.remedy
    assert (film_of(WARM, rate=rate, dither=True) == [4, 2, 1]).all()


def test_every_place_of_the_pattern_is_taken_once():
    table = offset_arrays(4, 7)
    assert table.shape == (8, 3, 7)
    assert sorted(table[:4, 1, 5].tolist()) == [-0.375, -0.125, 0.125, 0.375]
    assert (table[4:, :2] == table[:4, :2]).all()
    assert sorted(table[:, 2, 3].tolist()) == [i / 8 - 7 / 16 for i in range(8)]


# ---- All of them, in every engine -----------------------------------------------------------------------


@pytest.mark.parametrize("rate", [50, 100, 200])
@pytest.mark.parametrize("look", ["hue-drift", "flicker", "cloud"])
def test_finishes_give_the_same_bytes_in_c(compiler, look, rate):
    """Lopsided lines (see `finished`), a level that moves, and a limiter."""
    keys = finished(
        signals={"s": {}}, rate=rate, level="0.3 + 0.5 * s", supplies={"s": {"budget": 0.3}}
    )
    more = layer(colour="#ffb060", when="s > 0.5", level="s", blend="add")
    made = design(layer(look), more, **keys)
    plan = made.compile(engine="numpy").plan
    assert_same_light(
        NumpyEngine(plan), NativeEngine(plan), [(20, {"s": i / 60}) for i in range(60)]
    )


def test_light_a_little_above_full_stays_full_in_c(compiler):
    """255.4 of 255, up by a quarter and rounded, would be 256, which is 0 in a byte."""
    more = layer("field", red=0.0015, green=0.0018, blue=0.0009, blend="add")
    plan = design(layer(), more, dither=True).compile(engine="numpy").plan
    assert_same_light(NumpyEngine(plan), NativeEngine(plan), [(20, {})] * 6)
    out = np.zeros((8, 3), np.uint8)
    NativeEngine(plan).frame(0, {}, out)
    assert (out == 255).all()


def test_a_film_in_c_has_the_same_bytes_with_dither(compiler):
    made = design(layer("sweep"), layer(level=0.12, blend="add"), dither=True, count=700, rate=100)
    tape = Tape(np.array([0.0, 1.0]), {})
    films = [made.compile(engine=engine).film(tape) for engine in ("numpy", "native", "wasm")]
    assert len({film.rgb.tobytes() for film in films}) == 1
    assert isinstance(films[0], fd.Film)
