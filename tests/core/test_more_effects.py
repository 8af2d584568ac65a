"""What the effects of motion, rhythm, chance, gauges, events and pictures show, by hand."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest
from PIL import Image

import fendra as fd
from helpers import design, layer, reds, strip

RING = {"name": "ring", "shape": "ring", "centre": [0, 0], "radius": 50}
WHITE = {"colour": "white"}


def on(part, effect, *times, signals=None, news=(), folder=".", **keys):
    """The red bytes at each of the times, on one part. news: at each time, what comes in."""
    program = fd.Design.from_values(
        {
            "line": [{"name": "a", "part": [part]}],
            "signals": signals or {},
            "rate": 100,
            "layer": [layer(effect, **keys)],
        },
        folder=folder,
    ).compile()
    given = [*news, *[{}] * (len(times) - len(news))]
    return [reds(program.frame(new, at=at)) for at, new in zip(times, given, strict=True)]


def shown(effect, *times, count=8, **keys):
    return on(strip(count=count), effect, *times, **keys)


BLACK_WHITE = ["black", "white"]


@pytest.mark.parametrize(
    ("keys", "row"),
    [
        ({"colours": ["black", "white", "black"]}, [0, 128, 255, 128, 0]),
        ({"colours": ["black", "white", "black"], "at": [0, 0.25, 1]}, [0, 255, 170, 85, 0]),
        ({"colours": BLACK_WHITE, "at": [0.5, 0.5]}, [0, 0, 255, 255, 255]),
        ({"colours": BLACK_WHITE, "by": "-x"}, [255, 191, 128, 64, 0]),
        ({"colours": BLACK_WHITE, "by": "distance(20, 0)"}, [255, 128, 0, 128, 255]),
        ({"colours": BLACK_WHITE, "by": "radius"}, [255, 128, 0, 128, 255]),
        ({"colours": BLACK_WHITE, "even": True}, [0, 4, 32, 108, 255]),  # Oklab: the cube
        ({"colours": BLACK_WHITE, "loop": True}, [0, 128, 255, 128, 0]),
        ({"colours": ["white"]}, [255] * 5),
    ],
)
def test_gradient_goes_any_way_over_any_number_of_colours(keys, row):
    assert shown("gradient", 0.0, count=5, **keys) == [pytest.approx(row, abs=1)]


def test_gradient_goes_round_a_ring_without_a_seam():
    (row,) = on({**RING, "count": 4}, "gradient", 0, colours=BLACK_WHITE, by="angle", loop=True)
    assert row == [0, 128, 255, 128]
    (row,) = on({**RING, "count": 4}, "gradient", 0, colours=BLACK_WHITE, by="angle")
    assert row == [0, 64, 128, 191]


def test_pattern_deals_colours_out_by_runs_and_by_part_and_moves_on():
    keys = {"colours": ["white", "black"], "run": 2}
    assert shown("pattern", 0.0, **keys) == [[255, 255, 0, 0, 255, 255, 0, 0]]
    rows = shown("pattern", 0.49, 0.5, 2.0, rate=2, **keys)
    assert rows == [[255, 255, 0, 0] * 2, [0, 255, 255, 0] * 2, [255, 255, 0, 0] * 2]
    assert shown("pattern", 0.5, rate=2, reverse=True, **keys) == [[255, 0, 0, 255] * 2]
    line = [{"name": "l", "part": [strip("a", 2), strip("b", 3), strip("c", 1)]}]
    made = design(layer("pattern", colours=["white", "black"], by_part=True), line=line)
    assert reds(made.compile().frame()) == [255, 255, 0, 0, 0, 255]


def test_run_up_runs_stays_fades_and_comes_back_from_the_other_end():
    """4 LEDs at 0.1 s, 1 s of staying, 1 s of fading: full at 0.4, gone at 2.4 s after."""
    go, no = {"go": 1}, {"go": 0}
    times = [0.0, 0.5, 0.59, 0.6, 0.9, 1.9, 2.4, 2.9, 3.0, 3.1]
    news = [no, go, no, no, no, no, no, no, go, no]
    keys = {"step": 0.1, "stay": 1, "fade": 1, "both_ends": True, "trigger": "go"}
    rows = shown("run-up", *times, count=4, signals={"go": {"kind": "switch"}}, news=news, **keys)
    assert rows[:6] == [[0] * 4, [0] * 4, [0] * 4, [255, 0, 0, 0], [255] * 4, [255] * 4]
    assert rows[6] == [128] * 4  # half of a soft fade
    assert rows[7:] == [[0] * 4, [0] * 4, [0, 0, 0, 255]]


def run_up(pressed, *times, count=4, part=None, **keys):
    """Lit LEDs of a run-up at times, with presses of one frame at others."""
    program = fd.Design.from_values(
        {
            "line": [{"name": "a", "part": [part or strip(count=count)]}],
            "signals": {"go": {"kind": "switch"}, "s": {}}, "rate": 50,
            "layer": [layer("run-up", trigger="go", **keys)],
        }
    ).compile()  # fmt: skip
    rows = {}
    for i in range(round(max(times) * 50) + 1):
        frame = program.frame(go=i in [round(at * 50) for at in pressed], s=1, at=i / 50)
        rows[i] = reds(frame)
    return [rows[round(at * 50)] for at in times]


ON, OFF = [255] * 4, [0] * 4


@pytest.mark.parametrize("step", [0.1, "0.1 * s"])
def test_a_second_press_while_the_stairs_are_lit_keeps_them_lit(step):
    """Full at 0.5, due to go out at 1.5 s. Pressed at 1.2: they stay until 2.2 s."""
    times = [0.52, 1.2, 1.22, 1.6, 2.18, 2.2]
    rows = run_up([0.1, 1.2], *times, step=step, stay=1, fade=0)
    assert rows == [ON] * 5 + [OFF]


@pytest.mark.parametrize("step", [0.1, "0.1 * s"])
@pytest.mark.parametrize("both_ends", [False, True])
def test_a_press_while_they_run_darkens_nothing(step, both_ends):
    """Two are lit at 0.3 s. With both ends the second press sets out from the other one."""
    times = [0.3, 0.32, 0.4, 0.5]
    rows = run_up([0.1, 0.3], *times, step=step, stay=1, fade=0, both_ends=both_ends)
    two, three = [255, 255, 0, 0], [255, 255, 255, 0]
    assert rows == [two, two, ON if both_ends else three, ON]


@pytest.mark.parametrize("step", [0.1, "0.1 * s"])
def test_a_press_while_they_fade_brings_them_back(step):
    """All of 4 at 0.5 s; half dark at 1.0 s, dark at 1.5. Pressed at 1.0: bright until 1.0."""
    times = [0.98, 1.0, 1.02, 1.5, 1.98, 2.0]
    rows = run_up([0.1, 1.0], *times, step=step, stay=0, fade=1)
    assert rows[0][0] == pytest.approx(135, abs=1)  # 0.52 of a fade left, softly
    assert rows[1:3] == [ON, ON]
    assert [row[0] for row in rows[3:]] == [pytest.approx(128, abs=1), 0, 0]


def test_from_both_ends_what_one_lit_stays_while_the_other_runs():
    """Up at 0.1, down at 0.7, with 4 LEDs at 0.1 s that stay 0.4 s: none goes dark before 1.5 s."""
    rows = run_up([0.1, 0.7], 0.5, 0.9, 1.1, 1.48, 1.5, step=0.1, stay=0.4, fade=0, both_ends=True)
    assert rows == [ON] * 4 + [OFF]


def test_once_dark_they_run_anew_and_the_last_press_says_from_where():
    rows = run_up([0.1, 1.5, 2.7], 0.3, 1.48, 1.7, 2.9, step=0.1, stay=0.2, fade=0, both_ends=True)
    assert rows == [[255, 255, 0, 0], OFF, [0, 0, 255, 255], [255, 255, 0, 0]]


def test_march_moves_whole_leds_to_the_frame():
    rows = shown("march", 0.0, 0.09, 0.1, 0.3, count=6, run=2, gap=1, rate=10)
    assert rows == [[255, 255, 0] * 2, [255, 255, 0] * 2, [0, 255, 255] * 2, [255, 255, 0] * 2]
    assert shown("march", 0.1, count=6, run=2, gap=1, rate=10, reverse=True) == [[255, 0, 255] * 2]


def test_comet_has_a_tail_that_fades_by_the_square():
    rows = shown("comet", 0.0, 0.34, 0.99, count=5, rate=1, tail=0.5)
    assert rows[0] == [255, 0, 0, 0, 0]
    assert rows[1] == [0, 59, 245, 0, 0]  # head at 0.51: (1 - 0.26 / 0.5)**2 and (1 - 0.02)**2
    assert rows[2] == [0, 0, 0, 0, 0]  # the tail has left
    assert shown("comet", 0.34, count=5, rate=1, tail=0.5, reverse=True) == [rows[1][::-1]]


def test_spin_turns_arcs_round_a_ring_or_lets_leds_stand():
    ring = {**RING, "count": 8}
    still = on(ring, "spin", 0.0, 9.0, arcs=2, length=0.5, rate=0)
    assert still == [[255, 255, 0, 0] * 2] * 2
    assert on(ring, "spin", 0.0, arcs=4, length=0.1, rate=0) == [[255, 0] * 4]
    (row,) = on(ring, "spin", 0.5, arcs=2, length=0.5, rate=0.25)  # an eighth of a turn
    assert row == [0, 255, 255, 0] * 2
    (row,) = on(ring, "spin", 0.5, arcs=2, length=0.5, rate=0.25, clockwise=True)
    assert row == [255, 0, 0, 255] * 2


def test_hue_drift_goes_round_the_colour_circle():
    program = design(layer("hue-drift", rate=0.25), count=4).compile()
    assert program.frame(at=0).rgb.tolist() == [[255, 0, 0], [0, 255, 0], [0, 0, 255], [255, 0, 0]]
    assert program.frame(at=4 / 3).rgb[1].tolist() == pytest.approx([255, 0, 0], abs=1)
    pale = design(layer("hue-drift", rate=0, saturation=0.5), count=4).compile().frame()
    assert pale.rgb[0].tolist() == [255, 128, 128]


def test_wave_travels_to_the_end():
    rows = shown("wave", 0.0, 1.0, count=5, waves=1, rate=0.25, trough="black")
    assert rows == [[0, 128, 255, 128, 0], [128, 0, 128, 255, 128]]


def test_beam_turns_about_the_middle_or_any_centre():
    ring = {**RING, "count": 4}
    rows = on(ring, "beam", 0.0, 1.0, rate=0.25, width=20, tail=180)
    assert rows == [[255, 0, 0, 64], [64, 255, 0, 0]]  # a quarter behind: (1 - 90 / 180)**2
    (row,) = on(ring, "beam", 0.0, rate=0.25, width=20, tail=0, x=-100, y=0)
    assert row == [255, 0, 255, 0]  # seen from the left both lie straight ahead
    assert on(ring, "beam", 1.0, rate=0.25, tail=0, clockwise=True) == [[0, 0, 0, 255]]


def test_beacon_flashes_in_groups():
    times = [0.0, 0.09, 0.1, 0.2, 0.29, 0.3, 0.5, 1.0]
    rows = shown("beacon", *times, flashes=2, flash=0.1, gap=0.1, every=1)
    assert [row[0] for row in rows] == [255, 255, 0, 255, 255, 0, 0, 255]


def test_alternate_lights_two_halves_in_turn():
    keys = {"colour": "white", "other": "white", "rate": 1}
    rows = shown("alternate", 0.0, 0.49, 0.5, 1.0, count=4, **keys)
    assert rows == [[255, 255, 0, 0]] * 2 + [[0, 0, 255, 255], [255, 255, 0, 0]]
    assert shown("alternate", 0.5, 0.5, count=4, one_by_one=True, **keys)[0] == [255, 0, 255, 0]
    assert shown("alternate", 0.0, 0.3, count=4, duty=0.5, **keys)[1] == [0] * 4


def test_blink_may_travel_by_its_phase():
    assert shown("blink", 0.0, count=4, phase="along") == [[255, 255, 0, 255]]  # 1 is 0 again


def test_flicker_keeps_its_times_to_the_frame():
    """On for 0.2 s, off for 0.1 s: with equal ends nothing is left to chance."""
    keys = {"flames": 1, "low": 0, "warmth": 0, "colour": "white"}
    times = {"on_low": 0.2, "on_high": 0.2, "off_low": 0.1, "off_high": 0.1}
    rows = shown("flicker", *np.arange(90) / 100, **keys, **times)
    assert [row[0] for row in rows] == ([255] * 20 + [0] * 10) * 3


@pytest.mark.slow
def test_flicker_stays_within_its_times_and_flames_differ():
    program = design(layer("flicker", low=0, warmth=0, colour="white", on_low=0.05, on_high=0.2,
                           off_low=0.1, off_high=0.3), count=40, rate=200).compile()  # fmt: skip
    film = program.film(fd.Tape(np.array([0.0, 30.0]), {})).rgb[:, :, 0] > 0
    for lit, low, high in ((True, 10, 40), (False, 20, 60)):
        lengths = []
        for led in film.T:
            edges = np.flatnonzero(np.diff(led.astype(int)))
            lengths += [b - a for a, b in pairwise(edges) if led[a + 1] == lit]
        assert low - 1 <= min(lengths) <= low + 3
        assert high - 3 <= max(lengths) <= high + 1  # frames of 5 ms
        assert np.mean(lengths) == pytest.approx((low + high) / 2, rel=0.06)
    assert 2 <= len({led.tobytes() for led in film.T}) <= 8


def scrambled(*parts):
    """The hash once more, in plain Python."""
    mixed = 0
    for part in parts:
        mixed = ((mixed ^ part) * 0x9E3779B1) % 2**32
        mixed ^= mixed >> 15
    for factor, bits in ((0x6A09E667, 13), (0xBB67AE85, 16)):
        mixed = (mixed * factor) % 2**32
        mixed ^= mixed >> bits
    return (mixed >> 8) / 2**24


def test_glint_sparks_by_chance_and_dies_by_the_square():
    rows = shown("glint", 0.25, count=3, density=1, life=1, seed=5)
    for led, byte in enumerate(rows[0]):
        into = (0.25 + scrambled(led, 5, 9)) % 1
        assert byte == pytest.approx(255 * (1 - into) ** 2, abs=1)
    assert shown("glint", 0.25, count=9, density=0) == [[0] * 9]
    frames = np.array(shown("glint", *np.arange(400) / 10, count=50, density=0.3, life=0.5))
    assert (frames > 0).mean() == pytest.approx(0.3 * (1 - (0.5 / 255) ** 0.5), abs=0.02)


def test_screen_glow_is_a_shot_a_second():
    keys = {"rate": 1, "shimmer": 0, "depth": 1, "cold": "white", "warm": "white", "seed": 3}
    rows = shown("screen-glow", 0.2, 0.9, 1.5, **keys)
    shots = [255 * (1 - scrambled(shot, 3, 1)) for shot in (0, 0, 1)]
    assert [row[0] for row in rows] == pytest.approx(shots, abs=1)


def test_cloud_is_chance_at_the_corners_of_its_cells_and_smooth_between():
    """Cells of 10 mm, LEDs 5 mm apart: every second one is on a corner, the others between two."""
    part = {**strip(count=5), "start": [0.0, 0.0], "end": [20.0, 0.0]}
    keys = {"size": 10, "speed": 0, "change": 0, "contrast": 1, "ground": "black", "seed": 2}
    (row,) = on(part, "cloud", 0.0, **keys)
    corners = [scrambled(2, 0, 2**20, 2**20 + cell) for cell in range(3)]
    middles = [(a + b) / 2 for a, b in pairwise(corners)]
    expected = [corners[0], middles[0], corners[1], middles[1], corners[2]]
    assert row == pytest.approx([255 * value for value in expected], abs=1)
    still, moved = on(part, "cloud", 0.0, 1.0, **{**keys, "speed": 10})
    assert moved[2:] == pytest.approx(still[:3], abs=1)  # a cell on, to the right


@pytest.mark.parametrize(
    ("count", "keys", "row"),
    [
        (5, {"value": 0.5, "origin": 0.5}, [0, 191, 255, 191, 0]),
        (5, {"value": 1, "origin": 0.5}, [255] * 5),
        (6, {"value": 0.5, "inward": True}, [255, 128, 0, 0, 128, 255]),
        (4, {"value": 0.25, "reverse": True}, [0, 0, 0, 255]),
        (4, {"value": 0.5, "colours": BLACK_WHITE, "by_value": True}, [128, 128, 0, 0]),
        (5, {"value": 1, "colours": BLACK_WHITE}, [0, 64, 128, 191, 255]),
    ],
)
def test_gauge_begins_anywhere(count, keys, row):
    assert shown("gauge", 0.0, count=count, **{"colours": ["white"], **keys}) == [row]


def test_gauge_has_a_mark_that_stays_and_falls_back():
    """Full, then empty: the mark stays for half a second, then falls by a gauge a second."""
    program = design(
        layer("gauge", value="s", colours=["black"], peak=True, fall=1), count=10, signals={"s": {}},
        rate=100,
    ).compile()  # fmt: skip
    places = []
    for at in np.arange(0, 1.7, 0.01).round(3):
        row = reds(program.frame(s=1.0 if at < 0.1 else 0.0, at=at))
        places.append(row.index(255) if 255 in row else None)
    assert places[:59] == [9] * 59  # 0.09 s, and half a second more
    assert places[86] == 7  # a quarter of a second later the top is at 7.4 of 10
    assert places[-1] is None


def test_turn_follows_how_hard_one_steers():
    keys = {"steer": "s", "length": 0.4, "rate": 1, "rate_hard": 1, "run": 0.2, "colour": "white"}
    rows = shown("turn", 0.0, 0.05, 0.19, 0.49, 0.5, count=10, signals={"s": {}}, **keys)
    assert [sum(row) // 255 for row in rows] == [1, 2, 4, 4, 0]
    hard = shown("turn", 0.0, 0.19, count=10, signals={"s": {}}, news=[{"s": 1}], **keys)
    assert hard[1] == [255] * 10


def test_ripple_runs_out_from_where_it_happened():
    keys = {"trigger": "hit", "x": "s", "speed": 100, "width": 10, "life": 1}
    signals = {"hit": {"kind": "switch"}, "s": {}}
    news = [{"hit": 1, "s": 30}, {"hit": 0, "s": 0}]
    rows = shown("ripple", 0.0, 0.1, 1.0, count=8, signals=signals, news=news, **keys)
    assert rows == [[0, 0, 0, 255, 0, 0, 0, 0], [0, 0, 230, 0, 230, 0, 0, 0], [0] * 8]


def test_eight_ripples_run_at_once_and_a_ninth_takes_the_place_of_the_oldest():
    keys = {"trigger": "hit", "x": "s", "speed": 0, "width": 5, "life": 60}
    program = design(
        layer("ripple", **keys), count=10, signals={"hit": {"kind": "switch"}, "s": {}}
    ).compile()
    for led in range(9):
        program.frame(hit=1, s=10 * led, at=led / 50)
        lit = [byte > 0 for byte in reds(program.frame(hit=0, at=led / 50 + 0.01))]
        assert lit == [max(led - 7, 0) <= i <= led for i in range(10)]


def test_push_goes_from_the_middle_outwards_and_thins_out():
    keys = {"trigger": "beat", "speed": 1, "width": 0.5}
    rows = shown("push", 0.0, 0.5, count=5, signals={"beat": {"kind": "switch"}},
                 news=[{"beat": 1}], **keys)  # fmt: skip
    assert rows == [[0, 0, 255, 0, 0], [0, 166, 0, 166, 0]]  # 1 - 0.7 * 0.5


def grid(columns, rows):
    return {"name": "g", "shape": "grid", "columns": columns, "rows": rows, "pitch": 10,
            "first": "top-left"}  # fmt: skip


def as_rows(row, columns):
    return [row[i : i + columns] for i in range(0, len(row), columns)]


def test_bands_are_bars_on_a_grid_and_stretches_of_a_strip():
    (row,) = on(grid(3, 4), "bands", 0, levels=[1, 0.5, 0], colours=["white"])
    assert as_rows(row, 3) == [[255, 0, 0], [255, 0, 0], [255, 255, 0], [255, 255, 0]]
    (row,) = shown("bands", 0, count=6, levels=[1, 0.5, 0], colours=["white"], by="along")
    assert row == [255, 255, 128, 128, 0, 0]


def picture(path, *frames, **keys):
    """Write grey pictures, rows of bytes each."""
    images = [Image.fromarray(np.array(frame, np.uint8)) for frame in frames]
    images[0].save(path, save_all=len(images) > 1, append_images=images[1:], **keys)
    return path.name


def test_picture_shows_its_pixels_and_their_means_in_linear_light(tmp_path):
    small = picture(tmp_path / "small.png", [[255, 0], [0, 255]])
    assert on(grid(2, 2), "picture", 0, file=small, folder=tmp_path) == [[255, 0, 0, 255]]
    large = picture(tmp_path / "large.png", [[255] * 4, [0] * 4, [255] * 4, [255, 255, 0, 0]])
    assert on(grid(2, 2), "picture", 0, file=large, folder=tmp_path) == [[128, 128, 255, 128]]
    wide = picture(tmp_path / "wide.png", [[255, 255]])
    program = design(
        layer("solid", colour="#00f"), {**layer("picture"), "file": wide}, line=[
            {"name": "a", "part": [grid(2, 4)]}]).model_dump(exclude_unset=True)  # fmt: skip
    frame = fd.Design.from_values(program, folder=tmp_path).compile().frame()
    assert as_rows(reds(frame), 2) == [[0, 0], [128, 128], [128, 128], [0, 0]]  # it keeps its shape
    two = picture(tmp_path / "two.png", [[255, 0]])
    row = {**strip(count=4), "at": [7, 3]}
    assert on(row, "picture", 0, file=two, folder=tmp_path) == [[255, 255, 0, 0]]  # all of a row


def test_an_animated_picture_runs_by_its_own_times(tmp_path):
    name = picture(tmp_path / "two.gif", [[255, 0]], [[0, 255]], duration=[100, 300], loop=0)
    rows = on(grid(2, 1), "picture", 0, 0.09, 0.1, 0.39, 0.4, file=name, folder=tmp_path)
    assert rows == [[255, 0], [255, 0], [0, 255], [0, 255], [255, 0]]


@pytest.mark.parametrize(("most", "is_told"), [(12, False), (11, True)])
def test_pictures_that_need_too_many_numbers_are_told(tmp_path, monkeypatch, most, is_told):
    """Four pictures for three LEDs; grey is one number each."""
    monkeypatch.setattr("fendra.core.effects.builtin.image.MOST_NUMBERS", most)
    name = picture(tmp_path / "four.gif", *([[i * 60, 9, 200]] for i in range(4)), duration=100)
    made = {
        "line": [{"name": "a", "part": [grid(3, 1)]}],
        "layer": [{**layer("picture"), "file": name}],
    }
    found = fd.Design.from_values(made, folder=tmp_path).check()
    texts = [finding.message for finding in found if "too many" in finding.message]
    told = "effect 'picture': 4 pictures for 3 LEDs are too many."
    assert texts == ([told] if is_told else [])


def test_text_stands_on_a_grid_as_it_is_drawn():
    (row,) = on(grid(4, 5), "text", 0, text="1", font="3x5")
    drawn = ["".join(".#"[byte > 0] for byte in line) for line in as_rows(row, 4)]
    assert drawn == [".#..", "##..", ".#..", ".#..", "###."]


def test_text_is_as_large_as_its_pixels():
    """Twice the LEDs' spacing: each point of a letter is two LEDs wide and high."""
    (small,) = on(grid(4, 5), "text", 0, text="7", font="3x5")
    (large,) = on(grid(8, 10), "text", 0, text="7", font="3x5", pixel="10 + 10 * s",
                  signals={"s": {}}, news=[{"s": 1}])  # fmt: skip
    whole = np.array(as_rows(large, 8))
    assert whole[::2, ::2].tolist() == whole[1::2, 1::2].tolist() == as_rows(small, 4)


