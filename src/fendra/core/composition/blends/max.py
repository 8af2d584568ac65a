"""Max: the brighter of both."""

from __future__ import annotations

from fendra.core.composition.blends import Stroke, blend
from fendra.core.graph.functions import maximum
from fendra.core.graph.trace import Value


@blend("max")
def brighter(beneath: Value, stroke: Stroke) -> Value:
    """The larger of the light beneath and the layer's colour, in each channel."""
    return maximum(stroke.paint, beneath)
