"""Loads: what every LED draws, and from which supply, in whole microamperes: sums are exact.

A chip draws its idle current, and for each channel the channel's full current times its byte / 255.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise

import numpy as np

from fendra.core.arrays import Bytes, Floats, Ints
from fendra.core.catalogue.leds import MICRO
from fendra.core.catalogue.supplies import SHARE, Supply
from fendra.core.document.design import Design
from fendra.core.layout.table import Layout
from fendra.core.light.bytes import set_white_apart

BYTE = 255
"""Sums of light are in microamperes times this."""
FRAMES_AT_ONCE = 256


@dataclass(frozen=True)
class Span:
    """Spots in a row on one line that draw alike, from `first` up to `end`.

    ua: microamperes of red, green and blue, and of white where there is such a channel, at full.
    """

    line: int
    first: int
    end: int
    ua: tuple[int, ...]

    @cached_property
    def weights(self) -> Ints:
        """The same as an array: (3,) or (4,)."""
        return np.array(self.ua, np.int64)

    @cached_property
    def has_white(self) -> bool:
        return len(self.ua) == len("RGBW")

    @property
    def white_ua(self) -> int:
        """At full white, of each spot."""
        return self.ua[3] if self.has_white else sum(self.ua)

    @property
    def full_ua(self) -> int:
        """At the colour that draws most, of each spot: white; or two channels, where white has a
        channel of its own that draws less.
        """
        two = sum(sorted(self.ua[:3])[1:])
        return max(two, self.ua[3]) if self.has_white else self.white_ua

    def channels(self, rgb: Bytes) -> Bytes:
        """The bytes of each of its spots and channels: (..., k, 3 or 4), from (..., n, 3)."""
        own = rgb[..., self.first : self.end, :]
        return set_white_apart(own) if self.has_white else own

    def sums(self, rgb: Bytes) -> Ints:
        """The bytes of each channel, added up: (..., 3 or 4), from (..., n, 3)."""
        total: Ints = np.add.reduce(self.channels(rgb), axis=-2, dtype=np.int64)
        return total


@dataclass(frozen=True)
class Feeding:
    """A supply and the lines that it feeds.

    supply: the design's table; None if there is none. volts: its own, or else its LEDs' nominal
    voltage. amps: its rating; None if unknown. budget_a: the limiter's budget; None without a
    limiter.
    """

    name: str
    supply: Supply | None
    volts: float
    amps: float | None
    budget_a: float | None
    lines: tuple[int, ...]

    @property
    def in_words(self) -> str:
        return f"'{self.name}'" if self.name else "the supply"


def feedings(design: Design) -> tuple[Feeding, ...]:
    """The supplies that feed lines, in the order of the lines."""
    by_name: dict[str, list[int]] = {}
    for number, line in enumerate(design.line):
        by_name.setdefault(line.supply, []).append(number)
    found = []
    for name, lines in by_name.items():
        supply = design.supplies.get(name)
        led_volts = design.line[lines[0]].led_type.volts
        if supply is None:
            found.append(Feeding(name, None, led_volts, None, None, tuple(lines)))
            continue
        board = design.controllers.get(supply.regulator_of or "")
        ratings = supply.ratings_a(board.regulator_amps if board else None)
        amps = min(ratings.values(), default=None)
        budget = supply.budget if supply.budget is not None else amps and SHARE * amps
        volts = supply.known_volts() or led_volts
        kept = budget if supply.limiter else None
        found.append(Feeding(name, supply, volts, amps, kept, tuple(lines)))
    return tuple(found)


@dataclass(frozen=True)
class Loads:
    """The loads of a design's LEDs.

    feedings: the supplies. chips: how many chips listen to each address, line after line: (m,).
    spans: all spots, in order.
    """

    design: Design
    layout: Layout
    feedings: tuple[Feeding, ...]
    chips: Ints
    spans: tuple[Span, ...]

    @cached_property
    def idle_ua(self) -> Ints:
        """The current of each line's dark LEDs, in microamperes: (lines,)."""
        return np.array(
            [
                self._chips_of(i).sum() * line.led_type.idle_ua
                for i, line in enumerate(self.design.line)
            ],
            np.int64,
        )

    def _chips_of(self, line: int) -> Ints:
        start = self.layout.line_starts
        return self.chips[start[line] : start[line + 1]]

    def lit(self, rgb: Bytes) -> Ints:
        """The current of frames' light on each line, in microamperes times 255.

        rgb: (..., n, 3) uint8. Gives (..., lines).
        """
        total = np.zeros((*rgb.shape[:-2], len(self.design.line)), np.int64)
        for span in self.spans:
            total[..., span.line] += span.sums(rgb) @ span.weights
        return total

    def line_a(self, rgb: Bytes) -> Floats:
        """The current of each line, dark LEDs included, in amperes: (..., lines).

        rgb: a frame (n, 3) or frames (f, n, 3), uint8.
        """
        if rgb.ndim > 2:  # a few frames at a time: sums need eight times the room of bytes
            pieces = [
                self.lit(rgb[i : i + FRAMES_AT_ONCE]) for i in range(0, len(rgb), FRAMES_AT_ONCE)
            ]
            lit = np.concatenate([np.zeros((0, len(self.design.line)), np.int64), *pieces])
        else:
            lit = self.lit(rgb)
        return self._with_idle(lit)

    def supply_a(self, line_a: Floats) -> Floats:
        """The current of each supply, from the currents of the lines: (..., supplies)."""
        columns = [line_a[..., [*feeding.lines]].sum(axis=-1) for feeding in self.feedings]
        return np.stack(columns, axis=-1)

    def white_line_a(self, level: float = 1.0) -> Floats:
        """The current of each line at full white, in amperes: (lines,).

        level: the master level's share of the light, 0 to 1 linear.
        """
        return self._line_a_of([span.white_ua for span in self.spans], level)

    def full_line_a(self, level: float = 1.0) -> Floats:
        """The same at the colours that draw most."""
        return self._line_a_of([span.full_ua for span in self.spans], level)

    def _line_a_of(self, spot_ua: Sequence[int], level: float) -> Floats:
        lit = np.zeros(len(self.design.line), np.int64)
        for span, ua in zip(self.spans, spot_ua, strict=True):
            lit[span.line] += (span.end - span.first) * ua * round(BYTE * level)
        return self._with_idle(lit)

    def _with_idle(self, lit: Ints) -> Floats:
        """Amperes of lines with their dark LEDs, from what light draws on them."""
        return np.asarray((self.idle_ua * BYTE + lit) / (BYTE / MICRO))

    def dark_a(self, line: int) -> Floats:
        """The current of each address of a line while it is dark, in amperes: (k,)."""
        return np.asarray(
            self._chips_of(line) * self.design.line[line].led_type.idle_ua * MICRO, np.float64
        )

    def full_address_a(self, line: int, level: float) -> Floats:
        """The current of each address of a line at the colour that draws most, in amperes: (k,)."""
        amps = self.dark_a(line)
        for rows, span in self._spans_of(line):
            amps[rows] += span.full_ua * round(BYTE * level) / (BYTE / MICRO)
        return amps

    def _spans_of(self, line: int) -> list[tuple[Ints, Span]]:
        """The spans of a line, each with the addresses of its spots."""
        return [
            (self.layout.address[span.first : span.end], span)
            for span in self.spans
            if span.line == line
        ]

    def address_a(self, line: int, rgb: Bytes) -> Floats:
        """The current of each address of a line, dark chips included, in amperes: (..., k).

        rgb: (..., n, 3) uint8.
        """
        dark_a = self.dark_a(line)
        amps = np.broadcast_to(dark_a, (*rgb.shape[:-2], len(dark_a))).copy()
        for rows, span in self._spans_of(line):
            amps[..., rows] += span.channels(rgb) @ span.weights / (BYTE / MICRO)
        return amps


