"""Pictures: light where LEDs are lit, labels that keep off each other, drawing on given axes."""

from __future__ import annotations

import numpy as np
import pytest
from matplotlib.figure import Figure
from PIL import Image

import fendra as fd
from fendra.core.layout.views import best_view
from fendra.draw import style
from fendra.draw.animation import write_animation
from fendra.draw.glow import Stage
from fendra.draw.labels import Board
from fendra.draw.still import signal_notes
from fendra.draw.wiring import draw_wiring, draw_wiring_figure
from helpers import design, layer, strip, tape


@pytest.fixture
def film():
    made = design(
        layer(level="s"), signals={"s": {"unit": "V", "lost_after": 0.5}, "on": {"kind": "switch"}}
    )
    return made.compile().film(tape(s=[0] * 10 + [1] * 10 + [None] * 20, on=[0] * 15 + [1] * 25))


def test_an_led_lights_its_place_and_spills_round_it():
    made = design(layer(colour="red"))
    stage = Stage(made, made.layout(), (400, 250))
    dark, lit = (
        stage.lit(np.full((8, 3), level, np.uint8) * (1, 0, 0)).astype(int) for level in (0, 255)
    )
    x, y = stage.to_pixels(made.layout().position[:, :2])[3].astype(int)
    assert lit[y, x, 0] > 245
    assert dark[y, x].max() < 60
    spill = lit - dark
    assert 0 < spill[y + 12, x, 0] < lit[y, x, 0]
    assert spill[:, :, 2].max() < 150  # red spills no blue beyond its own white-hot core
    assert spill[5, 5].max() < 20


def test_the_front_is_up_and_right_is_right():
    made = design(layer())
    left_back, right_front = Stage(made, made.layout()).to_pixels([[0, -10], [10, 10]])
    assert right_front[0] > left_back[0]
    assert right_front[1] < left_back[1]


def test_brighter_light_is_brighter_on_the_picture():
    made = design(layer())
    stage = Stage(made, made.layout(), (400, 250))
    means = [stage.lit(np.full((8, 3), level, np.uint8)).mean() for level in (0, 5, 20, 80, 255)]
    assert means == sorted(means)


def test_the_band_shows_time_across_and_the_first_led_at_the_top(film):
    from matplotlib.figure import Figure

    ax = Figure().add_subplot()
    assert film.strip(ax=ax, part="bar") is ax
    [image] = ax.images
    colours = np.asarray(image.get_array())
    assert colours.shape == (8, len(film), 3)
    assert colours[:, :20].max() == 0
    assert colours[:, 30].min() == pytest.approx(1)
    assert image.get_extent() == pytest.approx([0, film.times[-1] + 0.02, 7.5, -0.5])


def test_the_strip_has_a_row_for_each_signal_and_part_on_one_time_axis(film):
    figure = film.strip_figure()
    assert len(figure.axes) == 1 + 1 + 1  # a number, the switches, a part
    assert len({ax.get_xlim() for ax in figure.axes}) == 1
    texts = [text.get_text() for ax in figure.axes for text in ax.texts]
    assert {"s", "on", "bar"} <= set(texts)


@pytest.mark.parametrize(("rate_hz", "gaps"), [(20, 1), (0.5, 0)])
def test_a_silence_is_long_by_the_tape_s_own_rhythm(rate_hz, gaps):
    """30 rows without news: 1.5 s of a tape with 20 a second; of one with a row in 2 s, four."""
    made = design(layer(level="s"), signals={"s": {}})
    missing = 30 if rate_hz == 20 else 4
    rows = tape(rate_hz=rate_hz, s=[1] * 20 + [None] * missing + [1] * 20)
    figure = made.compile().film(rows, rate=2).strip_figure()
    words = [text.get_text() for ax in figure.axes for text in ax.texts]
    assert words.count("no news") == gaps


def test_the_map_can_be_drawn_on_given_axes():
    from matplotlib.figure import Figure

    ax = Figure().add_subplot()
    made = fd.load(fd.demo_file("heron.toml"))
    assert made.map(ax=ax) is ax
    texts = [text.get_text() for text in ax.texts]
    assert "nose-bar\n16 – 39" in texts
    assert "data in  GP2" in texts


