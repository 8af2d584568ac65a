"""The layout's columns as expressions and effects see them."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.graph.trace import Tracer, Value
from fendra.core.language.vocabulary import TEXT_COLUMNS
from fendra.core.layout.table import Layout
from fendra.core.shapes import FACINGS

COLUMNS = ("x", "y", "z", "address", "index", "facing_x", "facing_y", "facing_z")
"""Numbers of a spot: place in the design's unit, address on the line, index in the part, facing."""

FACING_COLUMNS = tuple(f"facing_{name}" for name in FACINGS)
"""Truths of a spot: whether it faces that way, give or take 60 degrees."""

SPOT_COLUMNS = (*COLUMNS, *FACING_COLUMNS, *TEXT_COLUMNS)
"""The columns of a single spot that an expression may use."""

ORDER_COLUMNS = ("along", "rank", "across", "up", "angle", "radius")
"""Columns that a layer has beside the layout's: where a spot is on its trail, and among its spots
as they are seen best: from left to right and from below upwards, 0 to 1, and round their middle.
"""


def column_values(layout: Layout, name: str) -> Floats:
    """One column of the layout as numbers; `part:number` and the like for the texts."""
    match name:
        case "x" | "y" | "z":
            return layout.in_unit(layout.position[:, "xyz".index(name)])
        case "facing_x" | "facing_y" | "facing_z":
            return layout.facing[:, "xyz".index(name[-1])]
        case "line:number":
            return layout.line.astype(np.float64)
        case "part:number":
            return layout.part.astype(np.float64)
        case "name:number":
            numbers = words(layout)["name"]
            return np.array([numbers.get(name, -1) for name in layout.names], np.float64)
        case "address":
            return layout.address.astype(np.float64)
        case "index":
            return layout.index.astype(np.float64)
    raise KeyError(name)


def words(layout: Layout) -> dict[str, dict[str, int]]:
    """The texts that `line`, `part` and `name` may hold, and their numbers."""
    names = dict.fromkeys(name for name in layout.names if name)
    columns = {"line": layout.line_names, "part": layout.part_names, "name": names}
    return {
        column: {text: number for number, text in enumerate(texts)}
        for column, texts in columns.items()
    }


def look_up_in(tracer: Tracer, space: str) -> Callable[[str], Value | None]:
    """Gives the columns of a space by name, as traced values."""
    known = {*COLUMNS, *(f"{name}:number" for name in TEXT_COLUMNS)}

    def look_up(name: str) -> Value | None:
        if name in FACING_COLUMNS:
            vector = FACINGS[name.removeprefix("facing_")]
            axis = next(i for i, part in enumerate(vector) if part)
            return tracer.column(f"facing_{'xyz'[axis]}", space) * vector[axis] > 0.5
        return tracer.column(name, space) if name in known else None

    return look_up
