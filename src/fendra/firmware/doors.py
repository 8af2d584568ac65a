"""The steps of an input for its raw number, as an expression in C: see fendra.core.signals.door."""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from fendra.core.engines.c99.text import float_literal
from fendra.core.signals.door import Banded, Door, Scaled, Switched


def door_in_c(door: Door, raw: str, before: str) -> str:
    """The number that the signal takes. raw, before: the input's number, and the signal's last
    number, in C.

    >>> from fendra.core.signals.door import Banded
    >>> door_in_c(Banded((0.5,), (0.0, 3.0)), "raw", "was")
    'raw < 0.5f ? 0.0f : 3.0f'
    """
    match door:
        case Scaled():
            return _scaled(door, raw)
        case Switched():
            return _switched(door, raw, before)
        case Banded():
            ends = [f"{raw} < {_c(end)} ? {_c(n)} : " for end, n in zip(door.begins, door.numbers)]  # noqa: B905 - one word more
            return f"{''.join(ends)}{_c(door.numbers[-1])}"


def _scaled(door: Scaled, raw: str) -> str:
    lines = []
    for (x0, y0), (x1, y1) in pairwise(door.points):
        slope = (y1 - y0) / (x1 - x0)
        away = f"({raw} - {_c(x0)})" if x0 else raw
        lines.append((f"{_c(y0)} + " if y0 else "") + f"{away} * {_c(slope)}")
    if door.goes_on:
        ends = [x for x, _ in door.points[1:-1]]
        pieces = [f"{raw} < {_c(end)} ? {line} : " for end, line in zip(ends, lines, strict=False)]
        return f"{''.join(pieces)}{lines[-1]}"
    (first, low), (_, high) = door.points[0], door.points[-1]
    pieces = [f"{raw} <= {_c(first)} ? {_c(low)} : "]
    pieces += [f"{raw} < {_c(x)} ? {line} : " for (x, _), line in zip(door.points[1:], lines)]  # noqa: B905 - a point more
    return f"{''.join(pieces)}{_c(high)}"


def _switched(door: Switched, raw: str, before: str) -> str:
    on_at, off_at = door.ends
    above, stays = (">", ">=") if on_at >= off_at else ("<", "<=")
    is_on = f"{raw} {above} {_c(on_at)}"
    if on_at != off_at:
        was_on = f"{before} {'>' if door.on > door.off else '<'} {_c(door.middle)}"
        is_on += f" || ({was_on} && {raw} {stays} {_c(off_at)})"
    return f"{is_on} ? {_c(door.on)} : {_c(door.off)}"


def _c(number: float) -> str:
    return float_literal(float(np.float32(number)))
