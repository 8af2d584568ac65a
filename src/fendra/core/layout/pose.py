"""Poses: how a part's own axes lie in the axes of the thing."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Self

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.shapes import Part


@dataclass(frozen=True)
class Pose:
    """A turn, or a turn with a mirror, and a move: `matrix @ point + move`.

    matrix: (3, 3), orthogonal. move: (3,).
    """

    matrix: Floats
    move: Floats

    @classmethod
    def of(cls, part: Part) -> Self:
        """The pose that a part's keys say: mirrored, tilted about x and y, turned about z, moved.

        >>> from fendra.core.shapes.points import Points
        >>> part = Points(name="a", shape="points", points=[(1, 0)], turn=90, at=(10, 0))
        >>> Pose.of(part).points(part.positions()).round(9).tolist()
        [[10.0, 1.0, 0.0]]
        """
        matrix = np.eye(3)
        if part.mirror is not None:
            axis = "xyz".index(part.mirror)
            matrix[axis, axis] = -1.0
        for axis, angle in ((0, part.tilt[0]), (1, part.tilt[1]), (2, part.turn)):
            if angle:
                matrix = rotation(axis, angle) @ matrix
        return cls(matrix, np.array(part.at, float))

    def within(self, outer: Pose) -> Pose:
        """This pose, if its own axes lie in the axes of another."""
        return Pose(outer.matrix @ self.matrix, outer.matrix @ self.move + outer.move)

    def points(self, points: Floats) -> Floats:
        """Points (n, 3) of the part's axes in the axes of the thing."""
        return np.asarray(points @ self.matrix.T + self.move)

    def ways(self, vectors: Floats) -> Floats:
        """Directions (n, 3): turned, not moved."""
        return np.asarray(vectors @ self.matrix.T)


def rotation(axis: int, degrees: float) -> Floats:
    """Counter-clockwise seen from the axis's end; exact at quarter turns."""
    quarter, rest = divmod(degrees, 90.0)
    if rest == 0.0:
        cos, sin = ((1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0))[int(quarter) % 4]
    else:
        cos, sin = np.cos(np.radians(degrees)), np.sin(np.radians(degrees))
    a, b = (axis + 1) % 3, (axis + 2) % 3
    matrix = np.eye(3)
    matrix[[a, a, b, b], [a, b, a, b]] = cos, -sin, sin, cos
    return matrix
