"""The lamps of a lamp array as LEDs of a design."""

from __future__ import annotations

import re
from itertools import groupby

from fendra.core.names import NAME
from fendra.files.placement import Placement
from fendra.lamps.array import Lamp, LampArray
from fendra.lamps.usages import Purpose

MOST_PARTS = 8
"""Lamps whose purposes change more often make one part."""


def lamp_placements(array: LampArray, line: str, name: str) -> list[Placement]:
    """The lamps in the device's order, at their places in mm: x to the right, y away from the user,
    z up, from the corner of the device that is nearest on the left.

    Lamps in a row with the same purposes make a part, as `keyboard-control`. Key lamps have the
    names of their keys. name: the device's, for its parts.
    """
    _, height_um, depth_um = array.size_um
    stem = part_name(name)
    runs = [(purposes, len([*row])) for purposes, row in groupby(array.lamps, _purposes)]
    is_one = not 1 < len(runs) <= MOST_PARTS
    parts: list[str] = []
    for purposes, count in runs:
        word = "-".join(purpose.name.lower() for purpose in purposes if purpose.name)
        called = stem if is_one or not word else f"{stem}-{word}"
        base, number = called, 1
        while not is_one and called in parts:
            number += 1
            called = f"{base}-{number}"
        parts += [called] * count
    names = _names(array)
    return [
        Placement(
            names[lamp.id],
            (
                lamp.x_um / 1000,
                (height_um - lamp.y_um) / 1000,
                (depth_um - lamp.z_um) / 1000,
            ),
            (0.0, 0.0, 1.0),
            line=line,
            part=part,
            address=lamp.id,
        )
        for lamp, part in zip(array.lamps, parts, strict=True)
    ]


def _purposes(lamp: Lamp) -> tuple[Purpose, ...]:
    return tuple(lamp.purposes)


def _names(array: LampArray) -> list[str]:
    """The name of each lamp; a key with two lamps names the first."""
    taken: set[str] = set()
    found = []
    for lamp in array.lamps:
        found.append("" if lamp.name in taken else lamp.name)
        taken.add(lamp.name)
    return found


def part_name(name: str) -> str:
    """A device's name as the name of a part.

    >>> part_name("Fendra  Test Keys (v2)"), part_name("\u952e\u76d8")
    ('fendra-test-keys-v2', 'lamps')
    """
    plain = re.sub(r"[^a-z0-9]+", "-", name.casefold()).strip("-")[:40].strip("-")
    return plain if NAME.fullmatch(plain) else "lamps"
