"""Wiring: the copper of each line, and where power goes into it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Floats, Truths
from fendra.core.catalogue.supplies import Supply
from fendra.core.catalogue.wires import Lead, wire_ohm
from fendra.core.document.design import Design
from fendra.core.document.line import Feed, Line
from fendra.core.electric.ladder import Ladder, Tap
from fendra.core.layout.table import Layout, means

MM = 1e-3


def feeds_of(design: Design, line: Line, size: int) -> list[tuple[int, Lead]]:
    """Where power goes into a line, as addresses, and through which lead.

    At its first LED by default. Feeds at unknown addresses are left out.
    """
    lead = design.supplies.get(line.supply, Supply()).wire
    found = [(address_of(feed, size), feed.wire or lead) for feed in line.feed]
    return [(at, wire) for at, wire in found if at < size] or [(0, lead)]


def address_of(feed: Feed, size: int) -> int:
    """The address of a feed on a line of this size."""
    return size - 1 if isinstance(feed.at, str) else feed.at


@dataclass(frozen=True)
class Copper:
    """The copper of a line of k addresses, from each to the next: (k - 1,) each.

    way_mm: how far. ohm: there and back. is_jump: whether it is a wire from part to part. strips_m:
    metres of strip, from LED to LED and half a step at each end, those in parallel too.
    """

    way_mm: Floats
    ohm: Floats
    is_jump: Truths
    strips_m: float

    @property
    def jumps_m(self) -> float:
        """Metres of wire from part to part."""
        return float(self.way_mm[self.is_jump].sum()) * MM


def copper_of(design: Design, layout: Layout, number: int) -> Copper:
    """The copper of a line.

    Within a part it is the strip's, as often as strips lie in parallel; between parts it is a wire,
    as long as the straight way. What has no place is no way off.
    """
    line, size = design.line[number], layout.line_sizes[number]
    copies, part = np.zeros(size), np.full(size, -1)
    place = np.full((size, 3), np.nan)
    strips_mm = 0.0
    for i, row in enumerate(layout.parts):
        if row.line != number:
            continue
        rows = slice(row.first, row.first + row.count)
        copies[rows] += 1
        if row.kind != "copy":
            part[rows] = i
        own = layout.leds.position[row.leds]
        if row.kind == "lit":
            place[rows] = means(own, layout.leds.address[row.leds] - row.first, row.count)
        if len(own) > 1:
            steps = _lengths(own)
            strips_mm += float(steps.sum() + np.median(steps))
    way = np.nan_to_num(_lengths(_filled(place)))
    is_jump = np.diff(part) != 0
    strip = line.led_type.ohm_per_metre * MM * way / np.maximum(copies[1:], 1)
    jump = 2 * wire_ohm(1.0, line.jump.area_mm2) * MM * way
    return Copper(way, np.where(is_jump, jump, strip), is_jump, strips_mm * MM)


def _lengths(place: Floats) -> Floats:
    """From each place to the next: (m - 1,), from (m, 3)."""
    step = np.diff(place, axis=0)
    return np.asarray(np.sqrt(np.einsum("ij,ij->i", step, step)))


def _filled(place: Floats) -> Floats:
    """Places, each that is not known as the last one that is."""
    known = ~np.isnan(place[:, 0])
    last = np.maximum.accumulate(np.where(known, np.arange(len(place)), 0))
    return np.asarray(place[last])


def ladder_of(copper: Copper, leads: Sequence[tuple[int, Lead]], volts: float) -> Ladder:
    """A line as a ladder, fed through its leads by a supply of this voltage."""
    return Ladder(volts, copper.ohm, tuple(Tap(at, 2 * wire.ohm) for at, wire in leads))
