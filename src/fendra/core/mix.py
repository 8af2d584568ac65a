"""Mixing: how layers are painted over each other.

A layer is painted with two values: `paint`, its light times its coverage, and `rest`,
what it leaves of the light beneath. All of it is linear light.

While a scene takes over from another, the layers of each are painted by themselves on what lies
beneath them all, with those between them that belong to every scene; and what comes out is added up
in the shares in which the scenes are there.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from fendra.core.electric.limiter import Limit
from fendra.core.graph.node import Graph
from fendra.core.wire import WireLine

Blend = Literal["over", "add", "max", "multiply"]
"""over: beneath * rest + paint, or paint alone where rest is always 0; add: beneath + paint;
max: the larger of beneath and paint; multiply: beneath * rest."""


@dataclass(frozen=True)
class Slot:
    """One layer of a recorded design.

    layer: its place in the design. on, paint, rest: places in the graph. scenes: the places of
    those that it belongs to; None where it is there in all of them, and without any.
    """

    layer: int
    space: str
    blend: Blend
    on: int
    paint: int
    rest: int
    scenes: frozenset[int] | None = None


@dataclass(frozen=True)
class Recording:
    """A design as one graph, and what is needed to run it.

    columns: (space, column name) to an array over the space's spots.
    spots: each space's spots, ascending, as places in the layout.
    fed: the signals that come in, in the order of the design. limits: the budgets of the supplies.
    shares: for each scene, and for none of them as the last, the place of how much of it is there,
    0 to 1, together 1; none of them where there are no scenes. wires: what goes down each line.
    """

    graph: Graph
    slots: tuple[Slot, ...]
    columns: Mapping[tuple[str, str], np.ndarray[Any, np.dtype[Any]]]
    spots: Mapping[str, np.ndarray[Any, np.dtype[Any]]]
    spot_count: int
    fed: tuple[str, ...]
    limits: tuple[Limit, ...] = ()
    shares: tuple[int, ...] = ()
    wires: tuple[WireLine, ...] = ()

    @property
    def mixed(self) -> range:
        """The places of the slots that are painted for each scene that is there: from the first
        that belongs to some scene to the last. What stands before and behind them is painted once.
        """
        own = [i for i, slot in enumerate(self.slots) if slot.scenes is not None]
        return range(own[0], own[-1] + 1) if own else range(0)
