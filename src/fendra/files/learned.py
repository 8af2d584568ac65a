"""Ranges that were seen, written into a design's file; all else, comments too, stays as it is."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from typing import Any

import tomlkit

from fendra.core.document.design import Design
from fendra.core.document.signal import From
from fendra.core.errors import SignalError
from fendra.core.signals.kinds import kind_of


def learn(
    text: str, design: Design, seen: Mapping[str, tuple[float, float]],
    place: int | None = None,
) -> tuple[str, list[str]]:  # fmt: skip
    """A design's text with what was seen of signals, and what was written, in words.

    seen: lowest and highest raw value of number signals. place: among its sources, of the one by
    which they came; of a signal with several inputs that one gets its own `calibrate`. One without
    a `range` gets that; one whose raw values leave its range is in other units, and gets
    `calibrate`; so does one that has it, in the same direction. One that did not move, or stays
    within its range, is left as it is.

    Raises SignalError if the file is written in a way that cannot be added to.
    """
    before = tomllib.loads(text)
    document: Any = tomlkit.parse(text)
    expected = tomllib.loads(text)
    told = []
    for name, (low, high) in seen.items():
        signal = design.signals.get(name)
        if signal is None or not kind_of(signal).measures or not low < high:
            continue
        if name not in before.get("signals", {}):
            continue
        ends = [*_rounded(low, high)]
        if signal.range is not None and not signal.calibrate and _lies_in(ends, signal.range):
            told.append(f"{name}: {ends[0]:g} to {ends[1]:g}, within its range; left as it is")
            continue
        own = signal.sources[place] if place is not None else From()
        if place is not None and (own.is_calibrated or signal.pin or len(signal.sources) > 1):
            if own.calibrate is not None and own.calibrate[0] > own.calibrate[1]:
                ends.reverse()
            given = own.model_dump(exclude_unset=True, exclude={"curve"}) | {"calibrate": ends}
            for tables in (document, expected):
                _put_source(tables["signals"][name], place, given)
            told.append(
                f"{name}: source {own.name or name}: calibrate = [{ends[0]:g}, {ends[1]:g}]"
            )
            continue
        key = "calibrate" if signal.range is not None or signal.calibrate else "range"
        if signal.calibrate and signal.calibrate[0] > signal.calibrate[1]:
            ends.reverse()
        table = document["signals"][name]
        if isinstance(table.get(key), list):
            for i, value in enumerate(ends):
                table[key][i] = value
        else:
            table[key] = ends
        expected["signals"][name][key] = ends
        told.append(f"{name}: {key} = [{ends[0]:g}, {ends[1]:g}]")
    written = tomlkit.dumps(document)
    if tomllib.loads(written) != expected:
        raise SignalError(
            "Fendra cannot write into this file as it is; write the ranges by hand: "
            + "; ".join(told)
        )
    return written, told


def _put_source(table: Any, place: int, given: dict[str, Any]) -> None:
    """Write one source of a signal in full."""
    if isinstance(table.get("source"), list):
        table["source"][place] = given
    else:
        table["source"] = given


def _lies_in(ends: Sequence[float], span: tuple[float, float]) -> bool:
    return span[0] <= min(ends) and max(ends) <= span[1]


def _rounded(low: float, high: float) -> tuple[float | int, float | int]:
    """Two numbers to a thousandth of what lies between them."""
    step = 10.0 ** (len(f"{int((high - low) * 1e6):d}") - 1 - 6 - 3)
    ends = [round(round(value / step) * step, 9) for value in (low, high)]
    first, last = (int(value) if float(value).is_integer() else value for value in ends)
    return first, last
