"""Groups and trails: every way to choose LEDs, and to order them."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.findings import Report
from fendra.core.layout import choose_all, place
from helpers import strip

LINES = [
    {"name": "left", "part": [{**strip("a", 4), "start": [-10, 0], "end": [-40, 0]}]},
    {"name": "right", "part": [
        {**strip("b", 4), "start": [10, 0], "end": [40, 0], "facing": "right"},
        {"name": "ring", "shape": "ring", "radius": 100, "count": 16, "facing": "out"},
        {"name": "pad", "shape": "keys", "unit": 10, "at": [0, 300],
         "keys": [["esc", 0, 0], ["a", 1, 0], ["enter", 2, 0]]}]},
]  # fmt: skip
"""a: spots 0 to 3, outward to the left; b: 4 to 7, outward to the right; ring: 8 to 23; pad: 24 on."""


def choices(**keys):
    made = fd.Design.from_values({"line": LINES, **keys})
    report = Report()
    return choose_all(made, place(made), report), [str(finding) for finding in report]


@pytest.mark.parametrize(
    ("group", "spots"),
    [
        ("a", [0, 1, 2, 3]),
        ("b[0]", [4]),
        ("b[1-2]", [5, 6]),
        ("pad[enter]", [26]),
        ("name == 'esc' or name == 'enter'", [24, 26]),
        (["a", "pad[a]"], [0, 1, 2, 3, 25]),
        (["a[3]", "x == 10 and y == 0"], [3, 4]),
        ("*a*", [0, 1, 2, 3, 24, 25, 26]),
        (
            "facing_right",
            [4, 5, 6, 7, 8, 9, 10, 22, 23],
        ),  # of the ring at 0, +-22.5 and +-45 degrees
        ("facing_x > 0.99", [4, 5, 6, 7, 8]),
        ("distance(10, 0) < 1", [4]),
        ({"of": "b", "without": "x > 30"}, [4, 5, 6]),
        ({"of": ["a", "b"], "without": ["a[0]", "b[0-2]"]}, [1, 2, 3, 7]),
        ({"near": [10, 0], "within": 10}, [4, 5]),
        ({"of": "b", "near": "a", "nearest": 2}, [4, 5]),
        ({"near": "ring", "within": 15}, [0, 4]),
        ({"of": ["a", "b"], "outermost": 2}, [3, 7]),
        ({"of": "pad", "near": [0, 300], "within": 15, "outermost": 1}, [24]),
    ],
)
def test_a_group_chooses_these(group, spots):
    chosen, findings = choices(groups={"g": group})
    assert findings == []
    assert chosen["g"].spots.tolist() == spots


def order(choice) -> list[int]:
    """Spots from the trail's start to its end; those at one place by their number."""
    return [s for _, s in sorted(zip(choice.rank.tolist(), choice.spots.tolist(), strict=True))]


def test_two_strips_on_two_lines_sweep_as_one():
    """Both run outward from the middle; joined, the left one from its end, they go from left to
    right, evenly."""
    chosen, findings = choices(trails={"across": {"join": ["-a", "b"]}})
    assert findings == []
    assert order(chosen["across"]) == [3, 2, 1, 0, 4, 5, 6, 7]
    assert sorted(chosen["across"].along) == pytest.approx([i / 7 for i in range(8)])


def test_a_trail_may_go_both_ways_from_its_middle_or_begin_at_its_end():
    chosen, findings = choices(
        trails={
            "both": {"of": "a", "from_middle": True},
            "odd": {"of": "b[0-2]", "from_middle": True},
            "back": {"of": "a", "reverse": True},
            "up": {"of": "a", "by": "x"},
            "down": {"of": "a", "by": "x", "reverse": True},
        }
    )
    assert findings == []
    assert chosen["both"].rank.tolist() == [1, 0, 0, 1]
    assert chosen["odd"].along.tolist() == [1, 0, 1]
    assert order(chosen["back"]) == order(chosen["up"]) == [3, 2, 1, 0]
    assert order(chosen["down"]) == order(chosen["a"]) == [0, 1, 2, 3]


def test_trails_may_join_trails_and_each_led_stands_where_it_comes_first():
    chosen, _ = choices(
        trails={"one": {"of": "a", "by": "x"}, "two": {"join": ["one", "b[0]", "a", "-one"]}}
    )
    assert order(chosen["two"]) == [3, 2, 1, 0, 4]


