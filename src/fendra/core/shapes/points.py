"""LEDs at places of their own."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import Part, shape
from fendra.core.values import MOST_LEDS, Point


@shape
class Points(Part):
    """Each LED at the place that you give, in wire order.

    Attributes:
        points: `[x, y]` or `[x, y, z]` for each
        file: instead, a CSV file beside the design with the columns x and y, and z and name
            if you like

    >>> Points(name="tips", shape="points", points=[(-600, 0), (600, 0, 5)]).positions()[1].tolist()
    [600.0, 0.0, 5.0]
    """

    shape: Literal["points"]
    points: list[Point] = Field([], max_length=MOST_LEDS)
    file: str = ""

    @model_validator(mode="after")
    def _has_points(self) -> Any:
        if self.file and not self.points:
            raise ValueError(f"the file '{self.file}' was not read; give `points` instead")
        if not self.points:
            raise ValueError("points need `points` or a `file`")
        return self

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - they are in that unit
        return np.array(self.points, float)
