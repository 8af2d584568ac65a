"""Copper, chips and leads: what a line is electrically, worked out by hand."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.electric.copper import copper_of, feeds_of
from fendra.core.electric.loads import count_chips, make_loads
from fendra.core.light.bytes import set_white_apart, wire_order
from helpers import strip


def wired(parts, **line):
    made = fd.Design.from_values({"line": [{"name": "a", "part": parts, **line}]})
    return made, made.layout()


def test_a_ring_s_copper_is_its_chords():
    """Four LEDs on a circle of 100 mm: chords of 141.4 mm, at 0.2 ohm a metre."""
    ring = {"name": "r", "shape": "ring", "radius": 100.0, "count": 4}
    copper = copper_of(*wired([ring]), 0)
    chord = 100 * 2**0.5
    assert copper.way_mm == pytest.approx([chord] * 3)
    assert copper.ohm == pytest.approx([0.2 * chord / 1000] * 3)
    assert copper.strips_m == pytest.approx(4 * chord / 1000)
    assert not copper.is_jump.any()


def test_inches_are_metres_too():
    """Two LEDs an inch apart are 25.4 mm apart, and two such steps of strip."""
    made = fd.Design.from_values(
        {
            "units": "in",
            "line": [
                {"name": "a", "part": [
                    {"name": "p", "shape": "strip", "start": [0, 0], "end": [1, 0], "count": 2}]}
            ],
        }
    )  # fmt: skip
    copper = copper_of(made, made.layout(), 0)
    assert copper.way_mm == pytest.approx([25.4])
    assert copper.strips_m == pytest.approx(0.0508)


def test_a_jump_is_a_wire_and_a_pixel_without_a_place_is_no_way_off():
    """300 mm of AWG 20, 0.519 mm2, there and back; the hidden pixel sits where the strip ends."""
    parts = [strip("p", 2), {"name": "h", "shape": "hidden"}, strip("q", 1, at=[310.0, 0.0])]
    copper = copper_of(*wired(parts, jump={"awg": 20}), 0)
    assert copper.way_mm == pytest.approx([10, 0, 300])
    assert copper.is_jump.tolist() == [False, True, True]
    assert copper.ohm == pytest.approx([0.002, 0, 2 * 0.3 * 0.0175 / 0.5176], rel=1e-3)
    assert copper.jumps_m == pytest.approx(0.3)


def test_three_strips_in_parallel_share_the_current():
    copies = [strip(f"c{i}", 3, at=[0.0, 9.0 * i], parallel_to="p") for i in (1, 2)]
    made, layout = wired([strip("p", 5), *copies])
    copper = copper_of(made, layout, 0)
    assert copper.ohm == pytest.approx([0.002 / 3, 0.002 / 3, 0.002, 0.002])
    assert count_chips(made, layout).tolist() == [3, 3, 3, 1, 1]
    assert copper.strips_m == pytest.approx(0.05 + 2 * 0.03)


@pytest.mark.parametrize(
    ("led", "keys", "chips"),
    [
        ("ws2811", {}, [1, 1]),  # six LEDs, three a chip
        ("ws2811", {"leds_per_address": 6}, [2]),  # two chips with the same data
        ("ws2811", {"leds_per_address": 1}, [1] * 6),
        ("ws2812b", {"leds_per_address": 2}, [2, 2, 2]),
        ("ws2812b", {"skip": [0, "2-3"]}, [1] * 6),
        ("ws2811", {"leds_per_address": 4}, [2, 1]),  # the last address has two LEDs
    ],
)
def test_chips_that_listen_to_an_address(led, keys, chips):
    made, layout = wired([strip("p", 6, **keys)], led=led)
    assert count_chips(made, layout).tolist() == chips


def test_skipped_and_hidden_chips_draw_only_while_dark():
    """Two hidden, four of which one is skipped: 6 mA dark, and three that light: 180 mA."""
    made, layout = wired([{"name": "h", "shape": "hidden", "count": 2}, strip("p", 4, skip=[1])])
    loads = make_loads(made, layout)
    white = np.full((3, 3), 255, np.uint8)
    assert loads.line_a(white) == pytest.approx([0.186])
    assert loads.address_a(0, white) == pytest.approx([0.001, 0.001, 0.061, 0.001, 0.061, 0.061])
    assert loads.dark_a(0) == pytest.approx([0.001] * 6)


def test_feeds_in_the_order_that_they_are_written():
    feeds = [{"at": "end"}, {"at": 2, "wire": {"metres": 2.0, "awg": 16}}, {"at": 99}]
    made, _ = wired([strip("p", 6)], feed=feeds)
    found = feeds_of(made, made.line[0], 6)
    assert [at for at, _ in found] == [5, 2]  # what is not there is told by a check
    assert [str(wire) for _, wire in found] == ["0.3 m of 0.5 mm²", "2 m of AWG 16"]
    assert [at for at, _ in feeds_of(made, made.line[0], 1)] == [0]


def test_white_is_set_apart_alike_everywhere():
    """On the wire and in the sums: what red, green and blue have in common is white's."""
    rng = np.random.default_rng(3)
    rgb = rng.integers(0, 256, (50, 3)).astype(np.uint8)
    apart = set_white_apart(rgb)
    assert apart.dtype == np.uint8
    assert (apart[:, :3] + apart[:, 3:] == rgb).all()
    assert (apart[:, :3].min(axis=1) == 0).all()
    assert (wire_order(rgb, "WBGR") == apart[:, [3, 2, 1, 0]]).all()
    made, layout = wired([strip("p", 50)], led="sk6812-rgbw")
    drawn = make_loads(made, layout).line_a(rgb)
    assert drawn == pytest.approx([50 * 0.001 + apart.astype(int).sum() / 255 * 0.018])


def test_lines_belong_to_the_only_controller_or_to_the_one_they_name():
    lines = [
        {"name": name, "part": [strip(f"p-{name}", 2, at=[0.0, 9.0 * i])], **keys}
        for i, (name, keys) in enumerate(
            [("a", {"controller": "x"}), ("b", {"controller": "y"}), ("c", {})]
        )
    ]
    both = fd.Design.from_values({"line": lines, "controllers": {"x": {}, "y": {}}})
    assert (both.lines_of("x"), both.lines_of("y"), both.lines_of("z")) == ([0], [1], [])
    alone = fd.Design.from_values({"line": [lines[0], lines[2]], "controllers": {"x": {}}})
    assert alone.lines_of("x") == [0, 1]
    (budget,) = alone.budget().controllers
    assert [line.line.name for line in budget.lines] == ["a", "c"]
