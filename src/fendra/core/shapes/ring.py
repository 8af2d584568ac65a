"""A ring, flat in its own axes."""

from __future__ import annotations

from typing import Any, ClassVar, Literal, get_args

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.shapes import Part, Turning, shape
from fendra.core.values import Count, Length, Number, Point


@shape
class Ring(Part):
    """LEDs at even angles on a circle round `centre`.

    Attributes:
        centre: the middle of the circle
        radius: of the circle
        count: how many LEDs
        start_angle: of the first LED, degrees, counter-clockwise seen from above, 0 along
            +x
        direction: which way the wire runs, seen from above

    >>> Ring(name="hub", shape="ring", radius=10, count=4).positions().round(6)[1]
    array([ 0., 10.,  0.])
    """

    runs_round: ClassVar[bool] = True

    shape: Literal["ring"]
    centre: Point = (0.0, 0.0, 0.0)
    radius: Length
    count: Count
    start_angle: Number = 0.0
    direction: Turning = "counter-clockwise"

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - radius is in that unit
        sense = 1 if self.direction == "counter-clockwise" else -1
        turn = np.arange(self.count) * (360.0 / self.count) * sense
        angle = np.radians(self.start_angle + turn)
        circle = np.stack([np.cos(angle), np.sin(angle), np.zeros(self.count)], axis=1)
        return np.array(self.centre, float) + self.radius * circle

    def slips(self) -> dict[str, tuple[Any, ...]]:
        """One that is mirrored or turned is one with another angle and direction."""
        eighths = tuple(45.0 * i for i in range(8))
        return {
            "start_angle": eighths,
            "direction": get_args(Turning),
            "reverse": super().slips()["reverse"],
        }

    def outward(self, positions: Floats) -> Floats:
        return np.asarray(positions - self.centre)
