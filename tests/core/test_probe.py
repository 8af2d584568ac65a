"""The bench: patterns within what supplies give, and what follows from what is seen."""

from __future__ import annotations

import re
from itertools import permutations, product

import numpy as np
import pytest

import fendra as fd
from fendra.core.errors import LayoutError
from fendra.core.findings import Report
from fendra.core.layout.chain import unfold
from fendra.core.probe.answers import judge_colours, judge_places
from fendra.core.probe.bench import PatternStep, make_bench
from fendra.core.probe.colours import deduce_order
from fendra.core.probe.deduce import (
    WHOLE,
    Looked,
    Seen,
    deduce_whole,
    explain,
    outlooks,
    possible,
    see,
)
from fendra.core.probe.marks import (
    ABOVE,
    Extent,
    marks_of,
    places_in_words,
    quadrants,
    sight_of,
)
from fendra.core.probe.patterns import PATTERNS
from fendra.core.shapes import FACINGS
from helpers import strip

WORDS = {"R": "red", "G": "green", "B": "blue", "W": "white"}

# ---- Colour orders ------------------------------------------------------------------------------


def shown(sent_as: str, real: str) -> list[str]:
    """What LEDs of an order show when each colour is sent in another: the channel at its place."""
    return [WORDS[real[sent_as.index(letter)]] for letter in "RGBW" if letter in sent_as]


@pytest.mark.parametrize("channels", ["RGB", "RGBW"])
def test_every_colour_order_is_told_from_every_other(channels):
    orders = ["".join(order) for order in permutations(channels)]
    assert len(orders) in (6, 24)
    for sent_as, real in product(orders, orders):
        found = deduce_order(sent_as, shown(sent_as, real))
        assert found.order == real
        assert ("as it is written" in found.words) == (sent_as == real)
        if channels == "RGBW":
            assert deduce_order(sent_as, shown(sent_as, real)[:3]).order == real


@pytest.mark.parametrize(
    ("sent_as", "seen", "why"),
    [
        ("GRB", ["red", "red", "blue"], "red was seen twice"),
        ("GRB", ["red", "white", "blue"], "no white when one is sent"),
        ("GRB", ["red", "yellow", "blue"], "yellow is two channels at once"),
        ("GRB", ["red", "off", "blue"], "no channel stays dark"),
        ("GRB", ["red", "green"], "three or four colours are needed, and here are 2"),
        ("GRB", ["red", "green", "blue", "red"], "all channels at once looked red"),
        ("GRB", ["red", "grey", "blue"], '"grey" is no colour that was sent'),
        ("GRBW", ["red", "green", "blue", "blue"], "blue was seen twice"),
        ("GRBW", ["red", "green", "blue", "off"], "the LEDs have no white channel"),
    ],
)
def test_answers_that_no_led_can_give_are_said_to_be_so(sent_as, seen, why):
    found = deduce_order(sent_as, seen)
    assert found.order is None
    assert found.words.startswith("impossible: ")
    assert why in found.words


def test_the_order_to_write_down_is_left_out_where_it_is_the_type_s_own():
    made = fd.Design.from_values({"line": [{"name": "a", "order": "RGB", "part": [strip()]}]})
    verdict = judge_colours(made, None, ["g", "r", "b"])
    ((change,),) = verdict.ways
    assert (change.path, change.key, change.value) == (("line", 0), "order", None)
    assert "the order is GRB, not RGB" in verdict.words
    assert judge_colours(made, "a", ["r", "g", "b", "w"]).ways == ()
    with pytest.raises(LayoutError, match=r"no line 'b'"):
        judge_colours(made, "b", ["r", "g", "b"])


# ---- Corners and the walk -----------------------------------------------------------------------

