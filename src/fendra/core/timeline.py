"""The timeline of a film: when each layer was on, how much of each scene was there, and why."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from fendra.core.replay import replay

if TYPE_CHECKING:
    from fendra.core.design import Design
    from fendra.core.film import Film
    from fendra.core.mix import Recording

Floats = np.ndarray[Any, np.dtype[np.float32]]
Truths = np.ndarray[Any, np.dtype[np.bool_]]

ALWAYS, OTHERWISE = "always", "otherwise"


@dataclass(frozen=True)
class Course:
    """One layer or scene over a film.

    why: its condition as it is written. there: how much of it was there in each frame, 0 to 1.
    """

    name: str
    why: str
    there: Floats

    def stretches(self) -> list[tuple[int, int]]:
        """The frames over which any of it was there: the first, and the one behind the last."""
        is_on = np.concatenate([[False], self.there > 0, [False]])
        edges = np.flatnonzero(np.diff(is_on.astype(np.int8)))
        return [(int(a), int(b)) for a, b in zip(edges[::2], edges[1::2], strict=True)]


@dataclass(frozen=True)
class Timeline:
    """times: of the frames, s. scenes, layers: in the order of the design."""

    times: np.ndarray[Any, np.dtype[np.float64]]
    scenes: tuple[Course, ...]
    layers: tuple[Course, ...]


def timeline_of(recording: Recording, film: Film) -> Timeline:
    """When the layers and scenes of a film were there."""
    slots, shares = recording.slots, recording.shares
    places = [*(slot.on for slot in slots), *shares]
    values = np.zeros((len(film), len(places)), np.float32)
    for frame, numbers in replay(recording, film, places):
        values[frame] = numbers
    design = film.design
    layers = sorted(zip(slots, values.T[: len(slots)], strict=True), key=lambda row: row[0].layer)
    scenes = zip(design.scene, values.T[len(slots) :], strict=False)
    return Timeline(
        film.times,
        tuple(Course(scene.name, why_of_scene(design, i), there)
              for i, (scene, there) in enumerate(scenes)),
        tuple(Course(design.layer[slot.layer].name, why_of_layer(design, slot.layer), there)
              for slot, there in layers),
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
