"""A strip that is bent: along straight pieces and arcs, corners included."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal, TypeAlias

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import shape
from fendra.core.shapes.spaced import Spaced
from fendra.core.values import Model, Point, one_of


class Bend(Model):
    """An arc through `via` to `to`.

    Attributes:
        via: a point on the arc
        to: where the arc ends
    """

    via: Point
    to: Point


if TYPE_CHECKING:
    Corner: TypeAlias = Point | Bend
else:
    Corner = one_of(numbers=Point, table=Bend)


@shape
class PathPart(Spaced):
    """LEDs along straight pieces and arcs, bent round its corners.

    Attributes:
        points: the corners, in order: `[x, y]`, or `{ via = [x, y], to = [x, y] }` for an
            arc
        closed: back to the first point at the end

    >>> corner = PathPart(name="a", shape="path", points=[(0, 0), (20, 0), (20, 20)], pitch=10)
    >>> corner.positions()[:, :2].tolist()
    [[0.0, 0.0], [10.0, 0.0], [20.0, 0.0], [20.0, 10.0], [20.0, 20.0]]
    """

    shape: Literal["path"]
    points: list[Corner] = Field(min_length=2)
    closed: bool = False

    @model_validator(mode="after")
    def _begins_and_bends(self) -> PathPart:
        if isinstance(self.points[0], Bend):
            raise ValueError("a path begins at a point; an arc may follow")
        for piece in self._pieces():
            if len(piece) == 3 and _circle(*piece) is None:
                raise ValueError("an arc needs three points that are not on a straight line")
        if self.length(1.0) == 0:
            raise ValueError("the points of the path are all at the same place")
        return self

    @property
    def is_loop(self) -> bool:
        return self.closed

    def _pieces(self) -> list[tuple[Floats, ...]]:
        """Start and end of each straight piece; start, via and end of each arc."""
        pieces: list[tuple[Floats, ...]] = []
        here = first = np.array(self.points[0], float)
        for point in self.points[1:]:
            ends = [point.via, point.to] if isinstance(point, Bend) else [point]
            corners = [np.array(end, float) for end in ends]
            pieces.append((here, *corners))
            here = corners[-1]
        if self.closed and not np.array_equal(here, first):
            pieces.append((here, first))
        return pieces

    def length(self, unit_mm: float) -> float:  # noqa: ARG002 - the points are in that unit
        return sum(map(_length, self._pieces()))

    def positions(self, unit_mm: float = 1.0) -> Floats:
        pieces = self._pieces()
        ends = np.cumsum([_length(piece) for piece in pieces])
        places = np.minimum(self.places(unit_mm), ends[-1])
        # A corner belongs to the piece that ends there, so that it is met exactly.
        piece_of = np.searchsorted(ends, places - 1e-9 * ends[-1])
        points = np.empty((len(places), 3))
        for number, piece in enumerate(pieces):
            mine = piece_of == number
            start = ends[number - 1] if number else 0.0
            points[mine] = _along(piece, places[mine] - start)
        return points


def _circle(start: Floats, via: Floats, end: Floats) -> tuple[Floats, Floats, Floats, float] | None:
    """The arc through three points: its centre, two axes of its plane, and its angle in radians.

    The axes are as long as the radius; the first leads to the start, and the arc turns towards the
    second. None if the points are on one straight line.
    """
    a, b = via - start, end - start
    normal = np.cross(a, b)
    square = float(normal @ normal)
    if square <= 1e-12 * float(a @ a) * float(b @ b) or square == 0:
        return None
    to_centre = (float(a @ a) * np.cross(b, normal) - float(b @ b) * np.cross(a, normal)) / (
        2 * square
    )
    centre = start + to_centre
    first = start - centre
    second = np.cross(normal / np.sqrt(square), first)
    out = end - centre
    angle = float(np.arctan2(out @ second, out @ first)) % (2 * np.pi)
    return centre, first, second, angle


def _length(piece: tuple[Floats, ...]) -> float:
    if len(piece) == 2:
        return float(np.linalg.norm(piece[1] - piece[0]))
    circle = _circle(*piece)
    return 0.0 if circle is None else float(np.linalg.norm(circle[1])) * circle[3]


def _along(piece: tuple[Floats, ...], places: Floats) -> Floats:
    """The points of a piece at distances from its start: (n, 3)."""
    length = _length(piece)
    share = (places / length if length > 0 else places * 0.0)[:, None]
    if len(piece) == 2:
        return np.asarray(piece[0] + share * (piece[1] - piece[0]))
    circle: Any = _circle(*piece)
    centre, first, second, angle = circle
    return np.asarray(centre + np.cos(share * angle) * first + np.sin(share * angle) * second)
