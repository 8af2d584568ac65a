"""Senses: a screen, sound and the sun, as numbers."""
