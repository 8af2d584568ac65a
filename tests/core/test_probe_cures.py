"""The bench to its end: a map with mistakes is probed, what is told is done, until it is right.

Somebody looks at the real thing, whose design is `REAL`, while patterns of a written one are sent.
"""

from __future__ import annotations

import copy
from itertools import combinations

import numpy as np
import pytest

import fendra as fd
from fendra.core.probe.answers import judge
from fendra.core.probe.bench import make_bench
from fendra.core.probe.chain import blocks_of, part_names
from fendra.core.probe.cures import Change, Exchange, Move, cured
from fendra.core.probe.deduce import see
from fendra.core.probe.explain import looked_at
from fendra.core.probe.marks import Extent, sight_of
from fendra.core.probe.patterns import LINE_COLOURS, part_colours
from helpers import strip

PARTS = [
    strip("wing-left", 6, start=[-300, 40], end=[-180, 60]),
    {"name": "hub", "shape": "ring", "centre": [-20, 150], "radius": 40, "count": 8,
     "start_angle": 45, "direction": "clockwise"},
    {"name": "panel", "shape": "grid", "columns": 4, "rows": 3, "pitch": 12, "centre": [30, -140],
     "first": "top-left", "back_and_forth": True},
    strip("wing-right", 6, start=[170, 45], end=[320, 70]),
]  # fmt: skip
REAL = {
    "line": [
        {"name": "one", "pin": "D5", "part": PARTS},
        {"name": "two", "pin": "D6", "part": [strip("tail", 9, start=[-90, -260], end=[70, -250])]},
    ],
}  # fmt: skip


def layout_of(values):
    return fd.Design.from_values(values).layout()


class Person:
    """Somebody who looks at the real thing while patterns of a written design are sent to it."""

    def __init__(self, written) -> None:
        self.design = fd.Design.from_values(written)
        self.bench = make_bench(self.design, self.design.layout())
        real_design = fd.Design.from_values(REAL)
        real = make_bench(real_design, real_design.layout())
        # What comes out of a pin goes to the line that is really plugged in there.
        plugs = {line.pin: i for i, line in enumerate(real_design.line)}
        starts, theirs = self.bench.addresses.line_starts, real.addresses.line_starts
        self.source = np.full(len(self.bench), -1)
        for i, line in enumerate(self.design.line):
            there, count = plugs[line.pin], int(starts[i + 1] - starts[i])
            room = int(theirs[there + 1] - theirs[there])
            own = np.arange(min(count, room))
            self.source[starts[i] + own] = theirs[there] + own
        self.real, self.names = real, part_names(real)
        self.lines = real.addresses.line

    def lines_answer(self):
        colours = [*LINE_COLOURS]
        shown = {}
        for row, there in enumerate(self.source.tolist()):
            if there >= 0:
                name = self.design.line[int(self.lines[there])].name
                shown.setdefault(name, colours[int(self.bench.addresses.line[row])])
        return " ".join(f"{name}={colour}" for name, colour in shown.items())

    def parts_answer(self):
        colours, of_part = [*LINE_COLOURS], {}
        for place, block in enumerate(part_colours(self.bench)):
            for row in block.rows.tolist():
                if self.source[row] >= 0:
                    of_part.setdefault(self.names[self.source[row]], []).append(colours[place])
        most = {name: max({*seen}, key=seen.count) for name, seen in of_part.items()}
        return " ".join(f"{name}={colour}" for name, colour in most.items())

    def places_answer(self, part):
        row = self.bench.layout.part_row(part)
        rows = int(self.bench.addresses.line_starts[row.line]) + row.first + np.arange(row.count)
        looked = looked_at(self.design, self.bench.layout, part)
        there = self.source[rows]
        position = self.real.position[there]
        sight = sight_of(self.real.position, self.real.facing)
        lit = "+".join(dict.fromkeys(self.names[i] for i in there.tolist()))
        whole = Extent.of(sight.flat(self.real.position))
        at = sight.place(sight.flat(position).mean(axis=0), whole)
        seen = see(looked, position, lit, at)
        return " ".join(f"{key}={value}" for key, value in vars(seen).items() if value)


def probed(written):
    """The design after all that the bench has told was done, and what that was."""
    done = []
    for _ in range(8):
        person = Person(written)
        asked = [("lines", None, person.lines_answer()), ("parts", None, person.parts_answer())]
        parts = [block.name for block in blocks_of(person.bench)]
        asked += [("walk", part, person.places_answer(part)) for part in parts]
        verdicts = (judge(person.bench, None, part, said, [sent]) for sent, part, said in asked)
        wrong = next((verdict for verdict in verdicts if verdict.ways), None)
        if wrong is None:
            return written, done
        done.append(wrong.ways[0])
        written = cured(written, wrong.ways[0])
    raise AssertionError(f"it comes to no end: {done}")


