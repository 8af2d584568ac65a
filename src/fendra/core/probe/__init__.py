"""Proving on the bench that the map is right: patterns, and conclusions from what people see."""
