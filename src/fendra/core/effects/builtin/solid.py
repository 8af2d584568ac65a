"""One colour."""

from __future__ import annotations

from fendra.core.effects.kit import Led, Look, Value, colour, effect


@effect(family="steady")
def solid(
    led: Led,  # noqa: ARG001
    colour: Value = colour("white", "of every LED"),
) -> Look:
    """Every LED in one colour: running lights, a brake light, a background to paint on."""
    return Look(colour, 1.0)
