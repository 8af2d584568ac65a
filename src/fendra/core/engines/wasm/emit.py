"""Emitting: a recorded design as a WebAssembly module that gives the same bytes as the preview.

docs/wasm.md says how to call it, and describes its memory.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.electric.limiter import FULL, Limit
from fendra.core.engines.lower import lower
from fendra.core.engines.sorting import sort
from fendra.core.engines.wasm.binary import F32, I32, PAGE, Function, module
from fendra.core.engines.wasm.code import STORES, Code, const, get, i32
from fendra.core.engines.wasm.draft import SIGNAL_SIZE, Draft
from fendra.core.engines.wasm.layers import Layers
from fendra.core.engines.wasm.light import to_bytes
from fendra.core.engines.wasm.limit import draws, limit
from fendra.core.engines.wasm.memory import LANES, words_of
from fendra.core.engines.wasm.mix import paint, paint_scene, share_of
from fendra.core.engines.wasm.numbers import advance, is_news, taken
from fendra.core.engines.wasm.seen import Balance, see
from fendra.core.engines.wasm.wire import to_wires
from fendra.core.graph.node import Rate


@dataclass(frozen=True)
class Wasm:
    """A design as a module. places: the addresses in its memory: see docs/wasm.md."""

    module: bytes
    places: Mapping[str, Any]


def emit_wasm(
    plan: Plan, *, is_wide: bool = True, told: Sequence[str] = (),
    supplies: Sequence[Limit] = (), balances: Sequence[Balance] = (),
) -> Wasm:  # fmt: skip
    """Write a plan as a module. The same design gives the same bytes.

    is_wide: paint four LEDs at once, with the standard's vector instructions. told: roots of the
    plan's graph whose values can be read beside the light. supplies: which LEDs each supply feeds,
    for the currents of the newest frame. balances: where white is balanced, for the colours that
    the eye sees. Raises EngineError if it would be too large.
    """
    with np.errstate(all="ignore"):  # rules are tried on values of any size
        lowered = lower(plan, told)
        draft = Draft(plan, lowered, sort(lowered), LANES if is_wide else 1)
        return _Emitting(draft, supplies, balances).run()


class _Emitting:
    def __init__(
        self, draft: Draft, supplies: Sequence[Limit], balances: Sequence[Balance]
    ) -> None:  # fmt: skip
        self._draft, self._supplies, self._balances = draft, supplies, balances
        self._functions: list[Function] = []
        self._exports: dict[str, int] = {}

    def run(self) -> Wasm:
        draft, add = self._draft, self._add
        painted = draft.lowered.painted
        writer = Layers(draft)
        helpers = add(taken()), add(is_news())
        advance_at = add(advance(draft, *helpers))
        layers = {number: add(writer.function(number, each)) for number, each in enumerate(painted)}
        scene_at = add(paint_scene(draft, layers)) if draft.lowered.mixed else None
        paint_at = add(paint(draft, layers, scene_at), "paint")
        bytes_at = add(to_bytes(draft))
        limits = [add(limit(draft, budget)) for budget in draft.plan.limits]
        wires_at = add(to_wires(draft))
        add(_init(draft), "init")
        frame_at = add(_frame([advance_at, paint_at], [bytes_at, *limits]))
        add(_step(draft, frame_at, wires_at), "step")
        add(_light(draft, advance_at, paint_at), "light")
        add(_film(draft, frame_at), "film")
        rows = self._telling(writer)
        currents = {draft.memory.reserve(8): supply for supply in self._supplies}
        if currents:
            add(draws(draft, currents), "draw")
        seen = draft.rgb
        if self._balances:
            seen = draft.memory.reserve(3 * draft.plan.spot_count)
            add(see(draft, self._balances, seen), "see")
        places = _places(draft, rows, currents) | {"seen": seen}
        held = module(self._functions, self._exports, draft.memory.pages, draft.memory.data)
        return Wasm(held, places | {"end": draft.memory.pages * PAGE})

    def _add(self, function: Function, name: str = "") -> int:
        self._functions.append(function)
        if name:
            self._exports[name] = len(self._functions) - 1
        return len(self._functions) - 1

    def _telling(self, writer: Layers) -> list[dict[str, Any]]:
        """The functions that give values of a layer at one of its spots, and where they put them.

        These are the names that begin with `why:layer:NUMBER:` and differ from LED to LED.
        """
        draft, found = self._draft, []
        rates = draft.graph.rates()
        for each in draft.lowered.painted:
            head = f"why:layer:{each.number}:"
            places = {
                name.removeprefix(head): place
                for name, place in draft.lowered.watched.items()
                if name.startswith(head) and rates[place] & Rate.SPOT
            }
            told: dict[int, list[int]] = {}
            row = {}
            for name, place in places.items():
                at = draft.memory.reserve(4)
                told.setdefault(place, []).append(at)
                row[name] = {"at": at, "kind": words_of(draft.kind(place))}
            if told:
                self._add(writer.telling(each.space, told), f"tell{each.number}")
            found.append(row)
        return found


def _init(draft: Draft) -> Function:
    """As after power-up: all that is remembered is as it was at first."""
    code = Code()
    for address in (draft.last_ms, draft.dt_ms, draft.has_begun):
        code.add(i32(0), i32(0), f"i32.store:{address}")
    for address in draft.signals.values():
        code.add(i32(0), i32(0), f"i32.store:{address}", i32(0), i32(0), f"i32.store:{address + 4}")
    for cell, address in draft.cells.items():
        kind = draft.cell_kinds[cell]
        code.add(i32(0), const(kind, draft.graph.start[cell]), f"{STORES[kind]}:{address}")
    for address in draft.limits.values():
        code.add(i32(0), i32(FULL), f"i32.store:{address}", i32(0), i32(0))
        code.add(f"i32.store:{address + 4}")
    for address in draft.pictures.values():
        at = code.keep(i32(address))
        with code.counting(at, i32(address + 3 * draft.plane), 4):
            code.add(get(at), i32(0), "i32.store:0")
    return code.done()


def _frame(light: Sequence[int], then: Sequence[int]) -> Function:
    """The next frame, as red, green and blue at the address that it takes."""
    code = Code(I32)
    for place in light:
        code.add(f"call:{place}")
    for place in then:
        code.add(get(0), f"call:{place}")
    return code.done()


def _step(draft: Draft, frame: int, wires: int) -> Function:
    """The next frame at a time in milliseconds, as colours and as the bytes of all lines."""
    code = Code(I32)
    code.add(i32(0), get(0), f"i32.store:{draft.now_ms}")
    code.add(i32(draft.rgb), f"call:{frame} call:{wires}")
    return code.done()


def _light(draft: Draft, advance_at: int, paint_at: int) -> Function:
    """The next frame's light before it becomes bytes, on the canvas; gives the master's share."""
    code = Code(I32, gives=(F32,))
    code.add(i32(0), get(0), f"i32.store:{draft.now_ms} call:{advance_at} call:{paint_at}")
    code.add(share_of(draft, draft.lowered.master))
    return code.done()


def _film(draft: Draft, frame: int) -> Function:
    """Frames in a row. It takes how many, and the addresses of their times, their signals as they
    are in memory, their colours, and the limiters' gains.
    """
    code = Code(I32, I32, I32, I32, I32)
    count, times, signals, rgb, gains = range(5)
    first = min(draft.signals.values(), default=0)
    end = first + SIGNAL_SIZE * len(draft.signals)
    done = code.keep(i32(0))
    with code.counting(done, get(count)):
        code.add(i32(0), get(times), f"i32.load:0 i32.store:{draft.now_ms}")
        if draft.signals:
            at = code.keep(i32(first))
            with code.counting(at, i32(end), SIGNAL_SIZE):
                code.add(get(at), get(signals), "i64.load:0 i64.store:0")
                code.add(get(signals), i32(SIGNAL_SIZE), f"i32.add local.set:{signals}")
        code.add(get(rgb), f"call:{frame}")
        for address in draft.limits.values():
            code.add(get(gains), i32(0), f"i32.load:{address} i32.store:0")
            code.add(get(gains), i32(4), f"i32.add local.set:{gains}")
        code.add(get(times), i32(4), f"i32.add local.set:{times}")
        code.add(get(rgb), i32(3 * draft.plan.spot_count), f"i32.add local.set:{rgb}")
    return code.done()


def _places(
    draft: Draft, rows: Sequence[Mapping[str, Any]], currents: Mapping[int, Limit]
) -> dict[str, Any]:  # fmt: skip
    """The addresses in the memory of a module."""

    def number(place: int) -> dict[str, Any]:
        """The address of a number of the frame, or its constant value."""
        node = draft.graph.nodes[place]
        if place in draft.fields:
            return {"at": draft.fields[place], "kind": words_of(node.kind)}
        value = node.payload[0] if isinstance(node.payload, tuple) else 0.0
        return {"value": float(value), "kind": words_of(node.kind)}

    lowered, rates = draft.lowered, draft.graph.rates()
    lines, at = [], draft.bytes
    for wire in draft.plan.wires:
        lines.append({"name": wire.name, "order": wire.order, "at": at, "size": wire.size})
        at += wire.size
    return {
        "leds": draft.plan.spot_count,
        "now_ms": draft.now_ms,
        "last_ms": draft.last_ms,
        "has_begun": draft.has_begun,
        "signals": dict(draft.signals),
        "cells": {
            name: {"at": at, "kind": words_of(draft.cell_kinds[name])}
            for name, at in draft.cells.items()
        },
        "limits": dict(draft.limits),
        "pictures": dict(draft.pictures),
        "state_end": draft.canvas,
        "canvas": draft.canvas,
        "plane": draft.plane,
        "rgb": draft.rgb,
        "bytes": draft.bytes,
        "size": draft.size,
        "lines": lines,
        "master": number(lowered.master),
        "scenes": [number(place) for place in lowered.shares],
        "layers": [
            {
                "number": each.number,
                "on": number(each.on),
                "left_out": draft.left_out + 4 * i,
                "tells": rows[i],
            }
            for i, each in enumerate(lowered.painted)
        ],
        "told": {
            name: number(place)
            for name, place in lowered.watched.items()
            if not rates[place] & Rate.SPOT
        },
        "draws": {supply.supply: at for at, supply in currents.items()},
    }