PARTS = [
    {"shape": "grid", "columns": 8, "rows": 8, "pitch": 10.0},
    {"shape": "grid", "columns": 6, "rows": 4, "pitch": 10.0, "first": "top-right", "wiring": "columns",
     "back_and_forth": True, "at": [100, 50], "centre": [20, 30]},
    {"shape": "grid", "columns": 6, "rows": 4, "pitch": 10.0, "tilt": [90, 0], "turn": 180.0, "at": [0, 50, 800]},
    {"shape": "strip", "start": [-100, 50], "end": [100, 50], "count": 20},
    {"shape": "strip", "start": [30, -50], "end": [30, 50], "count": 21},
    {"shape": "strip", "start": [30, -50, 0], "direction": "up", "pitch": 10.0, "count": 20, "leds_per_address": 2},
    {"shape": "ring", "radius": 50.0, "count": 4},
    {"shape": "keys", "columns": [{"keys": 4}, {"keys": 4, "shift": 0.2}, {"keys": 3}]},
    {"shape": "points", "points": [[0, 0], [10, 0], [20, 10], [50, 10]], "skip": [1]},
    {"shape": "arc", "radius": 50.0, "start_angle": 30.0, "end_angle": 150.0, "count": 12},
    {"shape": "path", "points": [[0, 0], [100, 0], [100, 60]], "count": 12},
]  # fmt: skip
FRAME = {
    "shape": "frame",
    "width": 200.0,
    "height": 100.0,
    "top": 10,
    "right": 6,
    "left": 6,
    "bottom": 8,
    "gap": 40.0,
}


def looked_at(part) -> Looked:
    made = fd.Design.from_values({"line": [{"name": "a", "part": [{"name": "p", **part}]}]})
    (link,) = unfold(made, Report()).links
    row = made.layout().part_row("p")
    return Looked(link, part.get("leds_per_address", 1), 1.0, frozenset(row.skipped))


@pytest.mark.parametrize("part", PARTS, ids=lambda part: part["shape"])
def test_every_combination_of_mistakes_is_worked_out_from_what_is_seen(part):
    """Whatever keys are wrong, alone or together, corners and walk lead to where the LEDs are."""
    every = outlooks(looked_at(part))
    assert len(every) >= 16
    for real in every:
        best = explain(every, real.seen)[0]
        assert best.position == pytest.approx(real.position, abs=0.02), real.changes


def test_a_frame_s_wrong_corner_and_direction_are_worked_out_and_each_single_mistake():
    every = outlooks(looked_at(FRAME))
    for real in every:
        if {*real.changes} <= {"first", "direction", "reverse"} or len(real.changes) == 1:
            found = explain(every, real.seen)
            assert any(np.allclose(e.position, real.position) for e in found), real.changes


@pytest.mark.parametrize("count", [5, 12, 16])
@pytest.mark.parametrize("direction", ["clockwise", "counter-clockwise"])
def test_a_ring_s_first_led_may_be_said_in_degrees(count, direction):
    written = {
        "shape": "ring",
        "radius": 50.0,
        "count": count,
        "start_angle": 15.0,
        "centre": [5, 6],
    }
    for angle in (15.0, -70.0, 112.5, 359.0):
        found = explain(possible(looked_at(written), angle), Seen(runs=direction))
        real = looked_at({**written, "start_angle": angle, "direction": direction}).written
        assert found[0].position == pytest.approx(real, abs=1e-6)


@pytest.mark.parametrize(
    ("part", "text", "changes"),
    [
        (PARTS[0], "red=front-right green=front-left", {"first": "bottom-right"}),
        (PARTS[0], "start=front-left runs=right then=jumps", {"first": "top-left"}),
        (
            PARTS[0],
            "start=top-left runs=right then=turns",
            {"first": "top-left", "back_and_forth": True},
        ),
        (PARTS[0], "start=rear-left, runs=front, then=jumps", {"wiring": "columns"}),
        (PARTS[2], "red=top-right green=top-left", {"first": "bottom-right"}),
        (PARTS[3], "start=right", {"reverse": True}),
        (PARTS[3], "red=right green=left", {"reverse": True}),
        (PARTS[5], "start=top", {"reverse": True}),
        (PARTS[3], "runs=front", {"turn": 90.0, "at": (50.0, 50.0, 0.0)}),
        (PARTS[9], "start=left runs=clockwise", {"reverse": True}),
        (
            FRAME,
            "start=back-left runs=right",
            {"first": "bottom-left", "direction": "counter-clockwise"},
        ),
        (FRAME, "start=top-left runs=left", None),
        (PARTS[0], "red=front-left green=front-right start=rear-left runs=right then=jumps", {}),
    ],
)
def test_the_line_to_change_follows_from_the_answers(part, text, changes):
    made = fd.Design.from_values({"line": [{"name": "a", "part": [{"name": "p", **part}]}]})
    verdict = judge_places(make_bench(made, made.layout(), part="p"), "p", text)
    assert verdict.is_explained == (changes is not None)
    if changes:
        way = verdict.ways[0]
        assert {change.key: change.value for change in way} == changes
        assert {change.path for change in way} == {("line", 0, "part", 0)}
    elif changes is not None:
        assert verdict.words.endswith("the map is right.")


