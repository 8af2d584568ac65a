"""Lit LEDs as the eye sees them in the dark: a bright core, and light spilled round it.

All of it is added up in linear light and turned into sRGB at the end.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np
from PIL import Image, ImageDraw

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.layout import Layout
from fendra.core.layout.views import VIEWS
from fendra.core.light.colours import linear_to_srgb, srgb_to_linear
from fendra.core.names import ViewName
from fendra.draw.style import DARK

_OFF = (40, 44, 52)
_MARGIN = 0.07

WORDS_SHARE = 0.17
"""Share of the picture's width, at its left, that is kept free for words."""


@dataclass(frozen=True)
class Stage:
    """The thing seen from one side, ready to be lit with any frame of its design.

    size: width and height of the picture in pixels. view: the side; above by default. diffuser_mm:
    distance of opal acrylic or tracing paper in front of the LEDs; 0 is none.
    """

    design: Design
    layout: Layout
    size: tuple[int, int] = (1280, 800)
    view: ViewName = "top"
    diffuser_mm: float = 0.0

    @cached_property
    def _view(self) -> tuple[float, Array]:
        """Pixels a mm, and the place in mm of the picture's middle."""
        every = np.concatenate([self._flat, *self._outlines])
        low, high = every.min(axis=0), every.max(axis=0)
        span = np.maximum(high - low, 1.0)
        free = np.array(self.size) * (1 - WORDS_SHARE, 1)
        return float(min(free * (1 - 2 * _MARGIN) / span)), (low + high) / 2

    @property
    def side(self) -> str:
        """The side that it is seen from, in words; from above, also where the front is."""
        return "front ↑" if self.view == "top" else VIEWS[self.view].seen_from

    @cached_property
    def _flat(self) -> Array:
        """Every LED as it is seen, in mm, to the right and up: (m, 2)."""
        view = VIEWS[self.view]
        return view.flat(self.layout.leds.position) * (-1 if view.is_flipped else 1, 1)

    @cached_property
    def _outlines(self) -> list[Array]:
        """The thing itself, which is known from above only."""
        view = VIEWS[self.view]
        if view.depth != 2:
            return []
        scale = np.array([-1 if view.is_flipped else 1, 1]) * self.layout.unit_mm
        return [np.array(line, float) * scale for line in self.design.outline if line]

    def to_pixels(self, points: Array) -> Array:
        """Places (n, 2) as they are seen, in mm, to places in the picture."""
        scale, middle = self._view
        turned = (np.asarray(points, float) - middle) * (scale, -scale)
        return np.asarray(turned + np.array(self.size) * (0.5 + WORDS_SHARE / 2, 0.5))

    @cached_property
    def _places(self) -> Array:
        return self.to_pixels(self._flat)

    @cached_property
    def core_px(self) -> float:
        """Radius of an LED: as large as the spacing allows, within reason."""
        step = np.linalg.norm(np.diff(self._places, axis=0), axis=1)
        within = self.layout.leds.part[1:] == self.layout.leds.part[:-1]
        step = step[within & (step > 1e-6)]
        spacing = float(np.median(step)) if len(step) else 20.0
        return float(np.clip(spacing * 0.42, 1.2, min(self.size) / 60))

    @cached_property
    def backdrop(self) -> Array:
        """The dark thing with its LEDs off: linear light (height, width, 3)."""
        sharp = 3
        width, height = self.size
        picture = Image.new("RGB", (width * sharp, height * sharp), DARK.night)
        pen = ImageDraw.Draw(picture)
        for line in self._outlines:
            if len(line) < 2:
                continue
            corners = [tuple(point) for point in (self.to_pixels(line) * sharp).tolist()]
            if corners[0] == corners[-1]:
                pen.polygon(corners, fill=DARK.panel)
            pen.line(corners, fill=DARK.body, width=2 * sharp, joint="curve")
        radius = self.core_px * 0.75 * sharp
        for x, y in (self._places * sharp).tolist():
            pen.ellipse((x - radius, y - radius, x + radius, y + radius), fill=_OFF)
        picture = picture.resize(self.size, Image.Resampling.LANCZOS)
        return _LINEAR.take(np.asarray(picture))

    @cached_property
    def _cores(self) -> tuple[Array, Array, Array, Array, Array]:
        """The pixels near LEDs, each once; and for each pair of an LED and a pixel near it the
        pixel's place among those, the LED, how much is its core and how much its light.

        The light falls off from the core's edge on.
        """
        reach = int(np.ceil(self.core_px * 2.5)) + 1
        steps = np.arange(-reach, reach + 1)
        dy, dx = (grid.ravel() for grid in np.meshgrid(steps, steps, indexing="ij"))
        base = np.floor(self._places).astype(int)
        x, y = base[:, :1] + dx, base[:, 1:] + dy
        distance = np.hypot(x + 0.5 - self._places[:, :1], y + 0.5 - self._places[:, 1:])
        core = np.clip(self.core_px + 0.5 - distance, 0.0, 1.0)
        light = core + 0.12 * np.exp(-((distance / (1.3 * self.core_px)) ** 2))
        width, height = self.size
        kept = (light > 0.003) & (x >= 0) & (x < width) & (y >= 0) & (y < height)
        led = np.broadcast_to(np.arange(len(base))[:, None], kept.shape)[kept]
        pixels, near = np.unique((y * width + x)[kept], return_inverse=True)
        return pixels, near, led, core[kept].astype(np.float32), light[kept].astype(np.float32)

    def lit(self, rgb: Array) -> Array:
        """The picture of one frame: (height, width, 3) uint8 sRGB.

        rgb: (n, 3) uint8, linear, a row a spot.
        """
        spots = np.asarray(rgb, np.float32) / np.float32(255.0)
        dark = np.zeros((1, 3), np.float32)  # an LED that is skipped shows the last row
        light = np.concatenate([spots, dark])[self.layout.leds.spot]
        if self.diffuser_mm > 0:
            return self._seen_through(light)
        scene = self._halo(light, 7.0, 4.0)
        scene += self.backdrop
        pixels, near, led, core, shine = self._cores
        level = light.max(axis=1)
        covered = np.bincount(near, core * np.minimum(8 * level, 1.0)[led], len(pixels))
        flat, behind = scene.reshape(-1, 3), self.backdrop.reshape(-1, 3)[pixels]
        white = np.float32(0.07) * level**2
        for channel in range(3):
            amount = (_EXPOSURE * light[:, channel] + white)[led] * shine
            added = np.bincount(near, amount, len(pixels))
            flat[pixels, channel] += added - np.minimum(covered, 1.0) * behind[:, channel]
        return _in_bytes(scene)

    def _seen_through(self, light: Array) -> Array:
        """The light on a diffuser: the light of each LED, spread over about its distance."""
        return _in_bytes(self.backdrop * 0.6 + self._spread(light) * np.float32(self._evenly))

    def _spread(self, light: Array) -> Array:
        pixels_a_mm, _ = self._view
        width_px = max(HALF_AS_WIDE * self.diffuser_mm * pixels_a_mm, 1.0)
        return self._halo(light, width_px / self.core_px, 1.0)

    @cached_property
    def _evenly(self) -> float:
        """The factor with which the brightest place of all LEDs at full is just full."""
        most = self._spread(np.ones((len(self.layout.leds), 3), np.float32)).max()
        return float(1.0 / max(float(most), 1e-9))

    def _halo(self, light: Array, cores: float, gain: float) -> Array:
        """Light spilled round the LEDs, this many core radii wide: (height, width, 3).

        It is soft, so it is computed on a coarse grid.
        """
        width, height = self.size
        radius_px = max(cores * self.core_px, 1.0)
        cell = max(int(radius_px / 2.5), 1)
        columns, rows = width // cell + 2, height // cell + 2
        # The middle of a coarse cell is half a cell from its edge.
        place = np.clip(self._places / cell - 0.5, 0.0, (columns - 1.001, rows - 1.001))
        corner = place.astype(int)
        x, y = (place - corner).T
        grid = np.zeros((rows * columns, 3), np.float32)
        for dx, dy in ((0, 0), (1, 0), (0, 1), (1, 1)):
            share = (x if dx else 1 - x) * (y if dy else 1 - y)
            at = (corner[:, 1] + dy) * columns + corner[:, 0] + dx
            for channel in range(3):
                amount = share * light[:, channel]
                grid[:, channel] += np.bincount(at, amount, minlength=rows * columns)
        spread = _blurred(grid.reshape(rows, columns, 3), radius_px / cell)
        area = np.float32(gain * (self.core_px / cell) ** 2 * np.pi)
        box = (0.0, 0.0, width / cell, height / cell)
        halo = np.empty((height, width, 3), np.float32)
        for channel in range(3):
            layer = Image.fromarray(np.ascontiguousarray(spread[:, :, channel] * area))
            wide = layer.resize(self.size, Image.Resampling.BILINEAR, box=box)
            halo[:, :, channel] = np.asarray(wide)
        return halo


