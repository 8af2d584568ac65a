"""Numbers with a unit behind them, as people write them, and the plain numbers that are meant."""

from __future__ import annotations

import re

WITH_UNIT = re.compile(
    r"([+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)) *"
    r"(ms|s|sec|min|Hz|kHz|rpm|deg|°|%|mm|cm|m|in|LEDs?|mA|A|mV|V|W|Ah|mAh|mm²|mm2|AWG|baud|km/h|m/s)"
)
"""A number and a unit: the whole text."""

_FACTORS = {
    ("ms", "s"): 0.001, ("sec", "s"): 1.0, ("min", "s"): 60.0, ("kHz", "Hz"): 1000.0,
    ("rpm", "Hz"): 1 / 60, ("°", "deg"): 1.0, ("%", ""): 0.01, ("LED", "LEDs"): 1.0,
    ("mA", "A"): 0.001, ("mV", "V"): 0.001, ("cm", "mm"): 10.0, ("m", "mm"): 1000.0,
    ("in", "mm"): 25.4, ("mAh", "Ah"): 0.001, ("mm", ""): 1.0,
}  # fmt: skip
"""The factor from one unit to another."""

_OF_KEYS = {
    "s": "average smooth debounce dwell hold lost_after fade fade_in fade_out least_on quiet",
    "mm": "start end centre radius width height pitch at points depth margin gap",
    "V": "volts logic_volts",
    "A": "amps regulator_amps fuse measured",
    "deg": "turn tilt angle from to",
    "Hz": "rate",
    "Ah": "ah",
}
_UNITS = {key: unit for unit, keys in _OF_KEYS.items() for key in keys.split()}
"""The units of keys whose values have one and the same everywhere."""


def unit_of(key: str) -> str:
    """The unit of a key's value, or nothing.

    >>> unit_of("fade_in"), unit_of("count")
    ('s', '')
    """
    return _UNITS.get(key, "")


def number_for(key: str, text: str) -> float | None:
    """The number that a text with a unit means for a key: in the key's unit, else unchanged.

    >>> number_for("fade", "80 ms"), number_for("count", "2,5 km/h"), number_for("fade", "soon")
    (0.08, 2.5, None)
    """
    found = WITH_UNIT.fullmatch(text.strip())
    if found is None:
        return None
    tried = (plain_number(text, unit) for unit in (unit_of(key), "", found[2]))
    return next((number for number in tried if number is not None), None)


def plain_number(text: str, unit: str) -> float | None:
    """The number that a text with a unit means, in another unit; None if that is not known.

    >>> plain_number("80 ms", "s"), plain_number("0,5 s", "s"), plain_number("5 V", "s")
    (0.08, 0.5, None)
    """
    found = WITH_UNIT.fullmatch(text.strip())
    if found is None:
        return None
    factor = 1.0 if found[2] == unit else _FACTORS.get((found[2], unit))
    return None if factor is None else float(f"{float(found[1].replace(',', '.')) * factor:.6g}")
