"""A spectrum."""

from __future__ import annotations

import numpy as np

from fendra.core.effects.kit import (
    Led,
    Look,
    Value,
    clamp,
    colours,
    effect,
    floor,
    numbers,
    pick,
    place,
    row_of,
    select,
    truth,
)

BARELY = 1.001


@effect(family="events")
def bands(
    led: Led,
    levels: list[Value] = numbers(["0"], "", 0.0, 1.0, "of each band, the lowest first"),
    colours: list[Value] = colours(["lime", "gold", "red"], "of the bars, from bottom to top"),
    by: Value = place("across", "the direction from the first band to the last"),
    height: Value = place("up", "the direction in which a bar grows"),
    bars: Value = truth(True, "bars grow; else stretches brighten"),
    by_band: Value = truth(False, "each band in one colour, from the first to the last"),
) -> Look:
    """A spectrum as bars on a grid, or as stretches of a strip that brighten.

    Each level is a number or an expression: `levels = ["bass", "mid", "treble"]`.
    """
    count = float(len(levels))
    band = clamp(floor(by * count), 0.0, count - 1.0)
    level = pick(levels, band)
    if height.node.payload == "up" and led.count and np.ptp(led.flat[:, 1]) < led.pitch / 2:
        bars = bars & ~bars  # no room to grow
    share = select(bars, height, level)
    share = select(by_band, band / max(count - 1.0, 1.0), share)
    no = led.const(False)
    bar = select(height < level * BARELY, 1.0, 0.0)
    led.label(band=band, level=level)
    return Look(row_of(colours, [], share, no, no), select(bars, bar, level))
