"""One LED as a file of positions has it, and the order and choice of many."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from fnmatch import fnmatchcase

from fendra.core.errors import LayoutError
from fendra.core.layout.table import UNITS_MM as DESIGN_UNITS_MM

Triple = tuple[float, float, float]

UNITS_MM = {**DESIGN_UNITS_MM, "mil": 0.0254, "cm": 10.0, "um": 0.001}
"""Units of length that a file may be in, in mm."""


@dataclass(frozen=True)
class Placement:
    """An LED of a file.

    position: mm, None for an address that has no place. facing: any length; None if the file
    says nothing. line, part, address, is_skipped: as a layout that was written by `fendra layout`
    has them; a foreign file leaves them empty. index: the place in its part.
    """

    name: str
    position: Triple | None
    facing: Triple | None = None
    groups: tuple[str, ...] = ()
    line: str = ""
    part: str = ""
    address: int | None = None
    is_skipped: bool = False
    index: int | None = None


def only(placements: Iterable[Placement], pattern: str) -> list[Placement]:
    """The LEDs whose name, or a group that holds them, matches a pattern such as `LED*`.

    Raises LayoutError if there are none.
    """
    every = list(placements)
    found = [p for p in every if any(fnmatchcase(name, pattern) for name in (p.name, *p.groups))]
    if not found:
        names = ", ".join(dict.fromkeys(p.name for p in every if p.name)) or "no LED has a name"
        raise LayoutError(f"no name matches '{pattern}'. The names are: {names:.200}.")
    return found


def by_name(placements: Iterable[Placement]) -> list[Placement]:
    """In the order of their names, numbers in them as numbers: D2 before D10.

    >>> [p.name for p in by_name([Placement("D10", None), Placement("D2", None)])]
    ['D2', 'D10']
    """

    def key(placement: Placement) -> list[tuple[int, int, str]]:
        pieces = re.split(r"(\d+)", placement.name)
        return [(1, int(p), "") if p.isdecimal() else (0, 0, p) for p in pieces if p]

    return sorted(placements, key=key)


def scaled(
    placements: Iterable[Placement], scale: float = 1.0, flip: str | None = None
) -> list[Placement]:
    """So many times as large, and reflected along x or y, about the middle of their extent.

    >>> moved = scaled([Placement("a", (0.0, 0.0, 1.0)), Placement("b", (4.0, 2.0, 0.0))], 2, "x")
    >>> [p.position for p in moved]
    [(8.0, 0.0, 2.0), (0.0, 4.0, 0.0)]
    """
    every = list(placements)
    signs = (-1.0 if flip == "x" else 1.0, -1.0 if flip == "y" else 1.0, 1.0)
    there = [p.position for p in every if p.position is not None]
    sums = [min(place[i] for place in there) + max(place[i] for place in there) for i in (0, 1)]
    shift = [total if sign < 0 else 0.0 for total, sign in zip(sums, signs, strict=False)] + [0.0]

    def moved(values: Triple, away: Sequence[float], size: float) -> Triple:
        x, y, z = ((sign * v + a) * size for sign, v, a in zip(signs, values, away, strict=True))
        return x + 0.0, y + 0.0, z + 0.0

    return [
        replace(
            p,
            position=p.position and moved(p.position, shift, scale),
            facing=p.facing and moved(p.facing, (0, 0, 0), 1.0),
        )
        for p in every
    ]


def centred(placements: Sequence[Placement]) -> list[Placement]:
    """Moved so that the middle of their extent in x and y is the origin."""
    places = [p.position for p in placements if p.position is not None]
    x, y = (
        (min(place[axis] for place in places) + max(place[axis] for place in places)) / 2
        for axis in (0, 1)
    )
    return [
        p
        if p.position is None
        else replace(p, position=(p.position[0] - x, p.position[1] - y, p.position[2]))
        for p in placements
    ]
