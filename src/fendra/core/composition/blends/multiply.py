"""Multiply: a colour filter."""

from __future__ import annotations

from fendra.core.composition.blends import Stroke, blend
from fendra.core.graph.trace import Value


@blend("multiply")
def multiply(beneath: Value, stroke: Stroke) -> Value:
    """The light beneath as through a filter of the layer's colour, as far as it covers."""
    rest = (stroke.colour * stroke.light - 1.0) * stroke.cover + 1.0
    rest.tracer.label(rest, "rest")
    return beneath * rest
