"""Wiring: the copper of each line, and where power goes into it."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.electric.ladder import Ladder, Tap
from fendra.core.electric.supplies import Supply
from fendra.core.electric.wires import Wire, wire_ohm

if TYPE_CHECKING:
    from fendra.core.design import Design, Feed, Line
    from fendra.core.layout.table import Layout

Floats = np.ndarray[Any, np.dtype[np.float64]]

MM = 1e-3


def feeds_of(design: Design, line: Line, size: int) -> list[tuple[int, Wire]]:
    """Where power goes into a line, as addresses, and through which lead.

    At its first LED, where nothing is said. Feeds at addresses that there are not are left out.
    """
    lead = design.supplies.get(line.supply, Supply()).wire
    found = [(address_of(feed, size), feed.wire or lead) for feed in line.feed]
    return [(at, wire) for at, wire in found if at < size] or [(0, lead)]


def address_of(feed: Feed, size: int) -> int:
    """The address of a feed on a line of so many."""
    return size - 1 if isinstance(feed.at, str) else feed.at


def stretches(design: Design, layout: Layout, number: int) -> tuple[Floats, Floats]:
    """From each address of a line to the next: the way in mm, and ohm there and back: (k - 1,).

    Within a part it is the strip's copper, as often as strips lie in parallel; between parts it is
    a wire, as long as the straight way. What has no place is no way off.
    """
    line = design.line[number]
    size = layout.line_sizes[number]
    copies, part = np.zeros(size), np.full(size, -1)
    place = np.full((size, 3), np.nan)
    for i, row in enumerate(layout.parts):
        if row.line != number:
            continue
        rows = slice(row.first, row.first + row.count)
        copies[rows] += 1
        if row.kind != "copy":
            part[rows] = i
        if row.kind == "lit":
            own = layout.leds.address[row.leds] - row.first
            sums = np.zeros((row.count, 3))
            np.add.at(sums, own, layout.leds.position[row.leds])
            place[rows] = sums / np.maximum(np.bincount(own, minlength=row.count), 1)[:, None]
    way = np.nan_to_num(np.linalg.norm(np.diff(_filled(place), axis=0), axis=1))
    strip = line.led_type.ohm_per_metre * MM * way / np.maximum(copies[1:], 1)
    jump = 2 * wire_ohm(1.0, line.jump.area_mm2) * MM * way
    return way, np.where(np.diff(part) == 0, strip, jump)


def _filled(place: Floats) -> Floats:
    """Places, each that is not known as the last one that is."""
    known = ~np.isnan(place[:, 0])
    last = np.maximum.accumulate(np.where(known, np.arange(len(place)), 0))
    return np.asarray(place[last])


def line_ladder(design: Design, layout: Layout, number: int, volts: float) -> Ladder:
    """A line as a ladder; volts: of its supply."""
    _, ohm = stretches(design, layout, number)
    feeds = feeds_of(design, design.line[number], layout.line_sizes[number])
    return Ladder(volts, ohm, tuple(Tap(at, 2 * wire.ohm) for at, wire in feeds))
