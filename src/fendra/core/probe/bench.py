"""The bench: every address of every line, visible or not, and the currents that the supplies can
give.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from fendra.core.arrays import Floats, Ints
from fendra.core.catalogue.leds import MICRO
from fendra.core.catalogue.supplies import SHARE
from fendra.core.document.design import Design
from fendra.core.electric.loads import count_chips, feedings
from fendra.core.errors import LayoutError
from fendra.core.film import Frame
from fendra.core.layout import Layout
from fendra.core.layout.table import PartRow
from fendra.core.light.bytes import set_white_apart
from fendra.core.names import did_you_mean

ASSUMED_A = 0.5
"""Current of a supply without figures: a USB 2.0 port."""

MOST = 0.2
"""Share of full light that patterns have at most: bright enough on a bench, kind to eyes."""


@dataclass(frozen=True)
class PatternStep:
    """One picture of a pattern.

    rows: the lit ones, of the bench; light: (k, 3) red, green and blue of each, 0 to 1 of the
    pattern's level. words: what you should see; empty if it continues the step before. seconds: how
    long it stays. waits: whether it stays until somebody steps, if somebody can.
    """

    rows: Ints
    light: Floats
    words: str
    seconds: float
    waits: bool = False


@dataclass(frozen=True)
class BenchSupply:
    """A supply and the lines that it feeds. is_assumed: the design gives no rating."""

    name: str
    amps: float
    is_assumed: bool
    lines: tuple[int, ...]

    def __str__(self) -> str:
        whose = f"'{self.name}'" if self.name else "the supply"
        return f"the {self.amps:g} A of {whose}"


@dataclass(frozen=True)
class Bench:
    """A design's lines, address by address, m rows in wire order.

    layout: where its LEDs are. addresses: a layout in which every address is a spot, also those
    that nobody sees. position: (m, 3) mm, NaN where an address is not seen; facing: (m, 3). part:
    the place of each in `layout.parts`, -1 beyond the design. chosen: the rows that patterns light.
    """

    design: Design
    layout: Layout
    addresses: Layout
    position: Floats
    facing: Floats
    part: Ints
    chosen: Ints

    def __len__(self) -> int:
        return len(self.part)

    @cached_property
    def feeds(self) -> tuple[BenchSupply, ...]:
        """The supplies, with what they may give."""
        return tuple(
            BenchSupply(each.name, amps or ASSUMED_A, amps is None, each.lines)
            for each in feedings(self.design)
            for amps in [each.amps or each.budget_a]
        )

    @cached_property
    def chips(self) -> Ints:
        """How many chips listen to each address: (m,)."""
        known = count_chips(self.design, self.layout)
        start = self.layout.line_starts
        count = np.ones(len(self), np.int64)  # what the design does not have is one chip
        is_known = self.addresses.address < np.array(self.layout.line_sizes)[self.addresses.line]
        count[is_known] = known[
            start[self.addresses.line[is_known]] + self.addresses.address[is_known]
        ]
        return count

    @cached_property
    def _figures(self) -> tuple[Ints, Floats, Floats]:
        """For each address: its feed's place, its current when dark, (m,) each, and for each
        channel at full, (m, 4): red, green, blue, and white, 0 if there is none. In A.
        """
        line = self.addresses.line
        feed_of = np.zeros(len(self.design.line), np.int64)
        for place, feed in enumerate(self.feeds):
            feed_of[[*feed.lines]] = place
        idle_ua = np.array([each.led_type.idle_ua for each in self.design.line])
        channel_ua = np.array(
            [
                [each.led_type.channel_ua.get(letter, 0) for letter in "RGBW"]
                for each in self.design.line
            ]
        )
        return (
            feed_of[line],
            self.chips * idle_ua[line] * MICRO,
            self.chips[:, None] * channel_ua[line] * MICRO,
        )

    @cached_property
    def dark_a(self) -> Floats:
        """The current of each supply while all is dark, in amperes."""
        feed, idle_a, _ = self._figures
        return np.asarray(np.bincount(feed, idle_a, len(self.feeds)), np.float64)

    def full_a(self, step: PatternStep) -> Floats:
        """The current of a step from each supply at full level, without the dark LEDs."""
        feed, _, channel_a = (column[step.rows] for column in self._figures)
        has_white = np.array(["W" in each.channels for each in self.design.line])
        plain = np.pad(step.light, ((0, 0), (0, 1)))
        channels = np.where(
            has_white[self.addresses.line[step.rows]][:, None], set_white_apart(step.light), plain
        )
        return np.asarray(
            np.bincount(feed, (channels * channel_a).sum(axis=1), len(self.feeds)), np.float64
        )

    def draw_a(self, step: PatternStep, level: float) -> Floats:
        """The current of a step from each supply, in amperes, dark LEDs included.

        Chips draw a channel's full current times its share of full light (data sheets, typical).
        """
        return np.asarray(self.dark_a + level * self.full_a(step))

    def level_for(
        self, steps: Iterable[PatternStep], share: float = SHARE, most: float = MOST
    ) -> float:
        """The highest level, 0 to 1 linear, at which no step draws more than a share of a supply.

        0 if the dark LEDs alone draw more.
        """
        left_a = np.maximum(share * np.array([feed.amps for feed in self.feeds]) - self.dark_a, 0.0)
        level = most
        for step in steps:
            full_a = self.full_a(step)
            level = min([level, *(left_a[full_a > 0] / full_a[full_a > 0]).tolist()])
        return level

    def frame(self, step: PatternStep, level: float, at_s: float = 0.0) -> Frame:
        """A step as outputs take it; nothing that is lit at all rounds down to dark."""
        rgb = np.zeros((len(self), 3), np.uint8)
        light = step.light * level
        bytes_ = np.floor(light * 255 + 0.5)
        rgb[step.rows] = np.where((light > 0) & (bytes_ < 1), 1, np.minimum(bytes_, 255))
        return Frame(at_s, rgb, self.addresses, self.design)

    @property
    def placed(self) -> Ints:
        """The chosen rows that are seen at a place."""
        return np.asarray(self.chosen[~np.isnan(self.position[self.chosen, 0])])

    def row_of(self, row: int) -> PartRow | None:
        """The part that an address belongs to."""
        place = int(self.part[row])
        return None if place < 0 else self.layout.parts[place]


def make_bench(
    design: Design,
    layout: Layout,
    *,
    line: str | None = None,
    part: str | None = None,
    leds: int | None = None,
) -> Bench:
    """Put a design on the bench.

    line, part: what the patterns are about; all by default; a part may be a placed assembly. leds:
    the number of addresses to assume for the line, instead of the design's. Raises LayoutError for
    unknown names.
    """
    if line is not None and line not in layout.line_names:
        remedy = did_you_mean(line, layout.line_names, "lines")
        raise LayoutError(f"there is no line '{line}'. {remedy}")
    sizes = [*layout.line_sizes]
    if leds is not None:
        if line is None and len(sizes) > 1:
            raise LayoutError(f"which line has {leds} LEDs? The lines are: {_named(layout)}.")
        sizes[layout.line_names.index(line) if line else 0] = leds
    line_of = np.repeat(np.arange(len(sizes)), sizes)
    address = np.concatenate([np.arange(size) for size in sizes])
    start = np.concatenate([[0], np.cumsum(sizes)])
    part_of = np.full(len(address), -1)
    position, facing = np.full((len(address), 3), np.nan), np.zeros((len(address), 3))
    for place, row in enumerate(layout.parts):
        if row.kind == "copy":
            continue
        end = min(row.first + row.count, sizes[row.line])
        part_of[start[row.line] + row.first : start[row.line] + end] = place
    seen = layout.address < np.array(sizes)[layout.line]
    rows = start[layout.line[seen]] + layout.address[seen]
    position[rows], facing[rows] = layout.position[seen], layout.facing[seen]
    addresses = replace(
        layout,
        line=line_of,
        address=address,
        part=np.zeros(len(address), np.int64),
        index=address,
        position=np.nan_to_num(position),
        facing=facing,
        names=("",) * len(address),
        line_sizes=tuple(sizes),
    )
    bench = Bench(design, layout, addresses, position, facing, part_of, np.arange(len(address)))
    return replace(bench, chosen=_chosen(bench, line, part))


def on_lines(bench: Bench, lines: Collection[int]) -> Bench:
    """The same, but of some lines alone: those that are plugged in where patterns go."""
    is_there = np.isin(bench.addresses.line[bench.chosen], [*lines])
    return replace(bench, chosen=bench.chosen[is_there])


def _chosen(bench: Bench, line: str | None, part: str | None) -> Ints:
    rows = np.arange(len(bench))
    if line is not None:
        mine = bench.addresses.spots_of_line(line)
        rows = rows[mine]
    if part is None:
        return rows
    parts = bench.layout.parts
    wanted = [
        i for i, row in enumerate(parts) if row.name == part or row.name.startswith(f"{part}.")
    ]
    if not wanted:
        known = [row.name for row in parts] + [name for name, _ in bench.layout.assemblies]
        raise LayoutError(f"there is no part '{part}'. {did_you_mean(part, known, 'parts')}")
    copies = [parts[i] for i in wanted if parts[i].kind == "copy"]
    if len(copies) == len(wanted):
        raise LayoutError(f"part '{part}' shows what another shows; probe that one.")
    rows = rows[np.isin(bench.part[rows], wanted)]
    if len(rows) == 0:
        raise LayoutError(f"part '{part}' is not on line '{line}'.")
    return rows


def _named(layout: Layout) -> str:
    return ", ".join(layout.line_names)


def light(rows: Ints, colour: tuple[float, float, float]) -> Floats:
    """One colour for all rows: (k, 3)."""
    return np.tile(np.array(colour, float), (len(rows), 1))
