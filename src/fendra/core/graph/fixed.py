"""Values that no frame changes: constants and per-spot values, computed once."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import TypeAlias

import numpy as np

from fendra.core.arrays import Array
from fendra.core.graph.node import Graph, Rate
from fendra.core.graph.ops import op_of
from fendra.core.graph.passes import constant_array

Columns: TypeAlias = Mapping[tuple[str, str], Array]


def compute_fixed(
    graph: Graph, columns: Columns, shape: Callable[[int], tuple[int, ...]]
) -> dict[int, Array]:
    """The values of all nodes that no frame changes, by place.

    columns: (space, column name) to values over the space's spots.
    shape: gives the shape of a node's values, (n,) or (3, n).
    """
    rates = graph.rates()
    fixed: dict[int, Array] = {}
    with np.errstate(all="ignore"):
        for place, node in enumerate(graph.nodes):
            if rates[place] & Rate.FRAME:
                continue
            if node.op == "const":
                values = constant_array(node)
                fixed[place] = values if node.width == 3 else values.reshape(())
            elif node.op == "column":
                fixed[place] = columns[str(node.space), str(node.payload)].astype(node.kind.dtype)
            else:
                out = np.empty(shape(place), node.kind.dtype)
                op_of(node.op, node.payload).array(*(fixed[arg] for arg in node.args), out)
                fixed[place] = out
    return fixed
