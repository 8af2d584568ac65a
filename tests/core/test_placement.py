"""Placement: what holds for every shape, wherever it is put."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.findings import Report
from fendra.core.layout.choice import choose_all
from fendra.core.layout.listing import list_parts
from fendra.core.limits import PARTS
from helpers import strip
from strategies import designs, examples, parts, placements, shapes


def layout_of(*parts, **keys) -> fd.Layout:
    return fd.Design.from_values({"line": [{"name": "a", "part": [*parts]}], **keys}).layout()


def distances(points):
    return np.linalg.norm(points[:, None] - points[None], axis=2)


@given(parts("p"))
def test_reverse_twice_is_as_it_was(part):
    """A part that is reversed in a reversed assembly has every LED where it was, facing as it did."""
    plain = layout_of({**part, "reverse": False})
    inner = {"part": [{**part, "reverse": True}]}
    outer = {"name": "copy", "shape": "assembly", "use": "inner", "reverse": True}
    twice = layout_of(outer, assemblies={"inner": inner})
    assert twice.leds.position.tolist() == plain.leds.position.tolist()
    assert twice.leds.facing.tolist() == plain.leds.facing.tolist()
    once = layout_of({**part, "reverse": True})
    assert once.leds.position.tolist() == plain.leds.position[::-1].tolist()


@given(shapes(), placements, placements)
def test_mirror_rotation_and_placement_keep_distances(shape, placement, outer):
    """Also where the part lies in the axes of another; the LEDs of one chip stay its own."""
    still = {"name": "p", **shape, "leds_per_address": 1}
    moved = {**still, **placement, "leds_per_address": 1, "on": "base"}
    base = {"name": "base", "shape": "points", "points": [[0, 0]], **outer}
    before = layout_of(still).leds.position
    after = layout_of(base, moved)
    after = after.leds.position[after.part_row("p").leds]
    if placement.get("reverse"):
        after = after[::-1]
    assert distances(after) == pytest.approx(distances(before), abs=1e-6)


@examples(50)
@given(designs())
def test_every_address_is_used_once_or_skipped_and_every_led_shows_a_spot_or_none(raw):
    layout = fd.Design.from_values(raw).layout()
    for name, size in zip(layout.line_names, layout.line_sizes, strict=True):
        seen = layout.address[layout.spots_of_line(name)].tolist()
        assert sorted([*seen, *layout.skipped(name)]) == [*range(size)]
    leds = layout.leds
    shown = leds.spot >= 0
    assert {*leds.spot[shown].tolist()} == {*range(len(layout))}
    assert (layout.address[leds.spot[shown]] == leds.address[shown]).all()
    assert np.linalg.norm(leds.facing, axis=1) == pytest.approx(np.ones(len(leds)))
    assert np.linalg.norm(layout.facing, axis=1) == pytest.approx(np.ones(len(layout)))


@examples(50)
@given(designs())
def test_the_listing_has_every_part_and_every_address_once(raw):
    layout = fd.Design.from_values(raw).layout()
    for name, size in zip(layout.line_names, layout.line_sizes, strict=True):
        rows = [part.to_dict() for part in list_parts(layout) if part.line == name]
        addresses = [a for row in rows for a in range(row["first"], row["last"] + 1)]
        assert addresses == [*range(size)]


@pytest.mark.parametrize(
    ("part", "direction", "facing"),
    [
        (strip("s", 3), "right", "up"),
        ({"name": "s", "shape": "strip", "start": [0, 0], "end": [-50, 50], "count": 3}, "left-front", "up"),
        ({"name": "r", "shape": "ring", "radius": 9, "count": 8, "direction": "clockwise"}, "clockwise", "up"),
        ({"name": "r", "shape": "ring", "radius": 9, "count": 8, "facing": "out"}, "counter-clockwise", "mixed"),
        ({"name": "g", "shape": "grid", "columns": 3, "rows": 3, "pitch": 9, "tilt": [90, 0]}, "begins right", "back"),
        ({"name": "p", "shape": "points", "points": [[1, 1]], "facing": "down"}, "", "down"),
        ({"name": "h", "shape": "hidden"}, "", ""),
    ],
)  # fmt: skip
def test_the_listing_says_how_a_part_runs_and_looks(part, direction, facing):
    (row,) = list_parts(layout_of(part))
    assert (row.direction, row.facing) == (direction, facing)


@given(st.integers(1, 30), st.integers(1, 4), st.sets(st.integers(0, 29)))
def test_leds_that_share_an_address_stand_together(count, per, dead):
    """The spot of an address is at the middle of its LEDs; a dead one has none."""
    addresses = -(-count // per)
    dead = {place for place in dead if place < addresses}
    assume(len(dead) < addresses)
    layout = layout_of(strip("s", count, leds_per_address=per, skip=sorted(dead)))
    assert layout.line_sizes == (addresses,)
    assert layout.skipped("a") == sorted(dead)
    for spot, address in enumerate(layout.address.tolist()):
        mine = [10.0 * i for i in range(count) if i // per == address]
        assert layout.position[spot, 0] == pytest.approx(sum(mine) / len(mine))
        assert layout.index[spot] == address


# ---- Off centre, about two axes, in inches --------------------------------------------------------


@pytest.mark.parametrize(
    ("keys", "place"),
    [
        # Mirrored, then tilted about x, then about y, then turned about z, then moved.
        ({"tilt": [90, 0]}, (1, -3, 2)),  # y becomes z, and z minus y
        ({"tilt": [0, 90]}, (3, 2, -1)),  # z becomes x, and x minus z
        ({"tilt": [90, 90]}, (2, -3, -1)),
        ({"tilt": [90, 90], "turn": 90}, (3, 2, -1)),
        ({"turn": 270}, (2, -1, 3)),
        ({"turn": -90}, (2, -1, 3)),
        ({"turn": 180}, (-1, -2, 3)),
        ({"tilt": [270, 0]}, (1, 3, -2)),
        ({"mirror": "y", "turn": 90}, (2, 1, 3)),
        ({"mirror": "z", "tilt": [90, 0]}, (1, 3, 2)),
        ({"turn": 30}, (3**0.5 / 2 - 1, 0.5 + 3**0.5, 3)),
    ],
)
def test_the_place_1_2_3_of_a_part_goes_there(keys, place):
    layout = layout_of(
        {"name": "p", "shape": "points", "points": [[1, 2, 3]], "at": [10, 20, 30], **keys}
    )
    moved = [a + b for a, b in zip(place, (10, 20, 30), strict=True)]
    assert layout.position[0] == pytest.approx(moved)


def test_a_part_on_a_turned_part_is_turned_and_moved_with_it():
    """The base is turned by 90 degrees and at (100, 50): its (10, 0) is at (100, 60) of the thing."""
    base = {"name": "base", "shape": "points", "points": [[0, 0]], "at": [100, 50], "turn": 90}
    part = {"name": "p", "shape": "points", "points": [[1, 0]], "at": [10, 0], "on": "base",
            "facing": "right"}  # fmt: skip
    layout = layout_of(base, part)
    assert layout.position[1] == pytest.approx([100, 61, 0])
    assert layout.facing[1] == pytest.approx([0, 1, 0])


def test_inches_are_25_4_mm_everywhere_but_in_facings():
    layout = layout_of(strip("s", 3), units="in")
    assert layout.position[:, 0] == pytest.approx([0, 254, 508])
    assert layout.in_unit(layout.position)[:, 0] == pytest.approx([0, 10, 20])
    assert layout.facing[0].tolist() == [0, 0, 1]
    spaced = {"name": "s", "shape": "strip", "start": [0, 0], "direction": 90, "count": 3,
              "per_metre": 100}  # fmt: skip
    assert layout_of(spaced, units="in").position[:, 1] == pytest.approx([0, 10, 20])
    pad = {"name": "k", "shape": "keys", "keys": [["a", 0, 0], ["b", 1, -2]]}
    assert layout_of(pad, units="in").position[1] == pytest.approx([19.05, -38.1, 0])
    assert layout_of({**pad, "unit": 1}, units="in").position[1] == pytest.approx([25.4, -50.8, 0])


def test_names_and_facings_of_a_reversed_part_go_with_its_leds():
    part = strip("s", 3, names=["a", "b", "c"], facing=["left", "up", "right"], reverse=True)
    layout = layout_of(part)
    assert layout.names == ("c", "b", "a")
    assert layout.facing[:, 0].tolist() == [1, 0, -1]
    assert layout.position[:, 0].tolist() == [20, 10, 0]


def test_leds_of_one_chip_have_its_first_name_and_look_where_they_look_together():
    part = strip("s", 4, names=["a", "b", "c", "d"], leds_per_address=2,
                 facing=["up", "right", "left", "right"])  # fmt: skip
    layout = layout_of(part)
    assert layout.names == ("a", "c")
    assert layout.facing[0] == pytest.approx([0.5**0.5, 0, 0.5**0.5])
    assert layout.facing[1] == pytest.approx([-1, 0, 0])  # they look apart: the first one counts


def test_a_reversed_assembly_is_wired_from_its_last_part_each_from_its_end():
    parts = [strip("a", 2), strip("b", 2, at=[100, 0], reverse=True)]
    copy = {"name": "c", "shape": "assembly", "use": "two", "reverse": True}
    layout = layout_of(copy, assemblies={"two": {"part": parts}})
    assert layout.part_names == ("c.b", "c.a")
    assert layout.position[:, 0].tolist() == [100, 110, 10, 0]


def test_reverse_changes_the_wire_and_nothing_else():
    """Seven LEDs 10 apart from 30, three a chip, the second chip dead: index 0 is at 40 (the middle
    of 30, 40, 50) and 2 at 90. Fed from there, the chip at 90 has one LED and the address 2: the
    wire counts its three LEDs first, so the chips stand at 80, 50 and 30."""
    keys = {"start": [30, 5], "end": [90, 5], "leds_per_address": 3, "skip": [1],
            "names": [*"abcdefg"]}  # fmt: skip
    there = layout_of(strip("first", 2), strip("s", 7, **keys))
    back = layout_of(strip("first", 2), strip("s", 7, reverse=True, **keys))
    for layout, places, names in (
        (there, {0: (2, 40), 2: (4, 90)}, ["a", "g"]),
        (back, {0: (4, 30), 2: (2, 80)}, ["a", "e"]),
    ):
        rows = layout.rows_of_part("s").tolist()
        found = {
            int(layout.index[i]): (int(layout.address[i]), layout.position[i, 0]) for i in rows
        }
        assert found == places
        assert [layout.names[i] for i in rows] == names
        row = layout.part_row("s")
        assert {row.place_of(address): address for address, _ in found.values()} == {
            index: address for index, (address, _) in found.items()
        }
        assert layout.skipped("a") == [3]


@given(designs())
def test_groups_and_trails_are_the_same_whichever_end_the_parts_are_fed_from(raw):
    """Turned round and fed from the other end, every LED stands where it stood in every choice."""
    raw = {**raw, "line": [{**line, "part": [{**part, "skip": [], "leds_per_address": 1}
           for part in line["part"] if "parallel_to" not in part] or line["part"]}
           for line in raw["line"]]}  # fmt: skip
    other = {**raw, "line": [{**line, "part": [{**part, "reverse": not part.get("reverse", False)}
             for part in line["part"]]} for line in raw["line"]]}  # fmt: skip
    found = []
    for one in (raw, other):
        design = fd.Design.from_values(one)
        layout = design.layout()
        choices = choose_all(design, layout, Report())
        found.append({name: sorted(zip(choice.rank.tolist(), layout.position[choice.spots].tolist(), strict=True))
                      for name, choice in choices.items()})  # fmt: skip
    assert found[0] == found[1]


@pytest.mark.parametrize("is_reversed", [False, True])
def test_of_equally_near_leds_the_first_ones_of_the_part_are_taken(is_reversed):
    """Eight round a middle: the nearest three of them, and the outermost three, are 0, 1 and 2."""
    ring = {"name": "r", "shape": "ring", "radius": 10, "count": 8, "reverse": is_reversed}
    groups = {"near": {"near": [0, 0], "nearest": 3}, "far": {"outermost": 3}}
    design = fd.Design.from_values({"line": [{"name": "a", "part": [ring]}], "groups": groups})
    layout = design.layout()
    choices = choose_all(design, layout, Report())
    for name in groups:
        assert sorted(layout.index[choices[name].spots].tolist()) == [0, 1, 2]


def test_facings_are_vectors_whichever_way():
    layout = layout_of(strip("s", 5, facing=["left", "front", "back", "down", [3, 0, 4]]))
    assert layout.facing.tolist() == [[-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, -1], [0.6, 0, 0.8]]


@pytest.mark.parametrize(
    ("direction", "far"),
    [("left", (-20, 0, 0)), ("down", (0, 0, -20)), (0, (20, 0, 0)), (90, (0, 20, 0)),
     (120, (-10, 300**0.5, 0)), ([0, 3, 4], (0, 12, 16))],
)  # fmt: skip
def test_a_strip_goes_in_its_direction(direction, far):
    part = {"name": "s", "shape": "strip", "direction": direction, "count": 3, "pitch": 10}
    assert layout_of(part).position[-1] == pytest.approx(far, abs=1e-9)


def test_rings_and_arcs_off_centre_look_out_from_their_own_middle():
    """Three of four quarters only: their middle is not the middle of the LEDs."""
    arc = {"name": "a", "shape": "arc", "centre": [30, 10], "radius": 10, "start_angle": 90,
           "end_angle": -90, "count": 3, "facing": "out"}  # fmt: skip
    layout = layout_of(arc)
    assert layout.position[:, :2].round(6).tolist() == [[30, 20], [40, 10], [30, 0]]
    assert layout.facing[:, :2].round(6).tolist() == [[0, 1], [1, 0], [0, -1]]
    ring = {"name": "r", "shape": "ring", "centre": [30, 10], "radius": 10, "count": 4,
            "direction": "clockwise", "start_angle": 45, "facing": "in"}  # fmt: skip
    layout = layout_of(ring)
    half = 0.5**0.5
    assert layout.position[1, :2] == pytest.approx([30 + 10 * half, 10 - 10 * half])
    assert layout.facing[1, :2] == pytest.approx([-half, half])


def test_out_is_away_from_the_middle_of_the_box_that_holds_the_leds():
    """Four LEDs, three of them left: the middle is at 50, not at their mean."""
    part = {"name": "p", "shape": "points", "points": [[0, 0], [10, 0], [20, 0], [100, 0], [45, 0]],
            "facing": "out"}  # fmt: skip
    assert layout_of(part).facing[:, 0].tolist() == [-1, -1, -1, 1, -1]
    assert layout_of({**part, "facing": "in"}).facing[:, 0].tolist() == [1, 1, 1, -1, 1]


def frame(**keys):
    sides = {"width": 100, "height": 40, "top": 2, "right": 1, "bottom": 3, "left": 2}
    return {"name": "f", "shape": "frame", **sides, **keys}


@pytest.mark.parametrize(
    ("keys", "places"),
    [
        # Clockwise from the top left: LEDs in the middle of their shares of each side.
        ({}, [(-25, 20), (25, 20), (50, 0), (33.3333, -20), (0, -20), (-33.3333, -20), (-50, -10),
              (-50, 10)]),
        ({"first": "bottom-right"}, [(33.3333, -20), (0, -20), (-33.3333, -20), (-50, -10),
                                     (-50, 10), (-25, 20), (25, 20), (50, 0)]),
        ({"direction": "counter-clockwise"}, [(-50, 10), (-50, -10), (-33.3333, -20), (0, -20),
                                              (33.3333, -20), (50, 0), (25, 20), (-25, 20)]),
        # A gap of 40 in the bottom side: one LED on the right 30, two on the left 30, each 15.
        ({"gap": 40, "first": "gap"}, [(-27.5, -20), (-42.5, -20), (-50, -10), (-50, 10), (-25, 20),
                                       (25, 20), (50, 0), (35, -20)]),
        ({"gap": 40, "gap_side": "top"}, [(-35, 20), (35, 20), (50, 0), (33.3333, -20), (0, -20),
                                          (-33.3333, -20), (-50, -10), (-50, 10)]),
    ],
)  # fmt: skip
def test_a_frame_goes_round_a_screen(keys, places):
    layout = layout_of(frame(**keys))
    assert layout.position[:, :2].ravel() == pytest.approx(np.ravel(places), abs=1e-3)


def test_a_frame_looks_outward():
    ways = layout_of(frame()).facing[:, :2].tolist()
    assert ways == [[0, 1]] * 2 + [[1, 0]] + [[0, -1]] * 3 + [[-1, 0]] * 2


def grid(**keys):
    return {"name": "g", "shape": "grid", "columns": 3, "rows": 2, "pitch": [10, 20], **keys}


@pytest.mark.parametrize(
    ("keys", "places"),
    [
        ({}, [(-10, -10), (0, -10), (10, -10), (-10, 10), (0, 10), (10, 10)]),
        ({"first": "top-right"}, [(10, 10), (0, 10), (-10, 10), (10, -10), (0, -10), (-10, -10)]),
        ({"back_and_forth": True}, [(-10, -10), (0, -10), (10, -10), (10, 10), (0, 10), (-10, 10)]),
        ({"wiring": "columns", "first": "top-left", "back_and_forth": True},
         [(-10, 10), (-10, -10), (0, -10), (0, 10), (10, 10), (10, -10)]),
    ],
)  # fmt: skip
def test_a_grid_of_unequal_sides_and_pitches(keys, places):
    assert layout_of(grid(**keys)).position[:, :2].tolist() == [list(map(float, p)) for p in places]


def test_columns_of_keys_stand_at_their_shift_and_go_down():
    pad = {
        "name": "k",
        "shape": "keys",
        "unit": 10,
        "columns": [{"keys": 2}, {"keys": 3, "shift": 0.5}],
    }
    assert layout_of(pad).position[:, :2].tolist() == [
        [0, 0], [0, -10], [10, 5], [10, -5], [10, -15]
    ]  # fmt: skip
    forth = layout_of({**pad, "back_and_forth": True}).position[:, :2].tolist()
    assert forth == [[0, 0], [0, -10], [10, -15], [10, -5], [10, 5]]


def test_a_path_with_an_arc_off_its_start_and_one_that_closes():
    """20 along, then three quarters of a circle of radius 10 round (20, 10), clockwise or not."""
    bend = {"via": [30, 10], "to": [20, 20]}
    path = {"name": "p", "shape": "path", "points": [[0, 0], [20, 0], bend], "count": 4}
    length = 20 + 10 * np.pi
    layout = layout_of(path)
    at = length / 3 - 20 if length / 3 > 20 else None
    assert at is None
    assert layout.position[1, :2] == pytest.approx([length / 3, 0])
    turn = (2 * length / 3 - 20) / 10
    assert layout.position[2, :2] == pytest.approx([20 + 10 * np.sin(turn), 10 - 10 * np.cos(turn)])
    assert layout.position[3, :2] == pytest.approx([20, 20])
    most = {"via": [30, 10], "to": [10, 10]}  # three quarters of the circle
    layout = layout_of({**path, "points": [[20, 0], most], "count": 4})
    assert layout.position[:, :2].round(6).tolist() == [[20, 0], [30, 10], [20, 20], [10, 10]]
    corners = [[0, 0], [30, 0], [30, 10], [0, 10]]
    loop = {**path, "points": corners, "closed": True, "count": 8}
    places = layout_of(loop).position[:, :2].tolist()
    assert places == [[0, 0], [10, 0], [20, 0], [30, 0], [30, 10], [20, 10], [10, 10], [0, 10]]
    spaced = layout_of({**loop, "count": None, "pitch": 10}).position[:, :2].tolist()
    assert spaced == places


@pytest.mark.parametrize(
    ("count", "is_told"), [(9, True), (10, False), (11, False), (12, True)]
)  # 100 mm, 10 mm apart
def test_a_count_that_does_not_fit_its_length_is_told(count, is_told):
    part = {
        "name": "s",
        "shape": "strip",
        "start": [0, 0],
        "end": [100, 0],
        "count": count,
        "pitch": 10,
    }
    made = fd.Design.from_values({"line": [{"name": "a", "part": [part]}]})
    assert ("length" in [finding.code for finding in made.check()]) is is_told


@pytest.mark.parametrize(
    ("length", "is_told"), [(99.4, True), (99.6, False), (110.4, False), (110.6, True)]
)
def test_a_length_may_be_measured_wrong_by_a_twentieth_of_a_pitch(length, is_told):
    """11 LEDs, 10 mm apart, need 100 mm, and 110 mm are a place more."""
    part = {
        "name": "s",
        "shape": "strip",
        "start": [0, 0],
        "end": [length, 0],
        "count": 11,
        "pitch": 10,
    }
    made = fd.Design.from_values({"line": [{"name": "a", "part": [part]}]})
    assert ("length" in [finding.code for finding in made.check()]) is is_told


def test_a_loop_has_as_many_steps_as_leds():
    """40 mm round: four LEDs 10 mm apart, or three and what is left over; no fifth on the first."""
    corners = [[0, 0], [10, 0], [10, 10], [0, 10]]
    part = {"name": "p", "shape": "path", "points": corners, "closed": True, "pitch": 10}
    for count, is_told in ((2, True), (3, False), (4, False), (5, True)):
        made = fd.Design.from_values({"line": [{"name": "a", "part": [{**part, "count": count}]}]})
        assert ("length" in [finding.code for finding in made.check()]) is is_told


@pytest.mark.parametrize(
    ("skip", "left"), [([4], [0, 1, 2, 3]), (["1-2"], [0, 3, 4]), ([0, "3-4"], [1, 2])]
)
def test_skipped_places_count_from_0_with_both_ends(skip, left):
    assert layout_of(strip("s", 5, skip=skip)).index.tolist() == left


@pytest.mark.parametrize(
    ("part", "direction"),
    [
        (strip("s", 3, turn=30), "right-front"),
        (strip("s", 3, turn=20), "right"),  # a third and more of the way counts: sin 20 is 0.34
        (strip("s", 3, turn=-45), "right-back"),
        ({"name": "a", "shape": "arc", "radius": 9, "start_angle": 0, "end_angle": -200, "count": 9}, "clockwise"),
    ],
)  # fmt: skip
def test_the_listing_says_oblique_ways(part, direction):
    (row,) = list_parts(layout_of(part))
    assert row.direction == direction


@pytest.mark.parametrize(("most", "is_told"), [(9, False), (8, True)])
def test_more_parts_than_there_may_be_are_told(monkeypatch, most, is_told):
    """One part, and two copies, parts themselves, of an assembly of three."""
    monkeypatch.setattr("fendra.core.layout.chain.PARTS", replace(PARTS, most=most))
    three = {"part": [strip(f"s{i}", 2, at=[0, 9 * i]) for i in range(3)]}
    copies = [
        {"name": n, "shape": "assembly", "use": "three", "at": [x, 50]}
        for n, x in (("a", 0), ("b", 90))
    ]
    values = {
        "assemblies": {"three": three},
        "line": [{"name": "l", "part": [strip("first", 4), *copies]}],
    }
    codes = [finding.code for finding in fd.Design.from_values(values).check()]
    assert ("limit" in codes) is is_told
