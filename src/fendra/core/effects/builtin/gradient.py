"""From colour to colour."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    colours,
    effect,
    fraction,
    number,
    numbers,
    place,
    row_of,
    select,
    to_and_fro,
    truth,
)


@effect(family="steady")
def gradient(
    led: Led,
    colours: list[Value] = colours(["blue", "red"], "from the first to the last"),
    at: list[Value] = numbers([], "", 0.0, 1.0, "where each colour is; evenly by default"),
    by: Value = place("along", "the way along which they run"),
    rate: Value = number(0.0, "Hz", 0.0, 20.0, "runs of the colours along the way"),
    loop: Value = truth(
        False, "the last colour blends into the first; else they go there and back"
    ),
    even: Value = truth(False, "mixed in steps that look even (Oklab); else in linear light"),
) -> Look:
    """Colours that blend into each other: along the trail, across (`by = "x"`), round (`by =
    "angle"`) or out from a point (`by = "distance(0, 200)"`).

    At a rate above 0 they drift along the way without a seam: there and back or, with `loop`, in
    one direction for ever. The background of most designs.
    """
    if rate.number == 0:
        share = by
    else:
        drift = led.cycle(rate)
        once = to_and_fro(fraction(by * 0.5 + 1.0 - drift))
        share = select(loop, fraction(by + 1.0 - drift), once)
        led.label(drift=drift)
    led.label(way=share)
    return Look(row_of(colours, at, share, loop, even), 1.0)
