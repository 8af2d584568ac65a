"""Layers, scenes, lookups, presets and canvases: what comes out when several are at work."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from helpers import design, layer, reds, strip, tape

SWITCH = {"kind": "switch"}
MODE = {"kind": "choice", "choices": {"manual": 0, "hold": 3, "home": 11}}


def lit(*layers, at=0.0, news=None, **keys):
    """The red bytes of all LEDs in one frame."""
    return reds(design(*layers, count=4, **keys).compile().frame(news or {}, at=at))


def codes(made):
    return [(finding.code, finding.path) for finding in made.check()]


@pytest.mark.parametrize(
    ("keys", "byte"),
    [
        ({}, 255),
        ({"cover": 0.5}, 192),  # half of the layers below, 128, and half of white
        ({"colour": "black", "blend": "add"}, 128),
        ({"blend": "max", "colour": "#000"}, 128),
        ({"blend": "multiply", "colour": "black"}, 0),
        ({"blend": "multiply", "colour": "black", "cover": 0.5}, 64),
        ({"blend": "multiply", "colour": "white"}, 128),
        ({"cover": 0.5, "hides_below": True}, 192),
        ({"cover": 0.0, "hides_below": True}, 128),
        ({"when": False, "hides_below": True}, 128),
    ],
)
def test_a_layer_over_one_of_half_the_light(keys, byte):
    beneath = layer("field", red=128 / 255, green=0, blue=0)
    assert lit(beneath, layer("solid", **keys)) == [byte] * 4


def test_multiply_takes_each_channel_by_itself():
    made = design(layer("solid", colour="white"), layer("solid", colour="#ff0", blend="multiply"))
    assert made.compile().frame().rgb[0].tolist() == [255, 255, 0]


def test_several_functions_on_one_led_come_out_as_one_expects():
    """A colour by throttle that also blinks, while a warning rides over both."""
    program = design(
        layer("solid", colour="mix('#000', '#f00', s)"),
        layer("blink", colour="black", rate=1, phase=0.5),
        layer("solid", colour="blue", when="s > 0.9", on="bar"),
        signals={"s": {}}, count=1,
    ).compile()  # fmt: skip
    frames = [program.frame(s=s, at=at).rgb[0].tolist() for s, at in
              ((0.5, 0.0), (0.5, 0.5), (0.8, 0.9), (0.95, 1.0), (0.5, 1.1))]  # fmt: skip
    assert frames == [[128, 0, 0], [0, 0, 0], [0, 0, 0], [0, 0, 255], [128, 0, 0]]


def test_priority_comes_before_the_order_of_the_file():
    layers = [layer("solid", colour="white", priority=1), layer("solid", colour="black")]
    assert lit(*layers) == [255] * 4
    assert lit(*layers[::-1]) == [255] * 4


@pytest.mark.parametrize("effect", ["sweep", "fill", "blink", "flicker", "glint", "cloud", "march"])
def test_a_layer_that_was_covered_looks_as_if_it_never_had_been(effect):
    """Covered for ten seconds, it shows exactly the frames that it would have shown uncovered."""
    cover = [1.0 if 2 <= i / 20 < 12 else 0.0 for i in range(20 * 15)]
    films = [
        design(layer(effect, rate=1.3) if effect in ("sweep", "blink") else layer(effect), *more,
               count=16, signals={"warn": SWITCH}).compile().film(tape(warn=cover))
        for more in ([], [layer("solid", colour="blue", when="warn", hides_below=True)])
    ]  # fmt: skip
    is_covered = (films[1].times >= 2) & (films[1].times < 12)
    assert films[0].rgb[~is_covered].tobytes() == films[1].rgb[~is_covered].tobytes()
    assert (films[1].rgb[is_covered] == [0, 0, 255]).all()


def test_a_layer_stays_on_for_its_least_time():
    program = design(layer(when="s", least_on=0.3), signals={"s": SWITCH}, count=1).compile()
    at = np.arange(0, 1, 0.1).round(1)
    on = [reds(program.frame(s=float(0.2 <= t < 0.3 or t >= 0.8), at=t))[0] > 0 for t in at]
    assert on == [False, False, True, True, True, False, False, False, True, True]


def scenes(*made, layers=(), **keys):
    return design(
        *(layer("solid", colour=colour, scene=name) for name, colour in
          (("one", "red"), ("two", "#0f0"), ("three", "blue"))), *layers,
        scene=[*made], count=2, rate=100, **keys,
    )  # fmt: skip


def colours(program, *news_at):
    """(at, news) each: the first LED's bytes."""
    return [program.frame(news, at=at).rgb[0].tolist() for at, news in news_at]


