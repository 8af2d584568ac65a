"""The layout: one row a spot, in wire order, line after line; and every LED behind the spots."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, Any, Literal

import numpy as np

from fendra.core.arrays import Floats, Ints
from fendra.core.document.design import Design
from fendra.core.errors import DesignError, LayoutError
from fendra.core.findings import KeyPath, Report, errors_of
from fendra.core.layout.chain import ChainPart, unfold
from fendra.core.limits import LEDS
from fendra.core.names import counted, did_you_mean
from fendra.core.shapes.hidden import Hidden
from fendra.core.shown import as_table, brief, few

if TYPE_CHECKING:
    import pandas as pd


INCH_MM = 25.4
UNITS_MM = {"mm": 1.0, "in": INCH_MM}
"""The units that a design may be written in, in mm."""


@dataclass(frozen=True)
class PartRow:
    """A part in the chain.

    kind: `lit` has spots of its own; a `copy` shows the data of another part; `hidden` has
    addresses without visible LEDs. first: its first address; count: its addresses. spots, leds: its
    rows in the layout and in its LEDs, along the wire. skipped: its places, along its own shape,
    that have no spot. order: sorts the parts as they are written. is_reversed: fed from its end.
    """

    name: str
    kind: Literal["lit", "copy", "hidden"]
    shape: str
    line: int
    path: KeyPath
    first: int
    count: int
    spots: slice
    leds: slice
    skipped: tuple[int, ...]
    order: tuple[int, ...]
    is_reversed: bool

    @property
    def last(self) -> int:
        """Its last address."""
        return self.first + self.count - 1

    @property
    def rows(self) -> Ints:
        """Its rows in the layout, along its own shape."""
        rows = np.arange(self.spots.start, self.spots.stop)
        return rows[::-1] if self.is_reversed else rows

    def place_of(self, address: int) -> int:
        """The place in the part, along its own shape, of an address of its line."""
        return self.last - address if self.is_reversed else address - self.first


@dataclass(frozen=True)
class Leds:
    """Every LED that has a place, m rows, part by part in wire order.

    spot: the row of the layout that it shows, -1 for one that is skipped. part: its place in
    `Layout.parts`. address: on its line. position: (m, 3) mm; facing: (m, 3) unit vectors.
    """

    spot: Ints
    part: Ints
    address: Ints
    position: Floats
    facing: Floats
    names: tuple[str, ...]

    def __len__(self) -> int:
        return len(self.spot)


@dataclass(frozen=True)
class Layout:
    """All spots of a design, as columns of n rows. A spot is an address that one can see.

    Attributes:
        line: place of the line in `line_names`
        part: place of the part in `part_names`
        address: place on the line, from 0, along the wire
        index: place in the part, from 0, along its own shape; `reverse` does not change it
        position: (n, 3) mm, the middle of the LEDs that share the address
        facing: (n, 3) unit vectors
        names: of each spot; empty if it has none
        parts: every part of the chain, also those without spots
        leds: every LED
        line_sizes: the number of addresses of each line
        unit_mm: the design's unit of length
        assemblies: the name of each placed assembly, and where it is written
    """

    line_names: tuple[str, ...]
    part_names: tuple[str, ...]
    line: Ints
    part: Ints
    address: Ints
    index: Ints
    position: Floats
    facing: Floats
    names: tuple[str, ...]
    parts: tuple[PartRow, ...]
    leds: Leds
    line_sizes: tuple[int, ...]
    unit_mm: float = 1.0
    assemblies: tuple[tuple[str, KeyPath], ...] = ()

    def __len__(self) -> int:
        return len(self.line)

    @cached_property
    def _parts_by_name(self) -> dict[str, PartRow]:
        return {part.name: part for part in reversed(self.parts)}

    @cached_property
    def order(self) -> Ints:
        """Each spot's place among all, part after part as they are written, each along its own
        shape: (n,). It is the order of everything that says no other; no `reverse` changes it.
        """
        parts = sorted((part for part in self.parts if part.kind == "lit"), key=lambda p: p.order)
        rows = [part.rows for part in parts]
        order = np.empty(len(self), np.int64)
        order[np.concatenate([np.zeros(0, np.int64), *rows])] = np.arange(len(self))
        return order

    @cached_property
    def line_of_led(self) -> Ints:
        """The place in `line_names` of the line of each LED: (m,)."""
        return np.array([part.line for part in self.parts], np.int64)[self.leds.part]

    @cached_property
    def line_starts(self) -> Ints:
        """Where each line's addresses begin, line after line, and where they end: (lines + 1,)."""
        return np.concatenate([[0], np.cumsum(self.line_sizes)]).astype(np.int64)

    def part_row(self, name: str) -> PartRow:
        """The part of a name. Raises LayoutError, with the nearest one."""
        found = self._parts_by_name.get(name)
        if found is None:
            remedy = did_you_mean(str(name), self._parts_by_name, "parts")
            raise LayoutError(f"there is no part '{name}'. {remedy}", names=(str(name),))
        return found

    def spots_of_line(self, name: str) -> slice:
        """The rows of one line, which are consecutive, in wire order. Raises LayoutError."""
        if name not in self.line_names:
            remedy = did_you_mean(str(name), self.line_names, "lines")
            raise LayoutError(f"there is no line '{name}'. {remedy}", names=(str(name),))
        low, high = np.searchsorted(
            self.line, (self.line_names.index(name), self.line_names.index(name) + 1)
        )
        return slice(int(low), int(high))

    def spots_of_part(self, name: str) -> slice:
        """The rows of one part, which are consecutive, in wire order. Raises LayoutError."""
        return self.part_row(name).spots

    def rows_of_part(self, name: str) -> Ints:
        """The same rows in the part's own order, by `index`. Raises LayoutError."""
        return self.part_row(name).rows

    def addresses_of_line(self, name: str) -> int:
        """How many addresses a line has, seen and unseen."""
        return self.line_sizes[self.line_names.index(name)]

    def skipped(self, line: str) -> list[int]:
        """The addresses of a line that no spot has."""
        seen = self.address[self.spots_of_line(line)]
        return sorted({*range(self.addresses_of_line(line))} - {*seen.tolist()})

    def in_unit(self, position: Floats) -> Floats:
        """Places in mm in the design's own unit."""
        return position / self.unit_mm if self.unit_mm != 1.0 else position

    def __repr__(self) -> str:
        return brief(
            "Layout", "", counted(len(self.leds), "LED"), counted(len(self.line_names), "line"),
            f"{counted(len(self.part_names), 'part')}: {few(self.part_names)}",
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """The parts as a table, in a notebook; `table` has every LED."""
        rows = [
            (part.name, self.line_names[part.line], part.shape, part.leds.stop - part.leds.start,
             f"{part.first} to {part.last}")
            for part in self.parts
        ]  # fmt: skip
        title = f"{counted(len(self.leds), 'LED')} on {counted(len(self.line_names), 'line')}"
        return as_table(title, ("part", "line", "shape", "LEDs", "addresses"), rows)

    def table(self) -> pd.DataFrame:
        """The layout as a pandas DataFrame, a row for each spot.

        Its columns are line, address, part, index, name, x, y, z (mm) and the vector of the facing.

        >>> import fendra as fd
        >>> table = fd.load(fd.demo_file("heron.toml")).layout().table()
        >>> table[table["part"] == "tail-bar"].iloc[0].to_dict()["x"]
        -240.0
        """
        import pandas as pd

        return pd.DataFrame(
            {
                "line": [self.line_names[number] for number in self.line],
                "address": self.address,
                "part": [self.part_names[number] for number in self.part],
                "index": self.index,
                "name": self.names,
                **_vectors(self.position, self.facing),
            }
        )

    def led_table(self) -> pd.DataFrame:
        """Every LED as a pandas DataFrame. LEDs that share an address have a row each.

        Its columns are line, address, part, name, x, y, z (mm), the vector of the facing, and
        whether the LED is skipped.
        """
        import pandas as pd

        return pd.DataFrame(
            {
                "line": [self.line_names[number] for number in self.line_of_led],
                "address": self.leds.address,
                "part": [self.parts[number].name for number in self.leds.part],
                "name": self.leds.names,
                **_vectors(self.leds.position, self.leds.facing),
                "skipped": self.leds.spot < 0,
            }
        )


def _vectors(position: Floats, facing: Floats) -> dict[str, Floats]:
    columns = {axis: position[:, i] for i, axis in enumerate("xyz")}
    return columns | {f"facing_{axis}": facing[:, i] for i, axis in enumerate("xyz")}


def place(design: Design, report: Report | None = None) -> Layout:
    """Put every LED of a design at its place.

    Mistakes go into the report, and a part that cannot be placed is left out of the
    layout; without a report it raises DesignError.
    """
    found = Report() if report is None else report
    builder = _Builder(design, found)
    for number, _ in enumerate(design.line):
        builder.line(number)
    if report is None and errors_of(found):
        raise DesignError(errors_of(found))
    return builder.layout()


class _Builder:
    """Collects spots and LEDs part by part."""

    def __init__(self, design: Design, report: Report) -> None:
        self._design = design
        self._report = report
        self._chain = unfold(design, report)
        self._unit_mm = UNITS_MM[design.units]
        self._parts: list[PartRow] = []
        self._part_names: list[str] = []
        self._line_sizes: list[int] = []
        self._spots: dict[str, list[Any]] = {
            key: [] for key in ("line", "part", "address", "index", "position", "facing")
        }
        self._leds: dict[str, list[Any]] = {
            key: [] for key in ("spot", "part", "address", "position", "facing")
        }
        self._names: list[str] = []
        self._led_names: list[str] = []
        self._spot_count = self._led_count = 0
        self._is_full = False

    def line(self, number: int) -> None:
        used = 0
        for link in self._chain.links:
            if link.line == number:
                used += self._add(link, used)
        self._line_sizes.append(used)

    def _add(self, link: ChainPart, first: int) -> int:
        """Add a part; gives how many addresses of the line it takes."""
        try:
            position, facing, names = leds_of(link, self._unit_mm)
        except ValueError as exc:
            self._report.error(link.path, "wrong-value", f"{exc}.", "")
            position, facing, names = np.zeros((0, 3)), np.zeros((0, 3)), []
        if self._led_count + len(position) > LEDS.most:
            if not self._is_full:
                self._is_full = True
                message = "with this part there are too many LEDs."
                self._report.error(link.path, "limit", message, f"The limit is {LEDS.in_words}.")
            return 0
        line = self._design.line[link.line]
        per = link.part.leds_per_address or line.led_type.leds_a_chip
        is_hidden = isinstance(link.part, Hidden)
        count = link.part.count if isinstance(link.part, Hidden) else -(-len(position) // per)
        try:
            places = link.part.skipped(count)
        except ValueError as exc:
            self._report.error((*link.path, "skip"), "wrong-value", f"{exc}.", "")
            places = set()
        last = count - 1
        skipped = {last - place for place in places} if link.is_reversed else places  # on the wire
        place_of = np.arange(len(position)) // per
        if link.parallel_to is not None:
            return self._add_copy(link, count, place_of, position, facing, names)
        kept = np.array([i for i in range(count) if i not in skipped and not is_hidden], np.int64)
        spot_of = np.full(count, -1)
        spot_of[kept] = self._spot_count + np.arange(len(kept))
        if not is_hidden:
            self._part_names.append(link.name)
            spots = self._spots
            spots["line"].append(np.full(len(kept), link.line))
            spots["part"].append(np.full(len(kept), len(self._part_names) - 1))
            spots["address"].append(first + kept)
            spots["index"].append(last - kept if link.is_reversed else kept)
            spots["position"].append(means(position, place_of, count)[kept])
            spots["facing"].append(_unit(means(facing, place_of, count)[kept], facing, per, kept))
            ends = np.minimum((kept + 1) * per, len(names)) - 1
            self._names += [names[i] for i in (ends if link.is_reversed else kept * per).tolist()]
        self._add_row(
            link, "hidden" if is_hidden else "lit", first, count, len(kept), tuple(sorted(places)),
            spot_of[place_of], first + place_of, position, facing, names,
        )  # fmt: skip
        return count

    def _add_copy(
        self, link: ChainPart, count: int, place_of: Ints, position: Floats, facing: Floats,
        names: list[str],
    ) -> int:  # fmt: skip
        """Add a part that is wired in parallel to one above it; it takes no addresses."""
        path = (*link.path, "parallel_to")
        of = next((row for row in self._parts if row.name == link.parallel_to), None)
        if of is None or of.line != link.line or of.kind != "lit":
            message = (
                f"above this part, its line has no part '{link.part.parallel_to}' for "
                "`parallel_to`."
            )
            remedy = "A copy stands below the part whose data it shows, on the same line."
            self._report.error(path, "unknown-name", message, remedy)
            return 0
        if count > of.count:
            message = (
                f"this part has {count} addresses, but '{of.name}', whose data it "
                f"shows, has {of.count}."
            )
            self._report.error(path, "too-many", message, "Give it at most as many.")
            return 0
        if link.part.skip:
            message = "a copy shows what its original shows; `skip` has no effect here."
            self._report.warning((*link.path, "skip"), "no-effect", message, "Set it there.")
        spot_of = np.full(of.count, -1)
        seen = [i for i in range(of.count) if of.place_of(of.first + i) not in of.skipped]
        spot_of[seen] = np.arange(of.spots.start, of.spots.stop)
        shown = int((spot_of[:count] >= 0).sum())
        start = of.spots.start
        self._add_row(
            link, "copy", of.first, count, 0, self._unseen(spot_of[:count], link.is_reversed),
            spot_of[place_of], of.first + place_of, position, facing, names,
            spots=slice(start, start + shown),
        )  # fmt: skip
        return 0

    @staticmethod
    def _unseen(spots: Ints, is_reversed: bool) -> tuple[int, ...]:
        """The places of a part, along its own shape, that no spot has."""
        along = spots[::-1] if is_reversed else spots
        return tuple(np.flatnonzero(along < 0).tolist())

    def _add_row(
        self, link: ChainPart, kind: Any, first: int, count: int, spots_added: int,
        skipped: tuple[int, ...], spot: Ints, address: Ints, position: Floats, facing: Floats,
        names: Sequence[str], spots: slice | None = None,
    ) -> None:  # fmt: skip
        leds = self._leds
        for key, values in (
            ("spot", spot), ("address", address), ("position", position), ("facing", facing),
            ("part", np.full(len(spot), len(self._parts))),
        ):  # fmt: skip
            leds[key].append(values)
        self._led_names += names
        own = slice(self._spot_count, self._spot_count + spots_added)
        self._parts.append(
            PartRow(
                link.name, kind, link.part.shape, link.line, link.path, first, count, spots or own,
                slice(self._led_count, self._led_count + len(spot)), skipped, link.order,
                link.is_reversed,
            )
        )  # fmt: skip
        self._spot_count += spots_added
        self._led_count += len(spot)

    def layout(self) -> Layout:
        spots, leds = self._spots, self._leds
        return Layout(
            tuple(line.name for line in self._design.line),
            tuple(self._part_names),
            _joined(spots["line"]),
            _joined(spots["part"]),
            _joined(spots["address"]),
            _joined(spots["index"]),
            np.concatenate([np.zeros((0, 3)), *spots["position"]]),
            np.concatenate([np.zeros((0, 3)), *spots["facing"]]),
            tuple(self._names),
            tuple(self._parts),
            Leds(
                _joined(leds["spot"]),
                _joined(leds["part"]),
                _joined(leds["address"]),
                np.concatenate([np.zeros((0, 3)), *leds["position"]]),
                np.concatenate([np.zeros((0, 3)), *leds["facing"]]),
                tuple(self._led_names),
            ),
            tuple(self._line_sizes),
            self._unit_mm,
            self._chain.assemblies,
        )


def _joined(pieces: list[Ints]) -> Ints:
    return np.concatenate([np.zeros(0, np.int64), *pieces]).astype(np.int64)


def leds_of(link: ChainPart, unit_mm: float) -> tuple[Floats, Floats, list[str]]:
    """Places in mm, facings and names of a part's LEDs, in wire order.

    Raises ValueError if facings or names are not as many as LEDs.
    """
    own = link.part.positions(unit_mm)
    position = link.pose.points(own) * unit_mm
    facing = link.pose.ways(link.part.facings(own))
    names = link.part.led_names(len(own))
    way = slice(None, None, -1 if link.is_reversed else 1)
    return position[way], facing[way], names[way]


def means(values: Floats, place_of: Ints, count: int) -> Floats:
    """The mean of the values (m, 3) at each place: (count, 3)."""
    if len(values) == count:
        return values
    sums = np.zeros((count, 3))
    np.add.at(sums, place_of, values)
    return np.asarray(sums / np.maximum(np.bincount(place_of, minlength=count), 1)[:, None])


def _unit(vectors: Floats, facing: Floats, per: int, kept: Ints) -> Floats:
    """Unit vectors; where LEDs of one address look opposite ways, the first one's."""
    length = np.linalg.norm(vectors, axis=1, keepdims=True)
    first = facing[kept * per] if len(kept) else vectors
    with np.errstate(invalid="ignore", divide="ignore"):
        return np.where(length > 1e-6, vectors / length, first)
