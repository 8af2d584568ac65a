"""Canvases: a layout with its LEDs where a canvas puts them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.document.choice import OnCanvas
from fendra.core.layout.choice import Choice
from fendra.core.layout.table import Layout


def on_canvas(
    layout: Layout, places: Mapping[str, OnCanvas], chosen: Mapping[str, Choice]
) -> Layout:  # fmt: skip
    """The layout with every choice of LEDs moved, turned and scaled about its middle.

    places, chosen: the place of each choice, and its LEDs, by its text. Other LEDs stay where they
    are.
    """
    position, facing = layout.position.copy(), layout.facing.copy()
    leds, ways = layout.leds.position.copy(), layout.leds.facing.copy()
    for name, place in places.items():
        choice = chosen.get(name)
        if choice is None or len(choice.spots) == 0:
            continue
        turn = _turned(place.turn)
        there = layout.position[choice.spots]
        middle = (there.min(axis=0) + there.max(axis=0)) / 2
        at = np.array(place.at) * layout.unit_mm
        of_leds = np.isin(layout.leds.spot, choice.spots)
        position[choice.spots] = (there - middle) * place.scale @ turn.T + at
        facing[choice.spots] = layout.facing[choice.spots] @ turn.T
        leds[of_leds] = (layout.leds.position[of_leds] - middle) * place.scale @ turn.T + at
        ways[of_leds] = layout.leds.facing[of_leds] @ turn.T
    moved = replace(layout.leds, position=leds, facing=ways)
    return replace(layout, position=position, facing=facing, leds=moved)


def _turned(degrees: float) -> Floats:
    angle = np.radians(degrees)
    cos, sin = np.cos(angle), np.sin(angle)
    return np.array([[cos, -sin, 0.0], [sin, cos, 0.0], [0.0, 0.0, 1.0]])