def make_loads(design: Design, layout: Layout) -> Loads:
    """Work out the loads of a design's LEDs, chip by chip."""
    chips = count_chips(design, layout)
    of_spots = chips[layout.line_starts[layout.line] + layout.address]
    spans = tuple(_spans(design, layout.line, of_spots))
    return Loads(design, layout, feedings(design), chips, spans)


def count_chips(design: Design, layout: Layout) -> Ints:
    """How many chips listen to each address, line after line: (m,).

    As many as its LEDs need, those of copies too; at least one.
    """
    start = layout.line_starts
    count = np.zeros(start[-1], np.int64)
    for row in layout.parts:
        per = design.line[row.line].led_type.leds_a_chip
        leds = np.bincount(layout.leds.address[row.leds] - row.first, minlength=row.count)
        rows = start[row.line] + row.first + np.arange(row.count)
        count[rows] += np.maximum(-(-leds // per), 1)
    return np.maximum(count, 1)


def _spans(design: Design, line: Ints, chips: Ints) -> Iterable[Span]:
    cuts = np.flatnonzero((np.diff(line) != 0) | (np.diff(chips) != 0)) + 1
    edges = [0, *cuts.tolist(), len(line)] if len(line) else [0]
    for first, end in pairwise(edges):
        number = int(line[first])
        written = design.line[number]
        per_chip = written.led_type.channel_ua
        ua = tuple(int(chips[first]) * per_chip.get(letter, 0) for letter in written.channels)
        yield Span(number, first, end, ua)
