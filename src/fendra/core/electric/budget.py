"""Budgets: what a design draws, of which supply; the voltage on its lines; data and memory.

All of it follows from the design; with a film, also from what the design shows.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import TYPE_CHECKING, Any, Literal

import numpy as np

from fendra.core.electric.data import (
    baud_for,
    sacn_mbit,
    serial_bytes,
    serial_rate_hz,
    universes,
)
from fendra.core.electric.ladder import Ladder, extra_taps
from fendra.core.electric.leds import MICRO, LedType, line_time_s
from fendra.core.electric.loads import FRAMES_AT_ONCE, Feeding, Loads, make_loads
from fendra.core.electric.looks import layers_on
from fendra.core.electric.supplies import SHARE
from fendra.core.electric.wires import Wire, fuse_for, wire_for
from fendra.core.electric.wiring import Copper, copper_of, feeds_of, ladder_of
from fendra.core.electric.words import in_amps
from fendra.core.graph.highest import highest
from fendra.core.mix import Recording

if TYPE_CHECKING:
    from fendra.core.design import Controller, Design, Line
    from fendra.core.film import Film
    from fendra.core.layout.table import Layout

Floats = np.ndarray[Any, np.dtype[np.float64]]


FED_ALIKE = 6.0
"""Volts up to which a chip runs on what its LEDs are fed with; above, it makes its own 5 V."""


@dataclass(frozen=True)
class Draw:
    """A current over a film, in amperes.

    peak_a at at_s, which is frame `frame`; mean_a; p99_a: passed in one frame of a hundred.
    layers: the names of those that are on at the peak.
    """

    peak_a: float
    mean_a: float
    p99_a: float
    frame: int
    at_s: float
    layers: tuple[str, ...] = ()


def draw_of(amps: Floats, times: Floats) -> Draw:
    """The figures of a current, (frames,) A, at times, (frames,) s.

    >>> draw_of(np.array([1.0, 3.0, 2.0]), np.array([0.0, 0.5, 1.0])).at_s
    0.5
    """
    frame = int(np.argmax(amps))
    return Draw(
        float(amps[frame]),
        float(amps.mean()),
        float(np.percentile(amps, 99)),
        frame,
        float(times[frame]),
    )


@dataclass(frozen=True)
class Sag:
    """The voltage along a line under some load.

    volts: (k,) of each address. lowest_v at address `at`. first_low: the first address below what
    the LEDs need; None where there is none. at_s: when, where it is of a film.
    """

    volts: Floats
    lowest_v: float
    at: int
    first_low: int | None
    at_s: float | None = None


def sag_of(volts: Floats, least_volts: float, at_s: float | None = None) -> Sag:
    """What there is to say of the voltage along a line."""
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
    data, a chip of its own or a first pixel that nobody sees; empty where nothing does.
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
    leads: tuple[tuple[int, Wire], ...]
    shifter: Literal["", "chip", "pixel"] = ""
    draw: Draw | None = None
    worst: Sag | None = None
    worst_load_a: Floats | None = None

    @property
    def led(self) -> LedType:
        return self.line.led_type

    @property
    def brightest(self) -> str:
        """The colour that draws most, in words."""
        return "full white" if self.full_a == self.white_a else "the brightest colour"

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
        """The voltage along it at the most."""
        return sag_of(self.ladder.volts_at(self.load_a), self.led.least_volts)

    @cached_property
    def extra(self) -> tuple[int, ...] | None:
        """The fewest more places to feed it at, at the most; None where no number is enough."""
        return self._extra(self.load_a)

    @cached_property
    def extra_in_film(self) -> tuple[int, ...] | None:
        """The same, for the film's worst frame."""
        return () if self.worst_load_a is None else self._extra(self.worst_load_a)

    def _extra(self, load_a: Floats) -> tuple[int, ...] | None:
        return extra_taps(self.ladder, load_a, self.led.least_volts, self.ladder.taps[0].ohm)

    @property
    def lead_a(self) -> list[float]:
        """What goes through each lead at the most, in amperes."""
        return [float(amps) for amps in self.ladder.tap_a(self.load_a)]

    @property
    def watts_a_metre(self) -> float | None:
        """What a metre of strip turns into heat: the film's mean, else at the most."""
        if self.metres <= 0:
            return None
        amps = self.most_a if self.draw is None else self.draw.mean_a
        return amps * self.feeding.volts / self.metres


