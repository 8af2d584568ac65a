"""The plan: a design and its layout as one graph, and the steps from its numbers to the wires.

An engine runs the steps in their order, or writes them in another language. It knows these kinds of
steps, and no effect, blend or scene by name: how a layer changes the light beneath it is part of
the graph. All light is linear until the master level has been applied; then it becomes bytes.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TypeAlias

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.document.origin import Origin
from fendra.core.electric.limiter import Limit
from fendra.core.findings import KeyPath
from fendra.core.graph.node import Graph
from fendra.core.layout.table import Layout
from fendra.core.layout.wire import Wire
from fendra.core.names import counted
from fendra.core.shown import brief


@dataclass(frozen=True)
class Paint:
    """One layer painted on its spots, in a frame in which it is on.

    layer: its place in the design. on, light: places in the graph: whether it is on, and the light
    of its spots after it, which may read the light `beneath`. scenes: the places of its scenes;
    None if it belongs to all of them, and to none.
    """

    layer: int
    space: str
    on: int
    light: int
    scenes: frozenset[int] | None = None

    @property
    def number(self) -> int:
        """Its identity: its place in the design."""
        return self.layer

    @property
    def path(self) -> KeyPath:
        """Its path in the design."""
        return ("layer", self.layer)


@dataclass(frozen=True)
class Mix:
    """The layers of scenes, and those between them that belong to every scene.

    During a cross-fade, each scene's layers are painted separately on the light below, and the
    results are added by the scenes' shares.

    shares: for each scene, and for no scene as the last, the place in the graph of its share, 0 to
    1, together 1.
    """

    shares: tuple[int, ...]
    paints: tuple[Paint, ...]


@dataclass(frozen=True)
class Finish:
    """A change of the light of all layers together: a ceiling, or a white balance.

    number: its own, below 0 (layers have theirs from 0 on). path: its place in the design. light:
    the place in the graph of the light after it, which reads the light `beneath`.
    """

    number: int
    path: KeyPath
    space: str
    on: int
    light: int
    scenes: frozenset[int] | None = None


@dataclass(frozen=True)
class Dither:
    """Light alternates between neighbouring bytes, from frame to frame.

    turn: the place in the graph of the count of frames. frames: the pattern of red and green
    repeats after this many: 2, 4 or 8.
    """

    turn: int
    frames: int


@dataclass(frozen=True)
class Master:
    """The master level. share: the place in the graph of the share of light it lets through."""

    share: int


Step: TypeAlias = Paint | Mix | Finish | Master | Dither | Limit | Wire
"""Paint, mix of scenes, what finishes the light, master level, dither, a supply's limit, a line's
wire: in this order."""

Brush: TypeAlias = Paint | Finish
"""A step that changes the light of some spots: a layer or a finish."""


@dataclass(frozen=True)
class Plan:
    """A design and its layout, ready to be run or written.

    columns: (space, column name) to an array over the space's spots. spots: each space's spots,
    ascending, as places in the layout. spot_count: how many there are in all. fed: the numbers that
    come in, in the order of the design.
    """

    design: Design
    layout: Layout
    graph: Graph
    steps: tuple[Step, ...]
    columns: Mapping[tuple[str, str], Array]
    spots: Mapping[str, Array]
    spot_count: int
    fed: tuple[str, ...]
    origin: Origin = field(default_factory=Origin)

    def __repr__(self) -> str:
        return brief(
            "Plan", self.design.name, counted(len(self.graph.nodes), "node"),
            counted(len(self.steps), "step"), counted(self.spot_count, "spot"),
        )  # fmt: skip

    @property
    def paints(self) -> tuple[Paint, ...]:
        """Every layer, from the lowest on."""
        found: list[Paint] = []
        for step in self.steps:
            if isinstance(step, Paint):
                found.append(step)
            elif isinstance(step, Mix):
                found += step.paints
        return tuple(found)

    @property
    def finishes(self) -> tuple[Finish, ...]:
        """The finishes of the light of all layers together."""
        return tuple(step for step in self.steps if isinstance(step, Finish))

    @property
    def brushes(self) -> tuple[Brush, ...]:
        """Every layer from the lowest on, and the finishes of their light."""
        return (*self.paints, *self.finishes)

    @property
    def painted(self) -> int:
        """How many LEDs are painted in a frame, each once for every layer on it."""
        return sum(len(self.spots[paint.space]) for paint in self.paints)

    @property
    def dither(self) -> Dither | None:
        """How light between two bytes is shown; None if it is rounded."""
        return next((step for step in self.steps if isinstance(step, Dither)), None)

    @property
    def shares(self) -> tuple[int, ...]:
        """How much of each scene is there: see `Mix`. Empty if there are no scenes."""
        return next((step.shares for step in self.steps if isinstance(step, Mix)), ())

    @property
    def master(self) -> int:
        """The place in the graph of the master level's share of light."""
        return next(step.share for step in self.steps if isinstance(step, Master))

    @property
    def limits(self) -> tuple[Limit, ...]:
        """The budgets of the supplies that have a limiter."""
        return tuple(step for step in self.steps if isinstance(step, Limit))

    @property
    def wires(self) -> tuple[Wire, ...]:
        """The step that makes the bytes of each line."""
        return tuple(step for step in self.steps if isinstance(step, Wire))
