"""The time of day, and where the sun is.

Names: `hour` (0 up to 24), `minute`, `second`, `weekday` (0 is Monday), `day` (of the year, from
1), `sun` (degrees above the horizon), `sunrise` and `sunset` (hours of this day), `daylight` (on
while the sun is up).
"""

from __future__ import annotations

import time
from collections.abc import Callable
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field, field_validator

from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.senses.sun import sun_height_deg, sun_times_h
from fendra.drivers import Options
from fendra.sources import News, Source


class ClockOptions(Options):
    """Options of the clock.

    Attributes:
        latitude: degrees, north is positive
        longitude: degrees, east is positive
        rate: how often it sends the time, Hz
        at: a made-up time to start at: `2026-06-21 20:00`
        speed: how fast a made-up time runs
    """

    latitude: Annotated[float, Field(ge=-90, le=90)] = 0.0
    longitude: Annotated[float, Field(ge=-180, le=180)] = 0.0
    rate: Annotated[float, Field(gt=0, le=50)] = 2.0
    at: str = ""
    speed: Annotated[float, Field(gt=0, le=100_000)] = 1.0

    @field_validator("at")
    @classmethod
    def _is_time(cls, text: str) -> str:
        if text:
            datetime.fromisoformat(text)
        return text


class ClockSource(Source):
    """The clock of this computer, in its own time zone."""

    Options = ClockOptions
    options: ClockOptions
    example = "clock:,latitude=52.5,longitude=13.4"

    def __init__(
        self, address: str = "", *, now: Callable[[], float] = time.time,
        sleep: Callable[[float], None] = time.sleep, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address, **options)
        self._now, self._sleep = now, sleep

    def __str__(self) -> str:
        return "clock"

    def _open(self, design: Design, layout: Layout) -> None:  # noqa: ARG002 - all is taken
        self._begun_s = self._now()
        self._told_s = -1e9

    def _read(self, wait_s: float) -> News:
        now_s = self._now()
        left_s = 1 / self.options.rate - (now_s - self._told_s)
        if 0 < left_s <= 1 / self.options.rate:  # else the clock was set
            self._sleep(min(wait_s, left_s))
            return ()
        self._told_s = now_s
        moment_s = now_s
        if self.options.at:
            start_s = datetime.fromisoformat(self.options.at).astimezone().timestamp()
            moment_s = start_s + (now_s - self._begun_s) * self.options.speed
        moment = datetime.fromtimestamp(moment_s).astimezone()
        return told(moment, self.options.latitude, self.options.longitude).items()

    def _close(self) -> None:
        pass


def told(moment: datetime, latitude: float, longitude: float) -> dict[str, float]:
    """Every value of a moment, which has a time zone."""
    offset = moment.utcoffset()
    zone_h = 0.0 if offset is None else offset.total_seconds() / 3600
    hour = moment.hour + moment.minute / 60 + moment.second / 3600 + moment.microsecond / 3.6e9
    day = moment.timetuple().tm_yday
    rises, sets = sun_times_h(day, latitude, longitude, zone_h)
    height = sun_height_deg(day, hour, latitude, longitude, zone_h)
    return {
        "hour": hour, "minute": float(moment.minute),
        "second": moment.second + moment.microsecond / 1e6,
        "weekday": float(moment.weekday()), "day": float(day), "sun": height,
        "sunrise": rises, "sunset": sets, "daylight": float(height > -0.833),
    }  # fmt: skip
