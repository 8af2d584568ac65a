"""Parts whose LEDs follow a way: their count or spacing, and whether both fit the way."""

from __future__ import annotations

from abc import abstractmethod
from typing import Annotated, Any

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import Part
from fendra.core.values import MOST_LEDS, Count

_SLACK = 0.05
"""Shares of a pitch by which a measured length may be off."""


class Spaced(Part):
    """A part whose LEDs follow a way. With a count the LEDs are spread evenly; with a spacing as
    many as fit are placed; with both, a count that does not fit the length is a finding.

    Attributes:
        count: how many LEDs
        pitch: spacing from LED to LED
        per_metre: spacing as LEDs in a metre
    """

    count: Count | None = None
    pitch: Annotated[float, Field(ge=0.01, le=10_000)] | None = None
    per_metre: Annotated[float, Field(ge=0.1, le=1000)] | None = None

    @model_validator(mode="after")
    def _has_enough(self) -> Any:
        if self.pitch is not None and self.per_metre is not None:
            raise ValueError("`pitch` and `per_metre` mean the same; give one of them")
        if self.count is None and self.pitch is None and self.per_metre is None:
            raise ValueError(f"a {self.shape} needs `count`, `pitch` or `per_metre`")
        return self

    @abstractmethod
    def length(self, unit_mm: float) -> float:
        """How long the way is, in the design's unit."""

    @property
    def is_loop(self) -> bool:
        """Whether the way ends where it begins."""
        return False

    def spacing(self, unit_mm: float) -> float | None:
        """From LED to LED, in the design's unit, if it is given."""
        if self.per_metre is not None:
            return 1000.0 / self.per_metre / unit_mm
        return self.pitch

    def places(self, unit_mm: float) -> Floats:
        """The distance of each LED along the way, from its start: (n,).

        Raises ValueError if more would fit than a part may have.
        """
        length, spacing = self.length(unit_mm), self.spacing(unit_mm)
        if self.count is not None and (spacing is None or self.misfit(unit_mm)):
            even = np.linspace(0.0, length, self.count, endpoint=not self.is_loop)
            return np.asarray(even, np.float64)
        assert spacing is not None
        if self.count is not None:
            return np.asarray(np.minimum(np.arange(self.count) * spacing, length), np.float64)
        if length / spacing > MOST_LEDS:
            raise ValueError(f"a part has at most {MOST_LEDS} LEDs; set them farther apart")
        fitting = int(length / spacing + 1e-6)
        is_met = self.is_loop and fitting > 0 and fitting * spacing > length * (1 - 1e-6)
        return np.asarray(np.arange(fitting + (not is_met)) * spacing, np.float64)

    def misfit(self, unit_mm: float) -> str:
        """Why count and spacing do not fit the length; nothing if they do."""
        spacing = self.spacing(unit_mm)
        if self.count is None or spacing is None:
            return ""
        length = self.length(unit_mm)
        steps = self.count if self.is_loop else self.count - 1
        if (steps - _SLACK) * spacing <= length < (steps + 1 + _SLACK) * spacing:
            return ""
        fitting = int(length / spacing + _SLACK) + (not self.is_loop)
        return (
            f"{self.count} LEDs, {spacing:g} from one to the next, need {steps * spacing:g}, "
            f"and the {self.shape} is {length:g} long, enough for {max(fitting, 1)}"
        )
