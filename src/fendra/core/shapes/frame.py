"""A frame round a screen."""

from __future__ import annotations

from typing import Annotated, Any, Literal, get_args

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats, Ints
from fendra.core.shapes import Corner, Part, Turning, shape
from fendra.core.values import MOST_LEDS, Length, Point

_SIDES = ("top", "right", "bottom", "left")
"""Clockwise, each from its first corner on: the top begins at the top left."""

Side = Annotated[int, Field(ge=0, le=MOST_LEDS)]


@shape
class FramePart(Part):
    """LEDs along the sides of a rectangle round `centre`, as seen from its front. They look
    outward by default.

    Attributes:
        width: of the rectangle on which the LEDs are
        height: of the rectangle on which the LEDs are
        top: LEDs of this side, evenly spread
        right: LEDs of this side, evenly spread
        bottom: LEDs of this side, evenly spread
        left: LEDs of this side, evenly spread
        centre: the middle of the rectangle
        first: the corner where the chain begins, or `gap`
        direction: which way the chain runs, seen from the front
        gap: length without LEDs in the middle of `gap_side`, for a stand; of an odd number
            of LEDs the half that is later clockwise has one more
        gap_side: the side with the gap

    >>> screen = FramePart(name="s", shape="frame", width=40, height=20, top=2, right=1, left=1,
    ...                    first="bottom-left")
    >>> screen.positions()[:, :2].tolist()
    [[-20.0, 0.0], [-10.0, 10.0], [10.0, 10.0], [20.0, 0.0]]
    """

    shape: Literal["frame"]
    width: Length
    height: Length
    top: Side = 0
    right: Side = 0
    bottom: Side = 0
    left: Side = 0
    centre: Point = (0.0, 0.0, 0.0)
    first: Corner | Literal["gap"] = "top-left"
    direction: Turning = "clockwise"
    gap: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    gap_side: Literal["top", "right", "bottom", "left"] = "bottom"

    @model_validator(mode="after")
    def _is_sound(self) -> FramePart:
        if not any(self._counts()):
            raise ValueError("a frame needs LEDs on a side: top, right, bottom or left")
        if self.gap >= self._side_length(self.gap_side):
            raise ValueError(f"the gap is as long as the {self.gap_side} side, or longer")
        if self.first == "gap" and self.gap == 0:
            raise ValueError("the chain begins at the gap, but there is no gap; give its length")
        return self

    def _counts(self) -> tuple[int, int, int, int]:
        return self.top, self.right, self.bottom, self.left

    def _side_length(self, side: str) -> float:
        return self.width if side in ("top", "bottom") else self.height

    def _clockwise(self) -> tuple[Floats, Floats, Floats]:
        """From the top left on: the points (n, 2), the side of each, and the places along it."""
        points, sides, places = [np.zeros((0, 2))], [np.zeros(0)], [np.zeros(0)]
        corner = np.array([(-1, 1), (1, 1), (1, -1), (-1, -1)]) * (self.width / 2, self.height / 2)
        for number, (side, count) in enumerate(zip(_SIDES, self._counts(), strict=True)):
            length = self._side_length(side)
            gap = self.gap if side == self.gap_side else 0.0
            half = (length - gap) / 2
            if gap:
                first, rest = count // 2, count - count // 2
                along = np.concatenate([_even(first, half), length - half + _even(rest, half)])
            else:
                along = _even(count, length)
            start, end = corner[number], corner[(number + 1) % 4]
            points.append(start + along[:, None] / length * (end - start))
            sides.append(np.full(count, number))
            places.append(along)
        return np.concatenate(points), np.concatenate(sides), np.concatenate(places)

    def _order(self) -> Ints:
        """Which LED, counted clockwise from the top left, is how far down the chain."""
        _, sides, places = self._clockwise()
        total = len(sides)
        if self.first == "gap":
            number = _SIDES.index(self.gap_side)
            middle = self._side_length(self.gap_side) / 2
            start = int(np.sum((sides < number) | ((sides == number) & (places < middle))))
        else:
            corners = ["top-left", "top-right", "bottom-right", "bottom-left"]
            start = int(np.sum(sides < corners.index(self.first)))
        if self.direction == "clockwise":
            return np.asarray((start + np.arange(total)) % total, np.int64)
        return np.asarray((start - 1 - np.arange(total)) % total, np.int64)

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - all is in that unit
        points = self._clockwise()[0][self._order()]
        flat = np.concatenate([points, np.zeros((len(points), 1))], axis=1)
        return np.asarray(self.centre + flat)

    def slips(self) -> dict[str, tuple[Any, ...]]:
        """A screen is as wide as it is, and its sides are as they were counted."""
        corners = (*get_args(Corner), *(("gap",) if self.gap else ()))
        slips = {"first": corners, "direction": get_args(Turning), **super().slips()}
        slips["mirror"] = (None, "x")
        if "turn" in slips:
            slips["turn"] = slips["turn"][::2]
        return slips

    def normals(self, count: int) -> Floats:  # noqa: ARG002 - as many as there are
        ways = np.array([(0.0, 1.0, 0.0), (1.0, 0.0, 0.0), (0.0, -1.0, 0.0), (-1.0, 0.0, 0.0)])
        return np.asarray(ways[self._clockwise()[1][self._order()].astype(int)])

    def outward(self, positions: Floats) -> Floats:
        return self.normals(len(positions))


def _even(count: int, length: float) -> Floats:
    """Places of LEDs that share a length, each in the middle of its share."""
    return np.asarray((np.arange(count) + 0.5) * (length / max(count, 1)))
