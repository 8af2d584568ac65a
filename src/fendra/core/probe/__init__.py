"""Proving on the bench that the map is right: patterns, and what follows from what is seen."""