@pytest.mark.parametrize(("name", "part"), [
    ("pad", "knob"), ("pad", "keys"), ("heron", "hub-right"), ("drone", "fin"), ("drone", "left.edge"),
    ("cabinet", "bezel"), ("cabinet", "side-left"), ("bare", "tail-bar"),
])  # fmt: skip
def test_what_the_pattern_says_of_a_part_is_found_to_be_right(name, part):
    """The words of the pattern, given back as the answer, ask for no change."""
    made = fd.load(fd.demo_file(f"{name}.toml"))
    bench = make_bench(made, made.layout(), part=part)
    (step,) = PATTERNS["corners"].steps(bench, 10)
    red, green = re.search(r"red at (\S+), green at (\S+),", step.words).groups()
    verdict = judge_places(bench, part, f"red={red} green={green}")
    assert verdict.words == f"part '{part}': the map is right."


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("red=frnt-left", "Did you mean 'front-left'?"),
        ("rde=front-left", "Did you mean 'red'?"),
        ("red", "as in red=front-left"),
        ("runs=up-left", "says nothing here"),
        ("then=stops", "jumps, turns"),
    ],
)
def test_answers_that_say_nothing_are_told(text, says):
    made = fd.Design.from_values({"line": [{"name": "a", "part": [{"name": "p", **PARTS[0]}]}]})
    with pytest.raises(LayoutError, match=says.replace("?", r"\?")):
        judge_places(make_bench(made, made.layout(), part="p"), "p", text)


HERON = fd.load(fd.demo_file("heron.toml"))


@pytest.mark.parametrize("turned", WHOLE, ids=lambda turned: turned.words)
def test_a_whole_map_that_is_turned_or_mirrored_is_told_with_the_cure(turned):
    """The cure, done to every place, brings the mark back to where it is seen."""
    bench = make_bench(HERON, HERON.layout())
    position, facing = bench.position, bench.facing
    sight = sight_of(position, facing)
    assert sight == ABOVE
    flat = sight.flat(position)
    red, green = quadrants(flat)
    real = flat @ np.array(turned.matrix).T
    seen = Seen(*places_in_words(sight, real, red, green))
    (found,) = deduce_whole(position, sight, seen)
    assert found is turned
    x, y, z = position.T
    cured = np.stack(eval(found.cure(sight), {"x": x, "y": y, "z": z}), axis=1)
    assert cured[:, :2] == pytest.approx(real)
    assert cured[:, 2] == pytest.approx(z)


def test_the_mark_is_red_at_the_front_left_and_green_at_the_front_right():
    bench = make_bench(HERON, HERON.layout())
    (step,) = PATTERNS["corners"].steps(bench, 10)
    x, y, _ = bench.position[step.rows].T
    middle_y = (bench.position[:, 1].min() + bench.position[:, 1].max()) / 2
    assert (y > middle_y).all()
    assert ((step.light[:, 0] > 0) == (x < 0)).all()
    assert "red at front-left, green at front-right" in step.words


def test_what_is_seen_of_a_right_map_is_what_the_pattern_says():
    looked = looked_at(PARTS[0])
    assert see(looked, looked.written) == Seen(
        "front-left", "front-right", "back-left", "right", "jumps"
    )


# ---- Patterns, level and current ----------------------------------------------------------------


