"""Stripes that move: an effect for the design beside this file, lamp.toml."""

from fendra.effects import Led, Look, colour, effect, fraction, number


@effect
def stripes(
    led: Led,
    colour=colour("red", "of the stripes"),
    size=number(4, "LEDs", 1, 100, "from stripe to stripe"),
    rate=number(0.5, "Hz", 0, 10, "stripes that pass in a second"),
) -> Look:
    """Every second run of LEDs is lit, and they move: barber poles, hazards."""
    place = fraction(led.rank / size + 1 - led.cycle(rate))
    return Look(colour, place < 0.5)
