"""An effect of one's own: slanted stripes that climb."""

from __future__ import annotations

from fendra.effects import Led, Look, Value, colours, effect, floor, fraction, number, pick


@effect
def barber_pole(
    led: Led,
    colours: list[Value] = colours(["red", "white", "blue"], "of the stripes, in their order"),
    height: Value = number(60.0, "mm", 1.0, 1000.0, "from one set of stripes to the next"),
    slant: Value = number(0.5, "", -5.0, 5.0, "how much they rise to the right"),
    rate: Value = number(0.5, "Hz", 0.0, 10.0, "sets of stripes that pass in a second"),
) -> Look:
    """Slanted stripes that climb: a shop, a carousel, a post by the road."""
    place = fraction((led.z + led.x * slant) / height + 1.0 - led.cycle(rate))
    return Look(pick(colours, floor(place * float(len(colours)))), led.const(1.0))
