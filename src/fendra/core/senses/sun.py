"""Where the sun is: good to about a minute and half a degree (NOAA's general solar equations)."""

from __future__ import annotations

import math

HORIZON_DEG = -0.833
"""Where the sun's middle is when its edge rises: half its width, and the air's bending."""


def _declination_and_equation(day: float) -> tuple[float, float]:
    """The sun's declination, in radians, and the equation of time, in minutes, on a day."""
    turn = 2 * math.pi / 365 * (day - 1)
    equation = 229.18 * (
        0.000075
        + 0.001868 * math.cos(turn)
        - 0.032077 * math.sin(turn)
        - 0.014615 * math.cos(2 * turn)
        - 0.040849 * math.sin(2 * turn)
    )
    declination = (
        0.006918
        - 0.399912 * math.cos(turn)
        + 0.070257 * math.sin(turn)
        - 0.006758 * math.cos(2 * turn)
        + 0.000907 * math.sin(2 * turn)
        - 0.002697 * math.cos(3 * turn)
        + 0.00148 * math.sin(3 * turn)
    )
    return declination, equation


def sun_height_deg(
    day: int, hour: float, latitude: float, longitude: float, zone_h: float
) -> float:  # fmt: skip
    """The height of the sun above the horizon, in degrees.

    day: of the year, from 1. hour: local time; the zone is this many hours ahead of UTC.

    >>> round(sun_height_deg(172, 12.0, 52.5, 15.0, 1.0))  # noon at midsummer: 90 - 52.5 + 23.4
    61
    """
    declination, equation = _declination_and_equation(day + (hour - 12) / 24)
    solar_min = hour * 60 + equation + 4 * longitude - 60 * zone_h
    angle = math.radians(solar_min / 4 - 180)
    place = math.radians(latitude)
    sine = math.sin(place) * math.sin(declination)
    sine += math.cos(place) * math.cos(declination) * math.cos(angle)
    return math.degrees(math.asin(min(max(sine, -1.0), 1.0)))


def sun_times_h(
    day: int, latitude: float, longitude: float, zone_h: float
) -> tuple[float, float]:  # fmt: skip
    """When the sun rises and sets, in hours of the local time.

    If it stays up all day, 0 and 24; if it stays down, 12 and 12.

    >>> [round(hour, 1) for hour in sun_times_h(80, 0.0, 0.0, 0.0)]  # day and night are even
    [6.1, 18.2]
    """
    declination, equation = _declination_and_equation(day)
    place = math.radians(latitude)
    sine = math.sin(math.radians(HORIZON_DEG)) - math.sin(place) * math.sin(declination)
    scale = math.cos(place) * math.cos(declination)
    cosine = sine / scale if abs(scale) > 1e-12 else math.copysign(2, sine)
    noon_h = 12 + zone_h - longitude / 15 - equation / 60
    if cosine <= -1:
        return 0.0, 24.0
    if cosine >= 1:
        return 12.0, 12.0
    half_h = math.degrees(math.acos(cosine)) / 15
    return noon_h - half_h, noon_h + half_h
