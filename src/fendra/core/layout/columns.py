"""The layout's columns as expressions and effects see them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np

from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.table import Layout

COLUMNS = ("x", "y", "z", "address", "index", "facing_x", "facing_y", "facing_z")
"""Numbers of a spot: place in mm, address on the line, index in the part, facing."""

TEXT_COLUMNS = ("line", "part")
"""Columns that hold a name; expressions compare them with a text."""


ORDER_COLUMNS = ("along", "rank")
"""Columns that a layer has beside the layout's: where a spot is on the layer's trail."""


def column_values(layout: Layout, name: str) -> np.ndarray[Any, np.dtype[np.float64]]:
    """One column of the layout as numbers; `line:number` and `part:number` for the names."""
    match name:
        case "x" | "y" | "z":
            return layout.position[:, "xyz".index(name)]
        case "facing_x" | "facing_y" | "facing_z":
            return layout.facing[:, "xyz".index(name[-1])]
        case "line:number":
            return layout.line.astype(np.float64)
        case "part:number":
            return layout.part.astype(np.float64)
        case "address":
            return layout.address.astype(np.float64)
        case "index":
            return layout.index.astype(np.float64)
    raise KeyError(name)


def words(layout: Layout) -> dict[str, dict[str, int]]:
    """The texts that `line` and `part` may hold, and their numbers."""
    return {
        "line": {name: number for number, name in enumerate(layout.line_names)},
        "part": {name: number for number, name in enumerate(layout.part_names)},
    }


def look_up_in(tracer: Tracer, space: str) -> Callable[[str], Value | None]:
    """Gives the columns of a space by name, as traced values."""
    known = {*COLUMNS, *(f"{name}:number" for name in TEXT_COLUMNS)}

    def look_up(name: str) -> Value | None:
        return tracer.column(name, space) if name in known else None

    return look_up
