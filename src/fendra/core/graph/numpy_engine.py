"""The NumPy back end: runs a recorded design frame by frame in float32, into reused buffers.

What never changes is computed once; what changes per spot, once; what is one number
a frame, as a number; only the rest runs over arrays, a layer over its own spots, and
not at all while the layer is off.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from functools import partial
from typing import Any, NamedTuple

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


class _Row(NamedTuple):
    """A slot as it is painted: its place, the register of its condition, its steps, its scenes."""

    place: int
    on: int
    steps: list[Step]
    scenes: frozenset[int] | None


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
        self._pictures = {
            place: np.zeros(self._shape(place), np.float32)
            for place, node in enumerate(graph.nodes)
            if node.op == "pixels"
        }
        slots = recording.slots
        always = [graph.roots["master"], *recording.shares, *(slot.on for slot in slots)]
        _, own = schedule(graph, always, [(slot.paint, slot.rest) for slot in slots])
        own = tuple(
            places if len(places) >= FEWEST and graph.nodes[slot.on].op != "const" else frozenset()
            for slot, places in zip(slots, own, strict=True)
        )
        self._numbers = Numbers(graph, self._read_by_arrays(), own)
        buffers = _Buffers()
        rows = [
            _Row(
                number,
                self._numbers.register(slot.on),
                [*([numbers] if places else []), *self._layer_steps(slot, buffers)],
                slot.scenes,
            )
            for number, (slot, places, numbers) in enumerate(
                zip(slots, own, self._numbers.layers, strict=True)
            )
        ]
        mixed = recording.mixed
        inside = slice(mixed.start, mixed.stop) if mixed else slice(len(rows), None)
        self._rows = rows[: inside.start], rows[inside], rows[inside.stop or len(rows) :]
        self._master = self._numbers.register(graph.roots["master"])
        self._shares = [self._numbers.register(place) for place in recording.shares]
        aside = self._canvas.shape if mixed else (3, 0)
        self._beneath, self._sum = np.empty(aside, np.float32), np.empty(aside, np.float32)
        self._limiter = Limiter(recording.limits)
        self._without: int | None = None
        self._dt_ms = 0

    def reset(self) -> None:
        self._numbers.reset()
        self._limiter.reset()
        self._last_ms = None
        for pixels in self._pictures.values():
            pixels.fill(0.0)

    def picture(self, name: str, light: Array) -> None:
        nodes, spots = self._graph.nodes, self.recording.spots
        for place, pixels in self._pictures.items():
            if nodes[place].payload == name:
                np.copyto(pixels, light[spots[str(nodes[place].space)]].T)

    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        with np.errstate(all="ignore"):
            registers = self._next_numbers(now_ms, news)
            self._paint_all(registers)
        return self._canvas, registers[self._master]

    def numbers(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        """The numbers of the next frame, for `paint`."""
        with np.errstate(all="ignore"):
            return self._next_numbers(now_ms, news)

    def paint(self, registers: list[Any], without: int | None = None) -> Array:
        """The light that the numbers of a frame give, (3, spots); without: a slot left out."""
        self._without = without
        with np.errstate(all="ignore"):
            self._paint_all(registers)
        self._without = None
        return self._canvas

    def _next_numbers(self, now_ms: int, news: Mapping[str, float]) -> list[Any]:
        is_first = self._last_ms is None
        self._dt_ms = dt_ms = 0 if is_first else (now_ms - (self._last_ms or 0)) & UINT_MASK
        self._last_ms = now_ms
        return self._numbers.run(now_ms, dt_ms, is_first, news)

    def _paint_all(self, registers: list[Any]) -> None:
        self._canvas.fill(0.0)
        before, inside, behind = self._rows
        self._paint(registers, before)
        if inside:
            there = [(i, registers[share]) for i, share in enumerate(self._shares)]
            there = [(i, share) for i, share in there if share > 0]
            if len(there) > 1:
                self._mix(registers, inside, there)
            else:
                self._paint(registers, inside, there[0][0] if there else -1)
            self._paint(registers, behind)

    def _paint(self, registers: list[Any], rows: Sequence[_Row], scene: int = -1) -> None:
        """Paint slots onto the canvas: those that are on, and in the scene."""
        for place, on, steps, scenes in rows:
            if registers[on] and (scenes is None or scene in scenes) and place != self._without:
                for step in steps:
                    step()

    def _mix(
        self, registers: list[Any], inside: Sequence[_Row], there: list[tuple[int, Any]]
    ) -> None:  # fmt: skip
        """Paint each scene that is there by itself, and add them up in their shares."""
        np.copyto(self._beneath, self._canvas)
        self._sum.fill(0.0)
        for scene, share in there:
            np.copyto(self._canvas, self._beneath)
            self._paint(registers, inside, scene)
            np.multiply(self._canvas, share, self._canvas)
            np.add(self._sum, self._canvas, self._sum)
        np.copyto(self._canvas, self._sum)

    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        light, master = self.light(now_ms, news)
        quantise(light, master, self._scratch, self._planes, out)
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
            is_moving = self._rates[place] == Rate.SPOT_AND_FRAME and place not in self._pictures
            if is_moving and place not in found:
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
        arrays = {**self._fixed, **self._pictures, **self._numbers.arrays}
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