@dataclass(frozen=True)
class SupplyBudget:
    """One supply: its lines together; see there."""

    feeding: Feeding
    idle_a: float
    white_a: float
    full_a: float
    draw: Draw | None = None

    @property
    def brightest(self) -> str:
        """The colours that draw most, in words."""
        return "full white" if self.full_a == self.white_a else "the brightest colour"

    @property
    def most_a(self) -> float:
        """At the colours that draw most, as far as the limiter lets it."""
        budget_a = self.feeding.budget_a
        return self.full_a if budget_a is None else min(self.full_a, max(budget_a, self.idle_a))

    @property
    def peak_a(self) -> float:
        """What fuse and wire are chosen for: the most that may come; where no limiter is there to
        hold it, what the film shows, if there is one.
        """
        if self.feeding.budget_a is None and self.draw is not None:
            return self.draw.peak_a
        return self.most_a

    @property
    def safe_a(self) -> float | None:
        """Four fifths of its rating."""
        return None if self.feeding.amps is None else SHARE * self.feeding.amps

    @property
    def headroom(self) -> float | None:
        """The share of its rating that is left at the peak; below 0 where it is too small."""
        amps = self.feeding.amps
        return None if amps is None else 1.0 - self.peak_a / amps

    @property
    def watts(self) -> float:
        """At the peak."""
        return self.peak_a * self.feeding.volts

    @property
    def fuse_a(self) -> float | None:
        """The fuse for its peak, in amperes; None above the largest."""
        return fuse_for(self.peak_a)

    @property
    def wire_mm2(self) -> float | None:
        """The cross-section for its peak and its lead; None above the largest."""
        supply = self.feeding.supply
        metres = (supply.wire if supply else Wire()).metres
        return wire_for(self.peak_a, metres, self.feeding.volts)

    @property
    def hours(self) -> float | None:
        """How long its battery lasts at the film's mean, else at the most; None without one."""
        supply = self.feeding.supply
        if supply is None or supply.battery is None:
            return None
        amps = self.peak_a if self.draw is None else self.draw.mean_a
        if amps <= 0:
            return None
        efficiency = supply.converter.efficiency if supply.converter else 1.0
        return supply.battery.watt_hours * efficiency / (amps * self.feeding.volts)


def peak_in_words(supply: SupplyBudget) -> str:
    """When the peak of a supply falls, and which layers make it."""
    draw = supply.draw
    assert draw is not None
    layers = ", ".join(f"'{name}'" for name in draw.layers) or "no layer is on"
    when = f"{in_amps(draw.peak_a)} at {draw.at_s:.4g} s"
    return f"Peak of {supply.feeding.in_words}, {when}: {layers}"


@dataclass(frozen=True)
class ControllerBudget:
    """One controller; name and controller are empty where the design speaks of none.

    lines: those plugged into it. pixel_bytes: of its lines, one frame. ram: bytes; logic_volts: of
    its pins; None where nothing is known. lowest_baud: of the usual ones, that carries the rate.
    """

    name: str
    controller: Controller | None
    lines: tuple[LineBudget, ...]
    rate_hz: float

    @property
    def sizes(self) -> list[tuple[int, int]]:
        """Addresses and bytes a pixel of each line."""
        return [(line.addresses, len(line.line.wire_order)) for line in self.lines]

    @property
    def line_bytes(self) -> list[int]:
        return [count * size for count, size in self.sizes]

    @property
    def pixel_bytes(self) -> int:
        return sum(self.line_bytes)

    @property
    def ram(self) -> int | None:
        if self.controller is None:
            return None
        kind = self.controller.known_type
        return self.controller.ram or (kind.ram if kind else None)

    @property
    def logic_volts(self) -> float | None:
        if self.controller is None:
            return None
        kind = self.controller.known_type
        return self.controller.logic_volts or (kind.logic_volts if kind else None)

    @property
    def serial_bytes(self) -> int:
        """Of a frame in the serial stream."""
        return serial_bytes(self.line_bytes)

    @property
    def lowest_baud(self) -> int | None:
        return baud_for(self.line_bytes, self.rate_hz)

    @property
    def universes(self) -> int:
        return universes(self.sizes)

    @property
    def sacn_mbit(self) -> float:
        return sacn_mbit(self.sizes, self.rate_hz)

    @property
    def link_hz(self) -> float | None:
        """Frames a second that its link carries; None where nothing is said of one."""
        link = self.controller.link if self.controller else None
        if link is None:
            return None
        if link.baud is not None:
            return serial_rate_hz(self.line_bytes, link.baud)
        if link.network is not None:
            return link.mbit / sacn_mbit(self.sizes, 1.0)
        return None

    @property
    def load(self) -> float | None:
        """The share of its link that the design's rate takes; above 1 it is too slow."""
        return None if self.link_hz is None else self.rate_hz / self.link_hz

    @property
    def slowest(self) -> LineBudget | None:
        """The line that takes longest."""
        return max(self.lines, key=lambda line: line.time_s, default=None)


