"""Finishes: what is done to the light of all layers together, before it becomes bytes.

First the ceilings, which no look passes, then the white balance of each LED type. Both are values
of the graph over what is `beneath`, as layers are.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

import numpy as np

from fendra.core.composition.settings import Settings
from fendra.core.document.choice import GroupTable
from fendra.core.document.design import Design
from fendra.core.document.layer import Setting
from fendra.core.findings import KeyPath
from fendra.core.graph.functions import lightness_to_linear, maximum, minimum
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.choice import ALL, Choice, in_wire_order
from fendra.core.layout.space import Space
from fendra.core.layout.table import Layout

LEAST = 1e-9
"""A ceiling of no light at all: too little for any byte."""


def ceilings(
    design: Design, layout: Layout, choices: Mapping[str, Choice]
) -> Iterator[tuple[KeyPath, Setting, Choice]]:
    """What no light passes: where it is written, what is written, and of which LEDs."""
    if design.most is not None:
        yield ("most",), design.most, choices[ALL]
    for number, line in enumerate(design.line):
        if line.most is not None:
            yield ("line", number, "most"), line.most, _of_lines(design, layout, [number])
    for name, group in design.groups.items():
        if isinstance(group, GroupTable) and group.most is not None and name in choices:
            yield ("groups", name, "most"), group.most, choices[name]


def balances(
    design: Design, layout: Layout
) -> Iterator[tuple[KeyPath, tuple[float, float, float], bool, Choice]]:
    """LED types whose white is tinted: where that is written, the shares of red, green and blue
    that look white, whether they have a white channel, and their LEDs.
    """
    for name in design.leds:
        for has_white in (False, True):
            lines = [
                number for number, line in enumerate(design.line)
                if line.led == name and ("W" in line.wire_order) == has_white
            ]  # fmt: skip
            if lines and design.line[lines[0]].led_type.white != (1.0, 1.0, 1.0):
                white = design.line[lines[0]].led_type.white
                path = ("leds", name, *(["W"] if has_white else []))
                yield path, white, has_white, _of_lines(design, layout, lines)


def _of_lines(design: Design, layout: Layout, lines: list[int]) -> Choice:
    names = [design.line[number].name for number in lines]
    rows = np.arange(len(layout))
    spots = np.concatenate([rows[layout.spots_of_line(name)] for name in names])
    what = "line" if len(names) == 1 else "lines"
    return in_wire_order(f"{what} {', '.join(names)}", spots)


def under_ceiling(
    setting: Setting, master: Value, beneath: Value, settings: Settings, path: KeyPath, space: Space
) -> Value:
    """Light whose brightest channel passes no level, after the master: its hue stays, and what is
    below stays as it is.
    """
    channel = beneath.tracer.channel
    top = maximum(maximum(channel(beneath, 0), channel(beneath, 1)), channel(beneath, 2)) * master
    most = lightness_to_linear(settings.number(setting, path, space))
    most = maximum(most, LEAST)
    beneath.tracer.label(most, "most")
    share = most / maximum(top, most)
    beneath.tracer.label(share, "share")
    return beneath * share


def balanced(
    white: tuple[float, float, float], beneath: Value, *, has_white: bool
) -> Value:  # fmt: skip
    """Light as it looks right on LEDs whose full light is tinted.

    has_white: what red, green and blue have in common is shown by a white channel, which is white
    by itself; only what is beside it is balanced.
    """
    shares = beneath.tracer.const(white)
    if not has_white:
        return beneath * shares
    channel = beneath.tracer.channel
    common = minimum(minimum(channel(beneath, 0), channel(beneath, 1)), channel(beneath, 2))
    return common + maximum(beneath - common, 0.0) * shares


def counted(tracer: Tracer, frames: int) -> Value:
    """The number of the frame, counted from 0 and beginning again after so many."""
    before = tracer.state(tracer.fresh_name("turn"), 0, Kind.UINT)
    tracer.remember(before, tracer.apply("uint_mod", tracer.apply("uint_add", before, 1), frames))
    return before