def bench_of(parts, supplies=None, **keys):
    line = {"name": "a", "part": parts, **keys}
    made = fd.Design.from_values({"line": [line], "supplies": supplies or {}})
    return make_bench(made, made.layout())


def test_the_current_of_a_step_is_worked_out_chip_by_chip():
    """10 LEDs: 10 x 1 mA dark; 4 of them white at half: 4 x 3 x 20 mA x 0.5 = 0.12 A more. Each LED in
    parallel draws as much again: the first three have one, so 3 mA and 3 x 3 x 20 x 0.5 mA more."""
    walk = PATTERNS["colours"]
    bench = bench_of([strip("s", 10)])
    white = walk.steps(bench, 10)[3]
    assert bench.draw_a(white, 0.5)[0] == pytest.approx(10 * 0.001 + 10 * 3 * 0.02 * 0.5)
    double = bench_of([strip("s", 10), strip("t", 3, at=[0, 9], parallel_to="s")])
    white = walk.steps(double, 10)[3]
    assert double.draw_a(white, 0.5)[0] == pytest.approx(0.013 + 13 * 3 * 0.02 * 0.5)
    rgbw = bench_of([strip("s", 10)], led="sk6812-rgbw")
    white = walk.steps(rgbw, 10)[3]  # white is its own channel there
    assert rgbw.draw_a(white, 1.0)[0] == pytest.approx(0.01 + 10 * 0.018)


@pytest.mark.parametrize("name", sorted(PATTERNS))
@pytest.mark.parametrize("amps", [None, 0.3, 20.0])
def test_no_pattern_draws_more_than_the_supply_bears(name, amps):
    """0.5 A where nothing is said; 80 % of it, all of it for the ramp."""
    supplies = {} if amps is None else {"five": {"amps": amps}}
    bench = bench_of([strip("s", 60), strip("t", 60, at=[0, 9])], supplies, supply="five")
    pattern = PATTERNS[name]
    steps = pattern.steps(bench, 10)
    level = pattern.level(bench, steps)
    drawn = max(bench.draw_a(step, level)[0] for step in steps)
    assert drawn <= (amps or 0.5) * pattern.share + 1e-9
    assert 0 < level <= pattern.most
    if amps == 20.0:  # 7.32 A at full white
        assert level == pattern.most


def test_a_walk_lights_every_address_once_also_those_that_are_not_seen():
    bench = bench_of([{"name": "h", "shape": "hidden"}, strip("s", 3, skip=[1])])
    steps = PATTERNS["walk"].steps(bench, 4)
    assert [step.rows.tolist() for step in steps] == [[0], [1], [2], [3]]
    assert {step.seconds for step in steps} == {0.25}
    assert [step.words for step in steps] == [
        "line 'a', address 0: 'h' 0, skipped: you see nothing if that is true",
        "line 'a', address 1: 's' 0 at 0, 0, 0",
        "line 'a', address 2: 's' 1, skipped: you see nothing if that is true",
        "line 'a', address 3: 's' 2 at 20, 0, 0",
    ]
    assert bench.frame(steps[2], 0.2).line_bytes() == [bytes([0] * 6 + [51] * 3 + [0] * 3)]


def test_counting_marks_tens_and_hundreds_of_a_chain_of_any_length():
    made = fd.Design.from_values({"line": [{"name": "a", "part": [strip()]}]})
    bench = make_bench(made, made.layout(), leds=250)
    (step,) = PATTERNS["count"].steps(bench, 10)
    (sent,) = bench.frame(step, 0.2).line_bytes()
    pixels = np.frombuffer(sent, np.uint8).reshape(-1, 3)  # green, red, blue
    assert len(pixels) == 250
    assert np.flatnonzero((pixels == [0, 51, 0]).all(axis=1)).tolist() == [99, 199]
    blue = [n for n in range(9, 250, 10) if n not in (99, 199)]
    assert np.flatnonzero((pixels == [0, 0, 51]).all(axis=1)).tolist() == blue
    assert pixels[0].tolist() == [51, 0, 0]
    assert pixels[1].tolist() == [6, 6, 6]


