"""Leads: what a wire can carry, and which fuse and wire a current needs."""

from __future__ import annotations

from fendra.core.catalogue.wires import (
    FUSE_MARGIN,
    FUSES_A,
    MOST_DROP,
    THINNEST,
    WIRES_A,
    wire_ohm,
)


def bears_a(area_mm2: float) -> float:
    """The continuous current of a conductor, in amperes; between usual sizes, the smaller one's.

    >>> bears_a(0.75), bears_a(0.326)
    (6.0, 1.0)
    """
    held = [amps for area, amps in WIRES_A.items() if area <= area_mm2 * 1.0001]
    if held:
        return held[-1]
    smallest = next(iter(WIRES_A))
    return WIRES_A[smallest] * area_mm2 / smallest


def fuse_for(peak_a: float) -> float | None:
    """The smallest fuse that carries a current for long; None above the largest.

    >>> fuse_for(4.0), fuse_for(4.01), fuse_for(100.0)
    (5.0, 7.5, None)
    """
    return next((fuse for fuse in FUSES_A if fuse >= peak_a * FUSE_MARGIN - 1e-9), None)


def wire_for(peak_a: float, metres: float, volts: float) -> float | None:
    """The smallest usual cross-section that can carry the fuse of a current, and drops no more than
    `MOST_DROP` of the voltage there and back; None if none does.

    >>> wire_for(4.0, 0.3, 5.0), wire_for(4.0, 2.0, 5.0)
    (0.75, 2.5)
    """
    fuse = fuse_for(peak_a)
    if fuse is None:
        return None
    return next(
        (
            area
            for area, held_a in WIRES_A.items()
            if area >= THINNEST
            and held_a >= fuse
            and 2 * wire_ohm(metres, area) * peak_a <= MOST_DROP * volts + 1e-9
        ),
        None,
    )
