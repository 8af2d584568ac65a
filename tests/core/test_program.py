"""Programs: layers, signals, time, films."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.errors import TapeError
from helpers import design, layer, reds, strip, tape

HERON = fd.demo_file("heron.toml")


def test_layers_blend_over_add_and_max_in_linear_light():
    """Half of white is byte 128 in linear light; level 0.5 is CIE lightness 50: byte 47."""
    half = {"colour": "mix('black', 'white', 0.5)"}
    cases = {
        "over": (layer(**half, level=0.5), 23),  # 0.5 * 0.18419 * 255 = 23.5: hides what is beneath
        "add": (layer(**half, blend="add"), 255),
        "max": (layer(**half, blend="max"), 191),
    }
    for name, (top, byte) in cases.items():
        bottom = layer(colour="mix('black', 'white', 0.75)")
        assert reds(design(bottom, top).compile().frame(at=0)) == [byte] * 8, name


def test_later_layers_win_and_the_old_look_comes_back():
    program = design(
        layer(colour="#fff"), layer(colour="black", when="off"), signals={"off": {"kind": "switch"}}
    ).compile()
    assert [reds(program.frame(off=o, at=t))[0] for t, o in enumerate([0, 1, 0])] == [255, 0, 255]


def test_master_level_dims_everything_and_may_be_bound():
    program = design(layer(), level="s", signals={"s": {}}).compile()
    assert [reds(program.frame(s=s, at=t))[0] for t, s in enumerate([0, 0.5, 1])] == [0, 47, 255]


def test_fades_grow_and_shrink_evenly():
    """1 s in, 2 s out: half way after 0.5 s, and after 1 s of going."""
    program = design(
        layer(when="on", fade_in=1.0, fade_out=2.0), signals={"on": {"kind": "switch"}}
    ).compile()
    seen = []
    for step in range(41):
        at_s = step / 10
        seen.append(reds(program.frame(on=at_s < 1.5, at=at_s))[0])
    assert seen[5] == 128
    assert seen[10:15] == [255] * 5
    assert seen[24] == pytest.approx(255 * 0.5, abs=1)
    assert seen[36:] == [0] * 5
    assert np.abs(np.diff(seen)).max() <= 26


def test_hold_lasts_exactly_as_long_as_it_says():
    """On until 0.3 s, held for 0.4 s from the last frame that had it on."""
    program = design(
        layer(when="left"), signals={"left": {"kind": "switch", "hold": 0.4}}
    ).compile()
    seen = {}
    for step in range(100):
        at_ms = step * 10
        seen[at_ms] = reds(program.frame(left=at_ms <= 300, at=at_ms / 1000))[0]
    assert [t for t, byte in seen.items() if byte] == list(range(0, 700, 10))


def test_a_signal_without_news_is_lost_and_falls_back():
    program = design(
        layer(level="s"), layer(colour="blue", when="lost(s)", blend="add"),
        signals={"s": {"lost_after": 0.5, "fallback": 0.5}},
    ).compile()  # fmt: skip
    seen = [program.frame({"s": 1} if t == 1 else {}, at=t / 4).rgb[0].tolist() for t in range(6)]
    fallback, fresh = [47, 47, 255], [255, 255, 255]
    assert seen[:1] == [fallback]  # nothing heard yet
    assert seen[1:3] == [fresh] * 2
    assert seen[3:] == [fallback] * 3  # from 0.5 s after the last news on


def test_a_signal_without_lost_after_keeps_its_value():
    program = design(layer(level="s"), signals={"s": {}}).compile()
    program.frame(s=1, at=0)
    assert reds(program.frame(at=1e6))[0] == 255


def test_a_computed_signal_reads_others_and_is_lost_with_them():
    program = design(
        layer(level="twice"), layer(colour="blue", blend="add", when="lost(twice)"),
        signals={"s": {"lost_after": 1}, "twice": {"of": "s * 2", "range": [0, 1]}},
    ).compile()  # fmt: skip
    assert program.frame(s=0.25, at=0).rgb[0].tolist() == [47, 47, 47]
    assert program.frame(at=2).rgb[0].tolist() == [0, 0, 255]
    with pytest.raises(fd.SignalError, match="computed by the design"):
        program.frame(twice=1, at=3)


def test_ranges_hold_what_comes():
    program = design(layer(level="s / 10"), signals={"s": {"range": [0, 5]}}).compile()
    assert reds(program.frame(s=1e30, at=0))[0] == 47


@pytest.mark.parametrize("value", [float("inf"), "fast", [1]])
def test_what_is_no_number_is_refused_and_nothing_changes(value):
    program = design(layer(level="s"), signals={"s": {}}).compile()
    program.frame(s=1, at=0)
    with pytest.raises(fd.SignalError, match="needs a"):
        program.frame(s=value, at=1)
    assert reds(program.frame(at=1))[0] == 255
    assert reds(program.frame(s=float("nan"), at=2))[0] == 255  # no news


def test_unknown_signals_and_time_that_runs_back_are_refused():
    program = design(layer(level="speed"), signals={"speed": {}}).compile()
    with pytest.raises(fd.SignalError, match="Did you mean 'speed'"):
        program.frame(sped=1, at=0)
    program.frame(at=5)
    with pytest.raises(fd.ClockError, match="before the last frame"):
        program.frame(at=4)
    program.reset()
    assert program.frame(at=0).at_s == 0


def test_without_a_time_frames_follow_at_the_design_s_rate():
    program = design(layer("blink", rate=10), rate=40).compile()
    assert [program.frame().at_s for _ in range(3)] == [0, 0.025, 0.05]


def test_a_film_shows_each_row_from_its_time_on():
    program = design(layer(level="s"), signals={"s": {}}, rate=40).compile()
    film = program.film(tape(rate_hz=20, s=[0, 1, None, 0]))
    assert film.times.tolist() == pytest.approx([0, 0.025, 0.05, 0.075, 0.1, 0.125, 0.15])
    assert film.rgb[:, 0, 0].tolist() == [0, 0, 255, 255, 255, 255, 0]
    assert np.asarray(film).shape == (7, 8, 3)
    assert film.frame(0.06).rgb[0, 0] == 255


@pytest.mark.parametrize("rate", [0, -1, float("nan")])
def test_a_film_needs_a_rate(rate):
    program = design(layer(), signals={"s": {}}).compile()
    with pytest.raises(fd.ClockError, match="is not a number of frames"):
        program.film(tape(s=[0, 1]), rate=rate)


def test_a_tape_in_milliseconds_is_no_film_of_many_gigabytes():
    program = design(layer(), count=500, signals={"s": {}}).compile()
    with pytest.raises(fd.TapeError, match=r"Is its time in seconds\?"):
        program.film(tape(rate_hz=0.001, s=[0] * 91))


def test_a_tape_may_begin_at_any_time():
    """Seconds since 1970: the frames show the same as from 0 on."""
    program = design(layer(level="s"), signals={"s": {}}, rate=40).compile()
    ramp = tape(rate_hz=20, s=[0, 0.3, 0.6, 1])
    late = fd.Tape(ramp.times + 1.7e9, ramp.signals)
    assert program.film(late).rgb.tobytes() == program.film(ramp).rgb.tobytes()


def test_rendering_twice_gives_identical_bytes_and_so_does_frame_by_frame():
    program, ride = fd.load(HERON).compile(), fd.read_tape(fd.demo_file("ride.csv")).until(25)
    first = program.film(ride)
    assert program.film(ride).rgb.tobytes() == first.rgb.tobytes()
    program.reset()
    from fendra.core.signals.tape import TapeReader

    reader = TapeReader(ride)
    for at_s, row in zip(first.times.tolist(), first.rgb, strict=True):
        frame = program.frame(reader.news_until(at_s + 1e-9), at=at_s)
        assert frame.rgb.tobytes() == row.tobytes()


def test_after_thirty_days_motion_is_as_smooth_as_at_the_start():
    """From frame 5,000 on, a slow sweep's middle moves by the same step at day 0 and day 30.

    One run there and back takes 100 s, so in a frame of 20 ms the dot moves 2 * 199 / 5000
    LEDs. It is measured where neither end cuts the dot.
    """

    def steps(clock_s: float) -> np.ndarray:
        slow = design(layer("sweep", rate=0.01, width=0.5), count=200, signals={"s": {}}).compile()
        film = slow.film(tape(rate_hz=1, s=[0] * 151), rate=50, clock_s=clock_s)
        light = film.rgb[5000:, :, 0].astype(float)
        middle = light @ np.arange(200) / light.sum(axis=1)
        is_whole = (middle > 60) & (middle < 140)
        return np.abs(np.diff(middle))[is_whole[1:] & is_whole[:-1]]

    start, later = steps(0.0), steps(30 * 86_400.0)
    for moved in (start, later):
        assert len(moved) > 900
        assert moved.mean() == pytest.approx(2 * 199 / 5000, rel=1e-3)
        assert moved.max() < 0.12
        assert moved.min() > 0.04
    assert later.std() == pytest.approx(start.std(), rel=0.1)


@pytest.fixture(scope="module")
def ride_film():
    return fd.load(HERON).compile().film(fd.read_tape(fd.demo_file("ride.csv")))


def test_the_brake_light_brightens_with_braking(ride_film):
    """From 71 s on the ride brakes from 24 km/h to a stand: red follows the brake."""
    rows = (ride_film.times > 75) & (ride_film.times < 78)  # battery fine, brake held at 0.35
    assert set(ride_film.part("tail-bar")[rows][:, :, 1:].ravel()) == {0}
    held = ride_film.part("tail-bar")[rows][:, :, 0]
    lightness = 100 * 0.9  # the design's master level
    level = (100 * (0.35 + 0.65 * 0.35) + 16) / 116
    expected = 255 * level**3 * ((lightness + 16) / 116) ** 3
    assert held.mean() == pytest.approx(expected, rel=0.03)
    hardest = ride_film.part("tail-bar")[(ride_film.times > 84) & (ride_film.times < 86)]
    assert hardest[:, :, 0].max() > 1.8 * held.mean()


def test_turn_signals_run_outward_on_their_side_only(ride_film):
    """The left flasher begins at 20.5 s: lit from the middle of the nose to its left end."""
    rows = np.flatnonzero((ride_film.times >= 20.5) & (ride_film.times < 20.75))
    nose = ride_film.part("nose-bar")[rows].astype(int)
    is_amber = (nose[:, :, 0] > 2 * nose[:, :, 1]) & (nose[:, :, 0] > 100)
    assert not is_amber[:, 12:].any()
    lit = is_amber[:, :12].sum(axis=1)
    assert (np.diff(lit) >= 0).all()
    assert lit[-1] == 12
    for row, count in zip(is_amber, lit, strict=True):
        assert row[12 - count : 12].all()  # what is lit begins at the middle


def test_the_gauge_blinks_at_the_red_line_and_follows_rpm(ride_film):
    """Before 32 s: 3450 of 5200 turns light two thirds; above 4700 it blinks at 4 Hz."""
    deck = ride_film.part("deck-right")  # wired from the rear to the front
    rows = (ride_film.times > 16) & (ride_film.times < 20)
    assert (deck[rows].max(axis=2) > 0).sum(axis=1).mean() == pytest.approx(36 * 3450 / 5200, abs=1)
    rows = (ride_film.times > 38) & (ride_film.times < 43)
    is_lit = deck[rows, 0].any(axis=1)
    assert is_lit.mean() == pytest.approx(0.5, abs=0.03)
    assert np.abs(np.diff(is_lit.astype(int))).sum() == pytest.approx(2 * 4 * 5, abs=2)


def test_the_battery_warning_wins_over_all(ride_film):
    """Under the long climb the battery sags below 43.9 V: all LEDs blink as one."""
    rows = (ride_film.times > 64) & (ride_film.times < 69)
    lit = ride_film.rgb[rows].astype(int)
    is_warning = (lit[:, :, 0] > 100) & (lit[:, :, 1] == 0) & (lit[:, :, 2] > 10)
    assert set(is_warning.sum(axis=1)) <= {0, 158}
    assert is_warning[:, 0].mean() == pytest.approx(0.4, abs=0.05)


def test_lost_news_and_parking_have_looks_of_their_own(ride_film):
    """The bus is silent from 47 to 50 s; the trike stands before 7 s and after 86 s."""
    deck = ride_film.part("deck-left").astype(int)
    is_violet = (deck[:, :, 2] > deck[:, :, 0]) & (deck[:, :, 0] > 10)
    lost = (ride_film.times > 47.8) & (ride_film.times < 50)
    assert is_violet[lost].any(axis=1).all()
    assert not is_violet[(ride_film.times < 47) & (ride_film.times > 10)].any()
    parked = deck[(ride_film.times > 2) & (ride_film.times < 6)]
    assert (parked[:, :, 2] > parked[:, :, 0]).all()


# ---- Films and clocks that do not begin at 0 ------------------------------------------------------------


def blinking(rate=50.0, **keys):
    return design(layer("blink", rate=1.0, duty=0.25), count=1, rate=rate, **keys)


def test_the_frame_at_a_time_is_the_one_that_is_shown_then():
    """Frames at 2.0, 2.1, ... 3.0 s; at 2.1 just it is the second."""
    made = design(layer(level="s"), signals={"s": {}}, count=1, rate=10)
    film = made.compile().film(fd.Tape(np.array([2.0, 3.0]), {"s": np.array([0.0, 1.0])}))
    assert film.times.tolist() == pytest.approx(np.arange(11) / 10 + 2)
    places = {1.0: 2.0, 2.0: 2.0, 2.05: 2.0, 2.1: 2.1, 2.19: 2.1, 3.0: 3.0, 99.0: 3.0}
    for at, shown in places.items():
        assert film.frame(at).at_s == pytest.approx(shown), at
    assert film.frame(2.3 - 1e-12).at_s == pytest.approx(2.3)  # a rounding is no frame


def test_a_film_has_a_frame_at_its_end_whatever_the_rounding():
    """1.1 s at 30 a second are 33 steps: 0.1 * 11 * 30 is 33.00000000000001, 0.3 * 3 ... 2.9999."""
    for end, rate, frames in ((1.1, 30, 34), (0.3, 10, 4), (0.7, 10, 8), (4.35, 100, 436)):
        tape_ = fd.Tape(np.array([0.0, end]), {})
        assert len(blinking().compile().film(tape_, rate=rate)) == frames


def test_a_film_may_begin_at_another_time_of_its_clock():
    """Blinking once a second, lit for a quarter: half a second on it is dark, whole ones change nothing."""
    program = design(
        layer("field", red="1 if cycle(1) < 0.25 else 0", green=0, blue=0), count=1
    ).compile()
    tape_ = fd.Tape(np.array([0.0, 0.98]), {})
    lit = {
        clock_s: (program.film(tape_, clock_s=clock_s).rgb[:, 0, 0] > 0).tolist()
        for clock_s in (0.0, 0.5, 3.0)
    }
    assert lit[0.0] == lit[3.0] == [True] * 13 + [False] * 37
    assert lit[0.5] == [False] * 25 + [True] * 13 + [False] * 12


def test_a_film_begins_anew_whatever_ran_before_and_the_clock_stands_at_its_end():
    program = blinking().compile()
    tape_ = fd.Tape(np.array([5.0, 7.0]), {})
    first = program.film(tape_).rgb
    program.frame(at=77.0)
    assert (program.film(tape_).rgb == first).all()
    assert program.at_s == 2.0
    assert program.frame().at_s == pytest.approx(2.02)


@pytest.mark.parametrize("rate", [25, 40, 125])
def test_without_a_time_a_frame_is_a_period_after_the_last(rate):
    program = blinking(rate=float(rate)).compile()
    assert [program.frame().at_s for _ in range(3)] == pytest.approx([0, 1 / rate, 2 / rate])


def test_two_frames_may_be_of_one_moment():
    program = blinking().compile()
    assert (program.frame(at=1.0).rgb == program.frame(at=1.0).rgb).all()


def test_what_the_limiter_did_is_told_by_its_least_share():
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    made = design(
        layer(level="s"), line=line, signals={"s": {}}, supplies={"s": {"budget": 0.3}}, rate=10
    )
    film = made.compile().film(tape(10.0, s=[0, 0, 1, 1, 0, 0]))
    (told,) = film.limited()
    assert (told.of, told.at_s) == (6, 0.2)
    assert told.frames == 4  # it rests for a second
    assert told.least == pytest.approx(0.29 / 0.6, abs=0.005)
    assert film.frame(0.1).let_through == {"s": 1.0}
    assert film.frame(0.2).let_through == {"s": pytest.approx(told.least)}
    free = made.compile().film(tape(10.0, s=[0, 0.1]))
    assert str(free.limited()[0]) == "limiter of 's': never acted"


def test_the_limiter_forgets_with_the_rest(compiler):
    """Held back, then begun anew: what is dim is whole at once."""
    line = [{"name": "a", "supply": "s", "part": [strip(count=10)]}]
    made = design(layer(level="s"), line=line, signals={"s": {}}, supplies={"s": {"budget": 0.3}})
    for engine in ("numpy", "native", "wasm"):
        program = made.compile(engine=engine)
        program.frame(s=1, at=0)
        program.reset()
        assert program.frame(s=0.5, at=0).let_through == {"s": 1.0}, engine


def test_a_picture_goes_to_the_leds_of_its_layer():
    """A layer on the last two of four LEDs shows those of the picture."""
    made = design(
        layer(colour="screen", on="end"), count=4, groups={"end": "index > 1"},
        signals={"screen": {"kind": "picture"}},
    )  # fmt: skip
    light = np.array([[1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 1, 0]], np.float32)
    frame = made.compile().frame({"screen": light}, at=0)
    assert frame.rgb.tolist() == [[0, 0, 0], [0, 0, 0], [0, 0, 255], [255, 255, 0]]


def test_values_far_off_are_held_on_both_sides():
    program = design(layer(cover="0.5 + s / 4 / 1e9"), signals={"s": {}}, count=1).compile()
    assert reds(program.frame(s=1e12, at=0)) == [191]
    assert reds(program.frame(s=-1e12, at=1)) == [64]


def test_a_tape_whose_time_is_in_milliseconds_is_told_before_its_film_fills_the_memory():
    """A day of 86,400,000 ms at 50 frames a second."""
    long = fd.Tape(np.array([0.0, 86_400_000.0]), {})
    with pytest.raises(TapeError) as caught:
        design(layer(), count=7).compile().film(long)
    assert (
        "lasts 86,400,000 s, which makes 4,320,000,001 frames of 7 LEDs and more than 2 GB"
        in str(caught.value)
    )
