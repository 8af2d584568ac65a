"""The timeline of a film: when each layer was on, how much of each scene was there, and why."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Floats, Floats32
from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design
from fendra.core.film import Film
from fendra.core.insight.played import played
from fendra.core.names import counted
from fendra.core.shown import as_table, brief

ALWAYS, OTHERWISE = "always", "otherwise"


@dataclass(frozen=True)
class Appearance:
    """One layer or scene over a film.

    why: its condition as it is written. there: how much of it was there in each frame, 0 to 1.
    """

    name: str
    why: str
    there: Floats32

    def stretches(self) -> list[tuple[int, int]]:
        """The frames over which any of it was there: the first, and the one behind the last."""
        is_on = np.concatenate([[False], self.there > 0, [False]])
        edges = np.flatnonzero(np.diff(is_on.astype(np.int8)))
        return [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]


@dataclass(frozen=True)
class Timeline:
    """times: of the frames, s. scenes, layers: in the order of the design."""

    times: Floats
    scenes: tuple[Appearance, ...]
    layers: tuple[Appearance, ...]

    def __repr__(self) -> str:
        return brief(
            "Timeline", "", f"{self.times[0]:g} to {self.times[-1]:g} s",
            counted(len(self.scenes), "scene"), counted(len(self.layers), "layer"),
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """How much of the time each scene and layer was there, in a notebook."""
        rows = [
            (what, each.name, f"{(each.there > 0).mean():.0%}", each.why)
            for what, every in (("scene", self.scenes), ("layer", self.layers))
            for each in every
        ]
        return as_table("There", ("what", "name", "of the frames", "why"), rows)


def timeline_of(plan: Plan, film: Film) -> Timeline:
    """When the layers and scenes of a film were there."""
    paints, values = plan.paints, played(plan, film).there
    design = film.design
    layers = sorted(zip(paints, values.T[: len(paints)], strict=True), key=lambda row: row[0].layer)
    scenes = zip(design.scene, values.T[len(paints) :], strict=False)
    return Timeline(
        film.times,
        tuple(Appearance(scene.name, why_of_scene(design, i), there)
              for i, (scene, there) in enumerate(scenes)),
        tuple(Appearance(design.layer[paint.layer].name, why_of_layer(design, paint.layer), there)
              for paint, there in layers),
    )  # fmt: skip


def why_of_layer(design: Design, number: int) -> str:
    """When a layer is on, in the design's own words."""
    layer = design.layer[number]
    when = layer.when if isinstance(layer.when, str) else ALWAYS if layer.when else "never"
    if not layer.scenes:
        return when
    scenes = f"in scene {' or '.join(layer.scenes)}"
    return scenes if when == ALWAYS else f"{when}, {scenes}"


def why_of_scene(design: Design, number: int) -> str:
    """When a scene is chosen, in the design's own words."""
    scene = design.scene[number]
    reasons = [scene.when] if isinstance(scene.when, str) else [] if scene.when else ["never"]
    if scene.button:
        reasons.append(f"{scene.button} steps")
    return " and ".join(reasons) or OTHERWISE
