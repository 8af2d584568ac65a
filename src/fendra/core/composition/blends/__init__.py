"""Blends, one a file: how a layer changes the light below it.

A blend is a function of the light below and of a `Stroke`, recorded as values of the graph. Every
engine, and `explain`, runs the recording. To add one, write a file with a function like `over` in
over.py, marked with `@blend`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TypeAlias

from fendra.core.graph.trace import Value
from fendra.core.registry import Registry


@dataclass(frozen=True)
class Stroke:
    """The input of a blend: how a layer paints. All light is linear.

    colour: of its effect, width 3. cover: the effect's cover, 0 to 1. light: the light for the
    layer's level, 0 to 1. paint: colour times cover times light. rest: the share of the light
    beneath that stays, 0 to 1: 1 minus the cover; with `hides_below`, 1 minus the layer's own
    `cover`, whatever the effect covers.
    """

    colour: Value
    cover: Value
    light: Value
    paint: Value
    rest: Value


Blending: TypeAlias = Callable[[Value, Stroke], Value]


@dataclass(frozen=True)
class Blend:
    """A registered blend. covers: whether it leaves `Stroke.rest` of the light beneath, so that a
    full cover hides all of it, and `hides_below` does something.
    """

    name: str
    draw: Blending
    covers: bool = False


BLENDS: Registry[Blend] = Registry("fendra.core.composition.blends", "fendra.blends", "a blend")


def blend(name: str, *, covers: bool = False) -> Callable[[Blending], Blending]:
    """Register a blend under a name. covers: see `Blend`."""

    def register(draw: Blending) -> Blending:
        BLENDS.add(name, Blend(name, draw, covers), draw)
        return draw

    return register
