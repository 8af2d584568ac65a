"""Explanations of the sightings on the bench: mistakes in the keys of a part, parts and lines that
are exchanged, parts elsewhere in the chain, places with a wrong sign.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np
from pydantic import ValidationError

from fendra.core.arrays import Floats
from fendra.core.document.design import Design
from fendra.core.findings import Report
from fendra.core.layout import Layout
from fendra.core.layout.chain import unfold
from fendra.core.layout.table import PartRow
from fendra.core.probe.bench import Bench
from fendra.core.probe.chain import (
    Arrangement,
    arrangements,
    blocks_of,
    misnamed,
    part_names,
    reversed_parts,
)
from fendra.core.probe.cures import Way
from fendra.core.probe.deduce import (
    MOST_TOLD,
    WHOLE,
    Looked,
    Outlook,
    Seen,
    Turned,
    check_seen,
    deduce_whole,
    explain,
    likeliest,
    outlooks,
    possible,
    see,
)
from fendra.core.probe.marks import Sight, Whole, places_in_words, quadrants
from fendra.core.shapes import Part

TURNED, TURNED_BY_NAME = 1.4, 0.8
"""The cost of a map that is turned or mirrored as a whole; less if names say the same."""


@dataclass(frozen=True)
class Explanation:
    """The cures that explain the sightings of the whole: none if the map is right, or a map that is
    turned. cost: the likelier, the less.
    """

    way: Way
    cost: float
    turned: Turned | None = None


def looked_at(design: Design, layout: Layout, name: str) -> Looked:
    """A part in the user's view."""
    link = next(link for link in unfold(design, Report()).links if link.name == name)
    row = layout.part_row(name)
    led = design.line[row.line].led_type
    per = link.part.leds_per_address or led.leds_a_chip
    unseen = frozenset(row.place_of(row.first + place) for place in row.skipped)  # along the wire
    return Looked(link, per, layout.unit_mm, unseen)


def explanations(
    bench: Bench, looked: Looked, row: PartRow, seen: Seen, angle: float | None
) -> list[Outlook]:
    """The explanations of a part's sightings, the likeliest first; empty if there are none.

    Raises LayoutError for words that name no place or way.
    """
    whole = Whole(bench)
    check_seen(looked, seen, whole.sight)
    own = [
        replace(each, path=row.path, seen=_seen(whole, looked, each.position, row.name))
        for each in possible(looked, angle)
    ]
    found = explain(own, seen)
    if not found or seen.lit or seen.at:
        others = [*_elsewhere(bench, looked, row, whole), *_misplaced(bench, looked, row, whole)]
        found = explain([*own, *others], seen)
    return found


def _seen(whole: Whole, looked: Looked, position: Floats, lit: str) -> Seen:
    """The sightings of a part whose LEDs are really at the places of another."""
    return see(looked, position, lit, whole.place(position))


def _elsewhere(bench: Bench, looked: Looked, row: PartRow, whole: Whole) -> Iterator[Outlook]:
    """The LEDs that would light if the part or its line is swapped, or has another place in the
    chain; also if the part that then lights has a mistake of its own.
    """
    start = int(bench.addresses.line_starts[row.line])
    rows = (
        start
        + row.first
        + np.array([i for i in range(row.count) if i not in looked.skipped], np.int64)
    )
    rows = rows[rows < len(bench)]
    names = part_names(bench)
    mine = names[int(rows[0])]
    parts = {part.name: part for part in bench.layout.parts if part.kind == "lit"}
    for arrangement in arrangements(bench):
        if not arrangement.way:
            continue
        source = arrangement.source[rows]
        if (source == rows).all() or (source < 0).any():
            continue
        lit = [names[place] for place in source.tolist()]
        every = [*dict.fromkeys(lit)]
        other = "+".join(every)
        if every == [mine]:
            continue
        position = arrangement.position(bench, rows)
        if np.isnan(position).any():
            continue
        there = _seen(whole, looked, position, other)
        cost = arrangement.cost + FURTHER * (len(every) - 1)
        yield Outlook({}, position, there, (), arrangement.way, cost)
        theirs = parts.get(other)
        if theirs is not None and theirs.count == row.count:
            yield from _with_slips(bench, arrangement, looked, theirs, whole)