def test_a_scene_takes_over_evenly_in_its_own_time():
    program = scenes(
        {"name": "one", "when": "s < 1", "fade": 0.4}, {"name": "two", "when": "s < 2", "fade": 1},
        {"name": "three"}, signals={"s": {}},
    ).compile()  # fmt: skip
    found = colours(
        program, (0, {"s": 0}), (1, {"s": 1}), (1.25, {}), (1.5, {}), (2.0, {}), (3, {"s": 0}),
        (3.1, {}), (3.39, {}), (4, {"s": 2}),
    )  # fmt: skip
    assert found[0] == [255, 0, 0]  # at power-up there is nothing to fade from
    assert found[1] == [0, 255, 0]  # a whole second since the frame before: it is there
    program.reset()
    found = colours(program, (0, {"s": 0}), (0.1, {"s": 1}), (0.35, {}), (0.6, {}), (1.1, {}))
    assert found[1] == [230, 26, 0]  # a tenth of the way after 0.1 s
    assert found[2:] == [[166, 89, 0], [102, 153, 0], [0, 255, 0]]


def test_a_scene_that_is_left_in_its_fade_gives_up_in_proportion():
    program = scenes(
        *({"name": name, "when": f"s == {i}", "fade": 1} for i, name in enumerate(("one", "two"))),
        {"name": "three", "fade": 1}, signals={"s": {}},
    ).compile()  # fmt: skip
    found = colours(program, (0, {"s": 0}), (0.5, {"s": 1}), (1.0, {"s": 2}))
    assert found[1] == [128, 128, 0]
    assert found[2] == [64, 64, 128]  # half to the third, a quarter to each of the others


def test_layers_of_no_scene_belong_to_every_one_and_are_mixed_in_their_order():
    """A running light beneath, and a warning on one LED between the scenes' layers."""
    made = design(
        layer("solid", colour="#0f0"),
        layer("solid", colour="red", scene="one", on="some"),
        layer("solid", colour="white", on="first"),
        layer("solid", colour="blue", scene="two"),
        scene=[{"name": "one", "when": "s < 1"}, {"name": "two", "fade": 1}], signals={"s": {}},
        groups={"some": "index < 2", "first": "index == 0"}, count=3,
    )  # fmt: skip
    program = made.compile()
    assert program.frame(s=0, at=0).rgb.tolist() == [[255] * 3, [255, 0, 0], [0, 255, 0]]
    mixed = program.frame(s=1, at=0.5).rgb.tolist()
    assert mixed == [[128, 128, 255], [128, 0, 128], [0, 128, 128]]
    assert program.frame(at=1.0).rgb.tolist() == [[0, 0, 255]] * 3


def test_a_button_steps_through_the_scenes_that_have_it():
    program = scenes(
        {"name": "one", "button": "b"}, {"name": "two", "button": "b"},
        {"name": "three", "button": "b"}, signals={"b": SWITCH},
    ).compile()  # fmt: skip
    presses = [0, 1, 1, 0, 1, 0, 1]
    found = colours(program, *((i / 10, {"b": press}) for i, press in enumerate(presses)))
    red, green, blue = [255, 0, 0], [0, 255, 0], [0, 0, 255]
    assert found == [red, green, green, green, blue, blue, red]


