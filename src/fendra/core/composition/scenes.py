"""Scenes: which one is chosen, and the share of each during a cross-fade."""

from __future__ import annotations

from collections.abc import Sequence

from fendra.core.composition.settings import Settings
from fendra.core.document.layer import Scene
from fendra.core.graph.clock import Clock
from fendra.core.graph.functions import clamp, select
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value

NO_FADE_S = 0.001


def record_scenes(
    scenes: Sequence[Scene], tracer: Tracer, clock: Clock, settings: Settings, by_hand: str = ""
) -> list[Value]:
    """The share of each scene, 0 to 1, and of no scene, last: together 1. Empty if there are no
    scenes.

    by_hand: a number that chooses a scene by its place instead, from 0 on; below 0 it chooses none.

    The first scene whose condition holds is chosen. It fades in over its `fade`, evenly, and the
    others fade out in proportion.
    """
    if not scenes:
        return []
    steps = _steps(scenes, clock, settings)
    chosen: list[Value] = []
    is_taken = tracer.const(False)
    for number, scene in enumerate(scenes):
        with tracer.within(("scene", number)):
            holds = settings.condition(scene.when, ("scene", number, "when"))
            if number in steps:
                holds = holds & steps[number]
            is_chosen = holds & ~is_taken
            is_taken = is_taken | holds
            tracer.label(is_chosen, "chosen")
            chosen.append(is_chosen)
    is_certain = any(scene.when is True and not scene.button for scene in scenes)
    chosen.append(tracer.const(False) if is_certain else ~is_taken)
    if by_hand:
        is_free = settings.condition(f"{by_hand} < 0", ("scene",))
        own = [
            settings.condition(f"abs({by_hand} - {number}) < 0.5", ("scene",))
            for number in range(len(scenes))
        ]
        chosen = [
            (is_free & holds) | is_own
            for holds, is_own in zip(chosen, [*own, tracer.const(False)], strict=True)
        ]
    cells = [tracer.state(tracer.fresh_name("there"), 0.0, Kind.FLOAT) for _ in chosen]
    fades = [max(scene.fade, NO_FADE_S) for scene in scenes]
    fade_s = tracer.const(fades[0])
    there = cells[-1]
    for is_chosen, cell, seconds in zip(chosen, cells, fades, strict=False):
        there = select(is_chosen, cell, there)
        fade_s = select(is_chosen, seconds, fade_s)
    if len({*fades}) == 1:
        fade_s = tracer.const(fades[0])
    grown = select(clock.first, 1.0, clamp(there + clock.dt_s / fade_s))
    left = select(grown < 1.0, (1.0 - grown) / (1.0 - there), 0.0)
    shares = []
    for number, (is_chosen, cell) in enumerate(zip(chosen, cells, strict=True)):
        with tracer.within(("scene", number) if number < len(scenes) else ()):
            share = select(is_chosen, grown, cell * left)
            if is_certain and number == len(scenes):
                share = tracer.const(0.0)  # some scene is always there
            tracer.label(share, "there")
            tracer.remember(cell, share)
            shares.append(share)
    return shares


def _steps(scenes: Sequence[Scene], clock: Clock, settings: Settings) -> dict[int, Value]:
    """For the scenes that a button steps through, whether each is the current one."""
    found: dict[int, Value] = {}
    for button in dict.fromkeys(scene.button for scene in scenes if scene.button):
        mine = [i for i, scene in enumerate(scenes) if scene.button == button]
        with clock.tracer.within(("scene", mine[0])):
            pressed = settings.condition(button, ("scene", mine[0], "button"))
            count = clock.tracer.apply("to_float", clock.count(pressed, len(mine)))
        for step, number in enumerate(mine):
            found[number] = count == float(step)
    return found
