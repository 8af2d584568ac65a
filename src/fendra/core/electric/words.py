"""Figures as people read them."""

from __future__ import annotations


def amps_in_words(value: float | None) -> str:
    """A current with three figures, in mA below 1 A; a dash where there is none.

    >>> amps_in_words(7.3702), amps_in_words(0.158), amps_in_words(None)
    ('7.37 A', '158 mA', '-')
    """
    if value is None:
        return "-"
    return f"{value * 1000:.3g} mA" if value < 0.9995 else f"{value:.3g} A"