def test_the_table_beside_the_map_stays_readable_with_many_parts():
    from fendra.draw.map import draw_map_figure

    parts = [
        {"name": f"key {i}", "shape": "ring", "centre": [20 * i, 0], "radius": 5, "count": 3}
        for i in range(90)
    ]
    made = fd.Design.from_values({"line": [{"name": "keys", "part": parts}]})
    table = draw_map_figure(made, made.layout()).axes[1]
    texts = {text.get_text().strip(): text.get_fontsize() for text in table.texts}
    assert "key 28" in texts
    assert "and 61 parts more" in texts
    assert min(texts.values()) > 6


def test_labels_keep_off_leds_and_off_each_other_or_are_left_out():
    points = np.stack([np.linspace(0, 100, 50), np.full(50, 50.0)], axis=1)
    board = Board(np.array([0, 0, 100, 100.0]), points, np.zeros((0, 2)))
    placed = [board.put(points[[25]], (30, 10), 8) for _ in range(40)]
    assert sum(middle is not None for middle in placed) == len(board.boxes) >= 4
    assert placed[-1] is None  # there is no room for so many
    for i, box in enumerate(board.boxes):
        assert not ((points >= box[:2]) & (points <= box[2:])).all(axis=1).any()
        assert ((box[:2] >= 0) & (box[2:] <= 100)).all()
        for other in board.boxes[:i]:
            assert not ((box[:2] < other[2:]).all() and (other[:2] < box[2:]).all())


def test_the_notes_say_values_units_switches_and_what_is_lost(film):
    assert signal_notes(film, 0.6) == ["0.60 s", "s 1 V"]
    assert signal_notes(film, 0.9) == ["0.90 s", "s 1 V", "on on"]
    assert signal_notes(film, 1.8) == ["1.80 s", "s lost", "on on"]


@pytest.mark.parametrize("name", ["a.gif", "a.apng", "a.png"])
def test_an_animation_lasts_as_long_as_it_says(film, tmp_path, name):
    write_animation(film, tmp_path / name, 0.2, 0.4, size=(160, 100))
    with Image.open(tmp_path / name) as picture:
        assert picture.n_frames == 8
        lasted = 0.0
        for place in range(8):
            picture.seek(place)
            lasted += picture.info["duration"]
    assert lasted == pytest.approx(400)


def test_an_animation_of_another_kind_is_refused(film, tmp_path):
    with pytest.raises(fd.FileError, match=r"\.gif, \.png, \.apng or \.mp4"):
        film.save_animation(tmp_path / "a.avi", 0, 1)


def test_a_thousand_leds_at_one_place_and_none_lit_are_no_trouble(tmp_path):
    part = {"name": "bar", "shape": "strip", "count": 1000, "start": [5, 5], "end": [5, 5]}
    made = fd.Design.from_values({"line": [{"name": "l", "part": [part]}]})
    assert made.save_map(tmp_path / "map.png").exists()
    assert Stage(made, made.layout(), (320, 200)).lit(np.zeros((1000, 3), np.uint8)).shape == (
        200,
        320,
        3,
    )


def map_of(name: str = "drone", **keys):
    from matplotlib.figure import Figure

    made = fd.load(fd.demo_file(f"{name}.toml"))
    figure = Figure(figsize=(12.8, 8), dpi=100)
    return made, made.map(figure.add_subplot(), **keys)


@pytest.mark.parametrize(
    ("view", "across", "upward", "is_flipped"),
    [("top", "x", "y", False), ("bottom", "x", "y", True), ("front", "x", "z", True),
     ("back", "x", "z", False), ("left", "y", "z", True), ("right", "y", "z", False)],
)  # fmt: skip
def test_each_view_has_its_axes_and_its_front(view, across, upward, is_flipped):
    """Seen from the front, the thing's right is at the left; from its left, its front is there."""
    made, ax = map_of(view=view)
    assert ax.get_xlabel().startswith(f"{across}, mm")
    assert ax.get_ylabel().startswith(f"{upward}, mm")
    assert ax.xaxis_inverted() == is_flipped
    columns = {name: i for i, name in enumerate("xyz")}
    drawn = np.concatenate(
        [np.asarray(c.get_offsets()) for c in ax.collections if c.get_zorder() == 3]
    )
    wanted = made.layout().leds.position[:, [columns[across], columns[upward]]]
    assert {tuple(row) for row in wanted.round(6)} == {tuple(row) for row in drawn.round(6)}
    texts = {text.get_text() for text in ax.texts}
    assert ("front" in texts) == (view in ("top", "bottom", "left", "right"))
    assert ("front: towards you" in texts) == (view == "front")


