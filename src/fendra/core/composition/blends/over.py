"""Over: the layer hides what it covers."""

from __future__ import annotations

from fendra.core.composition.blends import Stroke, blend
from fendra.core.graph.trace import Value


@blend("over", covers=True)
def over(beneath: Value, stroke: Stroke) -> Value:
    """The layer's colour, and the part of the light below that it does not cover."""
    return beneath * stroke.rest + stroke.paint