def test_each_line_blinks_its_number_in_its_colour():
    bench = make_bench(HERON, HERON.layout())
    steps = PATTERNS["lines"].steps(bench, 10)
    blinks = dict.fromkeys(bench.addresses.line_names, 0)
    for step in steps:
        for number in {*bench.addresses.line[step.rows].tolist()}:
            blinks[bench.addresses.line_names[number]] += 1
    assert blinks == {"front": 1, "deck": 2, "tail": 3}
    assert "line 'deck' on pin GP3 is green and blinks twice" in steps[0].words


def test_a_plane_of_light_crosses_every_axis_that_there_is():
    bench = bench_of([strip("s", 9)])
    steps = PATTERNS["axes"].steps(bench, 10)
    assert [step.words for step in steps if step.words] == [
        "a plane of red light moves from left to right"
    ]
    lit = [row for step in steps for row in step.rows.tolist()]
    assert [*dict.fromkeys(lit)] == [*range(9)]


def test_line_and_part_narrow_what_is_lit():
    layout = HERON.layout()
    assert len(make_bench(HERON, layout, line="tail").chosen) == 30
    assert len(make_bench(HERON, layout, part="hub-left").chosen) == 16
    drone = fd.load(fd.demo_file("drone.toml"))
    assert len(make_bench(drone, drone.layout(), part="left").chosen) == 17
    for keys, says in [
        ({"line": "tale"}, "Did you mean 'tail'"),
        ({"part": "hub-lft"}, "Did you mean 'hub-left'"),
        ({"line": "tail", "part": "hub-left"}, "not on line 'tail'"),
        ({"leds": 9}, "which line has 9 LEDs"),
    ]:
        with pytest.raises(LayoutError, match=says):
            make_bench(HERON, layout, **keys)
    cabinet = fd.load(fd.demo_file("cabinet.toml"))
    with pytest.raises(LayoutError, match="shows what another shows"):
        make_bench(cabinet, cabinet.layout(), part="side-right")


# ---- Unequal lines, in inches, and colours one by one --------------------------------------------------


@pytest.mark.parametrize(
    ("sent_as", "seen", "order"),
    [
        ("GRB", ["green", "blue", "red"], "BGR"),  # red was sent second: G is there
        ("RGB", ["blue", "red", "green"], "BRG"),
        ("GRBW", ["red", "green", "white", "blue"], "GRWB"),
        ("GRBW", ["green", "white", "blue"], "WGBR"),
        ("WRGB", ["red", "green", "blue"], "WRGB"),
    ],
)
def test_the_order_puts_what_was_seen_where_it_was_sent(sent_as, seen, order):
    assert deduce_order(sent_as, seen).order == order


def test_a_map_in_inches_is_moved_by_inches():
    """A strip off its own origin, wired the other way up: turned by 180 degrees about its middle."""
    part = {
        "name": "p",
        "shape": "strip",
        "start": [2, 1],
        "end": [12, 1],
        "count": 11,
        "at": [3, 4],
    }
    for units in ("mm", "in"):
        made = fd.Design.from_values({"units": units, "line": [{"name": "a", "part": [part]}]})
        bench = make_bench(made, made.layout(), part="p")
        verdict = judge_places(bench, "p", "start=right")
        for way in verdict.ways:
            changes = {change.key: change.value for change in way}
            if "at" in changes:
                moved = {**part, **{k: v for k, v in changes.items() if v is not None}}
                again = fd.Design.from_values(
                    {"units": units, "line": [{"name": "a", "part": [moved]}]}
                )
                box = np.sort(again.layout().position[:, 0]), np.sort(made.layout().position[:, 0])
                assert box[0] == pytest.approx(box[1], abs=1e-3)
        assert {change.key for way in verdict.ways for change in way} >= {"reverse"}
    grid = {"name": "p", "shape": "grid", "columns": 6, "rows": 4, "pitch": 1.0, "at": [30, 20],
            "centre": [5, 2]}  # fmt: skip
    made = fd.Design.from_values({"units": "in", "line": [{"name": "a", "part": [grid]}]})
    verdict = judge_places(make_bench(made, made.layout(), part="p"), "p",
                           "red=front-right green=front-left start=back-right runs=left")  # fmt: skip
    for way in verdict.ways:
        changes = {change.key: change.value for change in way}
        if "mirror" in changes:
            assert changes["at"] == (pytest.approx(40), 20, 0)  # its middle, 35, stays


