"""Frames and films: what a program gives."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.design import Design, Line
from fendra.core.layout import Layout
from fendra.core.light import wire_order
from fendra.core.tape import Tape

Bytes = np.ndarray[Any, np.dtype[np.uint8]]
Floats = np.ndarray[Any, np.dtype[np.float64]]


@dataclass(frozen=True)
class Frame:
    """The pixel values of one moment.

    at_s: seconds on the program's clock. rgb: (n, 3) uint8, a row a spot, in linear
    steps of red, green and blue, as the LEDs' drivers take them.
    """

    at_s: float
    rgb: Bytes
    layout: Layout
    design: Design

    def __array__(self, dtype: Any = None, copy: bool | None = None) -> np.ndarray[Any, Any]:
        return np.array(self.rgb, dtype=dtype, copy=copy)

    def line_bytes(self) -> list[bytes]:
        """The bytes of each line, in wire order and the line's colour order.

        Addresses that are skipped are dark.
        """
        return [self._bytes_of(line) for line in self.design.line]

    def _bytes_of(self, line: Line) -> bytes:
        rows = self.layout.spots_of_line(line.name)
        order = line.wire_order
        pixels = np.zeros((self.layout.addresses_of_line(line.name), len(order)), np.uint8)
        pixels[self.layout.address[rows]] = wire_order(self.rgb[rows], order)
        return pixels.tobytes()

    def part(self, name: str) -> Bytes:
        """The pixels of one part: (its LEDs, 3) uint8."""
        return self.rgb[self.layout.spots_of_part(name)]


@dataclass(frozen=True)
class Film:
    """Frames over a stretch of time; `numpy.asarray(film)` is its bytes.

    times: (frames,) seconds on the tape's clock. rgb: (frames, n, 3) uint8, linear, as
    in `Frame`. tape: the signals that drove it.
    """

    times: Floats
    rgb: Bytes
    layout: Layout
    design: Design
    tape: Tape

    def __len__(self) -> int:
        return len(self.times)

    def __array__(self, dtype: Any = None, copy: bool | None = None) -> np.ndarray[Any, Any]:
        return np.array(self.rgb, dtype=dtype, copy=copy)

    def frame(self, at_s: float) -> Frame:
        """The frame shown at a time; the first one before it begins, the last after its end."""
        place = int(np.searchsorted(self.times, at_s + 1e-9, side="right")) - 1
        place = min(max(place, 0), len(self.times) - 1)
        return Frame(float(self.times[place]), self.rgb[place], self.layout, self.design)

    def part(self, name: str) -> Bytes:
        """The pixels of one part over time: (frames, its LEDs, 3) uint8."""
        return self.rgb[:, self.layout.spots_of_part(name)]
