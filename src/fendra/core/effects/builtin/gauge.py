"""A value as a lit length."""

from __future__ import annotations

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colour,
    colours,
    effect,
    maximum,
    minimum,
    number,
    ramp,
    row_of,
    select,
    truth,
)

PEAK_STAYS_S = 0.5


@effect(family="gauges")
def gauge(
    led: Led,
    value: Value = number(0.0, "", -1e6, 1e6, "the value to show"),
    low: Value = number(0.0, "", -1e6, 1e6, "the value of an empty gauge"),
    high: Value = number(1.0, "", -1e6, 1e6, "the value of a full gauge"),
    colours: list[Value] = colours(["lime", "gold", "red"], "from its start to its end"),
    by_value: Value = truth(
        False, "all LEDs have the colour of the value; else each has that of its place"
    ),
    origin: Value = number(0.0, "", 0.0, 1.0, "where on the trail it starts: 0.5 is the middle"),
    inward: Value = truth(False, "starts at both ends and meets in the middle"),
    reverse: Value = truth(False, "starts at the trail's end"),
    whole: Value = truth(False, "whole LEDs only; else the last one is dimmed"),
    peak: Value = truth(False, "a mark stays at the highest, then falls back"),
    peak_colour: Value = colour("white", "of that mark"),
    fall: Value = number(
        0.5, "1/s", 0.01, 100.0, "how many gauge lengths the mark falls in a second"
    ),
    threshold: Value | None = number(None, "", -1e6, 1e6, "from this value on it blinks"),
    rate: Value = number(3.0, "Hz", 0.0, 25.0, "blinks a second above the threshold"),
) -> Look:
    """Lit as far as the value says, in a row of colours: speed, RPM, charge, volume.

    It starts at the trail's start; or at a place of it (`origin`), and goes both ways; or at both
    ends (`inward`). From the threshold on, everything lit blinks: the red line.
    """
    length = float(led.ranks)
    filled = ramp(value, low, high)
    rank = select(reverse, length - 1.0 - led.rank, led.rank)
    if origin.number == 0 and inward.number == 0:
        place, size = rank, led.const(length)
    else:
        start = origin * (length - 1.0)
        out = abs(rank - start)
        size_out = maximum(start, length - 1.0 - start) + 0.5
        outward = out - select(out < 0.25, 0.0, 0.5)  # the one in the middle is lit by either side
        ends = minimum(rank, length - 1.0 - rank)
        place = select(inward, ends, maximum(select(origin > 0.0, outward, rank), 0.0))
        size_in = led.const((length + 1.0) // 2)
        size = select(inward, size_in, select(origin > 0.0, size_out, length))
    reach = filled * size
    lit = reach - place
    cover = clamp(lit)
    if whole.number != 0:
        cover = select(whole & (lit < 0.5), 0.0, select(whole, 1.0, cover))
    share = clamp(place / maximum(size - 1.0, 1.0))
    share = select(by_value, filled, share) if by_value.number != 0 else share
    no = led.const(False)
    shown = row_of(colours, [], share, no, no)
    led.label(reach=reach, lit=lit, shown=shown)
    if threshold is not None:
        is_dark = (value >= threshold) & (led.cycle(rate) >= 0.5)
        cover = select(is_dark, 0.0, cover)
        led.label(is_dark=is_dark)
    if peak.number == 0:
        return Look(shown, cover)
    top = led.peak(filled, PEAK_STAYS_S, fall) * size
    is_mark = peak & (place < top) & (place >= top - 1.0) & (top > 0.0)
    led.label(top=top)
    return Look(select(is_mark, peak_colour, shown), select(is_mark, 1.0, cover))