def test_scenes_by_ranges_of_a_number_by_a_mode_and_for_nothing_known():
    made = scenes(
        {"name": "one", "when": "lost(all)"}, {"name": "two", "when": "mode == 'home'"},
        {"name": "three", "when": "0.1 <= s < 0.2"},
        signals={"s": {"lost_after": 1.0}, "mode": {**MODE, "lost_after": 1.0}},
    )  # fmt: skip
    assert made.check() == []
    found = colours(
        made.compile(), (0, {}), (0.1, {"mode": 11}), (0.2, {"mode": 0, "s": 0.1}),
        (0.3, {"s": 0.2}), (0.4, {"s": 0.15}), (1.45, {}),
    )  # fmt: skip
    red, green, blue, dark = [255, 0, 0], [0, 255, 0], [0, 0, 255], [0, 0, 0]
    assert found == [red, green, blue, dark, blue, red]


def test_a_parameter_may_be_looked_up_by_a_word_or_a_number():
    colour = {"by": "mode", "hold": "#f00", "home": "mix('#000', '#f00', s)", "else": "black"}
    made = design(layer("solid", colour=colour), signals={"mode": MODE, "s": {}}, count=1)
    program = made.compile()
    bytes_at = [reds(program.frame(mode=mode, s=0.5))[0] for mode in (0, 3, 11, 4)]
    assert bytes_at == [0, 255, 128, 0]
    level = {"by": "s", "1": 0.5, "2": 1, "else": 0}
    program = design(layer("solid", level=level), signals={"s": {}}, count=1).compile()
    assert [reds(program.frame(s=s))[0] for s in (0.4, 0.6, 1.9, 3)] == [0, 47, 255, 0]


def test_a_value_shifts_the_hue_to_one_neighbour_and_the_other():
    """Orange: a low value turns it to red, a high one to yellow; its lightness stays."""
    made = design(layer("solid", colour="shift_hue('#ff8000', mix(-40, 40, s))"), signals={"s": {}})
    program = made.compile()
    low, middle, high = (program.frame(s=s).rgb[0].astype(int).tolist() for s in (0, 0.5, 1))
    assert middle == pytest.approx([255, 55, 0], abs=1)
    assert low[1] < middle[1] < high[1]
    assert low[0] == 255
    assert high[0] < 255


def test_a_preset_is_used_and_each_layer_may_say_more():
    made = design(
        layer(effect="", preset="warm"), layer(effect="", preset="warm", colour="black"),
        presets={"warm": {"effect": "solid", "colour": "red", "about": "as the cabin"}},
        groups={"half": "index < 2"}, count=4,
    )  # fmt: skip
    plain = made.model_dump(exclude_unset=True)
    plain["layer"][1]["on"] = "half"
    assert reds(fd.Design.from_values(plain).compile().frame()) == [0, 0, 255, 255]


def test_a_canvas_puts_parts_side_by_side_for_one_gradient():
    """Two strips far apart and of different size, as one row of 100 mm on a desk."""
    line = [{"name": "l", "part": [strip("a", 3), {**strip("b", 3), "turn": 90, "at": [900, 50]}]}]
    keys = {"colours": ["black", "white"], "by": "x", "canvas": "desk"}
    places = {"a": {"at": [25, 0], "scale": 2.5}, "b": {"at": [75, 0], "turn": -90, "scale": 2.5}}
    made = design(layer("gradient", **keys), line=line, canvases={"desk": places})
    assert reds(made.compile().frame()) == [0, 64, 128, 128, 191, 255]


