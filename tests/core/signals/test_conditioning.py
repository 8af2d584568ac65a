"""Conditioning: values worked out by hand, frame by frame, through a design's own keys."""

from __future__ import annotations

import re

import pytest

from fendra.core.errors import DesignError
from helpers import design, layer, reds


def courses(signals, values, *, step_ms=100, show="s", low=0.0, high=1.0):
    """What `show` is in each frame, read back from the light of one LED a thousandth."""
    made = design(
        layer(colour="white", level=1, cover=f"({show} - {low}) / {high - low}"), count=1,
        signals={name: dict(keys) for name, keys in signals.items()},
    )  # fmt: skip
    program = made.compile()
    found = []
    for i, news in enumerate(values):
        light, _ = program.engine.light(i * step_ms, program._check(news))
        found.append(float(light[0, 0]) * (high - low) + low)
    return found


def series(*values, name="s"):
    return [{} if value is None else {name: value} for value in values]


def switched(keys, *values, step_ms=100):
    found = courses({"s": {"kind": "switch", **keys}}, series(*values), step_ms=step_ms,
                    show="(1 if s else 0)")  # fmt: skip
    return [round(value) for value in found]


def test_calibration_brings_raw_values_to_the_range_and_may_be_upside_down():
    keys = {"calibrate": [1000, 2000], "range": [0, 1]}
    assert courses({"s": keys}, series(1000, 1250, 2400, 900)) == pytest.approx([0, 0.25, 1, 0])
    keys = {"calibrate": [800, 200], "range": [0, 1]}
    assert courses({"s": keys}, series(800, 200, 350)) == pytest.approx([0, 1, 0.75])


def test_a_curve_runs_straight_between_its_points():
    keys = {"curve": [[0, 0], [10, 0.8], [20, 1]]}
    found = courses({"s": keys}, series(-5, 5, 10, 15, 99))
    assert found == pytest.approx([0, 0.4, 0.8, 0.9, 1])


def test_a_dead_band_is_its_middle_and_keeps_the_ends():
    """Width 0.2 round 0 in -1 to 1: 0.6 is (0.6 - 0.2) / 0.8 = 0.5 of the way up."""
    keys = {"range": [-1, 1], "dead_band": 0.2}
    found = courses({"s": keys}, series(0.1, -0.2, 0.6, 1, -0.6), low=-1)
    assert found == pytest.approx([0, 0, 0.5, 1, -0.5], abs=1e-6)


def test_a_moving_average_reaches_a_step_after_its_window_in_a_straight_line():
    """0.8 s of 100 ms frames: one eighth more each frame, and all of it from the eighth on."""
    found = courses({"s": {"average": 0.8}}, series(0, 1, *[None] * 10))
    assert found[:9] == pytest.approx([i / 8 for i in range(9)], abs=1e-5)
    assert found[9:] == pytest.approx([1] * 3, abs=1e-5)


def test_a_moving_average_over_windows_that_no_frame_fits_stays_within_its_values():
    found = courses({"s": {"average": 0.37}}, series(0, *[1, 0, 1, 1, 0] * 8), step_ms=33)
    assert min(found) >= -1e-5
    assert max(found) <= 1 + 1e-5


def test_slew_limits_rising_and_falling_by_themselves():
    found = courses({"s": {"slew": [2, 5]}}, series(0, 1, 1, 0, 0, 0))
    assert found == pytest.approx([0, 0.2, 0.4, 0, 0, 0], abs=1e-6)


def test_smoothing_may_rise_quickly_and_fall_slowly():
    """A share of 1 - 1 / (1 + u + u2 / 2 + u3 / 6): u = 1 upward, u = 0.1 downward."""
    up, down = 1 - 1 / (1 + 1 + 1 / 2 + 1 / 6), 1 - 1 / (1 + 0.1 + 0.005 + 0.001 / 6)
    found = courses({"s": {"smooth": [0.1, 1.0]}}, series(0, 1, 0))
    assert found == pytest.approx([0, up, up * (1 - down)], abs=1e-6)


