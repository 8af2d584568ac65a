"""A ring, lying flat."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field

from fendra.core.layout.shapes import Array, Number, Part, Point, shape


@shape
class Ring(Part):
    """`count` LEDs at even angles on a circle round `centre`, level with the ground.

    radius: mm.
    start_angle: degrees of the first LED, counter-clockwise seen from above, 0 along +x.
    direction: which way the wire runs, seen from above.

    >>> Ring(name="hub", shape="ring", centre=(0, 0, 0), radius=10, count=4).positions().round(6)[1]
    array([ 0., 10.,  0.])
    """

    shape: Literal["ring"]
    centre: Point
    radius: Annotated[float, Field(gt=0, le=1e6)]
    count: Annotated[int, Field(ge=1, le=100_000)]
    start_angle: Number = 0.0
    direction: Literal["counter-clockwise", "clockwise"] = "counter-clockwise"

    def positions(self) -> Array:
        sense = 1 if self.direction == "counter-clockwise" else -1
        turn = np.arange(self.count) * (360.0 / self.count) * sense
        angle = np.radians(self.start_angle + turn)
        circle = np.stack([np.cos(angle), np.sin(angle), np.zeros(self.count)], axis=1)
        return np.array(self.centre, float) + self.radius * circle
