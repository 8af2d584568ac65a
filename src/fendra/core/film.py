"""Frames and films: the results of a program."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from fendra.core.arrays import Array, Bytes, Floats
from fendra.core.document.design import Design
from fendra.core.document.line import Line
from fendra.core.errors import ClockError
from fendra.core.layout import Layout
from fendra.core.layout.wire import LineBytes
from fendra.core.light.balance import EVEN, seen_of
from fendra.core.names import counted
from fendra.core.shown import as_table, brief
from fendra.core.signals.tape import Tape


def as_seen(rgb: Bytes, layout: Layout, design: Design) -> Bytes:
    """The LEDs' bytes as the eye sees them: white looks white, if they are balanced.

    rgb: (..., n, 3) uint8; returned unchanged if no LED type of the design is balanced.
    """
    if not any(is_balanced(line) for line in design.line):
        return rgb
    rows = [layout.spots_of_line(line.name) for line in design.line]
    pieces = [seen_on(rgb[..., row, :], line) for row, line in zip(rows, design.line, strict=True)]
    return np.concatenate(pieces, axis=-2)


def seen_on(rgb: Bytes, line: Line) -> Bytes:
    """The same of LEDs of one line, (..., 3) uint8."""
    if not is_balanced(line):
        return rgb
    return seen_of(rgb, line.led_type.white, "W" in line.wire_order)


def is_balanced(line: Line) -> bool:
    """Whether the white of a line's LEDs is balanced."""
    return line.led_type.white != EVEN


@dataclass(frozen=True)
class Frame:
    """The pixel values of one moment.

    Attributes:
        at_s: seconds on the program's clock
        rgb: (n, 3) uint8, a row for each spot, in linear steps of red, green and blue, as the LEDs
            get them
        let_through: for each supply with a limiter, the share of the light that it passes, 0 to 1
    """

    at_s: float
    rgb: Bytes
    layout: Layout
    design: Design
    let_through: Mapping[str, float] = field(default_factory=dict)

    def __repr__(self) -> str:
        lit = int((self.rgb != 0).any(axis=1).sum())
        brightest = f"brightest {int(self.rgb.max(initial=0))} of 255"
        leds = counted(len(self.layout), "LED")
        return brief(
            "Frame", self.design.name, f"at {self.at_s:g} s", leds, f"{lit} lit", brightest
        )

    def _repr_markdown_(self) -> str:
        """The light of each part, in a notebook."""
        rows = []
        for name in self.layout.part_names:
            pixels = self.part(name)
            mean = "#" + "".join(f"{round(float(each)):02x}" for each in pixels.mean(axis=0))
            rows.append((name, len(pixels), int((pixels != 0).any(axis=1).sum()), mean))
        title = f"{self.design.name} at {self.at_s:g} s"
        return as_table(title, ("part", "LEDs", "lit", "mean, linear"), rows)

    def __array__(self, dtype: Any = None, copy: bool | None = None) -> Array:
        return np.array(self.rgb, dtype=dtype, copy=copy)

    @property
    def seen(self) -> Bytes:
        """The same as the eye sees it: see `as_seen`."""
        return as_seen(self.rgb, self.layout, self.design)

    def line_bytes(self) -> list[bytes]:
        """The bytes of each line, in wire order and the line's colour order.

        Skipped addresses are dark.
        """
        return LineBytes(self.layout, self.design).bytes(self.rgb)

    def part(self, name: str) -> Bytes:
        """The pixels of one part, by their places in it: (its LEDs, 3) uint8."""
        return self.rgb[self.layout.rows_of_part(name)]


def quick_frame(
    at_s: float, rgb: Bytes, layout: Layout, design: Design, let_through: Mapping[str, float]
) -> Frame:
    """A frame without the detour that a frozen dataclass makes for each of its fields: a live loop
    makes thousands.
    """
    frame = object.__new__(Frame)
    fields = frame.__dict__
    fields["at_s"], fields["rgb"], fields["layout"] = at_s, rgb, layout
    fields["design"], fields["let_through"] = design, let_through
    return frame


@dataclass(frozen=True)
class Limited:
    """The work of a supply's limiter in a film.

    frames: how many frames it held back, of `of`. least: the smallest share of the light that it
    passed, 0 to 1; at_s: when that first happened.
    """

    supply: str
    frames: int
    of: int
    least: float
    at_s: float

    def __str__(self) -> str:
        whose = f"'{self.supply}'" if self.supply else "the supply"
        if not self.frames:
            return f"limiter of {whose}: never acted"
        return (
            f"limiter of {whose}: held back {self.frames} of {self.of} frames "
            f"({self.frames / self.of:.1%}), at {self.at_s:g} s down to "
            f"{self.least:.0%} of the light"
        )


@dataclass(frozen=True)
class Film:
    """Frames over a stretch of time; `numpy.asarray(film)` is its bytes.

    times: (frames,) seconds on the tape's clock. rgb: (frames, n, 3) uint8, linear, as
    in `Frame`. tape: the signals that drove it. let_through: of each supply that has a limiter, the
    share of the light that it let through, 0 to 1: (frames,).
    """

    times: Floats
    rgb: Bytes
    layout: Layout
    design: Design
    tape: Tape
    let_through: Mapping[str, Floats] = field(default_factory=dict)

    def seen_part(self, name: str) -> Bytes:
        """The same as the eye sees it: see `as_seen`."""
        line = self.design.line[int(self.layout.line[self.layout.spots_of_part(name).start])]
        return seen_on(self.part(name), line)

    def __repr__(self) -> str:
        return brief(
            "Film", self.design.name, f"of tape {self.tape.name!r}", counted(len(self), "frame"),
            f"{self.times[0]:g} to {self.times[-1]:g} s", counted(len(self.layout), "LED"),
        )  # fmt: skip

    def limited(self) -> list[Limited]:
        """How often and how much each supply's limiter acted."""
        found = []
        for supply, share in self.let_through.items():
            lowest = int(np.argmin(share))
            frames = int(np.count_nonzero(share < 1.0))
            found.append(Limited(supply, frames, len(self), share[lowest].item(),
                                 self.times[lowest].item()))  # fmt: skip
        return found

    def __len__(self) -> int:
        return len(self.times)

    def __array__(self, dtype: Any = None, copy: bool | None = None) -> Array:
        return np.array(self.rgb, dtype=dtype, copy=copy)

    def frame(self, at_s: float) -> Frame:
        """The frame shown at a time; the first before the film begins, the last after its end."""
        place = self.place(at_s)
        shares = {supply: float(share[place]) for supply, share in self.let_through.items()}
        return Frame(float(self.times[place]), self.rgb[place], self.layout, self.design, shares)

    def place(self, at_s: float) -> int:
        """Which frame is shown at a time, from 0; the first and the last as for `frame`."""
        try:
            return max(int(np.searchsorted(self.times, at_s + 1e-9, side="right")) - 1, 0)
        except TypeError as exc:
            raise ClockError(f"at_s = {at_s!r} is not a time") from exc

    def part(self, name: str) -> Bytes:
        """The pixels of one part over time, by their places in it: (frames, its LEDs, 3) uint8."""
        return self.rgb[:, self.layout.rows_of_part(name)]