@pytest.mark.parametrize(
    ("keys", "code", "path"),
    [
        ({"layer": [layer(preset="no", effect="")]}, "unknown-name", ("layer", 0, "preset")),
        ({"layer": [layer(effect="")]}, "missing-key", ("layer", 0, "effect")),
        ({"layer": [layer(scene="no")]}, "unknown-name", ("layer", 0, "scene")),
        ({"layer": [layer(canvas="no")]}, "unknown-name", ("layer", 0, "canvas")),
        ({"layer": [layer(colour={"by": "m", "else": "red", "x": "blue"})]}, "unknown-name",
         ("layer", 0, "colour", "x")),
        ({"layer": [layer(colour={"by": "m"})]}, "missing-key", ("layer", 0, "colour", "else")),
        ({"layer": [layer("gradient", colours=[])]}, "wrong-type", ("layer", 0, "colours")),
        ({"layer": [layer("gradient", at=[0.5])]}, "effect", ("layer", 0)),
        ({"layer": [layer("gradient", by=3)]}, "wrong-type", ("layer", 0, "by")),
        ({"layer": [layer("fill", step=99)]}, "out-of-range", ("layer", 0, "step")),
        ({"layer": [layer("fill", step="80 ms")]}, "wrong-unit", ("layer", 0, "step")),
        ({"layer": [layer("text", font="9x9")]}, "wrong-value", ("layer", 0, "font")),
        ({"layer": [layer("text", text="{s:x}")]}, "wrong-value", ("layer", 0, "text")),
        ({"layer": [layer("picture", file="no.png")]}, "file", ("layer", 0, "file")),
        ({"layer": [layer("blink", rate="x")]}, "effect", ("layer", 0)),
        ({"layer": [layer(when="s > 2")]}, "never-shows", ("layer", 0, "when")),
        ({"layer": [layer(when="s > 0.5 and s < 0.2")]}, "never-shows", ("layer", 0, "when")),
        ({"layer": [layer(when="on and off_now")]}, "never-shows", ("layer", 0, "when")),
        ({"layer": [layer(when="s * 2 > 2.5")]}, "never-shows", ("layer", 0, "when")),
        ({"layer": [layer(when="abs(s - 0.5) > 0.6 or lost(s) and s + s < -1")]}, "never-shows",
         ("layer", 0, "when")),
        ({"layer": [layer(when="m == 'a' and m == 'b'")]}, "never-shows", ("layer", 0, "when")),
        ({"scene": [{"name": "a"}, {"name": "b", "when": "s > 0.5"}]}, "never-shows",
         ("scene", 1, "when")),
        ({"scene": [{"name": "a", "when": "s > 0.2"}, {"name": "b", "when": "s > 0.5 and on"}]},
         "never-shows", ("scene", 1, "when")),
        ({"layer": [layer(cover=0.0)]}, "never-shows", ("layer", 0, "cover")),
        ({"layer": [layer(hides_below=True, blend="add")]}, "no-effect",
         ("layer", 0, "hides_below")),
        ({"scene": [{"name": "a"}]}, "unused", ("scene", 0, "name")),
        ({"presets": {"p": {"effect": "solid"}}}, "unused", ("presets", "p")),
        ({"presets": {"p": {"effect": "solid", "size": 3}}, "layer": [layer(effect="", preset="p")]},
         "unknown-parameter", ("presets", "p", "size")),
        ({"signals": {"m": {"kind": "choice"}}}, "missing-key", ("signals", "m")),
        ({"signals": {"m": {**MODE, "fallback": "no"}}}, "unknown-name",
         ("signals", "m", "fallback")),
        ({"canvases": {"c": {"no": {"at": [0, 0]}}}, "layer": [layer(canvas="c")]}, "unknown-name",
         ("canvases", "c", "no")),
    ],
)  # fmt: skip
def test_what_is_wrong_is_found(keys, code, path):
    signals = {"s": {"range": [0, 1]}, "on": SWITCH, "off_now": {**SWITCH, "of": "not on"},
               "m": {"kind": "choice", "choices": ["a", "b"]}}  # fmt: skip
    layers = keys.pop("layer", [layer()])
    signals |= keys.pop("signals", {})
    assert (code, path) in codes(design(*layers, signals=signals, **keys))


def test_conditions_that_can_hold_are_left_in_peace():
    whens = ["s > 0.5", "s >= 1", "lag(s, 1) > 3", "not lost(s)", "m != 'a' and on", "s * 2 > 1.5",
             "0.2 < s <= 0.3", "off_now", "hold(on, 1) and not on"]  # fmt: skip
    made = design(
        *(layer(when=when) for when in whens),
        scene=[{"name": "a", "when": "s > 0.5"}, {"name": "b", "when": "s > 0.2"},
               {"name": "c", "when": "on", "button": "on"}, {"name": "d", "when": "on"}],
        signals={"s": {"range": [0, 1]}, "on": SWITCH, "off_now": {**SWITCH, "of": "not on"},
                 "m": {"kind": "choice", "choices": ["a", "b"]}},
    )  # fmt: skip
    assert [finding for finding in made.check() if finding.code == "never-shows"] == []