def test_day_and_night_do_not_flap():
    """Night below 20, day above 40, and at least half a second of each."""
    night = {"on_at": 20, "off_at": 40}
    assert switched(night, 30, 19, 30, 39, 41, 30) == [0, 1, 1, 1, 0, 0]
    assert switched({**night, "dwell": 0.35}, 30, 19, 50, 50, 50, 50, 10) == [0, 1, 1, 1, 1, 0, 0]


def test_a_threshold_upward_has_its_hysteresis_below_it():
    assert switched({"on_at": 40, "off_at": 30}, 41, 35, 31, 29, 35, 41) == [1, 1, 1, 0, 0, 1]


def test_a_bouncing_contact_counts_once_it_is_still():
    raw = [0, 1, 0, 1, 1, 1, 1, 0, 1, 1]
    assert switched({"debounce": 0.02}, *raw, step_ms=10) == [0, 0, 0, 0, 0, 1, 1, 1, 1, 1]


def test_a_flasher_is_bridged_and_its_rate_is_found():
    """0.3 s on and 0.4 s off is 1 / 0.7 s = 1.43 Hz, known from the second pulse on."""
    raw = [0, *([1] * 3 + [0] * 4) * 3, *[0] * 20]
    held = switched({"hold": 0.45}, *raw)
    assert held[1:22] == [1] * 21
    assert not any(held[22:])
    rates = courses(
        {"s": {"kind": "switch", "hold": 0.45}}, series(*raw), show="rate_of(s)", high=10
    )
    assert rates[7] == 0
    assert rates[8:28] == pytest.approx([1 / 0.7] * 20, rel=1e-3)
    assert rates[-1] == 0


def test_cells_are_guessed_when_a_pack_is_plugged_in_or_counted_by_the_user():
    """12.6 V is three full cells; while the same pack sags to 9.6 V it still has three."""
    keys = {"cells": "guess", "lost_after": 0.25}
    values = series(12.6, 9.6, None, None, None, 8.3)
    found = courses({"s": keys}, values, high=10)
    assert found == pytest.approx([4.2, 3.2, 3.2, 3.2, 0, 4.15], abs=1e-5)
    assert courses({"s": {"cells": 13}}, series(48.1), high=10) == pytest.approx([3.7], abs=1e-5)


def test_slowing_down_lights_the_brake_light():
    """36 km/h, then 10 km/h less a second: the slope settles at -10."""
    speeds = [36 - 0.5 * max(i - 10, 0) for i in range(60)]
    made = design(layer(colour="red", when="slope(speed, 0.2) < -6"), signals={"speed": {}})
    program = made.compile()
    lit = [reds(program.frame(at=i * 0.05, speed=speed))[0] > 0 for i, speed in enumerate(speeds)]
    assert not any(lit[:11])
    assert all(lit[16:])


def test_buttons_step_pulse_and_start():
    raw = [0, 1, 1, 1, 1, 0, 0, 1]
    signals = {"s": {"kind": "switch"}}
    shown = {
        "pulse(s, 0.2)": [0, 1, 1, 0, 0, 0, 0, 1],
        "starts(s)": [0, 1, 0, 0, 0, 0, 0, 1],
        "toggle(s)": [0, 1, 1, 1, 1, 1, 1, 0],
    }
    for text, expected in shown.items():
        found = courses(signals, series(*raw), show=f"(1 if {text} else 0)")
        assert [round(value) for value in found] == expected, text


def test_a_peak_stays_and_falls():
    found = courses({"s": {}}, series(0, 1, 0, 0, 0, 0), show="peak(s, 0.2, 2)")
    assert found == pytest.approx([0, 1, 1, 1, 0.8, 0.6], abs=1e-5)


def test_a_text_is_there_in_one_frame_and_an_event_too():
    signals = {"say": {"kind": "text", "choices": ["go", "stop"]}, "hit": {"kind": "event"}}
    news = [{"say": "go"}, {}, {"say": "stop"}, {"say": "go"}, {}]
    found = courses(signals, news, show="(1 if say == 'go' else 0)")
    assert found == [1, 0, 0, 1, 0]
    news = [{"hit": {"strength": 0.5, "x": 3}}, {}, {"hit": 0.25}]
    found = courses(signals, news, show="(hit.strength + hit.x if hit else 0)", high=5)
    assert found == pytest.approx([3.5, 0, 3.25])


