"""Places for labels: close to the thing, and not over anything that matters."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

from fendra.core.arrays import Floats

_DIRECTIONS = 16
_DISTANCES = (1.0, 1.6, 2.4, 3.6)


@dataclass
class Board:
    """A picture to put labels on, all in one unit, usually pixels.

    within: (4,) left, low, right, high of the visible area. solid: (n, 2) points that no label may
    cover. faint: (k, 2) points that labels should avoid. boxes: (4,) of the labels so far.
    """

    within: Floats
    solid: Floats
    faint: Floats
    boxes: list[Floats] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.solid, self.faint = _sorted(self.solid), _sorted(self.faint)

    def put(self, anchors: Floats, size: tuple[float, float], gap: float) -> Floats | None:
        """Find a place for a label and take it: the middle (x, y) of its box, or None.

        anchors: (m, 2) points that it may stand beside. size: width and height. gap: least
        distance from the anchor. The best of a fixed set of places is taken, so the same
        picture has the same labels.
        """
        half = np.array(size) / 2
        middles, costs = self._places(anchors, half, gap)
        boxes = np.concatenate([middles - half, middles + half], axis=1)
        tried = np.argsort(costs, kind="stable")
        tried = tried[self._is_free(boxes)[tried]]
        tried = tried[_count_inside(boxes[tried], self.solid, gap * 0.3) == 0]
        if len(tried) == 0:
            return None
        hidden = _count_inside(boxes[tried], self.faint, gap * 0.4)
        best = tried[np.argmin(costs[tried] + 6.0 * hidden)]
        self.boxes.append(boxes[best])
        return np.asarray(middles[best])

    def _places(self, anchors: Floats, half: Floats, gap: float) -> tuple[Floats, Floats]:
        """All places (n, 2) that are tried, and the cost of each: near and outward is cheap."""
        angles = np.arange(_DIRECTIONS) * (2 * np.pi / _DIRECTIONS)
        ways = np.stack([np.cos(angles), np.sin(angles)], axis=1)
        outward = anchors - (self.within[:2] + self.within[2:]) / 2
        outward = outward / np.maximum(np.linalg.norm(outward, axis=1, keepdims=True), 1e-9)
        distances = np.array(_DISTANCES)
        reach = gap * distances[:, None] + np.abs(ways) @ half
        middles = anchors[:, None, None] + ways * reach[..., None]
        costs = 4.0 * distances[:, None] - 3.0 * (outward @ ways.T)[:, None]
        return middles.reshape(-1, 2), costs.ravel()

    def _is_free(self, boxes: Floats) -> Floats:
        """Whether each box (n, 4) is fully visible and overlaps no other label."""
        low, high = boxes[:, :2], boxes[:, 2:]
        is_free = (low >= self.within[:2]).all(1) & (high <= self.within[2:]).all(1)
        if self.boxes:
            others = np.array(self.boxes)
            meets = (low[:, None] < others[:, 2:]) & (high[:, None] > others[:, :2])
            is_free &= ~np.any(np.all(meets, axis=2), axis=1)
        return np.asarray(is_free)


def _sorted(points: Floats) -> Floats:
    """From left to right, so that few have to be compared with a box."""
    return np.asarray(points[np.argsort(points[:, 0], kind="stable")])


def _count_inside(boxes: Floats, points: Floats, margin: float) -> Floats:
    """How many of the sorted points are inside each box (n, 4), margin included: (n,)."""
    low, high = boxes[:, :2] - margin, boxes[:, 2:] + margin
    first = np.searchsorted(points[:, 0], low[:, 0], side="left")
    near = np.searchsorted(points[:, 0], high[:, 0], side="right") - first
    box = np.repeat(np.arange(len(boxes)), near)
    place = np.arange(len(box)) - np.repeat(np.cumsum(near) - near, near)
    y = points[place + first[box], 1]
    inside = (y >= low[box, 1]) & (y <= high[box, 1])
    return np.asarray(np.bincount(box, inside, len(boxes)), np.float64)
