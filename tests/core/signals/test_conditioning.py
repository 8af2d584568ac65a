"""Conditioning: values worked out by hand, frame by frame, through a design's own keys."""

from __future__ import annotations

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
        ("nobody.x", "nothing is called 'nobody'"),
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