def test_a_colour_is_light_and_fades_channel_by_channel():
    """#bc0000 is 0.503 of red (IEC 61966-2-1)."""
    made = design(layer(colour="tint"), signals={"tint": {"kind": "colour", "fallback": "blue"}})
    program = made.compile()
    assert program.frame(at=0).rgb[0].tolist() == [0, 0, 255]
    assert program.frame(tint="#bc0000").rgb[0].tolist() == [128, 0, 0]
    assert program.frame(tint=0x00FF00).rgb[0].tolist() == [0, 255, 0]
    assert program.frame(tint=[1.0, 1.0, 0.0]).rgb[0].tolist() == [255, 255, 0]


def test_a_vector_is_a_list_for_effects_and_has_numbers_for_expressions():
    signals = {"sound": {"kind": "vector", "size": 4, "range": [0, 1]}}
    made = design(layer("bands", levels="sound", bars=False, colours=["red"]), signals=signals)
    frame = made.compile().frame(at=0, sound=[0, 1, 0, 0.5])
    assert [red > 0 for red in reds(frame)] == [False, False, True, True, False, False, True, True]
    found = courses(signals, [{"sound": [0, 0.25, 3, 0]}], show="sound[1] + sound[2]", high=2)
    assert found == pytest.approx([1.25])


@pytest.mark.parametrize(
    ("text", "problem"),
    [
        ("sound", "4 numbers; write one"),
        ("sound[4]", "its numbers are [0] to [3]"),
        ("hit.w", "it has .strength, .x, .y and .z"),
        ("nobody.x", "there is no signal 'nobody'"),
        ("rate_of(3)", "a condition is needed here, as in: rate_of(left)"),
        ("curve(1, 2, 3)", "curve takes a number, and points x, y"),
        ("curve(1, 5, 0, 2, 1)", "in ascending order"),
        ("average(1, sound[0])", "a plain number is needed"),
    ],
)
def test_what_no_signal_has_is_said(text, problem):
    signals = {"sound": {"kind": "vector", "size": 4}, "hit": {"kind": "event"}}
    with pytest.raises(DesignError) as caught:
        design(layer(level=text), signals=signals).compile()
    assert problem in str(caught.value)


# ---- Off centre, upside down, between its steps -------------------------------------------------


def test_calibration_reaches_a_range_that_does_not_begin_at_0():
    """From 200 to 1000 to -1 to 3: 600 is half way, 1. Upside down 400 is three quarters, 2."""
    keys = {"calibrate": [200, 1000], "range": [-1, 3]}
    found = courses({"s": keys}, series(200, 600, 1000, 0), low=-1, high=3)
    assert found == pytest.approx([-1, 1, 3, -1], abs=1e-5)
    keys = {"calibrate": [1000, 200], "range": [-1, 3]}
    found = courses({"s": keys}, series(1000, 400, 200), low=-1, high=3)
    assert found == pytest.approx([-1, 2, 3], abs=1e-5)


def test_a_dead_band_off_centre_stretches_each_side_by_itself():
    """Round 4 in 0 to 10, 1 wide: 7 is 2 of the 5 that are left above, 6.4; 2 is 1 of the 3 below."""
    keys = {"range": [0, 10], "centre": 4, "dead_band": 1}
    values = series(4, 5, 3, 7, 10, 2, 0)
    found = courses({"s": keys}, values, high=10)
    assert found == pytest.approx([4, 4, 4, 6.4, 10, 4 - 4 / 3, 0], abs=1e-5)
    found = courses({"s": {"centre": 4, "dead_band": 1}}, series(7, 2, 4.5), high=10)
    assert found == pytest.approx([6, 3, 4], abs=1e-5)
    found = courses({"s": {}}, series(3, -3, 0.5), show="dead_band(s, 1)", low=-4, high=4)
    assert found == pytest.approx([2, -2, 0], abs=1e-5)


