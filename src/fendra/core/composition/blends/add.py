"""Add: light on light."""

from __future__ import annotations

from fendra.core.composition.blends import Stroke, blend
from fendra.core.graph.trace import Value


@blend("add")
def add(beneath: Value, stroke: Stroke) -> Value:
    """The light beneath plus the layer's colour, in each channel."""
    return beneath + stroke.paint
