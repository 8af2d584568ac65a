"""Comparisons, timelines, scenes and diffusers: what stands in the pictures."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.insight.timeline import Appearance
from fendra.draw.compare import differing, draw_compare
from fendra.draw.glow import Stage
from fendra.draw.scenes import best_moment, draw_scenes
from helpers import design, layer, strip, tape

SWITCH = {"kind": "switch"}


def film(*layers, values=(0, 0, 1, 1), **keys):
    signals = {"on": SWITCH, "never": SWITCH}
    made = design(*layers, signals=signals, **keys)
    return made.compile("numpy").film(tape(on=list(values), never=[0] * len(values)))


def texts(figure):
    found = [text.get_text() for text in figure.texts]
    return found + [text.get_text() for ax in figure.axes for text in ax.texts]


def test_films_differ_where_an_led_is_off_by_what_one_can_see():
    """Over 0.15 s at 50 a second: alike until the switch comes on at 0.1 s, then by all of red."""
    plain, lit = film(layer(colour="black")), film(layer(colour="red", when="on"))
    (apart,) = differing([plain, lit]).values()
    assert apart.tolist() == [0] * 5 + [255] * 3
    assert differing([lit, lit, lit]) == {}
    nearly = film(layer("field", red=1 / 255, green=0, blue=0))
    assert differing([plain, nearly]) == {}  # one step of 255 is nothing that one sees


def test_only_parts_that_films_have_alike_are_compared():
    line = [{"name": "l", "part": [strip("bar", 4), strip("new", 3)]}]
    assert [*differing([film(layer(), count=4), film(layer(colour="red"), line=line)])] == ["bar"]
    assert differing([film(layer(), count=4), film(layer(colour="red"), count=5)]) == {}


def test_a_comparison_names_the_films_and_says_where_nothing_differs():
    films = [film(layer(colour="black")), film(layer(colour="red", when="on"))]
    words = texts(draw_compare(films, ["calm", "loud"], "Lamp"))
    assert {"Lamp", "bar\ncalm", "loud", "difference"} <= {*words}
    same = texts(draw_compare([films[0]] * 2, ["a", "b"], "Lamp"))
    assert "Lamp: no LED differs" in same


def test_a_timeline_names_every_layer_with_its_condition():
    played = film(layer(when="on"), layer("blink", when="never"), layer("pulse"))
    words = texts(played.timeline_figure())
    assert {"on", "always", "never on this tape: never", "0: solid layer"} <= {*words}


SCENES = [{"name": "busy", "when": "on", "fade": 0.02}, {"name": "off", "when": "never"},
          {"name": "calm"}]  # fmt: skip


def test_each_scene_is_shown_where_it_is_there_alone_or_said_to_be_never():
    lamps = [layer(colour=c, scene=s) for s, c in (("busy", "red"), ("calm", "blue"))]
    played = film(*lamps, scene=SCENES, values=[0] * 4 + [1] * 6)
    timeline = played.timeline()
    moments = {course.name: best_moment(course) for course in timeline.scenes}
    assert moments["off"] is None
    for name, light in (("busy", [255, 0, 0]), ("calm", [0, 0, 255])):
        assert played.rgb[moments[name], 0].tolist() == light
    titles = [ax.get_title(loc="left") for ax in draw_scenes(played, timeline).axes]
    assert [title.partition(":")[0] for title in titles] == ["busy", "off", "calm"]
    assert titles[1] == "off: never on this tape\nwhen never"
    assert titles[2].endswith("\notherwise")


def test_the_best_moment_is_the_middle_of_the_longest_stretch_at_the_most():
    there = np.array([1, 0, 0.5, 1, 1, 1, 0.5, 1, 1], np.float32)
    assert best_moment(Appearance("a", "b", there)) == 4
    assert best_moment(Appearance("a", "b", there * 0)) is None


@pytest.mark.parametrize("distance_mm", [2.0, 8.0, 20.0])
def test_a_diffuser_makes_dots_one_line_of_light_and_keeps_it_where_it_is(distance_mm):
    """LEDs 10 mm apart: from behind a sheet at 2 mm one sees dots, from 20 mm on a bar."""
    made = design(layer(colour="white"), count=12)
    stage = Stage(made, made.layout(), (640, 400), diffuser_mm=distance_mm)
    full = stage.lit(np.full((12, 3), 255, np.uint8)).astype(float)[:, :, 0]
    x, y = stage.to_pixels([[20.0, 0.0], [90.0, 0.0]]).round().astype(int).T
    along = full[y[0], x[0] : x[1]]
    assert full[y[0]].max() > 200
    assert full[5].max() < 40  # far away it stays night
    assert (along.min() > 0.9 * along.max()) == (distance_mm > 5)


def test_the_light_of_one_led_behind_a_diffuser_is_wider_the_farther_that_is():
    made = design(layer(colour="white"), count=12)
    one = np.zeros((12, 3), np.uint8)
    one[6] = 255
    widths = []
    for distance_mm in (3.0, 9.0, 27.0):
        row = Stage(made, made.layout(), diffuser_mm=distance_mm).lit(one)[400, :, 0].astype(float)
        widths.append(int((row > (row.max() + row.min()) / 2).sum()))
    assert widths == sorted(widths)
    assert widths[2] > 2 * widths[0]
