"""Figures as people read them."""

from __future__ import annotations


def in_amps(value: float | None) -> str:
    """A current with three figures, in mA below 1 A; a dash if there is none.

    >>> in_amps(7.3702), in_amps(0.158), in_amps(None)
    ('7.37 A', '158 mA', '-')
    """
    if value is None:
        return "-"
    return f"{value * 1000:.3g} mA" if value < 0.9995 else f"{value:.3g} A"


def brightest_in_words(white_a: float, full_a: float) -> str:
    """The name of the colour that draws most, from its current and white's."""
    return "full white" if full_a == white_a else "the brightest colour"