@pytest.mark.parametrize(("units", "unit_mm"), [("mm", 1.0), ("in", 25.4)])
def test_what_is_turned_or_mirrored_stays_about_its_middle(units, unit_mm):
    """A grid that is neither square nor at its own origin, turned by a quarter already."""
    grid = {"name": "p", "shape": "grid", "columns": 6, "rows": 3, "pitch": 2.0, "at": [30, 20],
            "centre": [5, 2], "turn": 90}  # fmt: skip
    made = fd.Design.from_values({"units": units, "line": [{"name": "a", "part": [grid]}]})
    (link,) = unfold(made, Report()).links
    looked = Looked(link, 1, unit_mm, frozenset())
    moved = [each for each in outlooks(looked) if {"turn", "mirror"} & {*each.changes}]
    assert len(moved) > 10
    for each in moved:
        ends = each.position.min(axis=0) + each.position.max(axis=0)
        assert ends / 2 == pytest.approx([28 * unit_mm, 25 * unit_mm, 0], abs=0.02), each.changes


def test_a_part_that_is_turned_may_be_a_quarter_a_half_or_three_quarters_off():
    part = {"shape": "grid", "columns": 6, "rows": 3, "pitch": 2.0, "turn": 100}
    turns = {each.changes.get("turn") for each in outlooks(looked_at(part))}
    assert turns == {None, 190, 280, 10}


def test_marks_need_one_led_that_has_a_place():
    for part, words in (({"name": "p", "shape": "hidden", "count": 3}, "nothing here has a place"),
                        ({"name": "p", "shape": "points", "points": [[4, 9]]}, "red at ")):  # fmt: skip
        made = fd.Design.from_values({"line": [{"name": "a", "part": [part]}]})
        assert words in marks_of(make_bench(made, made.layout())).words


def test_the_number_of_leds_is_that_of_the_line_that_is_named():
    lines = [
        {"name": n, "part": [strip(n, c, at=[0, 9 * i])]}
        for i, (n, c) in enumerate((("a", 3), ("b", 5)))
    ]
    made = fd.Design.from_values({"line": lines})
    bench = make_bench(made, made.layout(), line="b", leds=8)
    assert bench.addresses.line_sizes == (3, 8)
    assert len(bench.chosen) == 8
    assert bench.chosen[0] == 3


def test_a_slow_bench_supply_gives_what_dark_leds_leave_of_it():
    """100 dark LEDs draw 0.1 A; of 0.8 * 0.5 A 0.3 are left: white wants 6 A, so a level of 0.05."""
    bench = bench_of([strip("s", 100)])
    steps = PATTERNS["colours"].steps(bench, 10)
    assert bench.level_for(steps[3:]) == pytest.approx(0.05)
    double = bench_of([strip("s", 50), strip("t", 50, at=[0, 9], parallel_to="s")])
    assert double.dark_a == pytest.approx([0.1])
    assert double.level_for(PATTERNS["colours"].steps(double, 10)[3:]) == pytest.approx(0.05)


def test_what_is_lit_at_all_is_not_dark_and_nothing_is_beyond_full():
    bench = bench_of([strip("s", 3)])
    step = PatternStep(np.array([0, 2]), np.array([[1, 0.5, 0], [0.001, 0, 1]]), "", 1.0)
    assert bench.frame(step, 0.01).rgb.tolist() == [[3, 1, 0], [0, 0, 0], [1, 0, 3]]
    assert bench.frame(step, 2.0).rgb.tolist() == [[255, 255, 0], [0, 0, 0], [1, 0, 255]]


def test_a_three_channel_type_draws_nothing_for_white():
    """Of a type with four currents, wired as one of three letters, only three count."""
    bench = bench_of([strip("s", 10)], led="sk6812-rgbw")
    white, red = (PATTERNS["colours"].steps(bench, 10)[i] for i in (3, 0))
    assert bench.full_a(red) == pytest.approx([0.18])
    assert bench.full_a(white) == pytest.approx([0.18])


