"""Insight: what was on in a film, when and why, and what it draws."""
