"""A piece of a circle, flat in its own axes."""

from __future__ import annotations

from typing import ClassVar, Literal

import numpy as np
from pydantic import model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import shape
from fendra.core.shapes.spaced import Spaced
from fendra.core.values import Length, Number, Point


@shape
class Arc(Spaced):
    """LEDs on a circle round `centre`, from `start_angle` to `end_angle`, with an LED at both
    ends.

    Angles are degrees, counter-clockwise seen from above, 0 along +x.

    Attributes:
        centre: the middle of the circle
        radius: of the circle
        start_angle: of the first LED, degrees
        end_angle: of the last LED, degrees; below the start the arc runs clockwise

    >>> bow = Arc(name="bow", shape="arc", radius=10, start_angle=180, end_angle=0, count=3)
    >>> bow.positions().round(6)[:, :2].tolist()
    [[-10.0, 0.0], [0.0, 10.0], [10.0, 0.0]]
    """

    runs_round: ClassVar[bool] = True

    shape: Literal["arc"]
    centre: Point = (0.0, 0.0, 0.0)
    radius: Length
    start_angle: Number
    end_angle: Number

    @model_validator(mode="after")
    def _is_an_arc(self) -> Arc:
        if not 0 < abs(self.end_angle - self.start_angle) <= 360:
            raise ValueError("an arc must have more than 0 and at most 360 degrees")
        return self

    def length(self, unit_mm: float) -> float:  # noqa: ARG002 - radius is in that unit
        return self.radius * abs(float(np.radians(self.end_angle - self.start_angle)))

    def positions(self, unit_mm: float = 1.0) -> Floats:
        share = self.places(unit_mm) / self.length(unit_mm)
        angle = np.radians(self.start_angle + share * (self.end_angle - self.start_angle))
        circle = np.stack([np.cos(angle), np.sin(angle), np.zeros(len(angle))], axis=1)
        return np.array(self.centre, float) + self.radius * circle

    def outward(self, positions: Floats) -> Floats:
        return np.asarray(positions - self.centre)