HALF_AS_WIDE = 0.55
"""The light of an LED on a sheet before it falls off as (1 + (r / d)**2)**-2, by the square of the
cosine twice; a Gaussian of so much of the distance is half as bright where that is, at 0.64 d."""

_EXPOSURE = 4.0
"""How much brighter than its share of full light an LED's core looks in the dark."""

_STEPS_A_LIGHT = 8192

_LINEAR = np.asarray(srgb_to_linear(np.arange(256) / 255.0)).astype(np.float32)
"""The linear light of each byte of a picture."""


def _shown(light: Array) -> Array:
    """Linear light as sRGB bytes; above 0.6 it bends softly, so that bright stays coloured."""
    knee = 0.6
    over = np.maximum(light - knee, 0.0)
    bent = np.minimum(light, knee) + (1 - knee) * over / (over + 1 - knee)
    return np.asarray(linear_to_srgb(bent) * 255 + 0.5).astype(np.uint8)


_TO_SRGB = _shown(np.arange(8 * _STEPS_A_LIGHT - 1) / _STEPS_A_LIGHT)


def _in_bytes(scene: Array) -> Array:
    """Linear light as a picture, (height, width, 3) uint8 sRGB; the input is overwritten."""
    scene *= np.float32(_STEPS_A_LIGHT)
    np.minimum(scene, np.float32(len(_TO_SRGB) - 1), out=scene)
    return np.asarray(_TO_SRGB.take(scene.astype(np.uint16)))


def led_colour(light: Any) -> Array:
    """The look of an LED's core in the dark: (..., 3) linear light to uint8 sRGB."""
    light = np.asarray(light, float)
    off = np.array(_OFF, np.uint8)
    return np.where(light.any(axis=-1, keepdims=True), _shown(_EXPOSURE * light), off)


def _blurred(light: Array, radius: float) -> Array:
    """Spread light as three box blurs do, nearly a Gaussian; none is lost inside the picture."""
    reach = max(round(radius), 1)
    for axis in (0, 1):
        for _ in range(3):
            light = _box(light, reach, axis)
    return light


def _box(light: Array, reach: int, axis: int) -> Array:
    padding = [(0, 0)] * light.ndim
    padding[axis] = (reach + 1, reach)
    total = np.cumsum(np.pad(light, padding), axis=axis, dtype=np.float64)
    size = 2 * reach + 1
    ahead, behind = (
        (total[size:], total[:-size]) if axis == 0 else (total[:, size:], total[:, :-size])
    )
    return np.asarray((ahead - behind) / size, np.float32)