def test_layers_that_never_show_on_a_tape_are_found_from_both_reasons():
    """One that is never on, and one that is on, and covered whenever it is."""
    made = design(
        layer(when="s > 0.2", colour="red"),
        layer(when="s > 0.9"),
        layer(when="s > 0.1", colour="blue"),
        layer("blink", rate=5, colour="lime"),
        signals={"s": {"range": [0, 1]}},
    )
    film = made.compile().film(tape(s=[i / 100 for i in range(60)]))
    _, report = made.examined.on_film(lambda _: film)
    found = {finding.path: finding.message for finding in report if finding.code == "never-on-tape"}
    assert {*found} == {("layer", 0), ("layer", 1, "when")}
    assert "never seen" in found["layer", 0]


# ---- What fades, and what is lopsided ------------------------------------------------------------------


def test_what_hides_below_hides_as_far_as_it_is_there():
    """White beneath a layer that fades in over 1 s and shows red nowhere: half way half is left."""
    dark = layer("field", colour="red", amount=0.0, hides_below=True, fade_in=1.0)
    program = design(layer(), dark, count=1).compile()
    rows = [program.frame(at=at).rgb[0, 0] for at in (0, 0.5, 1.0)]
    assert rows == [255, 128, 0]


def test_what_hides_below_hides_as_far_as_its_cover_says():
    """White beneath; 0.4 of a layer that is red on the first LED and nowhere else: 0.6 is left."""
    part = layer("field", colour="red", amount="index == 0", hides_below=True, cover=0.4)
    rows = design(layer(), part, count=2).compile().frame().rgb.tolist()
    assert rows == [[255, 153, 153], [153, 153, 153]]


def test_a_fade_is_even_and_goes_out_after_the_layer_is_off():
    """In over 0.4 s: a quarter each 0.1 s. Out over 0.2 s: a half."""
    keys = {"fade_in": 0.4, "fade_out": 0.2, "when": "on"}
    program = design(layer(**keys), signals={"on": SWITCH}, count=1).compile()
    news = [0, 1, 1, 1, 1, 0, 0, 0]
    rows = [reds(program.frame(on=on, at=i / 10))[0] for i, on in enumerate(news)]
    assert rows == [0, 64, 128, 191, 255, 128, 0, 0]


def test_a_layer_stays_on_from_when_it_came_and_not_from_when_it_went():
    """At least 0.3 s: on for 0.2 s it stays 0.1 s more."""
    program = design(layer(when="s", least_on=0.3), signals={"s": SWITCH}, count=1).compile()
    rows = [reds(program.frame(s=s, at=i / 10))[0] > 0 for i, s in enumerate([0, 1, 1, 0, 0, 0])]
    assert rows == [False, True, True, True, False, False]


def test_the_first_scene_that_holds_is_the_only_one():
    program = scenes(
        {"name": "one", "when": "s > 2"}, {"name": "two", "when": "s > 1"}, {"name": "three"},
        signals={"s": {}},
    ).compile()  # fmt: skip
    found = colours(program, (0, {"s": 3}), (1, {"s": 1.5}), (2, {"s": 0}))
    assert found == [[255, 0, 0], [0, 255, 0], [0, 0, 255]]


def test_where_no_scene_holds_any_more_the_last_one_goes_out_evenly():
    """Over 0.4 s, as long as it takes to come: a quarter of its light goes each 0.1 s."""
    above = {"one": 1, "two": 2, "three": 3}
    made = ({"name": name, "when": f"s > {most}", "fade": 0.4} for name, most in above.items())
    program = scenes(*made, signals={"s": {}}).compile()
    news = [(0, {"s": 1.5}), (0.5, {}), (0.6, {"s": 0}), *((n / 10, {}) for n in range(7, 11))]
    reds_of = [colour[0] for colour in colours(program, *news)]
    assert reds_of == [255, 255, 191, 128, 64, 0, 0]