def test_a_moving_average_falls_as_evenly_as_it_rises_between_its_pieces_too():
    """0.8 s in frames of 25 ms, a quarter of a piece each: a 32nd less with every frame."""
    found = courses({"s": {"average": 0.8}}, series(1, *[1] * 40, 0, *[None] * 40), step_ms=25)
    assert found[:41] == pytest.approx([1] * 41, abs=1e-5)
    fallen = [1 - min(n, 32) / 32 for n in range(1, 42)]
    assert found[41:] == pytest.approx(fallen, abs=1e-5)


def test_a_window_may_be_shorter_than_a_frame_and_is_then_the_value_itself():
    assert courses({"s": {"average": 0.05}}, series(0.25, 1, 0.5)) == pytest.approx([0.25, 1, 0.5])


def test_slew_one_way_alone_leaves_the_other_free():
    found = courses({"s": {"slew": [2, 0]}}, series(0, 1, 1, 0))
    assert found == pytest.approx([0, 0.2, 0.4, 0], abs=1e-6)
    found = courses({"s": {"slew": [0, 4]}}, series(0, 1, 0, 0))
    assert found == pytest.approx([0, 1, 0.6, 0.2], abs=1e-6)
    found = courses({"s": {}}, series(0, 1, 1, 0, 0), show="slew(s, 3)")
    assert found == pytest.approx([0, 0.3, 0.6, 0.3, 0], abs=1e-6)


def test_a_threshold_is_left_at_its_end_and_not_before():
    """On above 40 and off below 30: at 30 just it stays. Night below 20, until above 40."""
    assert switched({"on_at": 40, "off_at": 30}, 40, 40.5, 30, 29.9, 40) == [0, 1, 1, 0, 0]
    assert switched({"on_at": 20, "off_at": 40}, 20, 19.9, 40, 40.1) == [0, 1, 1, 0]
    found = courses({"s": {}}, series(0.5, 0.9, 0.5, 0.1), show="(1 if switch(s, 0.8, 0.3) else 0)")
    assert found == [0, 1, 1, 0]
    assert switched({"off_at": 7}, 7, 7.1, 6.9) == [0, 1, 0]


def test_a_switch_that_is_on_at_power_up_is_on_at_once():
    assert switched({"debounce": 0.05}, 1, 1, 0, 0, step_ms=20) == [1, 1, 1, 1]
    assert switched({"dwell": 0.1}, 1, 0, 0, 0, step_ms=50) == [1, 0, 0, 0]
    assert switched({"dwell": 0.1}, 0, 1, 0, 0, 0, step_ms=50) == [0, 1, 1, 0, 0]
    assert switched({"dwell": 2}, 0, 1, *[0] * 4, step_ms=500) == [0, 1, 1, 1, 1, 0]


def test_times_of_switches_are_right_to_the_millisecond():
    """Held for 5 ms after, settled after 3 ms, a pulse of 4 ms."""
    raw = [0, 1, 0, 0, 0, 0, 0, 0, 0]
    assert switched({"hold": 0.005}, *raw, step_ms=1) == [0, 1, 1, 1, 1, 1, 0, 0, 0]
    assert switched({"debounce": 0.003}, 0, 1, 1, 1, 1, step_ms=1) == [0, 0, 0, 0, 1]
    found = courses({"s": {"kind": "switch"}}, series(*raw), step_ms=1,
                    show="(1 if pulse(s, 0.004) else 0)")  # fmt: skip
    assert found == [0, 1, 1, 1, 1, 0, 0, 0, 0]
    found = courses({"s": {"kind": "switch"}}, series(1, 1, 0), show="(1 if pulse(s, 1) else 0)")
    assert found == [0, 0, 0]  # what is so at power-up has come before
    found = courses({"s": {"kind": "switch"}}, series(1, 0, 1), show="(1 if starts(s) else 0)")
    assert found == [0, 0, 1]


