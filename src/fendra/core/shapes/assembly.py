"""A sub-assembly: parts that are defined once and placed as often as they are built."""

from __future__ import annotations

from typing import Literal

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.shapes import Part, shape
from fendra.core.values import Name


@shape
class Assembled(Part):
    """The parts of an `[assemblies.NAME]`, placed together at this place of the chain.

    The part `top` of the copy `arm-1` is called `arm-1.top`; `arm-1` means all of them.
    Reversed, its parts come in the opposite order, each reversed.

    Attributes:
        use: the assembly's name
        only: the parts that this wire reaches, in the order of the assembly; all by default
    """

    shape: Literal["assembly"]
    use: Name
    only: list[Name] = []

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - its parts have them
        return np.zeros((0, 3))
