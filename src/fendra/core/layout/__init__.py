"""Where every LED is: shapes, placement, wire order, groups and trails."""

from fendra.core.layout.choice import Choice, choose, choose_all
from fendra.core.layout.table import Layout, place

__all__ = ["Choice", "Layout", "choose", "choose_all", "place"]
