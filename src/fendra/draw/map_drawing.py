"""The drawing of a map: a layout seen from one side."""

from __future__ import annotations

from dataclasses import dataclass

from fendra.core.arrays import Floats
from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.layout.table import PartRow
from fendra.core.layout.views import View


@dataclass(frozen=True)
class MapDrawing:
    """A layout as one view of it shows it.

    points: (m, 2) every LED across and up, in the design's unit.
    """

    design: Design
    layout: Layout
    view: View
    points: Floats

    def of(self, part: PartRow) -> Floats:
        """The LEDs of a part: (n, 2)."""
        return self.points[part.leds]

    def drawn(self) -> list[PartRow]:
        """The parts that have a place."""
        return [part for part in self.layout.parts if part.leds.stop > part.leds.start]
