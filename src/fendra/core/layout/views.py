"""Views: the side from which a thing is seen, and the picture's axes across and up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.names import ViewName


@dataclass(frozen=True)
class View:
    """One side that a thing is seen from.

    across, upward: the axes, 0 to 2, that lie across and up. is_flipped: whether the axis across
    grows to the left. depth, sense: the axis that points to who looks, and which way it does.
    """

    name: ViewName
    across: int
    upward: int
    is_flipped: bool
    depth: int
    sense: int

    def flat(self, points: Floats) -> Floats:
        """Points (n, 3) as they lie in the picture: (n, 2), across and up, unflipped."""
        return np.asarray(points)[:, [self.across, self.upward]]

    def towards(self, vectors: Floats) -> Floats:
        """How much each of the directions (n, 3) points to the viewer, -1 to 1."""
        return np.asarray(vectors)[:, self.depth] * self.sense

    def label(self, axis: int, unit: str) -> str:
        """The label of an axis of the picture."""
        way = ("to the right", "forward", "up")[axis]
        return f"{'xyz'[axis]}, {unit} ({way})"

    @property
    def seen_from(self) -> str:
        """From where, in words."""
        words = {"top": "above", "bottom": "below", "left": "its left", "right": "its right"}
        return f"seen from {words.get(self.name, f'the {self.name}')}"

    @property
    def front(self) -> tuple[float, float] | None:
        """Which way the thing's front is in the picture; None if it points in or out of it."""
        if self.across == 1:
            return (-1.0 if self.is_flipped else 1.0), 0.0
        return (0.0, 1.0) if self.upward == 1 else None


def best_view(position: Floats, facing: Floats) -> ViewName:
    """The side from which LEDs are seen best: above, unless another shows them twice as large.

    position: (m, 3); facing: (m, 3), which decides between two opposite sides: for that from below
    most of them must look down.

    >>> upright = np.array([[0.0, 0.0, 0.0], [300.0, 0.0, 0.0], [0.0, 5.0, 200.0]])
    >>> best_view(upright, np.array([[0.0, 1.0, 0.0]] * 3))
    'front'
    """
    if len(position) == 0:
        return "top"
    spread = np.ptp(position, axis=0)
    sees = facing.mean(axis=0) if len(facing) else np.zeros(3)

    def shown(view: View) -> float:
        area = float(spread[view.across] * spread[view.upward])
        return area * (2.0 if view.depth == TOP else 1.0)

    def is_faced(view: View) -> bool:
        towards = view.sense * float(sees[view.depth])
        return towards > -MOSTLY if view.name == "top" else towards >= 0

    return max(VIEWS.values(), key=lambda view: (shown(view), is_faced(view), view.sense)).name


MOSTLY = 0.5
"""LEDs that face down more than this on average are shown from below."""

TOP = 2
"""The axis along which one looks from above and below."""

VIEWS: dict[str, View] = {
    view.name: view
    for view in (
        View("top", 0, 1, False, 2, 1),
        View("bottom", 0, 1, True, 2, -1),
        View("front", 0, 2, True, 1, 1),
        View("back", 0, 2, False, 1, -1),
        View("left", 1, 2, True, 0, -1),
        View("right", 1, 2, False, 0, 1),
    )
}
