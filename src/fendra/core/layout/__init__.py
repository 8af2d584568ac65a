"""Where every LED is: placing parts, wire order, choosing LEDs, trails."""

from fendra.core.layout.choice import Choice, Choices, choose, choose_all
from fendra.core.layout.table import Layout, place

__all__ = ["Choice", "Choices", "Layout", "choose", "choose_all", "place"]