def _with_slips(
    bench: Bench, arrangement: Arrangement, looked: Looked, theirs: PartRow, whole: Whole
) -> Iterator[Outlook]:
    """An exchange, where what then lights is also written down wrong."""
    other = looked_at(bench.design, bench.layout, theirs.name)
    if other.skipped or looked.skipped:
        return
    for each in outlooks(other):
        if each.changes:
            there = _seen(whole, looked, each.position, theirs.name)
            before, base = arrangement.way, arrangement.cost
            yield Outlook(each.changes, each.position, there, theirs.path, before, base)


FURTHER = 0.3
"""Each further part that is lit by one alone."""
WRONG_SIGN = 0.2
"""A wrong sign, beside the cost of each key."""
_SIGNS = ((-1, 1), (1, -1), (-1, -1))


def _misplaced(bench: Bench, looked: Looked, row: PartRow, whole: Whole) -> Iterator[Outlook]:
    """A part whose place has a wrong sign, or x and y swapped; it cannot be where another part is,
    or on another side than its name says.
    """
    blocks = [(block.name, bench.position[block.rows]) for block in blocks_of(bench)]
    mine = part_names(bench)[int(bench.addresses.line_starts[row.line]) + row.first]
    before = misnamed(blocks)
    others = np.concatenate([place for name, place in blocks if name != mine] or [np.zeros((0, 3))])
    for changes, part in _places(looked.link.part):
        position = looked.position(part)
        gap = np.linalg.norm(others[None] - position[:, None], axis=2)
        is_taken = len(others) > 0 and bool(np.nanmin(gap) < 1.0)
        moved = [(name, position if name == mine else place) for name, place in blocks]
        if not is_taken and misnamed(moved) <= before:
            there = _seen(whole, looked, position, row.name)
            yield Outlook(changes, position, there, row.path, (), WRONG_SIGN)


def _places(part: Part) -> Iterator[tuple[dict[str, object], Part]]:
    """A part whose places are written with other signs, or x for y."""
    keys = part.model_dump(exclude_unset=True)
    known = [key for key in ("start", "end", "centre", "at") if key in keys and any(keys[key][:2])]
    chosen = [[key] for key in known] + ([["start", "end"]] if {"start", "end"} <= {*known} else [])
    for names in chosen:
        for x_sign, y_sign in _SIGNS:
            changes: dict[str, object] = {
                key: (x_sign * keys[key][0] + 0.0, y_sign * keys[key][1] + 0.0, *keys[key][2:])
                for key in names
            }
            yield from _valid(part, keys, changes)
        yield from _valid(part, keys, {k: (keys[k][1], keys[k][0], *keys[k][2:]) for k in names})


def _valid(
    part: Part, keys: dict[str, object], changes: dict[str, object]
) -> Iterator[tuple[dict[str, object], Part]]:
    if all(value == keys[key] for key, value in changes.items()):
        return
    try:
        yield changes, type(part).model_validate({**keys, **changes})
    except ValidationError:
        return


def explain_whole(bench: Bench, sight: Sight, seen: Seen) -> list[Explanation]:
    """The explanations of where the marks of all parts were seen: swapped parts or lines, or a map
    that is turned or mirrored as a whole.

    None of them puts a part on another side than its name says. Raises LayoutError for words that
    name no place.
    """
    rows = bench.placed
    position = bench.position[rows]
    flat = sight.flat(position)
    marks = quadrants(flat)
    wanted = Seen(seen.red, seen.green)
    by_name = [(block.name, bench.position[block.rows]) for block in blocks_of(bench)]
    before = misnamed(by_name)
    found: dict[bytes, Explanation] = {}
    for arrangement in (*arrangements(bench), *reversed_parts(bench)):
        there = arrangement.position(bench, rows)
        is_lit = ~np.isnan(there[:, 0])
        if not is_lit.any() or (arrangement.way and (there == position).all()):
            continue
        red, green = (np.flatnonzero(np.isin(np.flatnonzero(is_lit), mark)) for mark in marks)
        if wanted.agrees(Seen(*places_in_words(sight, sight.flat(there[is_lit]), red, green))):
            key = arrangement.source.tobytes()
            if key not in found or arrangement.cost < found[key].cost:
                found[key] = Explanation(arrangement.way, arrangement.cost)
    for place, turned in enumerate(deduce_whole(position, sight, seen)):
        moved = misnamed([(name, places @ turned.whole(sight).T) for name, places in by_name])
        if turned is not WHOLE[0] and moved <= before:
            cost = TURNED if moved == before else TURNED_BY_NAME
            found[b"turned %d" % place] = Explanation((), cost, turned)
    best = likeliest(found.values())
    return [each for each in best if (each.turned is None) == (best[0].turned is None)][:MOST_TOLD]
