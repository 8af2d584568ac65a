"""Spaces: the spots of a layer, where each of them is, and the columns that say so.

A space is a choice of spots on a layout. A layer on a canvas has a space of its own, in which its
spots are where the canvas puts them.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.layout.choice import Choice
from fendra.core.layout.columns import ORDER_COLUMNS, column_values
from fendra.core.layout.table import Layout
from fendra.core.layout.views import VIEWS, View, best_view


@dataclass(frozen=True)
class Space:
    """Some spots of a layout, in their order.

    name: its own among all spaces. extra: columns that effects have made for themselves.
    """

    name: str
    layout: Layout
    choice: Choice
    extra: dict[str, Floats] = field(default_factory=dict)

    def __len__(self) -> int:
        return len(self.choice.spots)

    @cached_property
    def view(self) -> View:
        """The side from which its spots are seen best."""
        spots = self.choice.spots
        return VIEWS[best_view(self.layout.position[spots], self.layout.facing[spots])]

    @cached_property
    def flat(self) -> Floats:
        """Where each spot is as it is seen, in the design's unit: (n, 2), to the right and up."""
        view = self.view
        position = self.layout.in_unit(self.layout.position[self.choice.spots])
        return np.asarray(view.flat(position) * (-1.0 if view.is_flipped else 1.0, 1.0))

    @cached_property
    def middle(self) -> tuple[float, float, float]:
        """The middle of the box that holds all spots, in the design's unit."""
        if len(self) == 0:
            return 0.0, 0.0, 0.0
        position = self.layout.in_unit(self.layout.position[self.choice.spots])
        x, y, z = ((position.min(axis=0) + position.max(axis=0)) / 2).tolist()
        return x, y, z

    @cached_property
    def pitch(self) -> float:
        """The usual distance from a spot to the nearest other, as seen, in the design's unit."""
        places = np.unique(self.flat.round(6), axis=0)
        return float(np.median(to_nearest(places))) or 1.0 if len(places) > 1 else 1.0

    def values(self, name: str) -> Floats:
        """One column, (n,). Raises KeyError."""
        if name in self.extra:
            return self.extra[name]
        choice = self.choice
        match name:
            case "along":
                return choice.along
            case "rank":
                return choice.rank
            case "number":
                return np.arange(len(self), dtype=np.float64)
            case "across" | "up":
                return shares(self.flat[:, 0 if name == "across" else 1])
            case "radius":
                right, up = self._from_middle.T
                return np.asarray(np.hypot(right, up))
            case "angle":
                right, up = self._from_middle.T
                degrees = np.degrees(np.arctan2(up, right))
                return np.asarray(
                    np.where(degrees < -1e-9, degrees + 360.0, np.maximum(degrees, 0.0))
                )
            case "of_part":
                parts = self.layout.part[choice.spots]
                return np.unique(parts, return_inverse=True)[1].astype(np.float64)
        assert name not in ORDER_COLUMNS
        return column_values(self.layout, name)[choice.spots]

    @cached_property
    def _from_middle(self) -> Floats:
        if len(self) == 0:
            return np.zeros((0, 2))
        middle = (self.flat.min(axis=0) + self.flat.max(axis=0)) / 2
        return np.asarray(self.flat - middle)


FEW_PLACES = 3000
"""Up to this many are compared one by one, which needs no package."""


def to_nearest(places: Floats) -> Floats:
    """The distance of each place to the nearest other one: (n,) of (n, 2), each place once.

    >>> to_nearest(np.array([[0.0, 0.0], [0.0, 3.0], [4.0, 0.0]])).tolist()
    [3.0, 3.0, 4.0]
    """
    if len(places) > FEW_PLACES:
        from scipy.spatial import KDTree

        return np.asarray(KDTree(places).query(places, k=2)[0])[:, 1]
    found = np.empty(len(places))
    for row, (x, y) in enumerate(places.tolist()):
        apart = (places[:, 0] - x) ** 2 + (places[:, 1] - y) ** 2
        apart[row] = np.inf
        found[row] = apart.min()
    return np.asarray(np.sqrt(found))


def shares(values: Floats) -> Floats:
    """Numbers from their lowest, 0, to their highest, 1; all 0 if they are the same.

    >>> shares(np.array([10.0, 20.0, 15.0])).tolist()
    [0.0, 1.0, 0.5]
    """
    if len(values) == 0:
        return values
    low, span = values.min(), np.ptp(values)
    return (values - low) / span if span > 1e-9 else np.zeros(len(values))
