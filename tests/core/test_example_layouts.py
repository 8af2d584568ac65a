"""Example layouts, one a way in which LEDs are built in, with positions worked out by hand."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import jsonschema
import numpy as np
import pytest

import fendra as fd

S = 0.5**0.5


def strip(name: str, **keys: Any) -> dict[str, Any]:
    return {"name": name, "shape": "strip", **keys}


def line(name: str, *parts: dict[str, Any], **keys: Any) -> dict[str, Any]:
    return {"name": name, "part": [*parts], **keys}


@dataclass
class Example:
    """A design's lines, and what must come of them.

    at: `part[index]` to its place in mm, and where it faces if that is said. sizes: addresses a
    line. skipped: addresses without a spot, a line. leds: LEDs in all.
    """

    says: str
    lines: list[dict[str, Any]]
    at: dict[str, tuple[Any, ...]]
    sizes: list[int]
    leds: int
    skipped: dict[str, list[int]] = field(default_factory=dict)
    more: dict[str, Any] = field(default_factory=dict)


EXAMPLES = [
    Example(
        "a strip by LEDs a metre and a direction: 50 a metre are 20 mm apart",
        [line("a", strip("s", start=[10, 20, 5], direction="back", count=4, per_metre=50))],
        {"s[0]": (10, 20, 5), "s[1]": (10, 0, 5), "s[3]": (10, -40, 5)},
        [4], 4,
    ),
    Example(
        "a strip by degrees, and one by a vector, 3-4-5",
        [line("a", strip("s", direction=135, count=2, pitch=10),
              strip("v", direction=[3, 0, 4], count=2, pitch=10))],
        {"s[1]": (-10 * S, 10 * S, 0), "v[1]": (6, 0, 8)},
        [4], 4,
    ),
    Example(
        "inches: every length of the file is 25.4 mm long, but LEDs a metre stay so",
        [line("a", strip("s", start=[0, 0], end=[2, 0], count=3),
              strip("m", start=[0, 1], direction="right", count=2, per_metre=10),
              {"name": "k", "shape": "keys", "keys": [["a", 0, 0], ["b", 1, 0]], "at": [0, 2]})],
        {"s[1]": (25.4, 0, 0), "s[2]": (50.8, 0, 0), "m[1]": (100, 25.4, 0), "k[1]": (19.05, 50.8, 0)},
        [7], 7, more={"units": "in"},
    ),
    Example(
        "a path round a corner: 30 mm each way, LEDs 20 mm apart, so that none is at the corner",
        [line("a", {"name": "p", "shape": "path", "points": [[0, 0], [30, 0], [30, 30]], "pitch": 20})],
        {"p[1]": (20, 0, 0), "p[2]": (30, 10, 0), "p[3]": (30, 30, 0)},
        [4], 4,
    ),
    Example(
        "a path with half a circle in it: radius 10 about (10, 0), then 20 mm on",
        [line("a", {"name": "p", "shape": "path", "count": 3,
                    "points": [[0, 0], {"via": [10, 10], "to": [20, 0]}]})],
        {"p[0]": (0, 0, 0), "p[1]": (10, 10, 0), "p[2]": (20, 0, 0)},
        [3], 3,
    ),
    Example(
        "a closed path: the last LED is not on the first",
        [line("a", {"name": "p", "shape": "path", "count": 8, "closed": True,
                    "points": [[0, 0], [20, 0], [20, 20], [0, 20]]})],
        {"p[1]": (10, 0, 0), "p[2]": (20, 0, 0), "p[7]": (0, 10, 0)},
        [8], 8,
    ),
    Example(
        "a ring from the front, clockwise, outward, and one LED of it dead",
        [line("a", {"name": "r", "shape": "ring", "centre": [5, 0, 2], "radius": 10, "count": 4,
                    "start_angle": 90, "direction": "clockwise", "facing": "out", "skip": [2]})],
        {"r[0]": (5, 10, 2, 0, 1, 0), "r[1]": (15, 0, 2, 1, 0, 0), "r[3]": (-5, 0, 2, -1, 0, 0)},
        [4], 4, skipped={"a": [2]},
    ),
    Example(
        "an arc, clockwise since it ends below where it starts",
        [line("a", {"name": "b", "shape": "arc", "radius": 10, "start_angle": 90, "end_angle": -90,
                    "count": 5, "facing": "in"})],
        {"b[0]": (0, 10, 0, 0, -1, 0), "b[1]": (10 * S, 10 * S, 0), "b[2]": (10, 0, 0, -1, 0, 0),
         "b[4]": (0, -10, 0)},
        [5], 5,
    ),
    Example(
        "a 16 x 16 matrix, back and forth from its lower left corner",
        [line("a", {"name": "g", "shape": "grid", "columns": 16, "rows": 16, "pitch": 10,
                    "back_and_forth": True})],
        {"g[0]": (-75, -75, 0), "g[15]": (75, -75, 0), "g[16]": (75, -65, 0), "g[31]": (-75, -65, 0),
         "g[32]": (-75, -55, 0), "g[255]": (-75, 75, 0)},
        [256], 256,
    ),
    Example(
        "a matrix along its columns from the upper right, each from the top, wider than high",
        [line("a", {"name": "g", "shape": "grid", "columns": 3, "rows": 2, "pitch": [10, 20],
                    "first": "top-right", "wiring": "columns", "centre": [100, 0]})],
        {"g[0]": (110, 10, 0), "g[1]": (110, -10, 0), "g[2]": (100, 10, 0), "g[5]": (90, -10, 0)},
        [6], 6,
    ),
    Example(
        "a screen's frame with a gap for its stand, where the chain begins; counter-clockwise",
        [line("a", {"name": "f", "shape": "frame", "width": 40, "height": 20, "top": 2, "right": 1,
                    "bottom": 2, "left": 1, "gap": 20, "first": "gap",
                    "direction": "counter-clockwise"})],
        {"f[0]": (15, -10, 0, 0, -1, 0), "f[1]": (20, 0, 0, 1, 0, 0), "f[2]": (10, 10, 0, 0, 1, 0),
         "f[4]": (-20, 0, 0, -1, 0, 0), "f[5]": (-15, -10, 0, 0, -1, 0)},
        [6], 6,
    ),
    Example(
        "a frame with its lower side left out, from the lower left corner, upright, facing the front",
        [line("a", {"name": "f", "shape": "frame", "width": 40, "height": 20, "top": 2, "right": 1,
                    "left": 1, "first": "bottom-left", "tilt": [90, 0], "turn": 180, "at": [0, 0, 500],
                    "facing": "up"})],
        {"f[0]": (20, 0, 500, 0, 1, 0), "f[1]": (10, 0, 510), "f[2]": (-10, 0, 510), "f[3]": (-20, 0, 500)},
        [4], 4,
    ),
    Example(
        "a keyboard of two halves on two lines: staggered columns of 3, 3 and 2 keys, the right half "
        "mirrors the left; the chain runs back up every second column",
        [line("left", {"name": "l", "shape": "keys", "back_and_forth": True,
                       "columns": [{"keys": 3}, {"keys": 3, "shift": 0.25}, {"keys": 2, "shift": -1}]}),
         line("right", {"name": "r", "shape": "keys", "back_and_forth": True, "mirror": "x",
                        "at": [200, 0],
                        "columns": [{"keys": 3}, {"keys": 3, "shift": 0.25}, {"keys": 2, "shift": -1}]})],
        {"l[0]": (0, 0, 0), "l[2]": (0, -38.1, 0), "l[3]": (19.05, -33.3375, 0),
         "l[5]": (19.05, 4.7625, 0), "l[6]": (38.1, -19.05, 0), "l[7]": (38.1, -38.1, 0),
         "r[0]": (200, 0, 0), "r[5]": (180.95, 4.7625, 0), "r[7]": (161.9, -38.1, 0)},
        [8, 8], 16,
    ),
    Example(
        "four arms built alike: out along the top of each, and back along their lower sides",
        [line("arms",
              *[{"name": f"arm-{i + 1}", "shape": "assembly", "use": "arm", "turn": 90 * i,
                 "only": ["top"]} for i in range(4)],
              *[{"name": f"low-{i + 1}", "shape": "assembly", "use": "arm", "turn": 90 * i,
                 "only": ["low"]} for i in range(3, -1, -1)])],
        {"arm-1.top[0]": (60, 0, 0), "arm-1.top[2]": (100, 0, 0), "arm-2.top[0]": (0, 60, 0),
         "arm-3.top[2]": (-100, 0, 0), "arm-4.top[0]": (0, -60, 0),
         "low-4.low[0]": (0, -100, -8, 0, 0, -1), "low-1.low[1]": (60, 0, -8)},
        [20], 20,
        more={"assemblies": {"arm": {"part": [
            strip("top", start=[60, 0], end=[100, 0], count=3),
            strip("low", start=[100, 0, -8], end=[60, 0, -8], count=2, facing="down"),
        ]}}},
    ),
    Example(
        "an assembly in an assembly, the copy moved and turned, its parts fed from their far end",
        [line("a", {"name": "pod", "shape": "assembly", "use": "pair", "at": [0, 100], "turn": 180,
                    "reverse": True})],
        {"pod.two.dot[0]": (-20, 100, 0), "pod.one.dot[0]": (0, 100, 0), "pod.one.dot[1]": (-10, 100, 0)},
        [4], 4,
        more={"assemblies": {
            "one-led-pair": {"part": [strip("dot", start=[0, 0], end=[10, 0], count=2)]},
            "pair": {"part": [
                {"name": "one", "shape": "assembly", "use": "one-led-pair"},
                {"name": "two", "shape": "assembly", "use": "one-led-pair", "at": [20, 0]}]},
        }},
    ),
    Example(
        "a part on another part's axes: a ring at the end of a turned boom",
        [line("a", strip("boom", direction="right", count=2, pitch=50, turn=90, at=[0, 10]),
              {"name": "hub", "shape": "ring", "radius": 5, "count": 4, "on": "boom", "at": [60, 0]})],
        {"boom[1]": (0, 60, 0), "hub[0]": (0, 75, 0), "hub[1]": (-5, 70, 0)},
        [6], 6,
    ),
    Example(
        "a 12 V strip: one address drives three LEDs and stands at the middle of them",
        [line("a", strip("s", start=[0, 0], end=[50, 0], count=6), led="ws2811")],
        {"s[0]": (10, 0, 0), "s[1]": (40, 0, 0)},
        [2], 6,
    ),
    Example(
        "two strips in parallel: the second shows what the first does and takes no addresses",
        [line("a", strip("s", start=[0, 0], end=[30, 0], count=4),
              strip("copy", start=[0, 50], end=[30, 50], count=4, parallel_to="s"),
              strip("next", start=[0, 90], end=[10, 90], count=2))],
        {"s[3]": (30, 0, 0), "next[0]": (0, 90, 0)},
        [6], 10,
    ),
    Example(
        "a pixel that only lifts the level, and LEDs under a cover: addresses, but no spots",
        [line("a", {"name": "shifter", "shape": "hidden"},
              strip("s", start=[0, 0], end=[60, 0], count=7, skip=[0, "3-4"]))],
        {"s[1]": (10, 0, 0), "s[2]": (20, 0, 0), "s[5]": (50, 0, 0), "s[6]": (60, 0, 0)},
        [8], 7, skipped={"a": [0, 1, 4, 5]},
    ),
    Example(
        "fed from the far end, then mirrored, then tilted up, then moved",
        [line("a", strip("s", start=[10, 0], end=[30, 0], count=3, reverse=True, mirror="x",
                         at=[0, 0, 7]),
              strip("up", start=[0, 10], end=[0, 30], count=3, tilt=[90, 0], facing="front"),
              strip("down", start=[10, 0], end=[30, 0], count=3, tilt=[0, 90]))],
        {"s[0]": (-10, 0, 7), "s[2]": (-30, 0, 7), "up[0]": (0, 0, 10, 0, 0, 1), "up[2]": (0, 0, 30),
         "down[2]": (0, 0, -30, 1, 0, 0)},
        [9], 9,
    ),
    Example(
        "points with heights, each facing its own way, one of them a vector of any length",
        [line("a", {"name": "p", "shape": "points", "points": [[1, 2], [3, 4, 5], [6, 7, 8]],
                    "facing": ["left", [0, 3, 4], "out"]})],
        {"p[0]": (1, 2, 0, -1, 0, 0), "p[1]": (3, 4, 5, 0, 0.6, 0.8),
         "p[2]": (6, 7, 8, 5 / 114**0.5, 5 / 114**0.5, 8 / 114**0.5)},
        [3], 3,
    ),
]  # fmt: skip


def made(example: Example) -> fd.Design:
    return fd.Design.from_values({"line": example.lines, **example.more})


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda example: example.says[:50])
def test_every_led_is_where_it_was_worked_out_to_be(example):
    layout = made(example).layout()
    assert list(layout.line_sizes) == example.sizes
    assert len(layout.leds) == example.leds
    table = layout.table()
    for where, expected in example.at.items():
        part, index = where.rstrip("]").split("[")
        (row,) = table[(table["part"] == part) & (table["index"] == int(index))].to_dict("records")
        found = [row[key] for key in ("x", "y", "z", "facing_x", "facing_y", "facing_z")]
        assert found[: len(expected)] == pytest.approx(expected, abs=1e-6), where
    for name in layout.line_names:
        assert layout.skipped(name) == example.skipped.get(name, [])


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda example: example.says[:50])
def test_the_json_schema_takes_every_example(example):
    schema = fd.Design.model_json_schema()
    jsonschema.Draft202012Validator(schema).validate({"line": example.lines, **example.more})


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda example: example.says[:50])
def test_every_address_is_used_once_or_listed_as_skipped(example):
    layout = made(example).layout()
    for name, size in zip(layout.line_names, layout.line_sizes, strict=True):
        seen = layout.address[layout.spots_of_line(name)].tolist()
        assert sorted([*seen, *layout.skipped(name)]) == [*range(size)]
        assert seen == sorted(seen)


def test_the_halves_of_a_keyboard_are_as_far_apart_as_they_mirror_each_other():
    (example,) = [e for e in EXAMPLES if e.says.startswith("a keyboard")]
    layout = made(example).layout()
    left, right = (layout.position[layout.spots_of_part(name)] for name in "lr")
    assert left[:, 0] + right[:, 0] == pytest.approx(np.full(8, 200))
    assert left[:, 1] == pytest.approx(right[:, 1])


def test_strips_in_parallel_show_the_same_and_are_drawn_where_they_are():
    (example,) = [e for e in EXAMPLES if e.says.startswith("two strips in parallel")]
    layout = made(example).layout()
    copy, original = layout.part_row("copy"), layout.part_row("s")
    assert copy.spots == original.spots
    leds = layout.leds
    assert leds.spot[copy.leds].tolist() == leds.spot[original.leds].tolist() == [0, 1, 2, 3]
    assert leds.position[copy.leds][:, 1].tolist() == [50] * 4


def test_bytes_of_skipped_addresses_are_dark_and_chips_take_one_pixel():
    """A hidden pixel, then six LEDs on two chips of which the first is dead."""
    design = fd.Design.from_values({
        "line": [line("a", {"name": "shifter", "shape": "hidden"},
                      strip("s", start=[0, 0], end=[50, 0], count=6, skip=[0]), led="ws2811")],
        "layer": [{"name": "on", "on": "all", "effect": "solid", "colour": "red"}],
    })  # fmt: skip
    assert design.compile().frame(at=0).line_bytes() == [bytes([0, 0, 0, 0, 0, 0, 255, 0, 0])]


def test_a_white_channel_takes_what_red_green_and_blue_have_in_common():
    design = fd.Design.from_values({
        "line": [line("a", strip("s", start=[0, 0], end=[10, 0], count=2), led="sk6812-rgbw")],
        "layer": [{"name": "on", "on": "s", "effect": "solid", "colour": "white"},
                  {"name": "one", "on": "first", "effect": "solid", "colour": "red"}],
        "groups": {"first": "s[0]"},
    })  # fmt: skip
    assert design.compile().frame(at=0).line_bytes() == [bytes([0, 255, 0, 0, 0, 0, 0, 255])]
