"""Insight: which layers were on in a film, when and why, and the current."""