def test_the_map_marks_data_in_jumps_ends_and_tens_and_a_scale():
    _, ax = map_of("heron")
    texts = [text.get_text() for text in ax.texts]
    assert {"data in  GP2", "data in  GP3", "data in  GP4", "front", "500 mm"} <= {*texts}
    for number in ("0", "35", "36", "71", "10", "20", "60", "29"):  # ends of parts, and tens
        assert number in texts
    assert "37" not in texts


def test_skipped_leds_are_crosses_and_parallel_strips_are_drawn():
    strips = [strip("s", 6, skip=[2]), strip("t", 6, at=[0, 30], parallel_to="s")]
    made = fd.Design.from_values({"line": [{"name": "a", "part": strips}]})
    ax = made.map()
    crosses = [
        c for c in ax.collections if c.get_zorder() == 3 and len(c.get_paths()[0].vertices) == 4
    ]
    places = np.concatenate([np.asarray(c.get_offsets()) for c in crosses])
    assert {tuple(row) for row in places} == {(20, 0), (20, 30)}
    assert ax.get_title(loc="left") == "unnamed: 12 LEDs on 1 line"


def test_a_trail_is_coloured_by_along_and_a_group_is_ringed():
    _, ax = map_of("heron", show="deck")
    assert "deck: along" in {child.get_xlabel() for child in ax.child_axes}
    (image,) = [c for c in ax.collections if c.get_array() is not None]
    y = np.asarray(image.get_offsets())[:, 1]  # from -450 at the trail's start to 290 at its end
    assert np.asarray(image.get_array()) == pytest.approx((y + 450) / 740)
    assert len(y) == 72
    _, ax = map_of("heron", show="nose-bar")
    assert [text.get_text() for text in ax.get_legend().texts] == ["nose-bar: 24 LEDs"]
    _, ax = map_of("heron", show=["front-half", "deck", "tail-bar"])
    # y > 0: both hubs, 32, the nose, 24, and 14 of 36 on either side of the deck
    said = ["front-half: 84 LEDs", "deck: 72 LEDs", "tail-bar: 30 LEDs"]
    assert [text.get_text() for text in ax.get_legend().texts] == said
    colours = {tuple(c.get_edgecolor()[0]) for c in ax.collections if c.get_label() in said}
    assert len(colours) == 3
    with pytest.raises(fd.LayoutError, match="Did you mean 'deck'"):
        map_of("heron", show="dek")
    with pytest.raises(fd.LayoutError, match="Did you mean 'front'"):
        map_of("heron", view="frnt")


@pytest.mark.parametrize("leds", [1, 10, 2000])
def test_maps_of_few_and_of_many_leds_are_drawn(leds, tmp_path):
    made = fd.Design.from_values({"line": [{"name": "a", "part": [strip(count=leds)]}]})
    with Image.open(made.save_map(tmp_path / "map.png")) as picture:
        assert picture.size == (1280, 800)


def test_a_still_from_another_side_shows_what_is_there(tmp_path):
    """An upright strip from the front, its lower half lit: so is the picture's."""
    part = {"name": "s", "shape": "strip", "direction": "up", "count": 20, "pitch": 10.0}
    made = fd.Design.from_values(
        {"line": [{"name": "a", "part": [part]}], "groups": {"low": "z < 95"},
         "layer": [layer(on="low", colour="white")]}
    )  # fmt: skip
    film = made.compile().film(tape(s=[0, 0]))
    with Image.open(film.save_still(tmp_path / "s.png", 0.0, view="front")) as picture:
        light = np.asarray(picture.convert("L"), float)
    assert (light[420:] > 200).any()
    assert not (light[80:380, 300:] > 200).any()


def test_leds_in_parallel_are_lit_in_pictures_and_lengths_in_inches_fit_the_outline():
    strips = [strip("s", 4), strip("t", 4, at=[0, 30], parallel_to="s", skip=[])]
    made = fd.Design.from_values(
        {"units": "in", "outline": [[[0, 0], [30, 0], [30, 30]]],
         "line": [{"name": "a", "part": strips}]}
    )  # fmt: skip
    stage = Stage(made, made.layout(), (400, 250))
    dark = stage.lit(np.zeros((4, 3), np.uint8)).astype(int)
    lit = stage.lit(np.full((4, 3), 200, np.uint8)).astype(int)
    for place in stage.to_pixels(made.layout().leds.position[:, :2]).astype(int):
        assert lit[place[1], place[0]].min() > dark[place[1], place[0]].max() + 60
    corners = stage.to_pixels(np.array([[0, 0], [30 * 25.4, 30 * 25.4]]))
    assert ((corners > 0) & (corners < (400, 250))).all()


