"""LEDs of the chain that cannot be seen."""

from __future__ import annotations

from typing import Literal

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.shapes import Part, shape
from fendra.core.values import Count


@shape
class Hidden(Part):
    """Addresses without a place, always dark: a pixel that only lifts the data level, LEDs under a
    cover.

    Attributes:
        count: how many

    >>> Hidden(name="shifter", shape="hidden", count=1).positions().shape
    (0, 3)
    """

    shape: Literal["hidden"]
    count: Count = 1

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - it has no positions
        return np.zeros((0, 3))
