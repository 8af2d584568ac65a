"""A straight strip."""

from __future__ import annotations

from typing import Annotated, Literal

import numpy as np
from pydantic import Field, model_validator

from fendra.core.layout.shapes import Array, Part, Point, shape

MOST_LEDS = 100_000


@shape
class Strip(Part):
    """LEDs on a straight line from `start` to `end`, given by `count` or by `pitch`.

    count: LEDs, the first at `start` and the last at `end`.
    pitch: mm from LED to LED, from `start` on, as many as fit.

    >>> bar = Strip(name="tail", shape="strip", start=(0, 0, 0), end=(100, 0, 0), count=5)
    >>> bar.positions()[:, 0]
    array([  0.,  25.,  50.,  75., 100.])
    """

    shape: Literal["strip"]
    start: Point
    end: Point
    count: Annotated[int, Field(ge=1, le=MOST_LEDS)] | None = None
    pitch: Annotated[float, Field(ge=0.1, le=10_000)] | None = None

    @model_validator(mode="after")
    def _count_or_pitch(self) -> Strip:
        if (self.count is None) == (self.pitch is None):
            raise ValueError("a strip needs either `count` or `pitch`, and not both")
        if self.pitch is not None and self._length() / self.pitch > MOST_LEDS:
            raise ValueError(f"a strip has at most {MOST_LEDS} LEDs; use a larger `pitch`")
        return self

    def _length(self) -> float:
        return float(np.linalg.norm(np.subtract(self.end, self.start)))

    def positions(self) -> Array:
        start, end = np.array(self.start, float), np.array(self.end, float)
        if self.count is not None:
            return np.linspace(start, end, self.count)
        assert self.pitch is not None
        length = self._length()
        direction = (end - start) / length if length > 0 else np.zeros(3)
        places = np.arange(int(length / self.pitch + 1e-6) + 1) * self.pitch
        return start + places[:, None] * direction