def test_copies_of_an_assembly_are_chosen_together_and_apart():
    made = fd.Design.from_values({
        "assemblies": {"arm": {"part": [strip("top", 2), strip("low", 2)]}},
        "line": [{"name": "a", "part": [
            {"name": f"arm-{i}", "shape": "assembly", "use": "arm", "turn": 90 * i} for i in (1, 2)]}],
        "groups": {"tops": "arm-*.top", "ends": ["arm-1.top[1]", "arm-2.low[0]"]},
    })  # fmt: skip
    report = Report()
    chosen = choose_all(made, place(made), report)
    assert [*report] == []
    assert chosen["arm-2"].spots.tolist() == [4, 5, 6, 7]
    assert chosen["tops"].spots.tolist() == [0, 1, 4, 5]
    assert chosen["ends"].spots.tolist() == [1, 6]


ON = [
    ("b[1-2]", [5, 6]),
    (["a[3]", "pad[esc]"], [3, 24]),
    ("facing_right and x > 25 and line == 'right' and index < 4", [6, 7, 8, 9, 10]),
    ("*a*", [0, 1, 2, 3, 24, 25, 26]),
    ("left", [0, 1, 2, 3]),
    ("right[19-22]", [23, 24, 25, 26]),
    ({"of": "b", "without": "b[0]", "outermost": 2}, [5, 7]),
]
"""What may stand where LEDs are meant, and the spots that it is: in groups as in `on`."""


@pytest.mark.parametrize(("on", "spots"), ON, ids=str)
def test_on_takes_what_a_group_takes(on, spots):
    """In layers, pictures and canvases; a line's name is all of its LEDs."""
    text = on if isinstance(on, str) else "b"
    chosen, findings = choices(
        groups={"g": on},
        layer=[{"name": "l", "on": on, "effect": "solid"}],
        signals={"p": {"kind": "picture", "on": on}},
        canvases={"c": {text: {"at": [0.0, 0.0]}}},
    )
    assert findings == []
    assert chosen["g"].spots.tolist() == spots
    assert chosen.written["layer", 0, "on"].spots.tolist() == spots
    assert chosen.written["signals", "p", "on"].spots.tolist() == spots
    if isinstance(on, str):
        assert chosen.written["canvases", "c", text].spots.tolist() == spots


def test_a_name_alone_keeps_its_order_and_what_is_put_together_has_that_of_the_file():
    chosen, _ = choices(
        trails={"back": {"of": "a", "reverse": True}},
        layer=[{"name": "l", "on": on, "effect": "solid"} for on in ("back", ["back"], "right")],
    )
    ranks = [chosen.written["layer", i, "on"].rank.tolist() for i in range(3)]
    assert ranks == [[3, 2, 1, 0], [0, 1, 2, 3], [*range(23)]]


def test_what_stands_further_down_is_told_to_be_moved():
    _, (finding,) = choices(groups={"one": "two", "two": "x < 0"})
    assert "'two' comes later in the file. Move it above this." in finding


@pytest.mark.parametrize(
    ("keys", "says"),
    [
        ({"groups": {"g": "rng"}}, "Did you mean 'ring'?"),
        ({"groups": {"g": "b[4]"}}, "They go from 0 to 3."),
        ({"groups": {"g": "pad[entr]"}}, "has no LED 'entr'. Did you mean 'enter'?"),
        ({"groups": {"g": "z*"}}, "no name matches 'z*'"),
        ({"groups": {"g": {"near": "a"}}}, "`near` alone chooses nothing"),
        ({"groups": {"g": {"within": 5}}}, "`within` needs a place or a name"),
        ({"groups": {"g": {"of": "a", "outermost": 9}}}, "9"),
        ({"groups": {"g": {"of": "a", "without": "a"}}}, "this chooses no LED"),
        ({"trails": {"t": {"join": ["a", "-bb"]}}}, "group or trail 'bb'. Did you mean 'b'"),
        ({"trails": {"t": {"join": ["a"], "by": "x"}}}, "`by` would undo it"),
        ({"groups": {"g": "distance(1)"}}, "distance takes"),
    ],
)
def test_what_is_wrong_with_a_choice_is_said(keys, says):
    _, findings = choices(**keys)
    assert any(says in finding for finding in findings), findings


# ---- In inches, off centre, of unequal runs --------------------------------------------------------

UNEVEN = [{"name": "l", "part": [
    {"name": "p", "shape": "points", "points": [[0, 0], [1, 0], [2, 0], [3, 0], [20, 0]]},
    {"name": "q", "shape": "strip", "start": [0, 5], "end": [4, 5], "count": 5},
]}]  # fmt: skip
"""p: spots 0 to 4, most of them to the left; q: 5 to 9."""


def uneven(**keys):
    made = fd.Design.from_values({"line": UNEVEN, **keys})
    report = Report()
    return choose_all(made, place(made), report), [str(finding) for finding in report]


