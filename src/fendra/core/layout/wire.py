"""The bytes on the wires: a frame's bytes for each line, in wire order and colour order."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Any

import numpy as np

from fendra.core.arrays import Array, Bytes
from fendra.core.document.design import Design
from fendra.core.document.line import Line
from fendra.core.layout import Layout
from fendra.core.light.bytes import wire_order


@dataclass(frozen=True)
class Stretch:
    """Addresses in a row: `count` spots, or `count` addresses without visible LEDs, which stay
    dark.
    """

    count: int
    is_dark: bool = False


@dataclass(frozen=True)
class Wire:
    """The bytes of one line: its spots follow the spots of the line before it.

    number: its place in the design. order: the letters of its channels, in wire order.
    """

    name: str
    number: int
    order: str
    stretches: tuple[Stretch, ...]

    @property
    def size(self) -> int:
        """Bytes of a frame."""
        return sum(stretch.count for stretch in self.stretches) * len(self.order)


def wires_of(layout: Layout, design: Design) -> tuple[Wire, ...]:
    """Every line of a design, as stretches of addresses."""
    found = []
    for number, line in enumerate(design.line):
        dark = _spot_of_address(layout, line) < 0
        stretches = tuple(Stretch(len([*row]), bool(is_dark)) for is_dark, row in groupby(dark))
        found.append(Wire(line.name, number, line.wire_order, stretches))
    return tuple(found)


def bytes_of_lines(wires: Sequence[Wire], rgb: Bytes) -> bytes:
    """The bytes of all these lines, one after the other.

    rgb: (spots of these lines, 3) uint8, line after line in wire order.

    >>> wire = Wire("a", 0, "GRB", (Stretch(1, is_dark=True), Stretch(1)))
    >>> bytes_of_lines([wire], np.array([[1, 2, 3]], np.uint8)).hex(" ")
    '00 00 00 02 01 03'
    """
    found, first = [], 0
    for wire in wires:
        for stretch in wire.stretches:
            if stretch.is_dark:
                found.append(bytes(stretch.count * len(wire.order)))
            else:
                found.append(wire_order(rgb[first : first + stretch.count], wire.order).tobytes())
                first += stretch.count
    return b"".join(found)


class LineBytes:
    """Some lines of a design, made ready: frames become bytes by one look-up a line.

    lines: their places in the design; all, if not given. sizes: bytes of each.
    """

    def __init__(
        self, layout: Layout, design: Design, lines: Sequence[int] | None = None
    ) -> None:  # fmt: skip
        self.lines = tuple(range(len(design.line)) if lines is None else lines)
        self.orders = [design.line[number].wire_order for number in self.lines]
        chosen = [design.line[number] for number in self.lines]
        self._spots = [_spot_of_address(layout, line) for line in chosen]
        self._places = [
            _places(spots, order) for spots, order in zip(self._spots, self.orders, strict=True)
        ]
        pairs = zip(self._spots, self.orders, strict=True)
        self.sizes = [len(spots) * len(order) for spots, order in pairs]

    @property
    def spots(self) -> Bytes:
        """The places of the spots on these lines, ascending."""
        return np.unique(np.concatenate([spots[spots >= 0] for spots in self._spots]))

    def arrays(self, rgb: Bytes) -> list[Bytes]:
        """The bytes of each line, as (its size,) uint8; skipped addresses are dark.

        rgb: (all spots, 3) uint8.
        """
        flat = rgb.reshape(-1)
        found = []
        for spots, places, order in zip(self._spots, self._places, self.orders, strict=True):
            if places is not None:
                found.append(flat[places])
                continue
            pixels = np.zeros((len(spots), len(order)), np.uint8)
            pixels[spots >= 0] = wire_order(rgb[spots[spots >= 0]], order)
            found.append(pixels.reshape(-1))
        return found

    def bytes(self, rgb: Bytes) -> list[bytes]:
        """The bytes of each line."""
        return [line.tobytes() for line in self.arrays(rgb)]


def _spot_of_address(layout: Layout, line: Line) -> Array:
    """The spot at each address of a line; -1 for an address without a visible LED."""
    rows = layout.spots_of_line(line.name)
    spots = np.full(layout.addresses_of_line(line.name), -1, np.int64)
    spots[np.asarray(layout.address[rows])] = np.arange(len(layout))[rows]
    return spots


def _places(spots: Array, order: str) -> np.ndarray[Any, np.dtype[np.intp]] | None:
    """Of each byte of a line its place in a frame's; None if a byte is not just one of those."""
    if "W" in order or (spots < 0).any():
        return None
    channels = np.array(["RGB".index(letter) for letter in order])
    return np.asarray((spots[:, None] * 3 + channels).reshape(-1), np.intp)
