"""The wasm engine: a module of the emitted WebAssembly, run by wasmtime. It needs no compiler."""

from __future__ import annotations

import ctypes
from collections.abc import Callable, Mapping, Set
from functools import partial
from typing import Any

import numpy as np

from fendra.core.arrays import Array
from fendra.core.composition.plan import Plan
from fendra.core.engines.engine import Engine
from fendra.core.engines.wasm import emit_wasm
from fendra.core.engines.wasm.binary import MOST_PAGES, PAGE
from fendra.core.engines.wasm.memory import BEHIND, ROW
from fendra.core.errors import EngineError

MOST_ARGUMENTS = 5
CHUNK = 4_000_000
"""Bytes of frames that are made in one call."""
_SIGNAL = np.dtype([("value", "<f4"), ("is_new", "<u4")])
_WORDS = {"f32": "<f4", "u32": "<u4", "truth": "<u4"}


class WasmEngine(Engine):
    """Runs a plan as WebAssembly.

    is_wide: paint four LEDs at once. Raises EngineError if wasmtime is not there, or where it
    refuses the module.
    """

    name = "wasm"

    def __init__(self, plan: Plan, *, is_wide: bool = True) -> None:
        super().__init__(plan)
        try:
            import wasmtime
        except ImportError as exc:
            raise EngineError(
                "engine 'wasm' needs the package 'wasmtime': pip install 'fendra[wasm]'"
            ) from exc
        emitted = emit_wasm(plan, is_wide=is_wide)
        self._failure = wasmtime.WasmtimeError
        try:
            machine = wasmtime.Engine()
            self._store = wasmtime.Store(machine)
            built = wasmtime.Instance(self._store, wasmtime.Module(machine, emitted.module), [])
        except wasmtime.WasmtimeError as exc:
            raise EngineError(f"wasmtime refuses the module: {_first_line(exc)}.") from exc
        exports = built.exports(self._store)
        self._memory: Any = exports["memory"]
        self._init, self._step, self._light, self._film = (
            _call_of(self._store, exports[name], name == "light")
            for name in ("init", "step", "light", "film")
        )
        self._places = emitted.places
        self._look()
        self.reset()

    def _look(self) -> None:
        """Arrays over the module's memory, which moves when it grows."""
        places, spots = self._places, self.plan.spot_count
        size = self._memory.data_len(self._store)
        start = ctypes.addressof(self._memory.data_ptr(self._store).contents)
        self._bytes = np.frombuffer((ctypes.c_ubyte * size).from_address(start), np.uint8)
        fed = self.plan.fed
        first = min(places["signals"].values(), default=0)
        self._signals = self._at(first, _SIGNAL, len(fed))
        self._floats = self._signals.view("<f4")
        self._places_of = {name: 2 * place for place, name in enumerate(fed)}
        self._heard: Set[str] = frozenset()
        plane = self._at(places["canvas"], "<f4", 3 * places["plane"] // 4)
        self._canvas = plane.reshape(3, -1)[:, :spots]
        self._rgb = self._at(places["rgb"], "u1", 3 * spots).reshape(spots, 3)
        first = min(places["limits"].values(), default=0)
        self._limits = self._at(first, "<u4", 2 * len(places["limits"]))[::2]
        self._cells = {
            name: self._at(cell["at"], _WORDS[cell["kind"]], 1)
            for name, cell in places["cells"].items()
        }

    def _at(self, address: int, kind: Any, count: int) -> Array:
        """The value at an address."""
        size = count * np.dtype(kind).itemsize
        return self._bytes[address : address + size].view(kind)

    def reset(self) -> None:
        self._init()
        self._heard = frozenset()

    def picture(self, name: str, light: Array) -> None:
        at = self._places["pictures"].get(name)
        if at is not None:
            planes = self._at(at, "<f4", 3 * self._places["plane"] // 4).reshape(3, -1)
            planes[:, : self.plan.spot_count] = light.T

    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        self._hear(news)
        master = self._light(_signed(now_ms))
        return np.ascontiguousarray(self._canvas), np.float32(master)

    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        self._hear(news)
        self._step(_signed(now_ms))
        np.copyto(out, self._rgb)

    def bytes_of(self, line: str) -> bytes:
        """The bytes of a line in the newest frame."""
        (found,) = [each for each in self._places["lines"] if each["name"] == line]
        return self._at(found["at"], "u1", found["size"]).tobytes()

    def gains(self) -> list[int]:
        return [*map(int, self._limits)]

    def memory(self) -> dict[str, float]:
        return {name: float(cell[0]) for name, cell in self._cells.items()}

    def recall(self, memory: Mapping[str, float], last_ms: int) -> None:
        for name, value in memory.items():
            if name in self._cells:
                self._cells[name][0] = value
        self._at(self._places["last_ms"], "<u4", 1)[0] = last_ms
        self._at(self._places["has_begun"], "<u4", 1)[0] = 1

    def film(self, times_ms: Array, values: Array, is_new: Array, out: Array, gains: Array) -> None:
        rows = max(CHUNK // max(3 * self.plan.spot_count, 1), 1)
        for start in range(0, len(times_ms), rows):
            part = slice(start, start + rows)
            self._film_of(times_ms[part], values[part], is_new[part], out[part], gains[part])
        self._signals["is_new"] = 0
        self._heard = frozenset()

    def _film_of(
        self, times_ms: Array, values: Array, is_new: Array, out: Array, gains: Array
    ) -> None:  # fmt: skip
        """Frames in a row, in memory behind all else."""
        count, fed, limits = len(times_ms), len(self.plan.fed), gains.shape[1]
        sizes = [4 * count, _SIGNAL.itemsize * fed * count, out.nbytes + BEHIND, 4 * limits * count]
        end = self._places["end"]
        at = [end, *(end + np.cumsum([-(-size // ROW) * ROW for size in sizes])).tolist()]
        missing = at[-1] - len(self._bytes)
        if missing > 0:
            self._grow(-(-missing // PAGE))
        self._at(at[0], "<u4", count)[:] = times_ms
        if fed:
            signals = self._at(at[1], _SIGNAL, count * fed).reshape(count, fed)
            signals["value"], signals["is_new"] = values, is_new
        self._film(count, *map(_signed, at[:4]))
        out[...] = self._at(at[2], "u1", out.size).reshape(out.shape)
        gains[...] = self._at(at[3], "<u4", gains.size).reshape(gains.shape)

    def _grow(self, pages: int) -> None:
        try:
            self._memory.grow(self._store, pages)
        except self._failure as exc:
            most = PAGE * MOST_PAGES / 1e9
            raise EngineError(
                f"a film needs more memory than WebAssembly has, {most:.1f} GB."
            ) from exc
        self._look()

    def _hear(self, news: Mapping[str, float]) -> None:
        if news.keys() != self._heard:
            self._heard = frozenset(news)
            self._signals["is_new"] = [name in news for name in self._places_of]
        for name, value in news.items():
            self._floats[self._places_of[name]] = value


def _call_of(store: Any, function: Any, has_result: bool) -> Callable[..., Any]:
    """A function that calls a function of a module.

    wasmtime's own call looks the function's type up each time, which takes longer than a frame. So
    this calls what that calls, where this version of wasmtime has it.
    """
    try:
        from wasmtime import _bindings as bound

        raw, at = bound.wasmtime_func_call_unchecked, ctypes.byref(function._func)
        context, held = store._context(), (bound.wasmtime_val_raw * MOST_ARGUMENTS)()
        trap = ctypes.POINTER(bound.wasm_trap_t)()
        failed = ctypes.byref(trap)
    except (AttributeError, ImportError):
        return partial(function, store)

    def call(*args: int) -> Any:
        for place, value in enumerate(args):
            held[place].i32 = value
        if raw(context, at, held, MOST_ARGUMENTS, failed) or trap:
            raise EngineError("the module of engine 'wasm' stopped. Use engine 'numpy'.")
        return held[0].f32 if has_result else None

    return call


def _signed(value: int) -> int:
    """32 bits as wasmtime takes them."""
    return value - 2**32 if value >= 2**31 else value


def _first_line(exc: Exception) -> str:
    return str(exc).partition("\n")[0].rstrip(".")
