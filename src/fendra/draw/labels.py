"""Where labels go: near what they name, over nothing that matters."""

from __future__ import annotations

from typing import Any

import numpy as np

Array = np.ndarray[Any, np.dtype[np.float64]]

_DIRECTIONS = 16
_DISTANCES = (1.0, 1.6, 2.4, 3.6)


def find_place(
    anchors: Array,
    size: tuple[float, float],
    gap: float,
    taken: Array,
    boxes: list[Array],
    within: Array,
) -> Array:
    """The middle (x, y) of a label's box.

    All in one unit, pixels as a rule. anchors: (k, 2) points that the label may stand
    beside. size: width and height. gap: least distance from the anchor. taken: (n, 2)
    points to keep free. boxes: (4,) left, low, right, high of labels that stand already.
    within: the (4,) box of all that can be seen. The best of a fixed set of places is
    taken, so the same picture has the same labels.
    """
    angles = np.arange(_DIRECTIONS) * (2 * np.pi / _DIRECTIONS)
    ways = np.stack([np.cos(angles), np.sin(angles)], axis=1)
    half = np.array(size) / 2
    reach = np.abs(ways) @ half
    best, best_cost = np.asarray(anchors[0]), np.inf
    centre = (within[:2] + within[2:]) / 2
    for anchor in anchors:
        outward = anchor - centre
        outward /= max(float(np.linalg.norm(outward)), 1e-9)
        for distance in _DISTANCES:
            for way, extent in zip(ways, reach, strict=True):
                middle = anchor + way * (gap * distance + extent)
                box = np.concatenate([middle - half, middle + half])
                cost = 4.0 * distance - 3.0 * float(way @ outward)
                cost += 6.0 * _points_inside(box, taken, gap * 0.4)
                cost += sum(200.0 for other in boxes if _overlap(box, other))
                cost += 300.0 * float((box[:2] < within[:2]).any() or (box[2:] > within[2:]).any())
                if cost < best_cost:
                    best, best_cost = middle, cost
    return best


def _points_inside(box: Array, points: Array, margin: float) -> int:
    inside = (points >= box[:2] - margin) & (points <= box[2:] + margin)
    return int(inside.all(axis=1).sum())


def _overlap(a: Array, b: Array) -> bool:
    return bool((a[:2] < b[2:]).all() and (b[:2] < a[2:]).all())
