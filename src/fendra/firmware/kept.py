"""The memory that firmware keeps while the power is off."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from fendra.core.graph.node import Graph
from fendra.core.signals.kept import kept_knobs, kept_scenes

if TYPE_CHECKING:
    from fendra.core.composition.plan import Plan
    from fendra.core.engines.c99 import Emitted
    from fendra.firmware.pins import InputPin, Wiring


@dataclass(frozen=True)
class Kept:
    """cells: fields of the light's memory, 32 bits each. knobs: those at the controller's pins."""

    cells: tuple[str, ...]
    knobs: tuple[InputPin, ...]

    @property
    def size(self) -> int:
        """Bytes of all of it."""
        return 4 * (len(self.cells) + len(self.knobs))


def kept_of(plan: Plan, emitted: Emitted, wiring: Wiring) -> Kept | None:
    """The memory that a controller keeps; None for nothing."""
    knobs = {*kept_knobs(plan.design)}
    scenes = {*kept_scenes(plan.design)}
    cells = [
        emitted.cells[cell][0]
        for cell in emitted.cells
        if cell.startswith("count.") and _scene_of(plan.graph, cell) in scenes
    ]
    at_pins = tuple(each for each in wiring.inputs if each.signal in knobs)
    return Kept(tuple(cells), at_pins) if cells or at_pins else None


def _scene_of(graph: Graph, cell: str) -> int | None:
    """The place of the scene that a memory cell belongs to."""
    origins = [n.origin for n in graph.nodes if n.op == "state" and n.payload == cell]
    return next((int(o[1]) for o in origins if o[:1] == ("scene",)), None)