def test_a_rate_ends_twice_its_period_after_the_last_time_and_slow_ones_are_none():
    """Every 0.3 s is 3.33 Hz, until 0.6 s after the last. 9 s apart is 1/9 Hz, 10 s is none."""
    raw = [0, 1, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0]
    rates = courses({"s": {"kind": "switch"}}, series(*raw), show="rate_of(s)", high=10)
    assert rates == pytest.approx([0] * 4 + [10 / 3] * 6 + [0] * 2, rel=1e-4)
    for apart, rate in ((9, 1 / 9), (10, 0)):
        slow = [0, 1, *[0] * (apart - 1), 1]
        found = courses({"s": {"kind": "switch"}}, series(*slow), show="rate_of(s)", step_ms=1000)
        assert found[-1] == pytest.approx(rate, rel=1e-4)


def test_the_rate_of_a_held_switch_is_that_of_its_contact_and_lost_counts_as_off():
    """Bridged it never goes off: its rate is that of what blinks. Lost, it is off for the rate."""
    keys = {"s": {"kind": "switch", "hold": 5}}
    found = courses(keys, series(0, 1, 0, 1, 0, 1), show="rate_of(s)", high=10)
    assert found[-1] == pytest.approx(5, rel=1e-4)
    keys = {"s": {"kind": "switch", "lost_after": 0.15}}
    found = courses(keys, series(0, 1, None, None, 1), show="rate_of(s)", high=10)
    assert found[-1] == pytest.approx(1 / 0.3, rel=1e-4)  # from the first frame on to the fifth


@pytest.mark.parametrize("cells", range(1, 13))
def test_a_full_pack_of_any_size_is_counted_right(cells):
    """4.2 V a cell, and 4.23 as a meter may have it; and nearly empty at 3.55 V up to five."""
    for each in (4.2, 4.23, *([3.55] if cells <= 5 else [])):
        found = courses({"s": {"cells": "guess"}}, series(cells * each), high=10)
        assert found == pytest.approx([each], abs=1e-4)


def test_another_pack_is_counted_anew_once_the_first_is_lost():
    """Three cells, then silence, then four: 16.0 V are 4.0 each."""
    keys = {"cells": "guess", "lost_after": 0.25}
    values = series(12.3, None, None, None, 16.0)
    assert courses({"s": keys}, values, high=10)[-1] == pytest.approx(4.0, abs=1e-4)


def test_what_is_lost_is_so_from_its_time_on_and_not_before():
    """lost_after 0.2 s: at 0.2 s without news it is lost."""
    keys = {"lost_after": 0.2, "fallback": 0.75}
    found = courses({"s": keys}, series(0.25, None, None, 0.5), step_ms=100)
    assert found == pytest.approx([0.25, 0.25, 0.75, 0.5])
    found = courses({"s": {"fallback": 7, "range": [0, 0.5]}}, series(None))
    assert found == pytest.approx([0.5])  # a fallback is held within the range


def test_a_computed_signal_is_lost_with_any_that_it_reads():
    signals = {"a": {"lost_after": 0.15}, "b": {}, "both": {"of": "a + b"}, "back": {"of": "b + a"}}
    news = [{"a": 1, "b": 1}, {}, {}]
    for name in ("both", "back"):
        found = courses(signals, news, show=f"(1 if lost({name}) else 0)")
        assert found == [0, 0, 1]
    found = courses(signals, news, show="(1 if lost(all) else 0)")
    assert found == [0, 0, 0]
    found = courses(signals, [{}, {"a": 1}], show="(1 if lost(all) else 0)")
    assert found == [1, 0]


def test_a_key_that_nobody_presses_is_no_signal_that_is_lost():
    """`a` is silent for 0.2 s; no key was pressed for as long, or none at all."""
    signals = {"a": {"lost_after": 0.15}, "press": {"kind": "event"}}
    for first in ({"a": 1, "press": 1}, {"a": 1}):
        assert courses(signals, [first, {}, {}], show="(1 if lost(all) else 0)") == [0, 0, 1]
    keys = {"press": {"kind": "event"}}
    assert courses(keys, [{}, {"press": 1}, {}], show="(1 if lost(all) else 0)") == [1, 0, 0]
    patient = {**signals, "press": {"kind": "event", "lost_after": 0.25}}
    news = [{"a": 1, "press": 1}, {}, {}, {}]
    assert courses(patient, news, show="(1 if lost(all) else 0)") == [0, 0, 0, 1]


