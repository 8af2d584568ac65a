"""Signals: what kinds there are, how raw values become numbers, and how these are conditioned."""