def test_electrical_plots_go_on_the_caller_s_axes():
    """On white axes and on dark ones; limits, peak and what the LEDs need are written there."""
    cabinet = fd.load(fd.demo_file("cabinet.toml"))
    film = cabinet.compile().film(fd.read_tape(fd.demo_file("game.csv")))
    for face in ("white", "#0c0e13"):
        ax = Figure().add_subplot(facecolor=face)
        assert film.current(ax, supply="five") is ax
        words = [text.get_text() for text in ax.texts]
        assert {"rated 10 A", "the limiter's budget 8 A", "2.45 A at 12 s"} <= {*words}
        ax = Figure().add_subplot(facecolor=face)
        assert cabinet.voltage(ax, lines=["marquee"]) is ax
        assert "the LEDs need 4 V" in [text.get_text() for text in ax.texts]
        (curve, *_) = ax.lines
        assert len(curve.get_xdata()) == 256
    assert len(film.voltage(Figure().add_subplot(), ["marquee"]).lines) > len(ax.lines)
    assert film.current().figure is not None
    assert cabinet.voltage().figure is not None
    tight = cabinet.supplies["five"].model_copy(update={"budget": 1.3})
    supplies = {**cabinet.supplies, "five": tight}
    held = cabinet.model_copy(update={"supplies": supplies}).compile().film(film.tape)
    words = [text.get_text() for text in held.current(Figure().add_subplot()).texts]
    assert any("the limiter passes as little as" in text for text in words)
    for wrong in (lambda: film.current(supply="six"), lambda: cabinet.voltage(lines=["markee"])):
        with pytest.raises(fd.LayoutError, match=r"Did you mean|are:"):
            wrong()


@pytest.mark.parametrize("name", ["heron", "drone", "pad", "cabinet", "bare"])
def test_the_wiring_diagram_names_everything_and_stays_within_its_frame(name):
    design = fd.load(fd.demo_file(f"{name}.toml"))
    budget = design.budget()
    (ax,) = draw_wiring_figure(budget).axes
    words = " ".join(text.get_text() for text in ax.texts)
    for line in design.line:
        assert line.name in words
        assert line.pin in words
    for supply in design.supplies:
        assert supply in words
    assert "common ground" in words
    left, right = ax.get_xlim()
    foot, top = ax.get_ylim()
    for text in ax.texts:
        x, y = text.get_position()
        assert left <= x <= right, text.get_text()
        assert top <= y <= foot, text.get_text()
    with style.inked(style.PAPER):
        assert draw_wiring(budget, draw_wiring_figure(budget).axes[0]) is not None


@pytest.mark.parametrize(
    ("size", "facing", "side"),
    [
        ((400, 300, 10), (0, 0, 1), "top"),
        ((400, 300, 10), (0, 0, -1), "bottom"),
        ((400, 300, 10), (0, 0.9, -0.4), "top"),  # they do not mostly look down
        ((400, 20, 300), (0, 1, 0), "front"),
        ((400, 20, 300), (0, -1, 0), "back"),
        ((20, 400, 300), (-1, 0, 0), "left"),
        ((20, 400, 300), (1, 0, 0), "right"),
        ((400, 200, 300), (0, 1, 0), "top"),  # not twice as large from the front
    ],
)
def test_the_side_from_which_leds_are_seen_best(size, facing, side):
    corners = np.array([[x, y, z] for x in (0, 1) for y in (0, 1) for z in (0, 1)]) * size
    assert best_view(corners, np.tile(np.array(facing, float), (8, 1))) == side


def test_ink_is_that_of_the_page_only_inside_the_block():
    """The map on paper is dark on white, and on the screen again as it was."""
    heron = fd.load(fd.demo_file("heron.toml"))
    dark = heron.map().get_facecolor()
    with style.inked(style.PAPER):
        light = heron.map().get_facecolor()
        with pytest.raises(ZeroDivisionError), style.inked(style.DARK):
            raise ZeroDivisionError
        assert style.ink() is style.PAPER
    assert style.ink() is style.DARK
    assert sum(light[:3]) > 2.9
    assert sum(dark[:3]) < 0.5
    assert heron.map().get_facecolor() == dark
