"""The NumPy back end: runs a recorded design frame by frame in float32, into reused buffers.

What never changes is computed once; what changes per spot, once; what is one number
a frame, as a number; only the rest runs over arrays, a layer over its own spots, and
not at all while the layer is off.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import partial
from typing import Any

import numpy as np

from fendra.core.electric.limiter import Limiter
from fendra.core.engine import Engine
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.node import Rate
from fendra.core.graph.numbers import Numbers
from fendra.core.graph.ops import UINT_MASK, Op, op_of
from fendra.core.graph.schedule import schedule
from fendra.core.light import quantise
from fendra.core.mix import Recording, Slot

Array = np.ndarray[Any, np.dtype[Any]]
Step = Callable[[], Any]

_ZERO = np.zeros((), np.float32)

FEWEST = 12
"""Numbers of one layer from which on it pays to compute them only while it is on."""


class NumpyEngine(Engine):
    """Runs a recording with arrays."""

    name = "numpy"

    def __init__(self, recording: Recording) -> None:
        super().__init__(recording)
        graph = recording.graph
        self._graph = graph
        self._last_ms: int | None = None
        self._rates = graph.rates()
        self._spaces = graph.spaces()
        self._canvas = np.zeros((3, recording.spot_count), np.float32)
        self._scratch = np.empty_like(self._canvas)
        self._planes = np.empty(self._canvas.shape, np.uint8)
        self._fixed = compute_fixed(graph, recording.columns, self._shape)
        slots = recording.slots
        always = [graph.roots["master"], *recording.shares, *(slot.on for slot in slots)]
        _, own = schedule(graph, always, [(slot.paint, slot.rest) for slot in slots])
        own = tuple(
            places if len(places) >= FEWEST and graph.nodes[slot.on].op != "const" else frozenset()
            for slot, places in zip(slots, own, strict=True)
        )
        self._numbers = Numbers(graph, self._read_by_arrays(), own)
        buffers = _Buffers()
        self._slots = [
            (
                self._numbers.register(slot.on),
                [*([numbers] if places else []), *self._layer_steps(slot, buffers)],
            )
            for slot, places, numbers in zip(slots, own, self._numbers.layers, strict=True)
        ]
        self._master = self._numbers.register(graph.roots["master"])
        self._shares = [self._numbers.register(place) for place in recording.shares]
        self._mixed = recording.mixed
        self._beneath = np.empty_like(self._canvas)
        self._sum = np.empty_like(self._canvas)
        self._limiter = Limiter(recording.limits)
        self._without: int | None = None
        self._dt_ms = 0

    def reset(self) -> None:
        self._numbers.reset()
        self._limiter.reset()
        self._last_ms = None

    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        return self.paint(self.numbers(now_ms, news))

    def numbers(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        """The numbers of a frame, for `paint`."""
        is_first = self._last_ms is None
        self._dt_ms = dt_ms = 0 if is_first else (now_ms - (self._last_ms or 0)) & UINT_MASK
        self._last_ms = now_ms
        with np.errstate(all="ignore"):
            return self._numbers.run(now_ms, dt_ms, is_first, news)

    def paint(
        self, registers: list[Any], without: int | None = None
    ) -> tuple[Array, np.float32]:  # fmt: skip
        """The light that the numbers of a frame give; without: a slot that is left out."""
        self._without = without
        with np.errstate(all="ignore"):
            self._canvas.fill(0.0)
            mixed = self._mixed
            self._paint(registers, range(mixed.start))
            there = [(i, registers[share]) for i, share in enumerate(self._shares)]
            there = [(i, share) for i, share in there if share > 0]
            if len(there) > 1:
                self._mix(registers, there)
            else:
                self._paint(registers, mixed, there[0][0] if there else -1)
            self._paint(registers, range(mixed.stop, len(self._slots)))
        return self._canvas, registers[self._master]

    def _paint(self, registers: list[Any], places: range, scene: int = -1) -> None:
        """Paint slots onto the canvas: those that are on, and in the scene."""
        slots = self.recording.slots
        for place in places:
            on, steps = self._slots[place]
            scenes = slots[place].scenes
            is_in = (scenes is None or scene in scenes) and place != self._without
            if registers[on] and is_in:
                for step in steps:
                    step()

    def _mix(self, registers: list[Any], there: list[tuple[int, Any]]) -> None:
        """Paint each scene that is there by itself, and add them up in their shares."""
        np.copyto(self._beneath, self._canvas)
        self._sum.fill(0.0)
        for scene, share in there:
            np.copyto(self._canvas, self._beneath)
            self._paint(registers, self._mixed, scene)
            np.multiply(self._canvas, share, self._canvas)
            np.add(self._sum, self._canvas, self._sum)
        np.copyto(self._canvas, self._sum)

    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        light, master = self.light(now_ms, news)
        quantise(light, master, self._scratch, self._planes, out)
        self._limiter.apply(self._dt_ms, out)

    def gains(self) -> list[int]:
        return self._limiter.gains

    def _shape(self, place: int) -> tuple[int, ...]:
        space = self._spaces[place]
        count = 1 if space is None else len(self.recording.spots[space])
        return (3, count) if self._graph.nodes[place].width == 3 else (count,)

    def _read_by_arrays(self) -> set[int]:
        """The numbers of a frame that array operations read."""
        readers = [
            node.args
            for place, node in enumerate(self._graph.nodes)
            if self._rates[place] == Rate.SPOT_AND_FRAME
        ]
        readers += [(slot.paint, slot.rest) for slot in self.recording.slots]
        return {place for args in readers for place in args if self._rates[place] == Rate.FRAME}

    def _moving_arrays(self, places: Iterable[int]) -> set[int]:
        """The places and what they need, of all that runs over arrays in each frame."""
        found: set[int] = set()
        wanted = list(places)
        while wanted:
            place = wanted.pop()
            if self._rates[place] == Rate.SPOT_AND_FRAME and place not in found:
                found.add(place)
                wanted.extend(self._graph.nodes[place].args)
        return found

    def _layer_steps(self, slot: Slot, buffers: _Buffers) -> list[Step]:
        """All that runs over arrays for one layer, while it is on."""
        results = {slot.paint, slot.rest}
        own = self._moving_arrays(results)
        direct = self._direct(slot) if slot.paint in own else {}
        steps, arrays = self._block(own, results, direct, buffers)
        if not direct:
            steps += self._mix_steps(slot, arrays)
        buffers.give_back(arrays[place] for place in results & own if place not in direct)
        return steps

    def _block(
        self, places: set[int], keep: set[int], direct: Mapping[int, Array], buffers: _Buffers
    ) -> tuple[list[Step], dict[int, Array]]:
        """Steps that compute `places`; buffers that nobody reads any more are used again.

        keep: places that are read later. direct: where some of them are to be computed.
        """
        nodes = self._graph.nodes
        arrays = {**self._fixed, **self._numbers.arrays}
        last_use = {arg: place for place in sorted(places) for arg in nodes[place].args}
        steps: list[Step] = []
        for place in sorted(places):
            node = nodes[place]
            op = op_of(node.op, node.payload)
            args = [arrays[arg] for arg in node.args]
            done = [
                arrays[arg]
                for arg in set(node.args)
                if arg in places and arg not in keep and last_use[arg] == place
            ]
            if op.in_place:
                buffers.give_back(done)
            out = direct.get(place)
            if out is None:
                out = buffers.take(self._shape(place), node.kind.dtype)
            arrays[place] = out
            if not op.in_place:
                buffers.give_back(done)
            last = nodes[node.args[-1]]
            steps.extend(_array_steps(op, args, out, last.op == "const" and last.width == 1))
        return steps, arrays

    def _mix_steps(self, slot: Slot, arrays: Mapping[int, Array]) -> list[Step]:
        """Paint the slot onto the canvas: see `mix.Blend` for the three sums."""
        spots = self.recording.spots[slot.space]
        if len(spots) == 0:
            return []
        run = self._run(spots)
        target = np.empty((3, len(spots)), np.float32) if run is None else run
        paint, rest = arrays[slot.paint], arrays[slot.rest]
        mixing: list[Step] = []
        match slot.blend:
            case "over" if self._is_zero(slot.rest):
                mixing.append(partial(np.copyto, target, paint))
            case "over":
                mixing.append(partial(np.multiply, target, rest, target))
                mixing.append(partial(np.add, target, paint, target))
            case "add":
                mixing.append(partial(np.add, target, paint, target))
            case "max":
                is_larger = np.empty(target.shape, np.bool_)
                mixing.append(partial(np.greater, paint, target, is_larger))
                mixing.append(partial(np.copyto, target, paint, where=is_larger))
            case "multiply":
                mixing.append(partial(np.multiply, target, rest, target))
        if run is not None:
            return mixing
        take = partial(np.take, self._canvas, spots, 1, target, "clip")
        put = partial(self._canvas.__setitem__, (slice(None), spots), target)
        return [take, *mixing, put]

    def _run(self, spots: Array) -> Array | None:
        """The piece of the canvas that the spots are, where they stand in one row."""
        if len(spots) == 0 or int(spots[-1]) - int(spots[0]) + 1 != len(spots):
            return None
        return self._canvas[:, int(spots[0]) : int(spots[-1]) + 1]

    def _direct(self, slot: Slot) -> dict[int, Array]:
        """The place of the paint and where to compute it, if it just replaces what is beneath."""
        run = self._run(self.recording.spots[slot.space])
        is_whole = self._graph.nodes[slot.paint].width == 3
        if run is None or not is_whole or slot.blend != "over" or not self._is_zero(slot.rest):
            return {}
        return {slot.paint: run}

    def _is_zero(self, place: int) -> bool:
        node = self._graph.nodes[place]
        return node.op == "const" and node.payload == (0.0,)


class _Buffers:
    """Arrays to compute into; what is given back is taken again."""

    def __init__(self) -> None:
        self._free: list[Array] = []

    def take(self, shape: tuple[int, ...], dtype: type[np.generic]) -> Array:
        for i, array in enumerate(self._free):
            if array.dtype == dtype and array.shape == shape:
                return self._free.pop(i)
        return np.empty(shape, dtype)

    def give_back(self, arrays: Iterable[Array]) -> None:
        self._free.extend(arrays)


def _array_steps(op: Op, args: list[Array], out: Array, against_constant: bool) -> list[Step]:
    """The operation on arrays.

    Against a constant, `min` and `max` are NumPy's own, which are faster. Like
    compare-and-select, `fmin` and `fmax` give the constant for what is no number; they
    differ from it in the sign of a zero alone, and adding 0.0 makes that the constant's.
    """
    if op.name in ("min", "max") and against_constant and not _is_minus_zero(args[1]):
        fast = np.fmin if op.name == "min" else np.fmax
        steps: list[Step] = [partial(fast, args[0], args[1], out)]
        if args[1] == 0:
            steps.append(partial(np.add, out, _ZERO, out))
        return steps
    return [partial(op.array, *args, out)]


def _is_minus_zero(value: Array) -> bool:
    return bool(value == 0 and np.signbit(value))
