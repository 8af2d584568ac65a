"""Darken: the darker of both."""

from __future__ import annotations

from fendra.core.composition.blends import Stroke, blend
from fendra.core.graph.functions import minimum
from fendra.core.graph.trace import Value


@blend("darken")
def darken(beneath: Value, stroke: Stroke) -> Value:
    """The smaller of the light beneath and the layer's colour, as far as it covers."""
    darker = minimum(stroke.colour * stroke.light, beneath)
    return beneath * (1.0 - stroke.cover) + darker * stroke.cover