def test_every_line_blinks_from_the_first_blink_on():
    bench = make_bench(HERON, HERON.layout())
    steps = PATTERNS["lines"].steps(bench, 10)
    lit = [sorted({*bench.addresses.line[step.rows].tolist()}) for step in steps if len(step.rows)]
    assert lit == [[0, 1, 2], [1, 2], [2]]


def test_tens_are_marked_at_the_tenth():
    bench = bench_of([strip("s", 25)])
    (step,) = PATTERNS["count"].steps(bench, 10)
    is_blue = (step.light == [0, 0, 1]).all(axis=1)
    assert np.flatnonzero(is_blue).tolist() == [9, 19]


def test_a_plane_is_as_thick_as_its_step():
    """240 mm in 24 steps: with half a step on each side every LED is lit once or twice."""
    bench = bench_of([{**strip("s", 49), "end": [240.0, 0.0]}])
    counts = np.zeros(49, int)
    for step in PATTERNS["axes"].steps(bench, 10):
        counts[step.rows] += 1
        assert len(step.rows) >= 3
    assert counts.min() >= 2


def test_the_ramp_is_even_to_the_eye():
    """Of 20 steps the tenth is half as bright: 0.214 of the light (sRGB)."""
    bench = bench_of([strip("s", 5)], {"five": {"amps": 5}}, supply="five")
    steps = PATTERNS["ramp"].steps(bench, 10)
    assert steps[9].light[0] == pytest.approx([0.2140] * 3, abs=1e-3)
    assert steps[19].light[0] == pytest.approx([1] * 3)
    assert "white at 0.50" in steps[9].words


@pytest.mark.parametrize(
    ("facing", "words", "right"),
    [("front", "from the front", -1), ("back", "from behind", 1)],
)
def test_upright_leds_are_looked_at_from_where_they_face(facing, words, right):
    position = np.array([[0.0, 0, 0], [100, 0, 0], [100, 0, 80]])
    sight = sight_of(position, np.tile(FACINGS[facing], (3, 1)))
    assert words in sight.words
    assert sight.flat(position)[1].tolist() == [100 * right, 0]
    assert sight.place(sight.flat(position)[2], Extent.of(sight.flat(position))) == (
        "top-right" if right > 0 else "top-left"
    )


@pytest.mark.parametrize(
    ("facing", "words"), [("left", "from its left"), ("right", "from its right")]
)
def test_and_from_the_sides(facing, words):
    position = np.array([[0.0, 0, 0], [0, 100, 0], [0, 100, 80]])
    assert words in sight_of(position, np.tile(FACINGS[facing], (3, 1))).words


@pytest.mark.parametrize(
    ("x", "y", "place"),
    [(10, 10, "back-left"), (50, 10, "back"), (90, 10, "back-right"), (10, 50, "left"),
     (50, 50, "middle"), (50, 62, "middle"), (62, 90, "front"), (90, 90, "front-right")],
)  # fmt: skip
def test_places_are_thirds(x, y, place):
    extent = Extent(np.zeros(2), np.array([100.0, 100.0]))
    assert ABOVE.place(np.array([x, y]), extent) == place


def test_people_say_rear_and_mean_the_back():
    bench = bench_of([{"name": "p", **PARTS[0]}][:1])
    said = judge_places(
        bench, "p", "red=front-left green=front-right start=rear-left runs=right then=jumps"
    )
    assert said.words.endswith("the map is right.")


def test_the_first_led_of_a_ring_may_be_an_led_off():
    """Of 16 LEDs, 22.5 degrees apart, fed from the far end the first is one before the start."""
    ring = {
        "name": "p",
        "shape": "ring",
        "radius": 50.0,
        "count": 16,
        "start_angle": 90.0,
        "reverse": True,
    }
    made = fd.Design.from_values({"line": [{"name": "a", "part": [ring]}]})
    bench = make_bench(made, made.layout(), part="p")
    verdict = judge_places(bench, "p", "start=67.5 runs=clockwise")
    assert verdict.words == "part 'p': the map is right."
