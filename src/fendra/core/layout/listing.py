"""The parts of a layout as rows: where each begins and ends, which way it runs and looks."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.layout.table import Layout, PartRow
from fendra.core.shapes import FACINGS

_ROUND = ("ring", "arc", "frame", "path")


@dataclass(frozen=True)
class Listed:
    """A part in words.

    row: its row in the chain. line: its name. start, end: the places of its first and last LED, in
    the design's unit; None if it has none. direction, facing: in words.
    """

    row: PartRow
    line: str
    start: tuple[float, ...] | None
    end: tuple[float, ...] | None
    direction: str
    facing: str

    def to_dict(self) -> dict[str, Any]:
        """The same as plain values, for JSON."""
        row = self.row
        return {
            "line": self.line,
            "part": row.name,
            "kind": row.kind,
            "shape": row.shape,
            "first": row.first,
            "last": row.last,
            "leds": row.leds.stop - row.leds.start,
            "skipped": list(row.skipped),
            "start": self.start and list(self.start),
            "end": self.end and list(self.end),
            "direction": self.direction,
            "facing": self.facing,
        }


def list_parts(layout: Layout) -> list[Listed]:
    """Every part in wire order, line after line.

    >>> import fendra as fd
    >>> [part] = [p for p in list_parts(fd.load(fd.demo_file("heron.toml")).layout())
    ...           if p.row.name == "tail-bar"]
    >>> part.start, part.direction, part.facing
    ((-240.0, -620.0, 520.0), 'right', 'back')
    """
    found = []
    for row in layout.parts:
        places = layout.in_unit(layout.leds.position[row.leds])
        ends = [_place(places[i]) for i in (0, -1)] if len(places) else [None, None]
        way = direction_of(places, row.shape)
        facing = in_words(layout.leds.facing[row.leds])
        found.append(Listed(row, layout.line_names[row.line], ends[0], ends[1], way, facing))
    return found


def _place(position: Floats) -> tuple[float, ...]:
    return tuple(round(float(value), 3) + 0.0 for value in position)


def direction_of(places: Floats, shape: str) -> str:
    """Which way the LEDs of a part run, (n, 3), in words; nothing for a single one."""
    if len(places) < 2:
        return ""
    steps = np.linalg.norm(np.diff(places, axis=0), axis=1).sum()
    if np.linalg.norm(places[-1] - places[0]) > 0.99 * steps > 0:
        return way_in_words(places[-1] - places[0])
    if shape in _ROUND:
        area = turning(places)
        if abs(area) > 1e-6 * steps**2:
            return "counter-clockwise" if area > 0 else "clockwise"
    begins = way_in_words(places[1] - places[0])
    return f"begins {begins}" if begins else ""


def turning(places: Floats) -> float:
    """Twice the area that places (n, 2 or more) run round: above 0 counter-clockwise."""
    x, y = (places - places.mean(axis=0))[:, :2].T
    return float(np.sum(x * np.roll(y, -1) - y * np.roll(x, -1)))


def way_in_words(vector: Floats) -> str:
    """The axes that a direction follows, the main one first, as in `front-left`."""
    length = float(np.linalg.norm(vector))
    if length == 0:
        return ""
    shares = {
        word: float(np.dot(vector, axis)) / length
        for word, axis in FACINGS.items()
        if np.dot(vector, axis) / length > 0.35
    }
    return "-".join(sorted(shares, key=lambda word: -round(shares[word], 6)))


def in_words(facings: Floats) -> str:
    """Where LEDs look, (n, 3), in a word; `mixed` if they look different ways."""
    if len(facings) == 0:
        return ""
    if np.ptp(facings, axis=0).max() > 1e-3:
        return "mixed"
    return way_in_words(facings[0])
