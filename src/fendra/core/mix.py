"""Mixing: how layers are painted over each other.

A layer is painted with two values: `paint`, its light times its coverage, and `rest`,
what it leaves of the light beneath. All of it is linear light.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from fendra.core.electric.limiter import Limit
from fendra.core.graph.node import Graph

Blend = Literal["over", "add", "max"]
"""over: beneath * rest + paint, or paint alone where rest is always 0; add: beneath + paint;
max: the larger of beneath and paint."""


@dataclass(frozen=True)
class Slot:
    """One layer of a recorded design.

    layer: its place in the design. on, paint, rest: places in the graph.
    """

    layer: int
    space: str
    blend: Blend
    on: int
    paint: int
    rest: int


@dataclass(frozen=True)
class Recording:
    """A design as one graph, and what is needed to run it.

    columns: (space, column name) to an array over the space's spots.
    spots: each space's spots, ascending, as places in the layout.
    fed: the signals that come in, in the order of the design. limits: the budgets of the supplies.
    """

    graph: Graph
    slots: tuple[Slot, ...]
    columns: Mapping[tuple[str, str], np.ndarray[Any, np.dtype[Any]]]
    spots: Mapping[str, np.ndarray[Any, np.dtype[Any]]]
    spot_count: int
    fed: tuple[str, ...]
    limits: tuple[Limit, ...] = ()
