"""A lamp array of one's own: the lamps, as the C of an RP2040 has them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.document.line import OwnLamps
from fendra.core.electric.budget import make_budget
from fendra.core.engines.c99 import Emitted
from fendra.lamps.make import AT_ONCE, lamp_descriptor
from fendra.lamps.reports import REPORTS, LampReports
from fendra.lamps.usages import KEYS, KINDS, Purpose

MAKER = "Fendra"
MOST_LETTERS = 31
"""Letters of a product's name, which go into one packet."""


@dataclass(frozen=True)
class Lamps:
    """What the templates of a lamp array need.

    places: for each lamp its place in micrometres, its first byte, the places of red, green, blue
    and white behind that, its width, its purposes and its key. size_um: of the box around all.
    most: the share of full light that the supplies can give to all at once, in 256ths. kind,
    vendor, product: numbers. title: the product's name.
    """

    places: tuple[tuple[int, ...], ...]
    size_um: tuple[int, int, int]
    most: int
    interval_us: int
    kind: int
    vendor: int
    product: int
    title: str
    maker: str = MAKER
    first: int = 1
    at_once: int = AT_ONCE

    @property
    def descriptor(self) -> list[int]:
        """The bytes of the report descriptor."""
        return [*lamp_descriptor(self.first, self.at_once)]

    @property
    def longest(self) -> int:
        """The bytes of the longest report."""
        reports = LampReports(bytes(self.descriptor))
        return max(reports.size(report) for report in REPORTS)


def lamps_of(plan: Plan, emitted: Emitted, given: OwnLamps, lines: Sequence[int]) -> Lamps:
    """The lamps of some lines of a design: every LED that can be seen, in wire order, at its place
    from above.

    lines: their places in the design.
    """
    layout, design = plan.layout, plan.design
    rows: list[int] = []
    wired: list[tuple[int, ...]] = []
    for line in emitted.lines:
        spots = np.arange(len(layout))[layout.spots_of_line(line.line)]
        order = line.order
        letters = tuple(order.find(letter) if letter in order else 0 for letter in "RGBW")
        for row in spots[np.argsort(layout.address[spots], kind="stable")].tolist():
            rows.append(row)
            address = int(layout.address[row])
            wired.append((line.at + address * len(order), *letters, len(order)))
    position = np.asarray(layout.position[rows], float)
    low, high = position.min(axis=0), position.max(axis=0)
    from_corner = np.stack(
        [position[:, 0] - low[0], high[1] - position[:, 1], high[2] - position[:, 2]], axis=1
    )
    codes = {name: code for code, name in KEYS.items()}
    names = [str(layout.names[row]).casefold() for row in rows]
    kind_of_part = {part.name: part.shape for line in design.line for part in line.part}
    parts = [kind_of_part.get(layout.parts[part].name, "") for part in layout.part[rows]]
    places = tuple(
        (
            *(round(float(mm) * 1000) for mm in place), *wires,
            int(Purpose.CONTROL if shape == "keys" else Purpose.ACCENT), codes.get(name, 0),
        )
        for place, wires, name, shape in zip(from_corner, wired, names, parts, strict=True)
    )  # fmt: skip
    width, height, depth = (round(float(mm) * 1000) for mm in high - low)
    budget = make_budget(design, layout)
    shares = [each.share_of_full for each in budget.supplies if {*each.feeding.lines} & {*lines}]
    vendor, product = (int(part, 16) for part in given.usb_id.split(":"))
    return Lamps(
        places, (width, height, depth), int(min([*shares, 1.0]) * 256),
        round(1e6 / design.rate), KINDS.index(given.kind.replace("-", " ")), vendor, product,
        design.name[:MOST_LETTERS],
    )  # fmt: skip
