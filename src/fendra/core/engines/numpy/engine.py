"""The NumPy engine: runs a plan frame by frame in float32, into reused buffers.

It computes constants once, and values that change only per spot once. Numbers that are the same for
all LEDs are plain numbers. Only the rest runs over arrays, each layer over its own spots, and not
at all while the layer is off.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from typing import Any, NamedTuple, TypeAlias

import numpy as np

from fendra.core.arrays import Array
from fendra.core.composition.plan import Brush, Dither, Finish, Master, Mix, Paint, Plan
from fendra.core.electric.limiter import Limit, Limiter
from fendra.core.engines.engine import Engine, unknown
from fendra.core.engines.numpy.buffers import Buffers, in_place_args, steps_of
from fendra.core.engines.numpy.numbers import Numbers
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import UINT_MASK, Kind, op_of
from fendra.core.graph.schedule import schedule
from fendra.core.layout.wire import Wire
from fendra.core.light.bytes import quantise
from fendra.core.light.dither import offset_arrays

Work: TypeAlias = Callable[[], Any]


class _Row(NamedTuple):
    """A layer as it is painted: its place among all, the register of its condition, its work."""

    place: int
    on: int
    work: list[Work]
    scenes: frozenset[int] | None


class _Mixing(NamedTuple):
    """The layers of scenes, and the registers of how much of each scene is there."""

    shares: list[int]
    rows: list[_Row]


FEWEST = 12
"""Numbers of one layer from which on it pays to compute them only while it is on."""


class NumpyEngine(Engine):
    """Runs a plan with arrays."""

    name = "numpy"

    def __init__(self, plan: Plan) -> None:
        super().__init__(plan)
        self._graph = graph = plan.graph
        self._last_ms: int | None = None
        self._rates = graph.rates()
        self._spaces = graph.spaces()
        self._canvas = np.zeros((3, plan.spot_count), np.float32)
        self._scratch = np.empty_like(self._canvas)
        self._planes = np.empty(self._canvas.shape, np.uint8)
        self._fixed = compute_fixed(graph, plan.columns, self._shape)
        self._pictures = {
            place: np.zeros(self._shape(place), np.float32)
            for place, node in enumerate(graph.nodes)
            if node.op == "pixels"
        }
        paints = plan.brushes
        always = [plan.master, *plan.shares, *(paint.on for paint in paints)]
        always += [plan.dither.turn] if plan.dither else []
        _, own = schedule(graph, always, [(paint.light,) for paint in paints])
        own = tuple(
            places if len(places) >= FEWEST and graph.nodes[paint.on].op != "const" else frozenset()
            for paint, places in zip(paints, own, strict=True)
        )
        self._numbers = Numbers(graph, self._read_by_arrays(), own)
        self._steps = self._arranged(own)
        is_mixed = any(isinstance(step, _Mixing) and step.rows for step in self._steps)
        aside = self._canvas.shape if is_mixed else (3, 0)
        self._beneath, self._sum = np.empty(aside, np.float32), np.empty(aside, np.float32)
        self._master = self._numbers.register(plan.master)
        self._limiter = Limiter(plan.limits)
        self._turn, self._offsets = -1, np.empty((0, 3, 0), np.float32)
        if plan.dither:
            self._turn = self._numbers.register(plan.dither.turn)
            self._offsets = offset_arrays(plan.dither.frames, plan.spot_count)
        self._left_out: set[int] = set()
        self._dt_ms = 0

    def _arranged(self, own: Sequence[frozenset[int]]) -> list[_Row | _Mixing]:
        """The steps of the plan that paint, made ready. own: the numbers that each layer alone
        needs.
        """
        buffers = Buffers()
        rows = iter([
            self._row(place, paint, own[place], buffers)
            for place, paint in enumerate(self.plan.brushes)
        ])  # fmt: skip
        found: list[_Row | _Mixing] = []
        for step in self.plan.steps:
            match step:
                case Paint() | Finish():
                    found.append(next(rows))
                case Mix():
                    shares = [self._numbers.register(share) for share in step.shares]
                    found.append(_Mixing(shares, [next(rows) for _ in step.paints]))
                case Master() | Dither() | Limit():
                    pass  # `frame` applies them to the light of all
                case Wire():
                    pass  # frames stay red, green and blue: see `layout.wire.LineBytes`
                case _:
                    raise unknown(step, self.name)
        return found

    def reset(self) -> None:
        self._numbers.reset()
        self._limiter.reset()
        self._last_ms = None
        for pixels in self._pictures.values():
            pixels.fill(0.0)

    def picture(self, name: str, light: Array) -> None:
        nodes, spots = self._graph.nodes, self.plan.spots
        for place, pixels in self._pictures.items():
            if nodes[place].payload == name:
                np.copyto(pixels, light[spots[str(nodes[place].space)]].T)

    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        registers = self._painted(now_ms, news)
        return self._canvas, registers[self._master]

    def register(self, place: int) -> int:
        """The index of a graph place's number in the result of `numbers`."""
        return self._numbers.register(place)

    def numbers(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        """The numbers of the next frame, for `paint`."""
        with np.errstate(all="ignore"):
            return self._next_numbers(now_ms, news)

    def kept(self) -> list[Any]:
        """Its memory for the next frame, as `numbers_at` takes it."""
        return self._numbers.kept()

    def numbers_at(
        self, now_ms: int, before_ms: int | None, news: Mapping[str, float],
        held: Mapping[str, float], kept: Sequence[Any],
    ) -> list[Any]:  # fmt: skip
        """The numbers of any frame, for `paint`. before_ms: when the frame before was. held: what
        each signal is then; kept: what was remembered before.
        """
        self._last_ms = now_ms
        self._dt_ms = 0 if before_ms is None else (now_ms - before_ms) & UINT_MASK
        with np.errstate(all="ignore"):
            return self._numbers.at(now_ms, self._dt_ms, before_ms is None, news, held, kept)

    def paint(
        self, registers: list[Any], *, without: int | None = None, only: int | None = None
    ) -> Array:
        """The light that the numbers of a frame give, (3, spots); without: a layer left out, by its
        place in `plan.paints`; only: all others left out.
        """
        layers = range(len(self.plan.paints))
        self._left_out = {place for place in layers if only not in (None, place)}
        self._left_out |= set() if without is None else {without}
        with np.errstate(all="ignore"):
            self._paint_all(registers)
        self._left_out = set()
        return self._canvas

    def _painted(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        """The numbers of the next frame, whose light is on the canvas then."""
        with np.errstate(all="ignore"):
            registers = self._next_numbers(now_ms, news)
            self._paint_all(registers)
        return registers

    def _next_numbers(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        is_first = self._last_ms is None
        self._dt_ms = dt_ms = 0 if is_first else (now_ms - (self._last_ms or 0)) & UINT_MASK
        self._last_ms = now_ms
        return self._numbers.run(now_ms, dt_ms, is_first, news)

    def _paint_all(self, registers: list[Any]) -> None:
        self._canvas.fill(0.0)
        for step in self._steps:
            if isinstance(step, _Row):
                self._paint(registers, (step,))
            elif step.rows:
                there = [(i, registers[share]) for i, share in enumerate(step.shares)]
                there = [(i, share) for i, share in there if share > 0]
                if len(there) > 1:
                    self._mix(registers, step.rows, there)
                else:
                    self._paint(registers, step.rows, there[0][0] if there else -1)

    def _paint(self, registers: list[Any], rows: Sequence[_Row], scene: int = -1) -> None:
        """Paint layers onto the canvas: those that are on, and in the scene."""
        for place, on, work, scenes in rows:
            is_in = scenes is None or scene in scenes
            if registers[on] and is_in and place not in self._left_out:
                for run in work:
                    run()

    def _mix(
        self, registers: list[Any], rows: Sequence[_Row], there: list[tuple[int, Any]]
    ) -> None:  # fmt: skip
        """Paint each scene that is active separately, and add them up in their shares."""
        np.copyto(self._beneath, self._canvas)
        self._sum.fill(0.0)
        for scene, share in there:
            np.copyto(self._canvas, self._beneath)
            self._paint(registers, rows, scene)
            np.multiply(self._canvas, share, self._canvas)
            np.add(self._sum, self._canvas, self._sum)
        np.copyto(self._canvas, self._sum)

    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        registers = self._painted(now_ms, news)
        offsets = self._offsets[registers[self._turn]] if self._turn >= 0 else None
        master = registers[self._master]
        quantise(self._canvas, master, self._scratch, self._planes, out, offsets)
        self._limiter.apply(self._dt_ms, out)

    def memory(self) -> dict[str, float]:
        return self._numbers.memory()

    def recall(self, memory: Mapping[str, float], last_ms: int) -> None:
        self._numbers.recall(memory)
        self._last_ms = last_ms

    def gains(self) -> list[int]:
        return self._limiter.gains

    def _shape(self, place: int) -> tuple[int, ...]:
        space = self._spaces[place]
        count = 1 if space is None else len(self.plan.spots[space])
        return (3, count) if self._graph.nodes[place].width == 3 else (count,)

    def _read_by_arrays(self) -> set[int]:
        """The numbers of a frame that array operations read."""
        readers = [
            node.args
            for place, node in enumerate(self._graph.nodes)
            if self._rates[place] == Rate.SPOT_AND_FRAME
        ]
        readers += [(paint.light,) for paint in self.plan.brushes]
        return {place for args in readers for place in args if self._rates[place] == Rate.FRAME}

    def _moving_arrays(self, light: int) -> set[int]:
        """The light of a layer and the nodes that it needs, as far as they run over arrays in each
        frame.
        """
        found: set[int] = set()
        wanted = [light]
        while wanted:
            place = wanted.pop()
            node = self._graph.nodes[place]
            is_moving = self._rates[place] == Rate.SPOT_AND_FRAME and bool(node.args)
            if is_moving and place not in found:
                found.add(place)
                wanted.extend(node.args)
        return found

    def _row(self, place: int, paint: Brush, own: frozenset[int], buffers: Buffers) -> _Row:
        numbers = [self._numbers.layers[place]] if own else []
        work = [*numbers, *self._layer_work(paint, buffers)]
        return _Row(place, self._numbers.register(paint.on), work, paint.scenes)

    def _layer_work(self, paint: Brush, buffers: Buffers) -> list[Work]:
        """All that runs over arrays for one layer, while it is on."""
        spots, light = self.plan.spots[paint.space], paint.light
        if len(spots) == 0:
            return []
        run = self._run(spots)
        target = np.empty((3, len(spots)), np.float32) if run is None else run
        own = self._moving_arrays(light)
        read = {arg for place in own for arg in self._graph.nodes[place].args} | {light}
        beneath = {place for place in read if self._graph.nodes[place].op == "beneath"}
        into = self._into_target(light, own, beneath)
        held = dict.fromkeys(beneath, target)
        work, arrays = self._block(own, held, dict.fromkeys(into, target), buffers)
        if light not in into:
            work.append(partial(np.copyto, target, arrays[light]))
            buffers.give_back([arrays[light]] if light in own else ())
        if run is not None:
            return work
        take = partial(np.take, self._canvas, spots, 1, target, "clip")
        put = partial(self._canvas.__setitem__, (slice(None), spots), target)
        return [*([take] if beneath else []), *work, put]

    def _into_target(self, light: int, own: set[int], beneath: set[int]) -> list[int]:
        """The nodes that can be computed in place of the light beneath a layer, from the layer's
        light back.

        That is the light itself, and the way to it from the light beneath, if nothing else reads
        what is overwritten: `beneath * rest + paint` needs no array of its own.
        """
        nodes = self._graph.nodes
        readers: dict[int, list[int]] = {}
        for place in own:
            for arg in nodes[place].args:
                readers.setdefault(arg, []).append(place)
        last_read = max((place for each in beneath for place in readers.get(each, ())), default=-1)
        found: list[int] = []
        at: int | None = light
        while at is not None and at in own:
            node = nodes[at]
            if node.width != 3 or node.kind is not Kind.FLOAT or (found and last_read > at):
                break
            over = in_place_args(op_of(node.op, node.payload), node.args)
            if not beneath.intersection(node.args) <= {*over}:
                break
            found.append(at)
            at = next((arg for arg in over if readers.get(arg) == [at]), None)
        return found

    def _block(
        self, places: set[int], held: Mapping[int, Array], into: Mapping[int, Array],
        buffers: Buffers,
    ) -> tuple[list[Work], dict[int, Array]]:  # fmt: skip
        """Work that computes `places`; buffers that nobody reads any more are used again.

        held: arrays that are there already. into: where some of the places are to be computed.
        """
        nodes = self._graph.nodes
        arrays = {**self._fixed, **self._pictures, **self._numbers.arrays, **held}
        last_use = {arg: place for place in sorted(places) for arg in nodes[place].args}
        work: list[Work] = []
        for place in sorted(places):
            node = nodes[place]
            op = op_of(node.op, node.payload)
            args = [arrays[arg] for arg in node.args]
            done = [
                arrays[arg]
                for arg in set(node.args)
                if arg in places and arg not in into and last_use[arg] == place
            ]
            if op.in_place:
                buffers.give_back(done)
            out = into.get(place)
            if out is None:
                out = buffers.take(self._shape(place), node.kind.dtype)
            arrays[place] = out
            if not op.in_place:
                buffers.give_back(done)
            last = nodes[node.args[-1]]
            work.extend(steps_of(op, args, out, last.op == "const" and last.width == 1))
        return work, arrays

    def _run(self, spots: Array) -> Array | None:
        """The piece of the canvas with these spots, if they are in one row."""
        if int(spots[-1]) - int(spots[0]) + 1 != len(spots):
            return None
        return self._canvas[:, int(spots[0]) : int(spots[-1]) + 1]
