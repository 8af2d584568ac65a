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


def test_an_animated_picture_runs_by_its_own_times(tmp_path):
    name = picture(tmp_path / "two.gif", [[255, 0]], [[0, 255]], duration=[100, 300], loop=0)
    rows = on(grid(2, 1), "picture", 0, 0.09, 0.1, 0.39, 0.4, file=name, folder=tmp_path)
    assert rows == [[255, 0], [255, 0], [0, 255], [0, 255], [255, 0]]


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
            ("{s:h:mm:ss}", 3661, " 1:01:01")]  # fmt: skip
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
         [0] * 4 + [1] * 4 + [2] * 4 + [3] * 4 + [4] * 10 + [0] * 10 + [0] * 4),
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
