"""The budget of one line: its currents, the voltage along it, its time."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.catalogue.leds import LedType
from fendra.core.catalogue.wires import Lead
from fendra.core.document.line import Line
from fendra.core.electric.copper import Copper, copper_of, feeds_of, ladder_of
from fendra.core.electric.data import line_time_s
from fendra.core.electric.draws import Draw, draw_of
from fendra.core.electric.ladder import Ladder, extra_taps
from fendra.core.electric.loads import FRAMES_AT_ONCE, Feeding, Loads
from fendra.core.electric.words import brightest_in_words, in_amps
from fendra.core.film import Film
from fendra.core.layout.table import Layout
from fendra.core.names import counted
from fendra.core.shown import brief

FED_ALIKE = 6.0
"""Volts up to which a chip runs on what its LEDs are fed with; above, it makes its own 5 V."""


@dataclass(frozen=True)
class Sag:
    """The voltage along a line under a load.

    volts: (k,) of each address. lowest_v at address `at`. first_low: the first address below the
    LEDs' minimum; None if there is none. at_s: the time, in a film.
    """

    volts: Floats
    lowest_v: float
    at: int
    first_low: int | None
    at_s: float | None = None


def sag_of(volts: Floats, least_volts: float, at_s: float | None = None) -> Sag:
    """The figures of the voltage along a line."""
    at = int(np.argmin(volts))
    low = np.flatnonzero(volts < least_volts)
    return Sag(volts, float(volts[at]), at, int(low[0]) if len(low) else None, at_s)


@dataclass(frozen=True)
class LineBudget:
    """One line.

    addresses, leds: how many. copper: of its strips and the wires between them. idle_a: dark.
    white_a: at full white at the master level; full_a: at the colour that draws most, which is
    another for four-channel LEDs only. most_a: that, as far as the limiter lets it. load_a: (k,) of
    each address then; worst_load_a: in the film's frame in which a voltage on it is lowest. draw:
    over the film. time_s: to send a frame. leads: where power goes in. shifter: what lifts its
    data, a chip of its own or a first pixel that nobody sees; empty if nothing does.
    """

    number: int
    line: Line
    feeding: Feeding
    addresses: int
    leds: int
    copper: Copper
    idle_a: float
    white_a: float
    full_a: float
    most_a: float
    ladder: Ladder
    load_a: Floats
    time_s: float
    leads: tuple[tuple[int, Lead], ...]
    shifter: Literal["", "chip", "pixel"] = ""
    draw: Draw | None = None
    worst: Sag | None = None
    worst_load_a: Floats | None = None

    def __repr__(self) -> str:
        return brief(
            "LineBudget", self.line.name, counted(self.leds, "LED"),
            f"at most {in_amps(self.most_a)}", f"{self.rate_hz:.0f} frames a second",
        )  # fmt: skip

    @property
    def led(self) -> LedType:
        return self.line.led_type

    @property
    def brightest(self) -> str:
        """The colour that draws most, in words."""
        return brightest_in_words(self.white_a, self.full_a)

    @property
    def logic_volts(self) -> float:
        """From which voltage on its first chip reads a 1: for 5 V types a share of their supply."""
        if self.led.volts > FED_ALIKE:
            return self.led.logic_volts
        return self.led.logic_volts * self.feeding.volts / self.led.volts

    @property
    def metres(self) -> float:
        """Of its strips."""
        return self.copper.strips_m

    @property
    def jumps_m(self) -> float:
        """Of the wires between its parts."""
        return self.copper.jumps_m

    @property
    def rate_hz(self) -> float:
        """Frames a second that the line allows."""
        return 1.0 / self.time_s

    @cached_property
    def sag(self) -> Sag:
        """The voltage along it under the highest load."""
        return sag_of(self.ladder.volts_at(self.load_a), self.led.least_volts)

    @cached_property
    def extra(self) -> tuple[int, ...] | None:
        """The fewest extra places to feed it at, under the highest load; None if no number is
        enough.
        """
        return self._extra(self.load_a)

    @cached_property
    def extra_in_film(self) -> tuple[int, ...] | None:
        """The same, for the film's worst frame."""
        return () if self.worst_load_a is None else self._extra(self.worst_load_a)

    def _extra(self, load_a: Floats) -> tuple[int, ...] | None:
        return extra_taps(self.ladder, load_a, self.led.least_volts, self.ladder.taps[0].ohm)

    @property
    def lead_a(self) -> list[float]:
        """The highest current through each lead, in amperes."""
        return [float(amps) for amps in self.ladder.tap_a(self.load_a)]

    @property
    def watts_a_metre(self) -> float | None:
        """The heat of a metre of strip: the film's mean, else the highest."""
        if self.metres <= 0:
            return None
        amps = self.most_a if self.draw is None else self.draw.mean_a
        return amps * self.feeding.volts / self.metres


def line_budget(
    loads: Loads, number: int, level: float, idle_a: Floats, white_a: Floats, full_a: Floats
) -> LineBudget:
    """The budget of one line.

    level: the master level's share of the light. idle_a, white_a, full_a: of each line, in A.
    """
    design, layout = loads.design, loads.layout
    line = design.line[number]
    feeding = next(each for each in loads.feedings if number in each.lines)
    lit_a = full_a[number] - idle_a[number]
    share = 1.0
    if feeding.budget_a is not None and lit_a > 0:
        left_a = feeding.budget_a - idle_a[[*feeding.lines]].sum()
        share = float(np.clip(left_a / lit_a, 0.0, 1.0))
    dark_a = loads.dark_a(number)
    load_a = dark_a + share * (loads.full_address_a(number, level) - dark_a)
    addresses = layout.line_sizes[number]
    copper = copper_of(design, layout, number)
    leads = tuple(feeds_of(design, line, addresses))
    return LineBudget(
        number,
        line,
        feeding,
        addresses,
        int((layout.line_of_led == number).sum()),
        copper,
        float(idle_a[number]),
        float(white_a[number]),
        float(full_a[number]),
        float(load_a.sum()),
        ladder_of(copper, leads, feeding.volts),
        load_a,
        line_time_s(addresses, line.led_type),
        leads,
        _shifter(layout, line, number),
    )


def _shifter(layout: Layout, line: Line, number: int) -> Literal["", "chip", "pixel"]:
    if not line.level_shifter:
        return ""
    first = next((row for row in layout.parts if row.line == number), None)
    return "pixel" if first is not None and first.kind == "hidden" else "chip"


def line_in_film(loads: Loads, line: LineBudget, film: Film, amps: Floats) -> LineBudget:
    """A line in a film: its current, and the frame with the lowest voltage."""
    lowest, frame = np.inf, 0
    for first in range(0, len(film), FRAMES_AT_ONCE):
        load_a = loads.address_a(line.number, film.rgb[first : first + FRAMES_AT_ONCE])
        volts = line.ladder.volts_at(load_a).min(axis=1)
        at = int(np.argmin(volts))
        if volts[at] < lowest:
            lowest, frame = float(volts[at]), first + at
    load_a = loads.address_a(line.number, film.rgb[frame])
    at_s = float(film.times[frame])
    worst = sag_of(line.ladder.volts_at(load_a), line.led.least_volts, at_s)
    return replace(line, draw=draw_of(amps, film.times), worst=worst, worst_load_a=load_a)