def test_a_signal_that_is_never_lost_again_is_told_where_others_are():
    made = design(
        layer(when="lost(all)", level="a + b"),
        signals={"a": {"lost_after": 0.5}, "b": {}, "press": {"kind": "event"}},
    )
    (finding,) = [each for each in made.check() if each.code == "never-lost"]
    assert finding.path == ("signals", "b")
    assert "once b came, lost(all) is never true again" in finding.message
    assert finding.remedy.startswith("Add lost_after = 3 to [signals.b]")


def test_held_switches_are_held_past_the_word_that_they_are_lost_not_from_it():
    """On, then silent: it is off once it is lost, whatever it was, and holds what it was before."""
    keys = {"kind": "switch", "lost_after": 0.15, "hold": 0.35}
    assert switched(keys, 1, None, None, None, 0, 0, 0) == [1, 1, 0, 0, 1, 0, 0]


def test_colours_fade_with_their_own_times_up_and_down_channel_by_channel():
    """Red comes at once and blue goes with 0.1 s: after 0.1 s 1 - 1 / (1 + 1 + 1/2 + 1/6) has gone."""
    gone = 1 - 1 / (1 + 1 + 1 / 2 + 1 / 6)
    made = design(
        layer(colour="tint"), count=1,
        signals={"tint": {"kind": "colour", "smooth": [0.0, 0.1]}},
    )  # fmt: skip
    program = made.compile()
    program.frame(tint="blue", at=0)
    light = program.engine.light(100, {"tint": float(0xFF0000)})[0][:, 0]
    assert light.tolist() == pytest.approx([1, 0, 1 - gone], abs=1e-3)


def test_a_colour_that_is_computed_never_leaves_full_light_behind():
    """Mixed three times too far it is blue, and falls from full blue, not from three times that."""
    gone = 1 - 1 / (1 + 1 + 1 / 2 + 1 / 6)
    signals = {"s": {}, "tint": {"kind": "colour", "of": "mix('red', 'blue', s)", "smooth": 0.1}}
    program = design(layer(colour="tint"), count=1, signals=signals).compile()
    program.frame(s=3, at=0)
    light = program.engine.light(100, {"s": 0.0})[0][:, 0]
    assert light.tolist() == pytest.approx([gone, 0, 1 - gone], abs=1e-5)


def test_a_vector_settles_each_of_its_numbers():
    signals = {"v": {"kind": "vector", "size": 2, "slew": 1}}
    found = courses(signals, [{"v": [0, 0.5]}, {"v": [1, 0]}], show="v[0] * 0.1 + v[1]")
    assert found == pytest.approx([0.5, 0.41])


def test_an_event_of_no_strength_is_none_and_a_moment_by_itself_is_whole():
    signals = {"hit": {"kind": "event"}}
    assert courses(signals, [{"hit": 0.0}, {"hit": 0.1}], show="(1 if hit else 0)") == [0, 1]
    found = courses(signals, [{"hit": {"x": 3}}], show="hit.strength + hit.x", high=5)
    assert found == pytest.approx([4])


def test_min_and_max_take_any_number_and_the_newest_of_several_is_told():
    """Of b and c, that come together, it is b; what was on at first does not count."""
    keys = {name: {"kind": "switch"} for name in "abc"}
    news = [{"a": 1}, {"b": 1, "c": 1}, {"b": 0}, {"a": 0}, {"a": 1}, {"c": 0}, {"c": 1}]
    assert courses(keys, news, show="latest(a, b, c) / 4") == pytest.approx(
        [0, 0.5, 0.5, 0.5, 0.25, 0.25, 0.75]
    )
    show = "max(s, 0.25, 0.5 - s, 2 * s - 1) - min(0.125, s, 1 - s)"
    assert courses({"s": {}}, series(0, 0.5, 1), show=show) == pytest.approx([0.5, 0.375, 1])


