"""Placing by hand: the keys of a part that change when it is moved or turned."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.layout.pose import Pose, rotation
from fendra.core.shapes import Part

DIGITS = 3
"""Of places that follow from a turn, behind the point."""


def moved(part: Part, by: Sequence[float]) -> dict[str, Any]:
    """The keys of a part that was moved, with their new values.

    by: x, y and z in the design's unit. A part that is turned, tilted or mirrored, or has `at`,
    moves by `at`; others move by their own places: `start` and `end` of a strip, or `centre`.

    >>> from fendra.core.shapes.strip import Strip
    >>> bar = Strip(name="bar", shape="strip", start=(0, 0), end=(70, 0, 5), count=8)
    >>> moved(bar, (10, -2.5, 0))
    {'start': (10.0, -2.5, 0.0), 'end': (80.0, -2.5, 5.0)}
    """
    anchors = _anchors(part)
    if _is_posed(part) or not anchors:
        return {"at": _sum(part.at, by)}
    return {key: _sum(value, by) for key, value in anchors.items()}


def turned(part: Part, degrees: float, middle: Sequence[float]) -> dict[str, Any]:
    """The keys of a part that was turned about a place, counter-clockwise seen from above.

    middle: x, y and z in the design's unit.

    >>> from fendra.core.shapes.ring import Ring
    >>> turned(Ring(name="hub", shape="ring", radius=5, count=4, centre=(9, 2)), 90, (9, 2, 0))
    {'start_angle': 90.0}
    """
    matrix, about = rotation(2, degrees), np.array(middle, float)

    def round_about(place: Sequence[float]) -> tuple[float, ...]:
        return _rounded(about + matrix @ (np.array(place, float) - about))

    anchors = _anchors(part)
    angles = {
        key: _angle(getattr(part, key) + degrees)
        for key in ("start_angle", "end_angle")
        if key in type(part).model_fields
    }
    is_straight = {*anchors} == {"start", "end"}
    if _is_posed(part) or not (angles or is_straight):
        changed: dict[str, Any] = {"turn": _angle(part.turn + degrees)}
        at = round_about(part.at)
        return changed | ({"at": at} if not np.allclose(at, part.at) else {})
    places = {key: round_about(value) for key, value in anchors.items()}
    if "end_angle" in angles:  # an arc may go round more than once; only its start is kept small
        before = {key: getattr(part, key) for key in angles}
        by = angles["start_angle"] - before["start_angle"]
        angles["end_angle"] = round(before["end_angle"] + by, DIGITS)
    return angles | {k: v for k, v in places.items() if not np.allclose(v, anchors[k])}


def middle_of(part: Part, unit_mm: float) -> tuple[float, ...]:
    """The middle of a part's LEDs in the design's unit: x, y and z."""
    places = Pose.of(part).points(part.positions(unit_mm))
    if not len(places):
        return part.at
    return _rounded((places.min(axis=0) + places.max(axis=0)) / 2)


def _anchors(part: Part) -> dict[str, tuple[float, float, float]]:
    """The places of a part in its own axes by which it can be moved."""
    keys = [key for key in ("start", "end", "centre") if key in type(part).model_fields]
    return {key: getattr(part, key) for key in keys if getattr(part, key) is not None}


def _is_posed(part: Part) -> bool:
    return bool(any(part.at) or part.turn or any(part.tilt) or part.mirror)


def _sum(place: Sequence[float], by: Sequence[float]) -> tuple[float, ...]:
    return _rounded(np.array(place, float) + np.array(by, float))


def _rounded(place: Floats) -> tuple[float, ...]:
    return tuple((np.round(place, DIGITS) + 0.0).tolist())


def _angle(degrees: float) -> float:
    return round(degrees % 360.0, DIGITS)
