"""Lowering: a plan as the graph of single numbers that C and WebAssembly are written from.

A layer reads the light beneath it and gives the light that is there after it, channel by channel.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from fendra.core.arrays import Ints
from fendra.core.composition.plan import Brush, Dither, Finish, Master, Mix, Paint, Plan
from fendra.core.electric.limiter import Limit
from fendra.core.engines.engine import unknown
from fendra.core.findings import KeyPath
from fendra.core.graph.bounds import Bounds
from fendra.core.graph.highest import leaf_bounds
from fendra.core.graph.narrow import ZERO, Narrower, of_channel
from fendra.core.graph.node import STATE, Graph, Node, Rate
from fendra.core.graph.ops import CHANNELS, Kind
from fendra.core.graph.passes import drop_unused, is_const
from fendra.core.layout.wire import Wire


@dataclass(frozen=True)
class Painted:
    """The change that one layer makes to the light of its spots.

    number, path, space, scenes: as in `plan.Brush`. on: the place of its condition. results: for
    each channel that it changes, the place of the light after it. share: the place of a number; if
    it is 0, the layer leaves the light unchanged, to the bit. None if there is no such number.
    """

    number: int
    path: KeyPath
    space: str
    scenes: frozenset[int] | None
    on: int
    results: Mapping[str, int]
    share: int | None = None


@dataclass(frozen=True)
class Lowered:
    """A plan made ready to be written: its graph, its layers from the lowest on, its master level.

    before, mixed, behind: the layers below the scenes, those of the scenes, and those above.
    shares: the places of the scenes' shares. bytes: bounds of all light after the master level,
    times 255; None if unknown. turn: the place of the frame counter, if light is dithered. watched:
    the places of values that are read beside the light, by name; a colour has three, NAME:red and
    so on.
    """

    graph: Graph
    before: tuple[Painted, ...]
    mixed: tuple[Painted, ...]
    behind: tuple[Painted, ...]
    master: int
    bytes: Bounds | None
    shares: tuple[int, ...] = ()
    turn: int | None = None
    watched: Mapping[str, int] = field(default_factory=dict)

    @property
    def painted(self) -> tuple[Painted, ...]:
        """Every layer that shows something."""
        return (*self.before, *self.mixed, *self.behind)


def lower(plan: Plan, watched: Iterable[str] = ()) -> Lowered:
    """Split colours, follow the light from layer to layer, and drop unused nodes.

    watched: roots of the plan's graph that are kept beside the light; none of them reads the light
    beneath a layer.
    """
    lowering = _Lowering(plan)
    lowering.paint_all()
    kept = lowering.kept
    sharing = [lowering.shares(paint) for paint, _, _ in kept]
    roots = lowering.roots
    roots |= {f"there:{i}": lowering.place(place) for i, place in enumerate(plan.shares)}
    told = {name: at for root in watched for name, at in lowering.channels_of(root)}
    roots |= {f"watched:{name}": at for name, at in told.items()}
    for i, (paint, _, results) in enumerate(kept):
        roots[f"on:{i}"] = lowering.place(paint.on)
        roots |= {f"{channel}:{i}": place for channel, place in results.items()}
        roots |= {f"share:{i}:{j}": place for j, place in enumerate(sharing[i])}
    graph = drop_unused(Graph(tuple(lowering.narrower.nodes), roots, plan.graph.start))
    rates = graph.rates()
    sorted_by_where: dict[str, list[Painted]] = {"before": [], "mixed": [], "behind": []}
    for i, (paint, where, results) in enumerate(kept):
        share = _best([graph.roots[f"share:{i}:{j}"] for j in range(len(sharing[i]))], rates)
        places = {channel: graph.roots[f"{channel}:{i}"] for channel in results}
        sorted_by_where[where].append(
            Painted(
                paint.number,
                paint.path,
                paint.space,
                paint.scenes,
                graph.roots[f"on:{i}"],
                places,
                share,
            )
        )
    before, mixed, behind = map(tuple, sorted_by_where.values())
    shares = tuple(graph.roots[f"there:{i}"] for i in range(len(plan.shares)))
    return Lowered(
        graph, before, mixed, behind, graph.roots["master"], lowering.bytes(), shares,
        graph.roots.get("dither"), {name: graph.roots[f"watched:{name}"] for name in told},
    )  # fmt: skip


def pictures_of(graph: Graph) -> tuple[str, ...]:
    """The live pictures that a lowered graph shows, by name."""
    nodes = (node for node in graph.nodes if node.op == "pixels")
    return tuple(sorted({str(n.payload[0]) for n in nodes if isinstance(n.payload, tuple)}))


def _best(places: list[int], rates: Sequence[Rate]) -> int | None:
    """The first that differs from LED to LED and from frame to frame, else the first of a frame."""
    for rate in (Rate.SPOT_AND_FRAME, Rate.FRAME):
        for place in places:
            if rates[place] == rate:
                return place
    return None


class _Lowering:
    """Paints layer after layer onto a canvas of bounds, and records the light that they give.

    kept: each layer that shows something, its place among the layers of scenes, and its results.
    roots: the master level, and the next values of the memory cells.
    """

    def __init__(self, plan: Plan) -> None:
        self._plan = plan
        self._graph = plan.graph
        self._canvas = _Canvas(plan.spot_count)
        self._beneath: dict[Node, Bounds | None] = {}
        self._unsure: set[int] = set()
        self.kept: list[tuple[Brush, str, dict[str, int]]] = []
        self.narrower = Narrower(self._leaf_bounds, plan.columns)
        self._reads_beneath: set[int] = set()
        self._beneath_of: dict[int, list[int]] = {}
        """The places of the light beneath each layer, by its number."""
        self._known: dict[tuple[int, int], int] = {}
        for place, node in enumerate(self._graph.nodes):
            if node.op == "beneath":
                self._beneath_of.setdefault(int(node.payload), []).append(place)  # type: ignore[call-overload]
            if node.op == "beneath" or not self._reads_beneath.isdisjoint(node.args):
                self._reads_beneath.add(place)  # the light before a layer is known once it is due
                continue
            for channel in range(node.width):
                self.place(place, channel)
        self.roots = {
            name: self.place(place)
            for name, place in plan.graph.roots.items()
            if name in ("master", "dither") or name.startswith(STATE)
        }

    def place(self, place: int, channel: int = 0) -> int:
        """The place of a channel of a recorded colour, or of the number itself."""
        node = self._graph.nodes[place]
        if node.op in CHANNELS:
            return self.place(node.args[0], CHANNELS.index(node.op))
        channel %= node.width
        if (place, channel) not in self._known:
            args = tuple([self.place(arg, channel) for arg in node.args])
            lowered = of_channel(node, channel, args)
            if node.op == "pixels":
                lowered = replace(lowered, payload=(node.payload, CHANNELS[channel]))
            self._known[place, channel] = self.narrower.add(lowered)
        return self._known[place, channel]

    def channels_of(self, root: str) -> Iterator[tuple[str, int]]:
        """A root's name and place; for a colour, the names and places of its channels."""
        place = self._plan.graph.roots[root]
        width = self._graph.nodes[place].width
        for channel in range(width):
            name = f"{root}:{CHANNELS[channel]}" if width > 1 else root
            yield name, self.place(place, channel)

    def paint_all(self) -> None:
        """Paint the steps of the plan."""
        where = "before"
        for step in self._plan.steps:
            match step:
                case Paint():
                    self._paint(step, where)
                case Mix():
                    for paint in step.paints:
                        self._paint(paint, "mixed")
                    if step.paints:
                        self._canvas.widen(_ROUNDING)
                    where = "behind"
                case Finish():
                    self._paint(step, "behind")
                case Master() | Dither() | Limit() | Wire():
                    pass  # written with the frame: see `emit`
                case _:
                    raise unknown(step, "c99")

    def _paint(self, paint: Brush, where: str) -> None:
        """Note for each channel that a layer changes the place of the light after it."""
        spots = self._plan.spots[paint.space]
        on = self.narrower.nodes[self.place(paint.on)]
        if len(spots) == 0 or is_const(on, False):
            return
        is_certain = is_const(on, True) and where != "mixed"
        is_whole = not self.kept and len(spots) == self._plan.spot_count
        before, results = [], {}
        for channel, name in enumerate(CHANNELS):  # a blend may read any channel for any other
            leaf = Node("beneath", (), Kind.FLOAT, 1, (paint.number, name), paint.space)
            self._beneath[leaf] = known = self._canvas.bounds(channel, spots)
            before.append(self.narrower.add(ZERO if known == Bounds(0.0, 0.0) else leaf))
            for place in self._beneath_of.get(paint.number, ()):
                self._known[place, channel] = before[channel]
            if known is None or not known.is_positive or (is_certain and is_whole):
                self._unsure.add(paint.number)  # there may be minus zero beneath, or nothing yet
        for channel, name in enumerate(CHANNELS):
            after = self.place(paint.light, channel)
            bounds = self.narrower.bounds[after]
            self._canvas.paint(channel, spots, bounds, is_certain=is_certain)
            if after != before[channel]:
                results[name] = after
        if results:
            self.kept.append((paint, where, results))

    def shares(self, paint: Brush) -> list[int]:
        """Numbers of a layer for which this holds: if one is 0, the layer leaves the light
        unchanged, to the bit.

        This can be derived for `beneath * rest + paint`, `beneath + paint` and the larger of
        `paint` and `beneath`.
        """
        if paint.number in self._unsure:
            return []
        paints, rests = self._terms(paint.light)
        nodes = self.narrower.nodes
        lit = [each for each in paints if not is_const(nodes[each], 0.0)]
        bounds = [self.narrower.bounds[each] for each in lit]
        if not lit or not all(each is not None and each.is_positive for each in bounds):
            return []
        found = set.intersection(*map(self._factors, lit))
        found = {share for share in found if all(self._leaves_all(share, r) for r in rests)}
        return sorted(place for place in found if nodes[place].op != "const")

    def _terms(self, light: int) -> tuple[set[int], set[int]]:
        """The light that is added to the light beneath, or shown where it is larger, and the factor
        of the light beneath; both empty if the light after a layer is anything else.
        """
        nodes, channels = self._graph.nodes, range(len(CHANNELS))
        node, rests = nodes[light], set[int]()
        if node.op not in ("add", "max"):
            return set(), set()
        beneath, paint = node.args if node.op == "add" else node.args[::-1]
        if nodes[beneath].op == "mul" and node.op == "add":
            beneath, rest = nodes[beneath].args
            rests = {self.place(rest, channel) for channel in channels}
        if nodes[beneath].op != "beneath" or paint in self._reads_beneath:
            return set(), set()
        return {self.place(paint, channel) for channel in channels}, rests

    def _leaves_all(self, share: int, rest: int) -> bool:
        """Whether a layer leaves all of the light beneath if its share is 0."""
        nodes = self.narrower.nodes
        node, other = nodes[rest], nodes[share]
        if node.op == "sub" and is_const(nodes[node.args[0]], 1.0):
            return node.args[1] == share
        if not (node.op == other.op == "select" and node.args[0] == other.args[0]):
            return False
        return all(
            is_const(nodes[left], 1.0)
            or (nodes[taken].op == "const" and not is_const(nodes[taken], 0.0))
            for left, taken in zip(node.args[1:], other.args[1:], strict=True)
        )

    def _factors(self, place: int) -> set[int]:
        """A number and its factors: if one of them is 0, the number is 0."""
        node, bounds = self.narrower.nodes[place], self.narrower.bounds
        if node.op != "mul" or not all(
            (each := bounds[arg]) is not None and each.is_finite for arg in node.args
        ):
            return {place}
        return {place}.union(*map(self._factors, node.args))

    def bytes(self) -> Bounds | None:
        """The bounds of all light after the master level, times 255."""
        return self._canvas.times(self.narrower.bounds[self.roots["master"]], 255.0)

    def _leaf_bounds(self, node: Node) -> Bounds | None:
        return self._beneath[node] if node in self._beneath else leaf_bounds(node)