@dataclass(frozen=True)
class Budget:
    """All of a design.

    level: the master level's share of the light, 0 to 1 linear. draw: of all supplies together.
    amps: (frames, supplies) over the film, and times of its frames; let_through: as in `Film`.
    """

    loads: Loads
    level: float
    supplies: tuple[SupplyBudget, ...]
    lines: tuple[LineBudget, ...]
    controllers: tuple[ControllerBudget, ...]
    draw: Draw | None = None
    times: Floats | None = None
    amps: Floats | None = None
    let_through: Mapping[str, Floats] = field(default_factory=dict)

    @property
    def idle_a(self) -> float:
        return sum(supply.idle_a for supply in self.supplies)

    @property
    def white_a(self) -> float:
        return sum(supply.white_a for supply in self.supplies)

    @property
    def full_a(self) -> float:
        return sum(supply.full_a for supply in self.supplies)

    @property
    def most_a(self) -> float:
        return sum(supply.most_a for supply in self.supplies)

    @property
    def watts(self) -> float:
        """Of all supplies at their peaks."""
        return sum(supply.watts for supply in self.supplies)

    @property
    def slowest(self) -> tuple[str, float] | None:
        """Which line or link carries the fewest frames a second, in words, and how many."""
        rates = {f"line '{line.line.name}'": line.rate_hz for line in self.lines}
        for each in self.controllers:
            if each.link_hz is not None:
                rates[f"the link of '{each.name}'"] = each.link_hz
        return min(rates.items(), key=lambda item: item[1], default=None)


def make_budget(
    design: Design, layout: Layout, level: float = 1.0, film: Film | None = None
) -> Budget:
    """All sums of a design.

    level: the master level's share of the light, 0 to 1 linear. film: what it shows on a tape.
    """
    loads = make_loads(design, layout)
    idle_a = np.asarray(loads.idle_ua * MICRO, np.float64)
    white_a, full_a = loads.white_line_a(level), loads.full_line_a(level)
    line_a = None if film is None else loads.line_a(film.rgb)
    supply_a = None if line_a is None else loads.supply_a(line_a)
    lines = [
        _line(loads, number, level, idle_a, white_a, full_a)
        for number, size in enumerate(layout.line_sizes)
        if size  # a line whose parts are all wrong has none
    ]
    supplies = [
        SupplyBudget(
            feeding,
            float(idle_a[[*feeding.lines]].sum()),
            float(white_a[[*feeding.lines]].sum()),
            float(full_a[[*feeding.lines]].sum()),
        )
        for feeding in loads.feedings
    ]
    draw = None
    if film is not None and line_a is not None and supply_a is not None:
        lines = [_in_film(loads, line, film, line_a[:, line.number]) for line in lines]
        supplies = [
            replace(supply, draw=draw_of(supply_a[:, i], film.times))
            for i, supply in enumerate(supplies)
        ]
        draw = draw_of(supply_a.sum(axis=1), film.times)
    return Budget(
        loads,
        level,
        tuple(supplies),
        tuple(lines),
        tuple(_controllers(design, lines)),
        draw,
        None if film is None else film.times,
        supply_a,
        {} if film is None else film.let_through,
    )


def budget_of(
    design: Design, layout: Layout, recording: Recording, film: Film | None = None
) -> Budget:
    """The budget of a recorded design, with the names of the layers that make a film's peaks."""
    level = highest(recording.graph, "master")
    budget = make_budget(design, layout, 1.0 if level is None else level, film)
    if film is None or budget.draw is None:
        return budget
    draws = [budget.draw, *(each.draw for each in budget.supplies if each.draw is not None)]
    names = layers_on(recording, film, {draw.frame for draw in draws})

    def named(draw: Draw | None) -> Draw | None:
        return draw and replace(draw, layers=names[draw.frame])

    supplies = tuple(replace(each, draw=named(each.draw)) for each in budget.supplies)
    return replace(budget, draw=named(budget.draw), supplies=supplies)


def _line(
    loads: Loads, number: int, level: float, idle_a: Floats, white_a: Floats, full_a: Floats
) -> LineBudget:
    design, layout = loads.design, loads.layout
    line = design.line[number]
    feeding = next(each for each in loads.feedings if number in each.lines)
    lit_a = full_a[number] - idle_a[number]
    share = 1.0
    if feeding.budget_a is not None and lit_a > 0:
        left_a = feeding.budget_a - idle_a[[*feeding.lines]].sum()
        share = float(np.clip(left_a / lit_a, 0.0, 1.0))
    dark_a, lit = loads.full_address_a(number, level)
    load_a = dark_a + share * (lit - dark_a)
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


def _in_film(loads: Loads, line: LineBudget, film: Film, amps: Floats) -> LineBudget:
    """A line with what a film shows: its current, and the frame in which a voltage is lowest."""
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


def _controllers(design: Design, lines: Sequence[LineBudget]) -> list[ControllerBudget]:
    if not design.controllers:
        return [ControllerBudget("", None, tuple(lines), design.rate)]
    is_only = len(design.controllers) == 1
    return [
        ControllerBudget(
            name,
            controller,
            tuple(
                line
                for line in lines
                if line.line.controller == name or (is_only and line.line.controller is None)
            ),
            design.rate,
        )
        for name, controller in design.controllers.items()
    ]