def test_a_stopwatch_pauses_and_begins_anew():
    keys = {"go": {"kind": "switch"}, "lap": {"kind": "switch"}}
    news = [{"go": 1}, {}, {"go": 0}, {}, {"go": 1}, {"lap": 1}, {"lap": 0}, {}]
    found = courses(keys, news, show="stopwatch(go, lap)")
    assert found == pytest.approx([0, 0.1, 0.1, 0.1, 0.2, 0, 0.1, 0.2])


def test_a_vector_is_read_at_a_place_that_is_worked_out():
    """The nearest whole one; beyond its ends the outer ones."""
    keys = {"v": {"kind": "vector", "size": 3}, "s": {}}
    news = [{"v": [0.1, 0.5, 0.9], "s": place} for place in (0, 1.4, 1.6, 7, -3)]
    assert courses(keys, news, show="v[s]") == pytest.approx([0.1, 0.5, 0.9, 0.9, 0.1])
    with pytest.raises(DesignError, match="'s' is not a vector"):
        courses(keys, news, show="s[v[0]]")


MODE = {"kind": "choice", "choices": {"off": 0, "eco": 3, "boost": 7}}


@pytest.mark.parametrize(
    ("of", "expected"),
    [
        ("'boost' if s > 0.5 else 'eco'", [3, 3, 7]),
        ({"boost": "s > 0.9", "eco": "s > 0.1"}, [0, 3, 7]),
        ({"eco": "s > 0.1", "boost": "s > 0.9", "else": "off"}, [0, 3, 3]),
        ({"by": "4 * s", "0": "off", "4": "boost", "else": "eco"}, [0, 3, 7]),
        ({"by": "other", "a": "boost", "b": "eco"}, [7, 7, 7]),
        ({"by": "2 * s", "1": "'boost' if s < 0.6 else 'eco'", "else": "eco"}, [3, 7, 3]),
    ],
)
def test_a_choice_is_computed(of, expected):
    """s is 0, 0.5 and 1. The first condition that holds counts; without `else` the first word."""
    keys = {"mode": {**MODE, "of": of}, "s": {}, "other": {"kind": "choice", "choices": ["a", "b"]}}
    found = courses(keys, [{"s": value} for value in (0, 0.5, 1)], show="mode / 8")
    assert [round(8 * value) for value in found] == expected


@pytest.mark.parametrize(
    ("of", "says"),
    [
        ("'bost' if s > 1 else 'eco'", "'bost' is not one of the choices. Did you mean 'boost'?"),
        ({"bost": "s > 1"}, "'bost' is not one of the choices. Did you mean 'boost'?"),
        ({"by": "s", "1": "eco"}, "needs `else` for every other number"),
        ({"by": "mode2", "a": "eco"}, "needs `else` for b"),
        ({"eco": 3}, "this must be a condition"),
    ],
)
def test_what_is_wrong_with_a_computed_choice_is_said(of, says):
    keys = {"mode": {**MODE, "of": of}, "s": {}, "mode2": {"kind": "choice", "choices": ["a", "b"]}}
    with pytest.raises(DesignError, match=re.escape(says)):
        courses(keys, [{}], show="mode")


def test_cells_count_after_calibration():
    """A divider: 0.652 of 25 V are 16.3 V, four cells. 0.48 to 0.672 are 3 to 4.2 V of each of four."""
    keys = {"cells": "guess", "curve": [[0, 0], [1, 25]], "range": [0, 5]}
    assert courses({"s": keys}, series(0.652), high=5) == pytest.approx([4.075], abs=1e-4)
    keys = {"cells": "guess", "calibrate": [0, 1], "range": [0, 25]}
    assert courses({"s": keys}, series(0.652), high=5) == pytest.approx([4.075], abs=1e-4)
    keys = {"cells": 4, "calibrate": [0.48, 0.672], "range": [3, 4.2]}
    assert courses({"s": keys}, series(0.48, 0.576, 0.7), low=3, high=4.2) == pytest.approx(
        [3, 3.6, 4.2], abs=1e-4
    )
