"""Which spots a layer runs over, as ranges of the layout or as a short list."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Ints

SHORTEST_RUN = 4
"""Spots that stand in a row, on average, from which on ranges are better than a list."""


@dataclass(frozen=True)
class Run:
    """Spots in a row: from `first` up to, not including, `end`.

    place: of the first one in its choice.
    """

    first: int
    end: int
    place: int


def runs_of(spots: Ints) -> tuple[Run, ...]:
    """The rows of consecutive numbers in ascending spots.

    >>> runs_of(np.array([4, 5, 6, 9]))
    (Run(first=4, end=7, place=0), Run(first=9, end=10, place=3))
    """
    cuts = np.flatnonzero(np.diff(spots) != 1) + 1
    starts = np.concatenate([[0], cuts]).astype(int)
    ends = np.concatenate([cuts, [len(spots)]]).astype(int)
    return tuple(
        Run(int(spots[start]), int(spots[end - 1]) + 1, int(start))
        for start, end in zip(starts, ends, strict=True)
    )


def are_scattered(spots: Ints) -> bool:
    """Whether the spots are better listed one by one."""
    runs = runs_of(spots)
    return len(runs) > 1 and len(spots) < SHORTEST_RUN * len(runs)
