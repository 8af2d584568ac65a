"""Wires: their resistance, the current that they carry, and which one to use."""

from __future__ import annotations

import math
from typing import Annotated

from pydantic import Field

from fendra.core.values import Model

COPPER_OHM_MM2 = 0.0175
"""Ohm of a metre of copper of 1 mm2, at 20 C."""

WIRES_A: dict[float, float] = {
    0.14: 0.5, 0.25: 1.0, 0.34: 2.0, 0.5: 3.0, 0.75: 6.0, 1.0: 10.0, 1.5: 16.0, 2.5: 25.0,
    4.0: 32.0, 6.0: 40.0, 10.0: 63.0, 16.0: 80.0,
}  # fmt: skip
"""Usual cross-sections in mm2 and the current in amperes that each can carry: flexible leads, from
0.5 mm2 on as fused in DIN VDE 0100-430, thinner ones by custom."""

FUSES_A = (0.5, 1.0, 2.0, 3.0, 4.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 30.0, 40.0, 50.0, 60.0, 80.0)
"""Ratings of blade fuses (ISO 8820-3), and small ones below."""

FUSE_MARGIN = 1.25
"""A fuse carries four fifths of its rating for long."""

THINNEST = 0.5
"""Of the leads that are proposed, in mm2: thinner ones break where things shake."""

ASSUMED_MM2 = 0.5
"""For wires without figures."""

MOST_DROP = 0.03
"""Share of the voltage that a lead may take: a wire is chosen so."""


class Jump(Model):
    """The wire from one part of a line to the next: plus and ground, as long as the straight way.

    Attributes:
        mm2: cross-section of each conductor, mm²
        awg: or its AWG number
    """

    mm2: Annotated[float, Field(ge=0.005, le=120)] | None = None
    awg: Annotated[int, Field(ge=0, le=40)] | None = None

    @property
    def is_sized(self) -> bool:
        """Whether the design gives its cross-section."""
        return self.mm2 is not None or self.awg is not None

    @property
    def area_mm2(self) -> float:
        """Of each conductor; 0.5 mm2 by default."""
        if self.mm2 is not None:
            return self.mm2
        return ASSUMED_MM2 if self.awg is None else awg_to_mm2(self.awg)


class Lead(Jump):
    """A lead: plus and ground side by side, both counted.

    Attributes:
        metres: length one way, m

    It has the keys of `Jump` too.
    """

    metres: Annotated[float, Field(ge=0, le=100)] = 0.3

    @property
    def ohm(self) -> float:
        """Of one conductor."""
        return wire_ohm(self.metres, self.area_mm2)

    def __str__(self) -> str:
        size = f"AWG {self.awg}" if self.mm2 is None and self.awg is not None else ""
        return f"{self.metres:g} m of {size or f'{self.area_mm2:g} mm²'}"


def awg_to_mm2(gauge: int) -> float:
    """The cross-section of an American wire gauge (ASTM B258).

    >>> round(awg_to_mm2(22), 3)
    0.326
    """
    return float(math.pi / 4 * (0.127 * 92 ** ((36 - gauge) / 39)) ** 2)


def wire_ohm(metres: float, area_mm2: float) -> float:
    """The resistance of one conductor of copper at 20 C.

    >>> round(wire_ohm(1.0, 0.5) * 1000, 1)
    35.0
    """
    return COPPER_OHM_MM2 * metres / area_mm2
