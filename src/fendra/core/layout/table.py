"""The layout: one row a spot, in wire order, line after line."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.layout.shapes import FACINGS

if TYPE_CHECKING:
    import pandas as pd

    from fendra.core.design import Design

Floats = np.ndarray[Any, np.dtype[np.float64]]
Ints = np.ndarray[Any, np.dtype[np.int64]]


@dataclass(frozen=True)
class Layout:
    """All spots of a design, as columns of n rows.

    line, part: place of the line and of the part in `line_names` and `part_names`.
    address: place on the line, from 0; index: place in the part, from 0.
    position: (n, 3) mm; facing: (n, 3) unit vectors.
    """

    line_names: tuple[str, ...]
    part_names: tuple[str, ...]
    line: Ints
    part: Ints
    address: Ints
    index: Ints
    position: Floats
    facing: Floats

    def __len__(self) -> int:
        return len(self.line)

    def spots_of_line(self, name: str) -> slice:
        """The rows of one line; they stand together, in wire order."""
        rows = np.flatnonzero(self.line == self.line_names.index(name))
        return slice(int(rows[0]), int(rows[-1]) + 1) if len(rows) else slice(0, 0)

    def spots_of_part(self, name: str) -> slice:
        """The rows of one part; they stand together, in wire order."""
        rows = np.flatnonzero(self.part == self.part_names.index(name))
        return slice(int(rows[0]), int(rows[-1]) + 1) if len(rows) else slice(0, 0)

    def table(self) -> pd.DataFrame:
        """The layout as a pandas DataFrame: line, address, part, index, x, y, z (mm), facing.

        >>> import fendra as fd
        >>> table = fd.load(fd.demo_file("heron.toml")).layout().table()
        >>> table[table["part"] == "tail-bar"].iloc[0].to_dict()["x"]
        -240.0
        """
        import pandas as pd

        names = {vector: name for name, vector in FACINGS.items()}
        return pd.DataFrame(
            {
                "line": [self.line_names[number] for number in self.line],
                "address": self.address,
                "part": [self.part_names[number] for number in self.part],
                "index": self.index,
                "x": self.position[:, 0],
                "y": self.position[:, 1],
                "z": self.position[:, 2],
                "facing": [names[tuple(vector)] for vector in self.facing.tolist()],
            }
        )


def place(design: Design) -> Layout:
    """Put every LED of a design at its place."""
    line: list[int] = []
    part: list[int] = []
    address: list[int] = []
    index: list[int] = []
    positions: list[Floats] = [np.zeros((0, 3))]
    facings: list[Floats] = [np.zeros((0, 3))]
    part_names: list[str] = []
    for line_number, line_model in enumerate(design.line):
        used = 0
        for part_model in line_model.part:
            points = part_model.positions()
            count = len(points)
            line += [line_number] * count
            part += [len(part_names)] * count
            address += range(used, used + count)
            index += range(count)
            positions.append(points)
            facings.append(np.tile(FACINGS[part_model.facing], (count, 1)))
            part_names.append(part_model.name)
            used += count
    return Layout(
        tuple(model.name for model in design.line),
        tuple(part_names),
        np.array(line, np.int64),
        np.array(part, np.int64),
        np.array(address, np.int64),
        np.array(index, np.int64),
        np.concatenate(positions),
        np.concatenate(facings),
    )
