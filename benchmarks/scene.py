"""One scene of six layers, three times: as a Fendra design, as NumPy written by hand, and as a
plain Python loop. All three give the same light, to one step of 255.

The scene: colours drift along the whole strip; the first third brakes in red; the second third
is a gauge; the last third fills; a soft dot runs over all of it, added; a warning pulses, as the
brighter of both, while the battery is low.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np

import fendra as fd
from fendra.core.light.colours import parse_colour

BLUE, TEAL, RED, AMBER = (parse_colour(c) for c in ("#0030ff", "#00c8b4", "#ff0000", "#ff7a00"))
LIME, GOLD, VIOLET = (parse_colour(c) for c in ("lime", "gold", "#a040ff"))


def state(at_s: float) -> dict[str, float]:
    """What the signals say at a time."""
    brake = 0.5 + 0.4 * math.sin(at_s)
    return {"brake": brake, "rpm": 3000 + 1500 * math.sin(0.7 * at_s), "left": 1, "battery": 43}


def fendra_program(spots: int, engine: str = "numpy") -> fd.Program:
    """The scene as a program."""
    return fendra_design(spots).compile(engine=engine)


def fendra_design(spots: int) -> fd.Design:
    """The scene as a design."""
    third = spots // 3
    cuts = [("a", third), ("b", third), ("c", spots - 2 * third)]
    parts, start = [], 0
    for name, count in cuts:
        ends = {"start": (10.0 * start, 0.0, 0.0), "end": (10.0 * (start + count - 1), 0.0, 0.0)}
        parts.append({"name": name, "shape": "strip", "count": count, **ends})
        start += count
    return fd.Design.from_values(
        {
            "line": [{"name": "line", "part": parts}],
            "signals": {"brake": {}, "rpm": {}, "left": {"kind": "switch"}, "battery": {}},
            "layer": [
                {"name": "drift", "on": "all", "effect": "gradient",
                 "colours": ["#0030ff", "#00c8b4"], "rate": 0.1},
                {"name": "brake", "on": "a", "effect": "solid", "colour": "red",
                 "level": "0.3 + 0.7 * brake", "when": "brake > 0.04"},
                {"name": "gauge", "on": "b", "effect": "gauge", "value": "rpm", "high": 6000,
                 "colours": ["lime", "gold", "red"]},
                {"name": "turn", "on": "c", "effect": "fill", "colour": "#ff7a00", "step": 0.01,
                 "when": "left"},
                {"name": "dot", "on": "all", "effect": "sweep", "colour": "#a040ff", "rate": 0.5,
                 "blend": "add", "level": 0.8},
                {"name": "warning", "on": "all", "effect": "pulse", "colour": "red", "rate": 1.0,
                 "blend": "max", "level": 0.5, "when": "battery < 44"},
            ],
        }
    )  # fmt: skip


def light_of(level: float) -> float:
    """CIE lightness, 0 to 1, to linear light."""
    return ((level * 100 + 16) / 116) ** 3 if level > 0.08 else level * 100 / 903.2962962962963


def to_and_fro(phase: float) -> float:
    return 1 - abs(2 * phase - 1)


class HandWritten:
    """The scene in NumPy, as somebody would write it who knows the scene and how to be quick."""

    def __init__(self, spots: int) -> None:
        third = spots // 3
        self.a, self.b, self.c = slice(0, third), slice(third, 2 * third), slice(2 * third, spots)
        self.canvas = np.zeros((3, spots), np.float32)
        self.along = np.linspace(0, 1, spots, dtype=np.float32)
        self.rank_b = np.arange(third, dtype=np.float32)
        self.rank_c = np.arange(spots - 2 * third, dtype=np.float32)
        way = np.linspace(0, 1, third, dtype=np.float32)
        low, high = np.clip(2 * way, 0, 1), np.clip(2 * way - 1, 0, 1)
        lime, gold, red = (_column(colour) for colour in (LIME, GOLD, RED))
        self.ramp = (lime + (gold - lime) * low) * (1 - high) + red * high

    def frame(self, at_s: float, brake: float, rpm: float, left: float, battery: float) -> Any:
        canvas = self.canvas
        share = (self.along * 0.5 + (1 - (0.1 * at_s) % 1)) % 1
        share = 1 - np.abs(2 * share - 1)
        canvas[:] = _column(TEAL) * share + _column(BLUE) * (1 - share)
        if brake > 0.04:
            canvas[:, self.a] = _column(RED) * np.float32(light_of(0.3 + 0.7 * brake))
        count = len(self.rank_b)
        cover = np.clip(np.float32(rpm / 6000 * count) - self.rank_b, 0, 1)
        canvas[:, self.b] = canvas[:, self.b] * (1 - cover) + self.ramp * cover
        if left:
            count = len(self.rank_c)
            run_ms = 10.0 * count
            elapsed = round(at_s * 1000) % round(2 * run_ms + 1000)
            lit, gone = elapsed // 10, (elapsed - run_ms - 500) // 10
            cover = np.clip(lit - self.rank_c, 0, 1) - np.clip(gone - self.rank_c, 0, 1)
            canvas[:, self.c] = canvas[:, self.c] * (1 - cover) + _column(AMBER) * cover
        middle = np.float32(to_and_fro((0.5 * at_s) % 1))
        near = np.clip(1 - np.abs(self.along - middle) * 10, 0, 1)
        canvas += _column(VIOLET) * (near * near * (3 - 2 * near) * np.float32(light_of(0.8)))
        if battery < 44:
            swell = to_and_fro(at_s % 1)
            swell = 0.1 + 0.9 * swell * swell * (3 - 2 * swell)
            np.maximum(canvas, _column(RED) * np.float32(swell * light_of(0.5)), out=canvas)
        return np.clip(canvas * 255 + 0.5, 0, 255).astype(np.uint8).T.copy()


def _column(colour: tuple[float, float, float]) -> Any:
    return np.array(colour, np.float32)[:, None]


def plain_python(
    spots: int, at_s: float, brake: float, rpm: float, left: float, battery: float
) -> list[tuple[int, ...]]:
    """The scene pixel by pixel."""
    third = spots // 3
    middle = to_and_fro((0.5 * at_s) % 1)
    swell = to_and_fro(at_s % 1)
    swell = 0.1 + 0.9 * swell * swell * (3 - 2 * swell)
    brake_light, dot_light, warn = light_of(0.3 + 0.7 * brake), light_of(0.8), light_of(0.5)
    count_c = spots - 2 * third
    run_ms = 10.0 * count_c
    elapsed = round(at_s * 1000) % round(2 * run_ms + 1000)
    lit, gone = elapsed // 10, (elapsed - run_ms - 500) // 10
    frame = []
    for i in range(spots):
        along = i / (spots - 1)
        share = to_and_fro((along * 0.5 + 1 - (0.1 * at_s) % 1) % 1)
        pixel = [t * share + b * (1 - share) for t, b in zip(TEAL, BLUE, strict=True)]
        if i < third:
            if brake > 0.04:
                pixel = [r * brake_light for r in RED]
        elif i < 2 * third:
            rank = i - third
            cover = min(max(rpm / 6000 * third - rank, 0), 1)
            way = rank / (third - 1)
            low, high = min(2 * way, 1), min(max(2 * way - 1, 0), 1)
            ramp = [
                (a + (m - a) * low) * (1 - high) + z * high
                for a, m, z in zip(LIME, GOLD, RED, strict=True)
            ]
            pixel = [p * (1 - cover) + r * cover for p, r in zip(pixel, ramp, strict=True)]
        elif left:
            rank = i - 2 * third
            cover = min(max(lit - rank, 0), 1) - min(max(gone - rank, 0), 1)
            pixel = [p * (1 - cover) + a * cover for p, a in zip(pixel, AMBER, strict=True)]
        near = min(max(1 - abs(along - middle) * 10, 0), 1)
        near = near * near * (3 - 2 * near) * dot_light
        pixel = [p + v * near for p, v in zip(pixel, VIOLET, strict=True)]
        if battery < 44:
            pixel = [max(p, r * swell * warn) for p, r in zip(pixel, RED, strict=True)]
        frame.append(tuple(int(min(max(p * 255 + 0.5, 0), 255)) for p in pixel))
    return frame
