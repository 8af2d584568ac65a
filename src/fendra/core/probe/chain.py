"""Other ways in which lines and parts may really be wired: swapped plugs, swapped parts, and parts
at another place in the chain.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import combinations, groupby

import numpy as np

from fendra.core.arrays import Floats, Ints
from fendra.core.document.design import Design
from fendra.core.findings import KeyPath
from fendra.core.probe.bench import Bench
from fendra.core.probe.cures import Change, Exchange, Move, Way

MOST_PARTS = 60
"""Of a line; with more, only neighbours are tried."""


@dataclass(frozen=True)
class Block:
    """A part of a line, or a copy of an assembly with all of its parts: its rows of the bench."""

    path: KeyPath
    name: str
    rows: Ints


@dataclass(frozen=True)
class Arrangement:
    """How things may really be.

    way: what to change in the design then. cost: the likelier, the less. source: for each row of
    the bench, the row of the map at which its LED really is; -1 if there is none.
    """

    way: Way
    cost: float
    source: Ints

    def position(self, bench: Bench, rows: Ints) -> Floats:
        """Where the LEDs of some rows really are: (k, 3) mm, NaN where none is seen."""
        source = self.source[rows]
        return np.where(source[:, None] < 0, np.nan, bench.position[source])


def blocks_of(bench: Bench) -> list[Block]:
    """The parts that take addresses, line after line in the order of the wire."""
    starts, layout = bench.addresses.line_starts, bench.layout
    found: list[Block] = []
    for i, line in enumerate(bench.design.line):
        for j, part in enumerate(line.part):
            own = [
                row for row in layout.parts
                if row.line == i and row.kind != "copy" and row.count
                and (row.name == part.name or row.name.startswith(f"{part.name}."))
            ]  # fmt: skip
            if own:
                first, last = min(row.first for row in own), max(row.last for row in own)
                rows = np.arange(starts[i] + first, min(starts[i] + last + 1, starts[i + 1]))
                found.append(Block(("line", i, "part", j), part.name, rows))
    return found


def arrangements(bench: Bench) -> Iterator[Arrangement]:
    """As it is written; then every single exchange of two parts of a line or of two lines, and
    every part at every other place of its chain.
    """
    yield Arrangement((), 0.0, np.arange(len(bench)))
    for _, of_line in groupby(blocks_of(bench), lambda block: block.path[1]):
        blocks = [*of_line]
        yield from _exchanged_parts(bench, blocks)
        yield from _moved_parts(bench, blocks)
    yield from _exchanged_lines(bench)


def reversed_parts(bench: Bench) -> Iterator[Arrangement]:
    """Every part alone, fed from its other end."""
    for block in blocks_of(bench):
        _, line, _, place = block.path
        part = bench.design.line[int(line)].part[int(place)]
        if len(block.rows) > 1 and not part.skip and part.shape != "assembly":
            source = np.arange(len(bench))
            source[block.rows] = block.rows[::-1]
            change = Change(block.path, "reverse", None if part.reverse else True)
            yield Arrangement((change,), 1.25, source)


def _exchanged_parts(bench: Bench, blocks: Sequence[Block]) -> Iterator[Arrangement]:
    for a, b in combinations(range(len(blocks)), 2):
        if len(blocks) > MOST_PARTS and b > a + 1:
            continue
        order = [*range(len(blocks))]
        order[a], order[b] = b, a
        yield Arrangement(
            (Exchange(blocks[a].path, blocks[b].path),), 1.0, _in_order(bench, blocks, order)
        )


def _moved_parts(bench: Bench, blocks: Sequence[Block]) -> Iterator[Arrangement]:
    if len(blocks) > MOST_PARTS:
        return
    for here in range(len(blocks)):
        for there in range(len(blocks)):
            if abs(here - there) < 2:
                continue  # two neighbours are exchanged
            order = [*range(len(blocks))]
            order.insert(there, order.pop(here))
            move = Move(blocks[here].path, blocks[there].path, here > there)
            yield Arrangement((move,), 1.1, _in_order(bench, blocks, order))


def _in_order(bench: Bench, blocks: Sequence[Block], order: Sequence[int]) -> Ints:
    source = np.arange(len(bench))
    rows = np.concatenate([block.rows for block in blocks])
    source[rows] = np.concatenate([blocks[place].rows for place in order])
    return source


def _exchanged_lines(bench: Bench) -> Iterator[Arrangement]:
    starts = bench.addresses.line_starts
    for a, b in combinations(range(len(bench.design.line)), 2):
        source = np.arange(len(bench))
        for one, other in ((a, b), (b, a)):
            count, room = (int(starts[i + 1] - starts[i]) for i in (one, other))
            rows = np.full(count, -1)
            rows[: min(count, room)] = np.arange(starts[other], starts[other] + min(count, room))
            source[starts[one] : starts[one + 1]] = rows
        yield Arrangement(exchanged_plugs(bench.design, a, b), 0.9, source)


def exchanged_plugs(design: Design, a: int, b: int) -> Way:
    """The cure for two lines that are plugged in the other way round: each other's pins, or,
    where no pins are written, each other's place in the file.
    """
    one, other = design.line[a], design.line[b]
    if not one.pin and not other.pin:
        return (Exchange(("line", a), ("line", b)),)
    return tuple(
        Change(("line", place), key, getattr(theirs, key) or None)
        for place, own, theirs in ((a, one, other), (b, other, one))
        for key in ("controller", "pin", "clock")
        if getattr(own, key) != getattr(theirs, key)
    )


def part_names(bench: Bench) -> list[str]:
    """The name of the part, or of the copy of an assembly, of each row of the bench."""
    names = [""] * len(bench)
    for block in blocks_of(bench):
        for row in block.rows.tolist():
            names[row] = block.name
    return names


_SIDES = {
    "left": (0, -1), "right": (0, 1), "front": (1, 1), "nose": (1, 1), "back": (1, -1),
    "rear": (1, -1), "tail": (1, -1), "top": (2, 1), "upper": (2, 1), "bottom": (2, -1),
    "lower": (2, -1), "belly": (2, -1),
}  # fmt: skip
"""The place that a word in a part's name stands for: axis, and which end of it."""


def misnamed(places: Sequence[tuple[str, Floats]]) -> int:
    """How many parts have a name that says another side than that on which they are.

    places: names, and the places of their LEDs, (n, 3).

    >>> misnamed([("wing-left", np.array([[5.0, 0, 0]])), ("wing-right", np.array([[-5.0, 0, 0]]))])
    2
    """
    known = [(name, place[~np.isnan(place[:, 0])]) for name, place in places]
    known = [(name, place) for name, place in known if len(place)]
    if not known:
        return 0
    every = np.concatenate([place for _, place in known])
    middle, size = (every.min(axis=0) + every.max(axis=0)) / 2, np.ptp(every, axis=0)
    found = 0
    for name, place in known:
        words = name.replace("_", "-").replace(".", "-").replace(" ", "-").split("-")
        away = place.mean(axis=0) - middle
        sides = [_SIDES[word] for word in words if word in _SIDES]
        found += any(away[axis] * sign < -0.05 * size[axis] for axis, sign in sides)
    return found
