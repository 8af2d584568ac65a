"""Placement: what holds for every shape, wherever it is put."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.layout.listing import list_parts
from helpers import strip
from strategies import designs, parts, placements, shapes


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
