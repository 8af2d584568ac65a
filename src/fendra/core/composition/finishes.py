"""Finishes: changes of the light of all layers together, before it becomes bytes.

First switched-off LEDs, then the ceilings, then the white balance of each LED type. All are values
of the graph over the light `beneath`, as layers are.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from functools import partial
from typing import TypeAlias

import numpy as np

from fendra.core.composition.settings import Settings
from fendra.core.document.choice import GroupTable
from fendra.core.document.design import Design
from fendra.core.findings import KeyPath
from fendra.core.graph.functions import lightness_to_linear, maximum, minimum, select
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.choice import ALL, Choice, in_order, in_own_order
from fendra.core.layout.space import Space
from fendra.core.layout.table import Layout
from fendra.core.light.balance import EVEN, Shares
from fendra.core.values import Setting

LEAST = 1e-9
"""A ceiling of no light at all: too little for any byte."""

Draw: TypeAlias = Callable[[Value, Space], Value]
"""From the light beneath, and the LEDs that it is of, to the light after."""


def finishes(
    design: Design, layout: Layout, choices: Mapping[str, Choice], settings: Settings, master: Value
) -> Iterator[tuple[KeyPath, Choice, Draw]]:
    """Every finish of a design, in order: its place in the design, its LEDs, and a function that
    records it. master: the share of light that the master level passes.
    """
    for path, off, choice in _switched_off(design, layout, choices):
        yield path, choice, partial(_dark_while, off, path, settings)
    for path, setting, choice in _ceilings(design, layout, choices):
        yield path, choice, partial(_under_ceiling, setting, path, settings, master)
    for name in design.leds:
        for has_white in (False, True):
            lines = [
                number for number, line in enumerate(design.line)
                if line.led == name and ("W" in line.wire_order) == has_white
            ]  # fmt: skip
            shares = design.line[lines[0]].led_type.white if lines else EVEN
            if shares != EVEN:
                path = ("leds", name, *(["W"] if has_white else []))
                draw = partial(_balanced, shares, has_white)
                yield path, _of_lines(design, layout, lines), draw


def _switched_off(
    design: Design, layout: Layout, choices: Mapping[str, Choice]
) -> Iterator[tuple[KeyPath, bool | str, Choice]]:
    """Switched-off lines and parts: their place in the design, the condition, and their LEDs."""
    for number, line in enumerate(design.line):
        if line.off:
            yield ("line", number, "off"), line.off, _of_lines(design, layout, [number])
        for place, part in enumerate(line.part):
            if part.off and part.name in choices:
                yield ("line", number, "part", place, "off"), part.off, choices[part.name]
    for name, assembly in design.assemblies.items():
        for place, part in enumerate(assembly.part):
            path: KeyPath = ("assemblies", name, "part", place)
            rows = [row.rows for row in layout.parts if row.path == path and row.kind == "lit"]
            if part.off and rows:
                choice = in_order(f"{name}: {part.name}", np.concatenate(rows))
                yield (*path, "off"), part.off, choice


def _dark_while(
    off: bool | str, path: KeyPath, settings: Settings, beneath: Value, space: Space  # noqa: ARG001
) -> Value:  # fmt: skip
    """No light while a condition holds."""
    is_off = settings.condition(off, path)
    beneath.tracer.label(is_off, "off")
    return beneath * select(is_off, 0.0, 1.0)


def _ceilings(
    design: Design, layout: Layout, choices: Mapping[str, Choice]
) -> Iterator[tuple[KeyPath, Setting, Choice]]:
    """The ceilings: their place in the design, their value, and their LEDs."""
    if design.most is not None:
        yield ("most",), design.most, choices[ALL]
    for number, line in enumerate(design.line):
        if line.most is not None:
            yield ("line", number, "most"), line.most, _of_lines(design, layout, [number])
    for name, group in design.groups.items():
        if isinstance(group, GroupTable) and group.most is not None and name in choices:
            yield ("groups", name, "most"), group.most, choices[name]


def _of_lines(design: Design, layout: Layout, lines: list[int]) -> Choice:
    """The LEDs of some lines, under a name that no group can have."""
    names = [design.line[number].name for number in lines]
    rows = np.arange(len(layout))
    spots = np.concatenate([rows[layout.spots_of_line(name)] for name in names])
    what = "line" if len(names) == 1 else "lines"
    return in_own_order(f"{what}: {', '.join(names)}", spots, layout)


def _under_ceiling(
    setting: Setting, path: KeyPath, settings: Settings, master: Value, beneath: Value, space: Space
) -> Value:
    """Light whose brightest channel stays below a level, after the master: it keeps its hue, and
    dimmer light stays as it is.
    """
    channel, label = beneath.tracer.channel, beneath.tracer.label
    top = maximum(maximum(channel(beneath, 0), channel(beneath, 1)), channel(beneath, 2)) * master
    most = maximum(lightness_to_linear(settings.number(setting, path, space)), LEAST)
    share = most / maximum(top, most)  # 1, and no rounding, where it is below
    label(most, "most")
    label(share, "share")
    return beneath * share


def _balanced(shares: Shares, has_white: bool, beneath: Value, space: Space) -> Value:  # noqa: ARG001
    """Light as it looks right on LEDs with a tint.

    has_white: a white channel shows the part that red, green and blue have in common; only the rest
    is balanced.
    """
    balance = beneath.tracer.const(shares)
    if not has_white:
        return beneath * balance
    channel = beneath.tracer.channel
    common = minimum(minimum(channel(beneath, 0), channel(beneath, 1)), channel(beneath, 2))
    return common + maximum(beneath - common, 0.0) * balance


def counted(tracer: Tracer, frames: int) -> Value:
    """The number of the frame, from 0 again after this many."""
    before = tracer.state(tracer.fresh_name("turn"), 0, Kind.UINT)
    tracer.remember(before, tracer.apply("uint_mod", tracer.apply("uint_add", before, 1), frames))
    return before