def assert_right(written, done):
    """Every address is where it really is, and every part is what its name says."""
    found, real = layout_of(written), layout_of(REAL)
    by_pin = {line["pin"]: line["name"] for line in written["line"]}
    for line in REAL["line"]:
        rows, theirs = found.spots_of_line(by_pin[line["pin"]]), real.spots_of_line(line["name"])
        assert found.position[rows] == pytest.approx(real.position[theirs], abs=0.02), done
        names = [found.part_names[i] for i in found.part[rows]]
        assert names == [real.part_names[i] for i in real.part[theirs]], done


def with_part(place, **keys):
    values = copy.deepcopy(REAL)
    part = values["line"][0]["part"][place]
    part.update({key: value for key, value in keys.items() if value is not None})
    for key in [key for key, value in keys.items() if value is None]:
        part.pop(key, None)
    return values


def wrong_keys():
    """Every part with one key written as it is easily written wrong."""
    for place, values in enumerate(PARTS):
        part = fd.Design.from_values(REAL).line[0].part[place]
        for key, options in part.slips().items():
            now = getattr(part, key)
            for value in options:
                if value != now and key not in ("mirror", "turn"):  # about the middle: see below
                    yield f"{values['name']}-{key}-{value}", (place, {key: value})


KEYS = dict(wrong_keys())


@pytest.mark.parametrize("name", [*KEYS])
def test_one_wrong_key_is_found_and_what_is_told_mends_it(name):
    place, keys = KEYS[name]
    written, done = probed(with_part(place, **keys))
    assert_right(written, done)
    assert {cure.path for way in done for cure in way} <= {("line", 0, "part", place)}


@pytest.mark.parametrize(("a", "b"), [*combinations(range(4), 2)])
def test_two_parts_that_are_exchanged_change_places_in_the_file(a, b):
    values = copy.deepcopy(REAL)
    parts = values["line"][0]["part"]
    parts[a], parts[b] = parts[b], parts[a]
    written, done = probed(values)
    assert_right(written, done)
    assert done == [(Exchange(("line", 0, "part", a), ("line", 0, "part", b)),)]


def test_two_pairs_that_are_exchanged_are_told_together():
    values = {"line": [{"name": "a", "part": [strip(name, 4, at=[60 * i, 5 * i]) for i, name in
                                              enumerate("pqrs")]}]}  # fmt: skip
    design = fd.Design.from_values(values)
    bench = make_bench(design, design.layout())
    verdict = judge(bench, None, None, "p=green q=red r=yellow s=blue", ["parts"])
    path = ("line", 0, "part")
    assert verdict.ways == ((Exchange((*path, 0), (*path, 1)), Exchange((*path, 2), (*path, 3))),)
    assert not judge(bench, None, None, "p=blue q=yellow r=green s=red", ["parts"]).is_explained


@pytest.mark.parametrize(("here", "there"), [(0, 2), (0, 3), (2, 0), (3, 0), (3, 1), (1, 3)])
def test_a_part_at_a_wrong_place_of_the_chain_is_moved(here, there):
    values = copy.deepcopy(REAL)
    parts = values["line"][0]["part"]
    parts.insert(there, parts.pop(here))
    written, done = probed(values)
    assert_right(written, done)
    assert {type(cure) for way in done for cure in way} <= {Move, Exchange}


def test_two_lines_that_are_exchanged_have_each_other_s_pin():
    values = copy.deepcopy(REAL)
    values["line"][0]["pin"], values["line"][1]["pin"] = "D6", "D5"
    written, done = probed(values)
    assert_right(written, done)
    assert done == [(Change(("line", 0), "pin", "D5"), Change(("line", 1), "pin", "D6"))]


@pytest.mark.parametrize(
    ("place", "keys"),
    [
        (0, {"start": [300, 40], "end": [180, 60]}),
        (3, {"start": [170, -45], "end": [320, -70]}),
        (1, {"centre": [-20, -150]}),
        (2, {"centre": [30, 140]}),
        (1, {"centre": [150, -20]}),
    ],
    ids=str,
)
def test_a_wrong_sign_of_a_place_is_found_at_its_key(place, keys):
    """Also where another part has the same shape: the name of the part that was lit decides."""
    written, done = probed(with_part(place, **keys))
    assert_right(written, done)
    changed = {cure.key for way in done for cure in way}
    assert changed & {*keys}


PAIRS = [(KEYS[a], KEYS[b]) for a, b in combinations(KEYS, 2) if KEYS[a][0] != KEYS[b][0]]


@pytest.mark.parametrize("number", [*range(0, len(PAIRS), 7)])
def test_mistakes_in_two_parts_of_a_line_are_found_both(number):
    (a, first), (b, second) = PAIRS[number]
    values = with_part(a, **first)
    values["line"][0]["part"][b].update(second)
    written, done = probed(values)
    assert_right(written, done)


@pytest.mark.parametrize("name", ["wing-left-reverse-True", "wing-right-reverse-True"])
def test_an_exchange_and_a_part_that_is_fed_from_its_end(name):
    place, keys = KEYS[name]
    values = with_part(place, **keys)
    parts = values["line"][0]["part"]
    parts[0], parts[3] = parts[3], parts[0]
    written, done = probed(values)
    assert_right(written, done)