def test_text_shows_numbers_times_and_signs():
    def read(text, columns, value):
        (row,) = on(grid(columns, 5), "text", 0, text=text, font="3x5", signals={"s": {}},
                    news=[{"s": value}])  # fmt: skip
        return as_rows(row, columns)

    same = [("{s:3}", 7.4, "  7"), ("{s:4.1}", 12.34, "12.3"), ("{s:3}", -5, " -5"),
            ("{s:3}", -12, "-12"), ("{s:2}", 250, "99"), ("{s:4.1}", 0.04, " 0.0"),
            ("{s:m:ss}", 65.9, " 1:05"), ("{s:h:mm}", 3600 * 13 + 420, "13:07"),
            ("{s:02}", 7.4, "07"), ("{s:03}", -5, "-05"), ("{s:05.1}", 3.14, "003.1"), ("{s:02}", 42, "42"),
            ("{s:03}", -125, "125"), ("{s:h:mm:ss}", 3661, " 1:01:01")]  # fmt: skip
    for text, value, plain in same:
        columns = 4 * len(plain)
        assert read(text, columns, value) == read(plain, columns, 0), text


def test_text_comes_in_from_the_right_column_by_column():
    rows = on(grid(4, 5), "text", 0, 0.1, 0.3, text="1", font="3x5", rate=10)
    sums = [[sum(column) // 255 for column in zip(*as_rows(row, 4), strict=True)] for row in rows]
    assert sums == [[0, 0, 0, 0], [0, 0, 0, 2], [0, 2, 5, 1]]


def test_field_is_a_formula_for_each_channel():
    program = design(
        layer("field", red="x / 70", green="s", blue="1 if index == 2 else 0"), signals={"s": {}}
    ).compile()
    rgb = program.frame(s=0.5).rgb
    assert rgb[:, 0].tolist() == pytest.approx([255 * i / 7 for i in range(8)], abs=1)
    assert set(rgb[:, 1].tolist()) == {128}
    assert rgb[:, 2].tolist() == [0, 0, 255, 0, 0, 0, 0, 0]
    green = design(layer("field", hue=120, amount="along")).compile().frame()
    assert green.rgb[7].tolist() == [0, 255, 0]
    assert green.rgb[0].tolist() == [0, 0, 0]


@pytest.mark.parametrize(
    ("effect", "keys", "lit"),
    [
        # 4 LEDs at 80 ms: 4 frames each; full at 0.32 s, until 0.52 s; gone at once, until 0.72 s.
        ("fill", {"step": 0.08, "hold": 0.2, "rest": 0.2, "empty": False},
         [0] * 4 + [1] * 4 + [2] * 4 + [3] * 4 + [4] * 10 + [0] * 10 + [1] * 4),
        ("blink", {"rate": 2.5, "duty": 0.25}, ([4] * 5 + [0] * 15) * 2),
        ("blink", {"rate": 1, "duty": 0.5}, [4] * 25 + [0] * 15),
        # Triggered at 0.1 s, an LED each 60 ms, all until 0.1 + 0.24 + 0.2 s, and no fade.
        ("run-up", {"trigger": "go", "step": 0.06, "stay": 0.2, "fade": 0},
         [0] * 8 + [1] * 3 + [2] * 3 + [3] * 3 + [4] * 10 + [0] * 13),
        ("flicker", {"flames": 1, "low": 0, "on_low": 0.1, "on_high": 0.1, "off_low": 0.06,
                     "off_high": 0.06}, ([4] * 5 + [0] * 3) * 5),
    ],
)  # fmt: skip
def test_films_keep_time_to_the_frame(effect, keys, lit):
    """40 frames at 50 a second, counted in lit LEDs."""
    made = design(layer(effect, **keys), count=4, signals={"go": {"kind": "switch"}}, rate=50)
    news = fd.Tape(np.array([0.0, 0.1, 0.78]), {"go": np.array([0.0, 1.0, 1.0])})
    film = made.compile().film(news)
    assert (film.rgb[:, :, 0] > 0).sum(axis=1).tolist() == lit[: len(film)]
    assert len(film) == 40


# ---- Lopsided: bound, turned round, off centre, of several colours -----------------------------------------


def coloured(effect, *times, count=4, part=None, signals=None, news=(), **keys):
    """All bytes at each of the times."""
    program = fd.Design.from_values({
        "line": [{"name": "a", "part": [part or strip(count=count)]}], "signals": signals or {},
        "layer": [layer(effect, **keys)],
    }).compile()  # fmt: skip
    given = [*news, *[{}] * (len(times) - len(news))]
    return [program.frame(new, at=at).rgb.tolist() for at, new in zip(times, given, strict=True)]


RED, GREEN, BLUE, DARK = [255, 0, 0], [0, 255, 0], [0, 0, 255], [0, 0, 0]


def test_alternate_s_second_half_is_on_for_its_share_as_well():
    keys = {"colour": "red", "other": "blue", "rate": 1, "duty": 0.5}
    rows = coloured("alternate", 0.0, 0.2, 0.3, 0.5, 0.7, 0.8, **keys)
    assert [row[0] for row in rows] == [RED, RED, DARK, DARK, DARK, DARK]
    assert [row[3] for row in rows] == [DARK, DARK, DARK, BLUE, BLUE, DARK]


def test_bands_may_each_have_a_colour_from_the_first_to_the_last():
    keys = {"levels": [1, 1, 1], "colours": ["red", "lime", "blue"], "by_band": True}
    (row,) = coloured("bands", 0, part=grid(3, 2), **keys)
    assert row == [RED, GREEN, BLUE] * 2
    (row,) = coloured("bands", 0, count=6, by="along", **keys)  # no room to grow: they brighten
    assert row == [RED, RED, GREEN, GREEN, BLUE, BLUE]


def test_bars_grow_on_a_grid_of_the_layer_s_own_height():
    (row,) = on(grid(2, 3), "bands", 0, levels=[0.5, 1], colours=["white"])
    assert as_rows(row, 2) == [[0, 255], [255, 255], [255, 255]]


def test_beacon_s_gaps_are_from_the_end_of_a_flash_to_the_next():
    times = [0.0, 0.04, 0.05, 0.24, 0.25, 0.29, 0.3, 0.49, 0.5, 0.55, 0.75, 1.0]
    rows = shown("beacon", *times, flashes=3, flash=0.05, gap=0.2, every=1)
    assert [row[0] for row in rows] == [255, 255, 0, 0, 255, 255, 0, 0, 255, 0, 0, 255]


def test_a_beam_turns_as_one_looks_at_it():
    """A ring that stands and faces the front: who looks sees the thing's left on the right."""
    ring = {**RING, "count": 4, "tilt": [90, 0], "facing": "down"}
    rows = on(ring, "beam", 0.0, 1.0, rate=0.25, width=20, tail=0)
    seen = [row.index(255) for row in rows]
    made = fd.Design.from_values({"line": [{"name": "a", "part": [ring]}]}).layout()
    assert made.facing[0].round(6).tolist() == [0, 1, 0]
    assert made.position[seen[0], 0] == pytest.approx(-50)  # on the right of who looks
    assert made.position[seen[1], 2] == pytest.approx(50)  # a quarter turn counter-clockwise: above
    rows = on(ring, "beam", 1.0, rate=0.25, width=20, tail=0, clockwise=True)
    assert made.position[rows[0].index(255), 2] == pytest.approx(-50)


def test_a_beam_s_tail_is_behind_it_both_ways_and_as_long_as_it_says():
    ring = {**RING, "count": 8}
    (row,) = on(ring, "beam", 0.0, width=20, tail=90, rate=0.5)
    assert row == [255, 0, 0, 0, 0, 0, 0, 64]  # 45 degrees behind: (1 - 45 / 90) ** 2
    (row,) = on(ring, "beam", 0.0, width=100, tail=0, rate=0.5)
    assert row == [255, 255, 0, 0, 0, 0, 0, 255]
    (row,) = on(ring, "beam", 0.0, width=20, tail=90, rate=0.5, clockwise=True)
    assert row == [255, 64, 0, 0, 0, 0, 0, 0]
    (row,) = on(ring, "beam", 0.5, width=20, tail=90, rate=0.25, clockwise=True)
    assert row == [64, 0, 0, 0, 0, 0, 0, 255]


def test_blink_that_travels_comes_later_where_its_phase_is_less():
    """A quarter of a blink on, LED 1 is where LED 0 is in a quarter."""
    keys = {"phase": "along * 0.75", "rate": 1, "duty": 0.25}
    rows = shown("blink", 0.0, 0.25, 0.5, count=4, **keys)
    assert rows == [[255, 0, 0, 0], [0, 0, 0, 255], [0, 0, 255, 0]]


def test_clouds_drift_the_way_they_head_and_have_edges_by_their_contrast():
    part = {**strip(count=5), "start": [0.0, 0.0], "end": [0.0, 20.0]}
    keys = {"size": 10, "change": 0, "contrast": 1, "ground": "black", "seed": 2}
    still, moved = on(part, "cloud", 0.0, 1.0, speed=10, heading=90, **keys)
    assert moved[2:] == pytest.approx(still[:3], abs=2)
    (row,) = on(part, "cloud", 0.0, speed=0, **keys)
    (sharp,) = on(part, "cloud", 0.0, speed=0, **{**keys, "contrast": 3})
    wanted = [min(max((v / 255 - 0.5) * 3 + 0.5, 0), 1) * 255 for v in row]
    assert sharp == pytest.approx(wanted, abs=3)
    corners = {(x, y): scrambled(2, 0, 2**20 + y, 2**20 + x) for x in (0, 1) for y in (0, 1)}
    square = {"name": "p", "shape": "points", "points": [[0, 0], [5, 5], [5, 10], [10, 0], [10, 5]]}
    (row,) = on(square, "cloud", 0.0, speed=0, **keys)
    four = sum(corners.values()) / 4
    sides = (corners[0, 1] + corners[1, 1]) / 2, (corners[1, 0] + corners[1, 1]) / 2
    expected = [corners[0, 0], four, sides[0], corners[1, 0], sides[1]]
    assert row == pytest.approx([255 * v for v in expected], abs=1)


def test_clouds_change_from_one_epoch_into_the_next():
    keys = {"size": 10, "speed": 0, "change": 1, "contrast": 1, "ground": "black", "seed": 2}
    one = {"name": "p", "shape": "points", "points": [[0, 0]]}
    rows = on(one, "cloud", 0.0, 0.5, 1.0, **keys)
    now, later = (scrambled(2, epoch, 2**20, 2**20) for epoch in (0, 1))
    assert [row[0] for row in rows] == pytest.approx(
        [255 * now, 255 * (now + later) / 2, 255 * later], abs=1
    )


def test_comet_s_next_one_waits_for_the_tail():
    """The way and a tail of 1 more take 1 s: at 0.75 s the head is at 1.5, half of the tail is left."""
    rows = shown("comet", 0.25, 0.75, count=5, rate=1, tail=1)
    assert rows == [
        pytest.approx([64, 143, 255, 0, 0], abs=1),
        pytest.approx([0, 0, 0, 16, 64], abs=1),
    ]


def test_field_s_channels_that_are_not_given_are_those_of_its_colour():
    ((first, *_),) = coloured("field", 0, colour="#00ffff", red=0.2)
    assert first == [51, 255, 255]
    ((first, *_),) = coloured("field", 0, hue=240, green=0.4)
    assert first == [0, 102, 255]


def test_fill_s_times_are_each_its_own():
    """2 LEDs at 0.1 s, both on for 0.3 s from 0.2 s on, both off for 0.2 s."""
    times = [0.2, 0.49, 0.5, 0.6, 0.69, 0.7, 0.79, 0.8, 0.9]
    keys = {"step": 0.1, "hold": 0.3, "rest": 0.2}
    rows = shown("fill", 0.0, *times, count=2, **keys)[1:]
    assert [sum(row) // 255 for row in rows] == [2, 2, 1, 0, 0, 0, 0, 1, 2]
    rows = shown("fill", 0.0, *times, count=2, empty=False, **keys)[1:]
    assert [sum(row) // 255 for row in rows] == [2, 2, 0, 0, 0, 1, 1, 2, 2]


def test_flicker_is_on_and_off_by_its_own_times_from_the_first_frame_on():
    keys = {"flames": 1, "low": 0.5, "warmth": 0, "colour": "white"}
    times = {"on_low": 0.3, "on_high": 0.3, "off_low": 0.1, "off_high": 0.1}
    rows = shown("flicker", *np.arange(80) / 100, **keys, **times)
    assert [row[0] for row in rows] == ([255] * 30 + [128] * 10) * 2


def test_gauge_from_off_its_middle_is_full_at_its_farther_end():
    """From the second of five LEDs on: three steps and a half to the far end."""
    (row,) = shown("gauge", 0.0, count=5, value=0.5, origin=0.25, colours=["white"])
    assert row == [255, 255, 255, 64, 0]  # 1.75 steps each way, of which its own LED is a half
    (row,) = shown("gauge", 0.0, count=5, value=1, origin=0.25, colours=["white"])
    assert row == [255] * 5
    (row,) = shown("gauge", 0.0, count=5, value=0.999, origin=0.25, colours=["white"])
    assert row[:4] == [255] * 4
    assert 245 <= row[4] < 255


def test_gauge_s_red_line_begins_at_its_threshold():
    keys = {"colours": ["white"], "threshold": 0.5, "rate": 1, "value": "s", "signals": {"s": {}}}
    for value, is_dark in ((0.5, True), (0.49, False)):
        rows = shown("gauge", 0.0, 0.6, count=2, news=[{"s": value}], **keys)
        assert (rows[1][0] == 0) is is_dark


def test_a_whole_led_is_lit_from_its_half_on():
    for value, lit in ((0.12, 0), (0.13, 1), (0.37, 1), (0.38, 2)):
        (row,) = shown("gauge", 0.0, count=4, value=value, whole=True, colours=["white"])
        assert sum(row) == 255 * lit


def test_a_peak_is_one_led_where_the_value_was_highest():
    program = design(layer("gauge", value="s", colours=["black"], peak=True, fall=1), count=10,
                     signals={"s": {}}, rate=100).compile()  # fmt: skip
    for value, led in ((0.55, 5), (0.6, 5), (0.61, 6), (1.0, 9)):
        row = reds(program.frame(s=value))
        assert [i for i, byte in enumerate(row) if byte] == [led], value


def test_glint_lives_as_long_as_it_says():
    """Each LED has one spark after another, 2 s each: in 0.5 s it goes a quarter of its way."""
    rows = shown("glint", 0.25, 0.75, count=3, density=1, life=2, seed=5)
    for led in range(3):
        for row, at in zip(rows, (0.25, 0.75), strict=True):
            into = (at / 2 + scrambled(led, 5, 9)) % 1
            assert row[led] == pytest.approx(255 * (1 - into) ** 2, abs=1)


def test_a_gradient_s_loop_drifts_to_the_end_of_the_way():
    keys = {"colours": ["red", "lime", "blue"], "loop": True, "rate": 0.5}
    rows = coloured("gradient", 0.0, 2 / 3, count=4, **keys)
    assert rows[0] == [RED, GREEN, BLUE, RED]
    assert np.abs(np.subtract(rows[1], [BLUE, RED, GREEN, BLUE])).max() <= 1


def test_a_gradient_that_loops_comes_back_behind_its_last_place():
    """Red at 0, blue at half: behind it blue turns into red again; without the loop it stays."""
    keys = {"colours": ["red", "blue"], "at": [0, 0.5]}
    (row,) = coloured("gradient", 0, count=5, loop=True, **keys)
    assert row == [RED, [128, 0, 128], BLUE, [128, 0, 128], RED]
    (row,) = coloured("gradient", 0, count=5, **keys)
    assert row == [RED, [128, 0, 128], BLUE, BLUE, BLUE]
    for s, behind in ((1, [[128, 0, 128], RED]), (0, [BLUE, BLUE])):
        (row,) = coloured(
            "gradient", 0, count=5, loop="s > 0.5", signals={"s": {}}, news=[{"s": s}], **keys
        )
        assert row == [RED, [128, 0, 128], BLUE, *behind]


def test_pale_hues_are_nearer_to_white():
    ((first, *_),) = coloured("hue-drift", 0, start=120, rate=0, saturation=0.25)
    assert first == [191, 255, 191]


def test_an_animated_picture_runs_as_fast_as_it_says(tmp_path):
    name = picture(tmp_path / "two.gif", [[255, 0]], [[0, 255]], duration=[100, 300], loop=0)
    rows = on(grid(2, 1), "picture", 0, 0.049, 0.05, 0.19, 0.2, file=name, folder=tmp_path, speed=2)
    assert rows == [[255, 0], [255, 0], [0, 255], [0, 255], [255, 0]]


def test_a_picture_begins_when_its_layer_comes_on(tmp_path):
    name = picture(tmp_path / "two.gif", [[255, 0]], [[0, 255]], duration=[100, 300], loop=0)
    signals = {"go": {"kind": "switch"}}
    rows = on(grid(2, 1), "picture", 0, 0.25, 0.34, 0.36, file=name, folder=tmp_path, when="go",
              signals=signals, news=[{"go": 0}, {"go": 1}])  # fmt: skip
    assert rows == [[0, 0], [255, 0], [255, 0], [0, 255]]


def test_a_text_stands_in_the_middle_of_what_is_higher_and_wider():
    (row,) = on(grid(7, 9), "text", 0, text="1", font="3x5")
    drawn = ["".join(".#"[byte > 0] for byte in line) for line in as_rows(row, 7)]
    letter = ["...#...", "..##...", "...#...", "...#...", "..###.."]
    assert drawn == [".......", ".......", *letter, ".......", "......."]


def test_a_text_that_moves_begins_beyond_the_right_end():
    rows = on(grid(4, 5), "text", 0, 0.5, 0.79, text="11", font="3x5", rate=10)
    sums = [[sum(column) // 255 for column in zip(*as_rows(row, 4), strict=True)] for row in rows]
    assert sums == [[0, 0, 0, 0], [5, 1, 0, 2], [0, 2, 5, 1]]


def test_texts_round_their_numbers_and_have_room_for_long_times():
    def read(text, columns, value):
        (row,) = on(grid(columns, 5), "text", 0, text=text, font="3x5", signals={"s": {}},
                    news=[{"s": value}])  # fmt: skip
        return as_rows(row, columns)

    same = [("{s:3}", 7.6, "  8"), ("{s:3}", -0.4, "  0"), ("{s:3}", -0.6, " -1"),
            ("{s:4.1}", 2.25, " 2.3"), ("{s:m:ss}", 59 * 60 + 59, "59:59"),
            ("{s:m:ss}", 99 * 60, "99:00"), ("{s:h:mm}", 11 * 3600, "11:00")]  # fmt: skip
    for text, value, plain in same:
        columns = 4 * len(plain)
        assert read(text, columns, value) == read(plain, columns, 0), text


def test_march_s_gap_is_whole_leds():
    rows = shown("march", 0.0, 0.1, count=6, run=1, gap=2.7, rate=10)
    assert rows == [[255, 0, 0] * 2, [0, 255, 0] * 2]


def test_parts_have_a_colour_each_whatever_the_run():
    line = [{"name": "l", "part": [strip("a", 2), strip("b", 1), strip("c", 3)]}]
    made = design(layer("pattern", colours=["red", "lime", "blue"], by_part=True, run=3), line=line)
    assert made.compile().frame().rgb.tolist() == [RED, RED, GREEN, BLUE, BLUE, BLUE]


def test_a_push_is_as_strong_as_its_beat():
    keys = {"trigger": "beat", "strength": 0.5, "speed": 1, "width": 0.5}
    rows = shown(
        "push", 0.0, 0.5, count=5, signals={"beat": {"kind": "switch"}}, news=[{"beat": 1}], **keys
    )
    assert rows == [[0, 0, 128, 0, 0], [0, 83, 0, 83, 0]]


def test_a_ring_runs_in_space_and_fades_in_its_own_life():
    """From (0, 0, 0): LEDs 30 mm to the right and 30 mm up; after 0.3 s at 100 mm a second, 0.3 / 2 of
    its life are over."""
    part = {
        "name": "p",
        "shape": "points",
        "points": [[0, 0, 0], [30, 0, 0], [0, 0, 30], [30, 0, 30]],
    }
    keys = {
        "trigger": "hit",
        "x": 0,
        "y": 0,
        "z": 0,
        "speed": 100,
        "width": 10,
        "life": 2,
        "strength": 0.5,
    }
    rows = on(
        part, "ripple", 0.0, 0.3, signals={"hit": {"kind": "switch"}}, news=[{"hit": 1}], **keys
    )
    assert rows == [[128, 0, 0, 0], [0, 108, 108, 0]]  # 0.5 * (1 - 0.15)


def test_run_up_s_first_run_is_from_its_own_end_and_its_fade_begins_when_all_have_stayed():
    keys = {"step": 0.1, "stay": 0.3, "fade": 1, "trigger": "go"}
    times = [0.0, 0.1, 0.31, 0.61, 0.62, 1.11]
    news = [{"go": 0}, {"go": 1}]
    signals = {"go": {"kind": "switch"}}
    rows = shown("run-up", *times, count=2, signals=signals, news=news, both_ends=True, **keys)
    assert rows[2] == [255, 255]
    rows = shown(
        "run-up", 0.0, 0.1, 0.21, count=2, signals=signals, news=news, both_ends=True, **keys
    )
    assert rows[2] == [255, 0]
    rows = shown(
        "run-up",
        0.0,
        0.1,
        0.21,
        count=2,
        signals=signals,
        news=news,
        both_ends=True,
        reverse=True,
        **keys,
    )
    assert rows[2] == [0, 255]
    # 0.2 s of running and 0.3 s of staying: from 0.6 s on it fades, half way at 1.1 s.
    rows = shown(
        "run-up",
        0.0,
        0.1,
        0.599,
        0.6,
        1.1,
        count=2,
        signals=signals,
        news=news,
        **{**keys, "fade": 0},
    )
    assert [row[0] for row in rows[2:]] == [255, 0, 0]
    rows = shown("run-up", 0.0, 0.1, 0.6, 1.1, count=2, signals=signals, news=news, **keys)
    assert [row[0] for row in rows[2:]] == [255, 128]


def test_screen_glow_s_shots_are_at_most_as_dark_as_their_depth():
    keys = {"rate": 1, "shimmer": 0, "depth": 0.4, "cold": "white", "warm": "white", "seed": 3}
    rows = shown("screen-glow", 0.9, 1.9, 2.0, 2.9, **keys)  # at 2.0 it only begins to change
    shots = [255 * (1 - 0.4 * scrambled(shot, 3, 1)) for shot in (0, 1, 1, 2)]
    assert [row[0] for row in rows] == pytest.approx(shots, abs=1)


@pytest.mark.parametrize(
    ("clockwise", "row"),
    # The arc is on the first four of eight LEDs either way; its tail, half of it, fades out: its end
    # is at LED 0 where it goes on to LED 4, and behind LED 3 where it comes to LED 0.
    [(False, [0, 128, 255, 255, 0, 0, 0, 0]), (True, [255, 255, 255, 128, 0, 0, 0, 0])],
)
def test_spin_s_soft_end_is_behind_it_and_the_arc_stays_where_it_is(clockwise, row):
    ring = {**RING, "count": 8}
    keys = {"arcs": 1, "length": 0.5, "rate": 0, "clockwise": clockwise}
    assert on(ring, "spin", 0.0, soft=0.5, **keys) == [pytest.approx(row, abs=1)]
    assert on(ring, "spin", 0.0, **keys) == [[255] * 4 + [0] * 4]


def test_sweep_s_dot_is_as_wide_as_it_says():
    """0.4 of the way wide: a fifth to each side, 0 from there on."""
    (row,) = shown("sweep", 0.0, count=11, rate=0.5, width=0.4)
    assert row == [255, 128, 0, 0, 0, 0, 0, 0, 0, 0, 0]


def test_turn_s_time_to_fill_is_the_same_at_every_rate():
    """Hard over it flashes twice as often, and fills in 0.2 s all the same."""
    keys = {"steer": "s", "rate": 1, "rate_hard": 2, "run": 0.2, "colour": "white"}
    for steer in (0.0, 1.0):
        rows = shown(
            "turn", 0.0, 0.05, 0.1, 0.19, count=10, signals={"s": {}}, news=[{"s": steer}], **keys
        )
        assert [sum(row) // 255 for row in rows] == [1, 3, 6, 10]


def test_wave_may_come_back():
    keys = {"waves": 1, "rate": 0.25, "trough": "black"}
    rows = shown("wave", 0.5, 1.0, count=5, **keys)
    assert rows[1] == [128, 0, 128, 255, 128]
    rows = shown("wave", 0.5, 1.0, count=5, reverse=True, **keys)
    assert rows[1] == [128, 255, 128, 0, 128]


def test_scrolling_text_begins_anew_when_its_layer_comes_on():
    """A column each 0.1 s: whenever it comes on, the first letter's edge comes in 0.1 s later."""
    grid = {"name": "wall", "shape": "grid", "columns": 9, "rows": 7, "pitch": 10.0}
    for begins in (0.3, 1.7):
        times = [begins - 0.1, begins, begins + 0.1, begins + 0.4]
        news = [{"go": 0}, {"go": 1}, {"go": 1}, {"go": 1}]
        rows = on(
            grid,
            "text",
            *times,
            text="HI",
            rate=10,
            when="go",
            signals={"go": {"kind": "switch"}},
            news=news,
        )
        lit = [sum(byte > 0 for byte in row) for row in rows]
        assert lit == [0, 0, 7, 7 + 1 + 1 + 1]  # H: a stem of seven, then its bar


def bound(effect, keys, first, then, at_s, seconds=4.0, count=1):
    """Lit LEDs in each frame at 50 a second, where s goes from one value to another."""
    made = design(layer(effect, **keys), count=count, signals={"s": {}}, rate=50)
    program = made.compile()
    return [
        sum(red > 0 for red in reds(program.frame(s=first if i / 50 < at_s else then, at=i / 50)))
        for i in range(round(seconds * 50))
    ]


def runs_of(lit):
    """From which frame to which it is lit, each time."""
    edges = np.flatnonzero(np.diff([0, *(n > 0 for n in lit), 0]))
    return [*zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True)]


def test_a_beacon_that_is_to_be_quicker_is_so_from_its_next_group_on():
    """The group that began at 0 lasts 1.2 s, as it was to; those after it 0.4 s."""
    lit = bound("beacon", {"flashes": 1, "flash": 0.06, "every": "s"}, 1.2, 0.4, 0.5)
    assert [first for first, _ in runs_of(lit)][:4] == [0, 60, 80, 100]


def test_a_beacon_s_flashes_are_longer_from_the_next_group_on():
    lit = bound("beacon", {"flashes": 1, "flash": "s", "every": 1.2}, 0.06, 0.2, 0.5)
    assert runs_of(lit)[:3] == [(0, 3), (60, 70), (120, 130)]


def test_each_flash_of_a_turn_runs_also_at_a_rate_that_is_bound():
    """At 1.25 Hz a flash each 0.8 s, on for half of it; 10 LEDs in 0.2 s: one each 0.02 s."""
    lit = bound("turn", {"rate": "s", "run": 0.2}, 1.25, 1.25, 9, count=10)
    plain = bound("turn", {"rate": 1.25, "run": 0.2}, 0, 0, 9, count=10)
    for begin in (0, 40, 80):
        assert lit[begin : begin + 12] == plain[begin : begin + 12] == [*range(1, 11), 10, 10]
        assert lit[begin + 20 : begin + 40] == [0] * 20