def test_a_button_steps_only_where_the_condition_holds_as_well():
    program = scenes(
        {"name": "one", "button": "b"}, {"name": "two", "button": "b", "when": "s > 1"},
        {"name": "three"}, signals={"b": SWITCH, "s": {}},
    ).compile()  # fmt: skip
    found = colours(program, (0, {"b": 0, "s": 0}), (1, {"b": 1}), (2, {"s": 2}))
    assert found == [[255, 0, 0], [0, 0, 255], [0, 255, 0]]


def test_a_canvas_turns_counter_clockwise_about_the_middle_of_the_box_and_is_in_the_design_s_unit():
    """Three LEDs at 0, 1 and 4: their middle is 2, and after a quarter turn they stand above it."""
    part = {"name": "p", "shape": "points", "points": [[0, 0], [1, 0], [4, 0]]}
    for units in ("mm", "in"):
        made = design(
            layer("field", red="y / 10", green="x / 10", blue=0, canvas="desk"), units=units,
            line=[{"name": "l", "part": [part]}],
            canvases={"desk": {"p": {"at": [5, 4], "turn": 90, "scale": 2}}},
        )  # fmt: skip
        rgb = made.compile().frame().rgb
        assert rgb[:, 1].tolist() == [128, 128, 128]  # x = 5 for all
        assert rgb[:, 0].tolist() == [0, 51, 204]  # y = 4 + 2 * (-2, -1, 2)


def test_the_master_level_is_as_the_eye_sees_it():
    """0.6 of the eye is ((60 + 16) / 116) ** 3 = 0.281 of the light."""
    for level in (0.6, "s"):
        made = design(layer(), level=level, signals={"s": {}}, count=1)
        assert reds(made.compile().frame(s=0.6))[0] == round(255 * (76 / 116) ** 3)


@pytest.mark.parametrize(
    ("key", "text", "remedy"),
    [
        ("rate", "90 rpm", "Write 1.5, which is in Hz."),
        ("rate", "2 kHz", "Write 2000, which is in Hz."),
        ("rate", "3 Hz", "Write 3, which is in Hz."),
        ("duty", "30 %", "Write 0.3."),
        ("rate", "3 s", "Write a plain number in Hz."),
    ],
)
def test_a_number_with_a_unit_is_told_as_it_would_be_without(key, text, remedy):
    made = design(layer("blink", **{key: text}))
    (found,) = [finding for finding in made.check() if finding.code == "wrong-unit"]
    assert found.remedy == remedy


def test_what_is_bound_is_held_within_its_parameter_s_range():
    """duty goes from 0 to 1, x from -10 to 80; the ends of a range may be written."""
    made = design(layer("blink", rate=25, duty=1), signals={"s": {}}, count=1)
    assert [f for f in made.check() if f.severity == "error"] == []
    program = design(layer(cover="s"), layer(colour="s * 1", cover=0), signals={"s": {}}, count=1)
    assert [f.code for f in program.check() if f.severity == "error"]
    held = design(layer(colour="mix('black', 'red', s)", blend="add"), layer(colour="#400"),
                  signals={"s": {}}, count=1).compile()  # fmt: skip
    light, _ = held.engine.light(0, {"s": -9.0})
    assert light[:, 0].tolist() == pytest.approx([0.0578, 0, 0], abs=1e-3)
    over = design(layer(colour="mix('black', 'red', s)"), signals={"s": {}}, count=1).compile()
    assert over.engine.light(0, {"s": 3.0})[0][:, 0].tolist() == [1, 0, 0]


def test_a_look_up_takes_the_nearest_whole_number_below_0_too():
    level = {"by": "s", "-2": 1, "1": 0.5, "else": 0}
    program = design(layer("solid", level=level), signals={"s": {}}, count=1).compile()
    rows = [reds(program.frame(s=s))[0] for s in (-2.4, -1.6, -1.4, 0.6, 1.4, 1.6)]
    assert rows == [255, 255, 0, 47, 47, 0]