_ROUNDING = 1e-5
"""The most that rounding can lift the sum of the scenes' shares above 1."""


class _Canvas:
    """Between which values the light of every spot lies, as layer after layer is painted."""

    def __init__(self, spot_count: int) -> None:
        self._low = np.zeros((3, spot_count))
        self._high = np.zeros((3, spot_count))  # NaN where nothing is known

    def bounds(self, channel: int, spots: Ints) -> Bounds | None:
        low, high = self._low[channel, spots].min(), self._high[channel, spots].max()
        return None if np.isnan(low) or np.isnan(high) else Bounds(float(low), float(high))

    def widen(self, part: float) -> None:
        """All light may be larger by this part, and down to 0."""
        self._low = np.minimum(self._low, 0.0)
        self._high = self._high * (1.0 + part)

    def times(self, share: Bounds | None, factor: float) -> Bounds | None:
        """The bounds of all light, times a share of 0 or more, times a factor."""
        low, high = float(self._low.min()), float(self._high.max())
        if share is None or not share.is_positive or not low >= 0 or not high < np.inf:
            return None
        return Bounds(low * share.low * factor, high * share.high * factor)

    def paint(
        self,
        channel: int,
        spots: Ints,
        bounds: Bounds | None,
        *,
        is_certain: bool,
    ) -> None:
        low, high = (bounds.low, bounds.high) if bounds is not None else (np.nan, np.nan)
        if not is_certain:
            low = np.minimum(self._low[channel, spots], low)
            high = np.maximum(self._high[channel, spots], high)
        self._low[channel, spots], self._high[channel, spots] = low, high
