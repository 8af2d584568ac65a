"""Cures: what to change in a design, so that its map is what was seen on the bench."""

from __future__ import annotations

import copy
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeAlias

from fendra.core.findings import KeyPath

MEASURED = "[x, y, z]"
"""A placeholder for a position that only measuring can give."""


@dataclass(frozen=True)
class Change:
    """A line of the design to change.

    path: of the table it is in. key, value: what to write; a value of None: take the key out.
    """

    path: KeyPath
    key: str
    value: Any


@dataclass(frozen=True)
class Exchange:
    """Two tables of one list, that change places: parts in the chain, or lines."""

    path: KeyPath
    other: KeyPath


@dataclass(frozen=True)
class Move:
    """A table of a list that must move: before or after another one of the list."""

    path: KeyPath
    other: KeyPath
    is_before: bool


Cure: TypeAlias = Change | Exchange | Move
Way: TypeAlias = tuple[Cure, ...]
"""Cures that belong together. Their paths are the paths of the unchanged file."""


def cured(values: Mapping[str, Any], way: Sequence[Cure]) -> dict[str, Any]:
    """Plain values of a design, after some cures.

    >>> cured({"line": [{"name": "a"}, {"name": "b"}]}, [Exchange(("line", 0), ("line", 1))])
    {'line': [{'name': 'b'}, {'name': 'a'}]}
    """
    found = copy.deepcopy(dict(values))
    for cure in way:
        if isinstance(cure, Change):
            table = value_at(found, cure.path)
            if cure.value is None:
                table.pop(cure.key, None)
            else:
                table[cure.key] = list(cure.value) if isinstance(cure.value, tuple) else cure.value
    for cure in way:
        if isinstance(cure, Change):
            continue
        rows = value_at(found, cure.path[:-1])
        here, there = int(cure.path[-1]), int(cure.other[-1])
        if isinstance(cure, Exchange):
            rows[here], rows[there] = rows[there], rows[here]
        else:
            row = rows.pop(here)
            place = there - (here < there)
            rows.insert(place if cure.is_before else place + 1, row)
    return found


def value_at(values: Any, path: KeyPath) -> Any:
    """The value at a path of plain values."""
    for step in path:
        values = values[step]
    return values