def test_angles_are_a_whole_turn_as_a_place():
    ring = {"name": "r", "shape": "ring", "radius": 10, "count": 4}
    made = design(layer("field", red="along", green=0, blue=0), layer("gradient", by="angle", loop=True,
                  colours=["black", "white", "black", "black"], blend="add"),
                  line=[{"name": "l", "part": [ring]}])  # fmt: skip
    rgb = made.compile().frame().rgb[:, 1].tolist()
    assert rgb == [0, 255, 0, 0]  # a quarter of the way is the second of four colours


def test_places_by_number_are_those_of_the_trail_s_order():
    """x_of of a trail that runs from the right: number 0 is the right one, 30."""
    made = design(
        layer("field", red="1 if x == x_of('back', s) else 0", green=0, blue=0), count=4,
        trails={"back": {"of": "bar", "by": "-x"}}, signals={"s": {}},
    )  # fmt: skip
    program = made.compile()
    assert reds(program.frame(s=0)) == [0, 0, 0, 255]
    assert reds(program.frame(s=2)) == [0, 255, 0, 0]
    two = {"name": "p", "shape": "points", "points": [[5, 7], [9, 3]]}
    made = design(
        layer("field", red="y_of('p', 0) / 10", green="x_of('p', 1) / 10", blue="z_of('p', 1)"),
        line=[{"name": "l", "part": [two]}],
    )  # fmt: skip
    assert made.compile().frame().rgb[0].tolist() == [179, 230, 0]  # 0.7 and 0.9


def test_a_vector_in_a_list_stands_for_each_of_its_numbers():
    signals = {"v": {"kind": "vector", "size": 3, "range": [0, 1]}}
    made = design(layer("bands", levels=["v", 1], bars=False, colours=["white"]), signals=signals)
    assert reds(made.compile().frame(v=[0, 0.2, 0.4])) == [0, 0, 51, 51, 102, 102, 255, 255]


def test_a_preset_s_own_key_gives_way_to_the_layer_s():
    made = design(
        layer(effect="", preset="p", colour="blue"), count=1,
        presets={"p": {"effect": "solid", "colour": "red"}},
    )  # fmt: skip
    assert made.compile().frame().rgb[0].tolist() == [0, 0, 255]
    assert made.settings_of(made.layer[0]) == {"colour": "blue"}
    same = design(layer("solid", preset="p", colour="blue"), presets=made.model_dump()["presets"])
    assert same.effect_of(same.layer[0]) == "solid"


def test_a_condition_below_0_can_hold_and_one_beyond_the_range_cannot():
    for when, is_told in (
        ("s < -3", False),
        ("s < -6", True),
        ("s == -5", False),
        ("s > 4", False),
    ):
        made = design(layer(when=when), signals={"s": {"range": [-5, 5]}})
        told = [f for f in made.check() if f.code == "never-shows"]
        assert bool(told) is is_told, when
    # Only between 2 and 3 both hold.
    made = design(layer(when="s > 2 and s < 3"), signals={"s": {}})
    assert [f for f in made.check() if f.code == "never-shows"] == []
    # A choice may be none of its words; a mode that is another is none of these.
    mode = {"kind": "choice", "choices": {"a": 1, "b": 2}}
    made = design(layer(when="m != 'a' and m != 'b'"), signals={"m": mode})
    assert [f for f in made.check() if f.code == "never-shows"] == []


def test_a_scene_is_hidden_only_by_one_that_holds_in_all_of_its_cases():
    above, below = {"name": "a", "when": "s > 0.5"}, {"name": "b", "when": "s > 0.2"}
    made = design(layer(scene=["a", "b"]), scene=[above, below], signals={"s": {"range": [0, 1]}})
    assert [f for f in made.check() if f.code == "never-shows"] == []
    button = {**above, "when": "s > 0.1", "button": "on"}
    made = design(layer(scene=["a", "b"]), scene=[button, below],
                  signals={"s": {"range": [0, 1]}, "on": SWITCH})  # fmt: skip
    assert [f for f in made.check() if f.code == "never-shows"] == []
