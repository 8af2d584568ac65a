"""Marks that look different from every side, and words for where something is seen."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Floats, Ints
from fendra.core.probe.bench import Bench

_FLAT = 0.02
"""An extent that is a smaller share of the largest is none."""


@dataclass(frozen=True)
class Sight:
    """How to look at something, so that left and right mean the same to everybody.

    across, upward: (3,) the directions to the right and up in this view. top, bottom: the words for
    the far and the near end of `upward`. words: where to look from.
    """

    across: tuple[float, float, float]
    upward: tuple[float, float, float]
    top: str
    bottom: str
    words: str

    def flat(self, position: Floats) -> Floats:
        """Places (n, 3) as they are seen: (n, 2), to the right and up."""
        return np.asarray(position @ np.array([self.across, self.upward]).T)

    @property
    def places(self) -> tuple[str, ...]:
        """Every word for a place."""
        ends = (self.top, self.bottom, "")
        each = [self._joined(end, side) for end in ends for side in ("left", "", "right")]
        return (*[word for word in each if word], "middle")

    @staticmethod
    def _joined(end: str, side: str) -> str:
        return "-".join(word for word in (end, side) if word)

    def place(self, point: Floats, extent: Extent, share: float = 1 / 3) -> str:
        """Where a point (2,) is within an extent, as in `front-left`.

        share: of the extent at each of its ends, that counts as that end.
        """
        side, end = "", ""
        if extent.size[0] > 0:
            across = (point[0] - extent.low[0]) / extent.size[0]
            side = "left" if across < share else "right" if across > 1 - share else ""
        if extent.size[1] > 0:
            upward = (point[1] - extent.low[1]) / extent.size[1]
            end = self.bottom if upward < share else self.top if upward > 1 - share else ""
        return self._joined(end, side) or "middle"

    def way(self, vector: Floats) -> str:
        """A direction (2,) in a word; the longer share counts."""
        if not np.any(np.abs(vector) > 1e-9):
            return ""
        if abs(vector[0]) >= abs(vector[1]):
            return "right" if vector[0] > 0 else "left"
        up, down = ("up", "down") if self.top == "top" else (self.top, self.bottom)
        return up if vector[1] > 0 else down


@dataclass(frozen=True)
class Extent:
    """The rectangle (2,) that places lie in; a size of 0 if they lie on a line."""

    low: Floats
    size: Floats

    @classmethod
    def of(cls, flat: Floats) -> Extent:
        """Of places (n, 2)."""
        low, size = flat.min(axis=0), np.ptp(flat, axis=0)
        return cls(low, np.where(size > _FLAT * max(float(size.max()), 1e-9), size, 0.0))

    @property
    def middle(self) -> Floats:
        return np.asarray(self.low + self.size / 2)


ABOVE = Sight(
    (1, 0, 0), (0, 1, 0), "front", "back", "seen from above, with its front away from you"
)
_UPRIGHT = {
    "front": Sight((-1, 0, 0), (0, 0, 1), "top", "bottom", "as you look at it from the front"),
    "back": Sight((1, 0, 0), (0, 0, 1), "top", "bottom", "as you look at it from behind"),
    "right": Sight((0, 1, 0), (0, 0, 1), "top", "bottom", "as you look at it from its right"),
    "left": Sight((0, -1, 0), (0, 0, 1), "top", "bottom", "as you look at it from its left"),
}


def sight_of(position: Floats, facing: Floats) -> Sight:
    """From where LEDs are best looked at: the side on which they cover most, and which they face.

    position, facing: (n, 3).
    """
    size = np.ptp(position, axis=0)
    thin = int(np.argmin([size[0], size[1], size[2] - 1e-6]))
    looks = facing.mean(axis=0)
    match thin:
        case 0:
            return _UPRIGHT["left" if looks[0] < 0 else "right"]
        case 1:
            return _UPRIGHT["back" if looks[1] < 0 else "front"]
    return ABOVE


class Whole:
    """The whole map, to name places in it. sight: the side from which the user looks."""

    def __init__(self, bench: Bench) -> None:
        rows = np.flatnonzero(~np.isnan(bench.position[:, 0]))
        position = bench.position[rows]
        self.sight = sight_of(position, bench.facing[rows])
        self._extent = Extent.of(self.sight.flat(position))

    def place(self, position: Floats) -> str:
        """Where places (n, 3) lie in the whole, as in `front-left`."""
        there = position[~np.isnan(position[:, 0])]
        return self.sight.place(self.sight.flat(there).mean(axis=0), self._extent)


@dataclass(frozen=True)
class Marks:
    """The red and the green mark, as rows; the words say where they are on the map."""

    red: Ints
    green: Ints
    words: str


def quadrants(flat: Floats) -> tuple[Ints, Ints]:
    """Which places (n, 2) get the red and which the green mark.

    Red is top left, green top right, the bottom is dark; if one side has nothing at the top, red is
    on the left. On a line to the right the marks are its ends; on a line upward red is its upper
    third and green its middle.
    """
    extent = Extent.of(flat)
    across, upward = (flat - extent.middle).T
    if extent.size[1] == 0:
        third = extent.size[0] / 6
        return np.flatnonzero(across < -third), np.flatnonzero(across > third)
    if extent.size[0] == 0:
        third = extent.size[1] / 6
        return np.flatnonzero(upward > third), np.flatnonzero(np.abs(upward) <= third)
    eps = 1e-6 * float(extent.size.max())
    red, green = (upward > eps) & (across < -eps), (upward > eps) & (across > eps)
    if not red.any() or not green.any():
        red, green = (upward > -eps) & (across < -eps), (upward > -eps) & (across > eps)
    if not red.any() or not green.any():
        red = across < -eps
        green = (upward > eps) & ~red
    return np.flatnonzero(red), np.flatnonzero(green)


def places_in_words(sight: Sight, flat: Floats, red: Ints, green: Ints) -> tuple[str, str]:
    """Where the marks are seen: (n, 2) places of all; `mixed` if one is in several places."""
    extent = Extent.of(flat)
    return _one_place(sight, flat[red], extent), _one_place(sight, flat[green], extent)


def _one_place(sight: Sight, flat: Floats, extent: Extent) -> str:
    if len(flat) == 0:
        return "nowhere"
    # A third in the middle of each side belongs to neither end; the middle of a mark decides.
    place = sight.place(flat.mean(axis=0), extent, 0.45)
    each = [sight.place(point, extent, 0.5) for point in flat]
    near = sum(set(place.split("-")) <= set(word.split("-")) or place == "middle" for word in each)
    spread = np.ptp(flat, axis=0) > 0.75 * np.where(extent.size > 0, extent.size, np.inf)
    return "mixed" if near < 0.8 * len(each) or (place == "middle" and spread.any()) else place


def marks_of(bench: Bench) -> Marks:
    """The marks on the LEDs that a bench's patterns light."""
    rows = bench.placed
    if len(rows) == 0:
        return Marks(rows, rows, "nothing here has a place")
    sight = sight_of(bench.position[rows], bench.facing[rows])
    flat = sight.flat(bench.position[rows])
    red, green = quadrants(flat)
    red_at, green_at = places_in_words(sight, flat, red, green)
    words = f"{sight.words}: red at {red_at}, green at {green_at}, all else dark"
    if len(rows) < np.count_nonzero(~np.isnan(bench.position[:, 0])):
        words += f"; in the whole that is at {Whole(bench).place(bench.position[rows])}"
    return Marks(rows[red], rows[green], words)
