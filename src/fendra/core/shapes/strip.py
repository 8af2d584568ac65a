"""A straight strip."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal, TypeAlias

import numpy as np
from pydantic import model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import FACINGS, Direction, shape
from fendra.core.shapes.spaced import Spaced
from fendra.core.values import Number, Point, Vector, one_of

if TYPE_CHECKING:
    Way: TypeAlias = Direction | Number | Vector
else:
    Way = one_of(text=Direction, number=Number, numbers=Vector)


@shape
class Strip(Spaced):
    """LEDs on a straight line from `start`, to `end` or in a `direction`.

    Attributes:
        start: where the first LED is
        end: where the last LED is
        direction: instead of `end`: a word as in `facing`, degrees from +x
            counter-clockwise, or a vector; it needs `count` and a spacing

    >>> bar = Strip(name="tail", shape="strip", start=(0, 0, 0), end=(100, 0, 0), count=5)
    >>> bar.positions()[:, 0]
    array([  0.,  25.,  50.,  75., 100.])
    >>> side = Strip(name="side", shape="strip", direction="front", count=3, per_metre=100)
    >>> side.positions()[:, 1]
    array([ 0., 10., 20.])
    """

    shape: Literal["strip"]
    start: Point = (0.0, 0.0, 0.0)
    end: Point | None = None
    direction: Way | None = None

    @model_validator(mode="after")
    def _end_or_direction(self) -> Strip:
        if (self.end is None) == (self.direction is None):
            raise ValueError("a strip has either an `end` or a `direction`; give one of them")
        has_spacing = self.pitch is not None or self.per_metre is not None
        if self.direction is not None and not (has_spacing and self.count is not None):
            raise ValueError("a strip in a `direction` needs `count`, and `pitch` or `per_metre`")
        return self

    def way(self) -> Floats:
        """The direction as a unit vector (3,); of length 0 if start and end are one."""
        if self.end is not None:
            vector = np.subtract(self.end, self.start)
        elif isinstance(self.direction, str):
            vector = np.array(FACINGS[self.direction])
        elif isinstance(self.direction, tuple):
            vector = np.array(self.direction)
        else:
            angle = np.radians(self.direction or 0.0)
            vector = np.array([np.cos(angle), np.sin(angle), 0.0])
        length = float(np.linalg.norm(vector))
        return np.asarray(vector / length if length > 0 else np.zeros(3))

    def length(self, unit_mm: float) -> float:
        if self.end is not None:
            return float(np.linalg.norm(np.subtract(self.end, self.start)))
        spacing = self.spacing(unit_mm)
        assert spacing is not None
        assert self.count is not None
        return spacing * (self.count - 1)

    def positions(self, unit_mm: float = 1.0) -> Floats:
        start = np.array(self.start, float)
        if self.end is not None and self.count is not None and self.spacing(unit_mm) is None:
            return np.linspace(start, np.array(self.end, float), self.count)
        return np.asarray(start + self.places(unit_mm)[:, None] * self.way())