@pytest.mark.parametrize("units", ["mm", "in"])
@pytest.mark.parametrize(
    ("group", "spots"),
    [
        ({"of": "p", "near": [0, 0], "within": 2}, [0, 1, 2]),
        ({"of": "p", "near": [3, 0], "within": 1.5}, [2, 3]),
        ({"of": "all", "near": [2, 5], "nearest": 3}, [6, 7, 8]),
        ({"near": "p", "within": 7.9}, [3, 9]),  # of its middle, 10, and not of its mean, 5.2
        ({"of": "p", "outermost": 2}, [0, 4]),
        ({"of": "p", "outermost": 3}, [0, 1, 4]),
        ("distance(2, 5) < 1.5", [6, 7, 8]),
    ],
)
def test_lengths_are_in_the_unit_of_the_design(units, group, spots):
    chosen, findings = uneven(groups={"g": group}, units=units)
    assert findings == []
    assert chosen["g"].spots.tolist() == spots


def test_a_run_that_goes_both_ways_takes_as_many_places_as_it_has_ranks():
    """q from its middle has three ranks: what is joined behind it begins at the fourth."""
    trails = {"both": {"of": "q", "from_middle": True}, "whole": {"join": ["both", "p"]},
              "back": {"join": ["-both", "p"]}}  # fmt: skip
    chosen, findings = uneven(trails=trails)
    assert findings == []
    assert chosen["both"].rank.tolist() == [2, 1, 0, 1, 2]
    assert chosen["whole"].rank.tolist() == [3, 4, 5, 6, 7, 2, 1, 0, 1, 2]
    assert chosen["whole"].along == pytest.approx(np.array([3, 4, 5, 6, 7, 2, 1, 0, 1, 2]) / 7)
    assert chosen["back"].rank.tolist() == [3, 4, 5, 6, 7, 0, 1, 2, 1, 0]


def test_distances_along_a_trail_are_those_of_its_places():
    """By x: 0, 1, 2, 3 and 20 are at 0, 1/20, 1/10, 3/20 and 1, and reversed the other way."""
    trails = {"by": {"of": "p", "by": "x"}, "back": {"of": "p", "by": "x", "reverse": True},
              "middle": {"of": "p", "by": "x", "from_middle": True}}  # fmt: skip
    chosen, _ = uneven(trails=trails)
    assert chosen["by"].along == pytest.approx([0, 0.05, 0.1, 0.15, 1])
    assert chosen["by"].rank.tolist() == [0, 1, 2, 3, 4]
    assert chosen["back"].along == pytest.approx([1, 0.95, 0.9, 0.85, 0])
    assert chosen["back"].rank.tolist() == [4, 3, 2, 1, 0]
    # |2 * along - 1|: 1, 0.9, 0.8, 0.7 and 1; from the least, 0.7, on.
    assert chosen["middle"].along == pytest.approx([1, 2 / 3, 1 / 3, 0, 1])
    assert chosen["middle"].rank.tolist() == [3, 2, 1, 0, 3]


def test_places_a_hundredth_of_the_way_apart_are_two():
    """201 LEDs: from one to the next is a 200th of the way."""
    line = [{"name": "l", "part": [strip("s", 201)]}]
    made = fd.Design.from_values({"line": line, "trails": {"t": {"of": "s", "by": "x"}}})
    assert choose_all(made, place(made), Report())["t"].ranks == 201


def test_places_of_a_part_are_those_of_the_map_and_of_a_trail_its_own():
    """p[0-1] after a skipped LED; t[0] is where the trail begins."""
    line = [{"name": "l", "part": [strip("s", 5, skip=[0])]}]
    made = fd.Design.from_values({
        "line": line, "trails": {"t": {"of": "s", "by": "-x"}},
        "groups": {"first": "s[1-2]"},
    })  # fmt: skip
    report = Report()
    chosen = choose_all(made, place(made), report)
    assert [*report] == []
    assert chosen["first"].spots.tolist() == [0, 1]
    late = made.model_copy(update={"trails": {**made.trails}})
    assert choose_all(late, place(late), Report())["t"].rank.tolist() == [3, 2, 1, 0]


def test_the_outermost_are_those_farthest_from_the_middle_and_not_from_where_most_are():
    """At 0, 2, 9, 10, 11 and 12 the middle is 6: 11 is 5 away from it, 2 only 4."""
    points = [[x, 3] for x in (0, 2, 9, 10, 11, 12)]
    line = [{"name": "l", "part": [{"name": "p", "shape": "points", "points": points}]}]
    made = fd.Design.from_values({"line": line, "groups": {"g": {"of": "p", "outermost": 3}}})
    assert choose_all(made, place(made), Report())["g"].spots.tolist() == [0, 4, 5]
