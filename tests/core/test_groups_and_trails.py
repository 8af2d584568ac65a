"""Groups and trails: every way to choose LEDs, and to order them."""

from __future__ import annotations

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


@pytest.mark.parametrize(
    ("keys", "says"),
    [
        ({"groups": {"g": "rng"}}, "Did you mean 'ring'?"),
        ({"groups": {"g": "b[4]"}}, "They go from 0 to 3."),
        ({"groups": {"g": "pad[entr]"}}, "has no LED 'entr'. Did you mean 'enter'?"),
        ({"groups": {"g": "z*"}}, "no name above is like 'z*'"),
        ({"groups": {"g": {"near": "a"}}}, "`near` by itself chooses nothing"),
        ({"groups": {"g": {"within": 5}}}, "`within` needs to know what to be near to"),
        ({"groups": {"g": {"of": "a", "outermost": 9}}}, "9"),
        ({"groups": {"g": {"of": "a", "without": "a"}}}, "no LED is chosen"),
        ({"trails": {"t": {"join": ["a", "-bb"]}}}, "there is no 'bb' above"),
        ({"trails": {"t": {"join": ["a"], "by": "x"}}}, "`by` would undo it"),
        ({"groups": {"g": "distance(1)"}}, "distance takes"),
    ],
)
def test_what_is_wrong_with_a_choice_is_said(keys, says):
    _, findings = choices(**keys)
    assert any(says in finding for finding in findings), findings
