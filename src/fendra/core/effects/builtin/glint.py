"""Random sparks."""

from __future__ import annotations

from fendra.core.effects.kit import Led, Look, Value, chance, colour, effect, floor, number, select


@effect(family="chance")
def glint(
    led: Led,
    colour: Value = colour("white", "of the sparks"),
    density: Value = number(0.1, "", 0.0, 1.0, "share of the LEDs that spark at once"),
    life: Value = number(0.5, "s", 0.02, 60.0, "how long a spark lives"),
    seed: Value = number(1.0, "", 0.0, 1e6, "another seed gives other sparks"),
) -> Look:
    """LEDs light up at random and die away: stars, frost, metal flakes, idle.

    `density` can follow a signal: sparks at a knock, more sparks at speed. The same seed gives the
    same sparks.
    """
    key = led.uint(seed)
    number, share = led.turns(1.0 / life)
    offset = chance(led.number, key, 9)
    place = share + offset
    wraps = floor(place)
    turn = led.apply("uint_add", number, led.uint(wraps))
    into = place - wraps
    is_lit = chance(turn, led.number, key) < density
    left = 1.0 - into
    led.label(into=into)
    return Look(colour, select(is_lit, left * left, 0.0))
