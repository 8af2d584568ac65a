"""A screen's picture as the light of LEDs round it or behind it: averages over areas."""

from __future__ import annotations

from typing import TYPE_CHECKING, TypeAlias

import numpy as np

from fendra.core.arrays import Array
from fendra.core.light.colours import srgb_to_linear

if TYPE_CHECKING:
    from scipy.sparse import csr_array

BLACK = 14
"""sRGB bytes up to this are black, in a bar."""
STEADY = 8
"""Pictures in which bars must be where they are before they are believed."""
LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)
"""Of linear red, green and blue (IEC 61966-2-1)."""

_LINEAR = srgb_to_linear(np.arange(256) / 255).astype(np.float32)


def area_weights(
    places: Array, area: float, width: int, height: int, box: tuple[int, int, int, int]
) -> csr_array:  # fmt: skip
    """Weights that average a picture's pixels into LEDs: (LEDs, height * width), the sum of each
    row is 1.

    places: (n, 2), 0 to 1 from left to right and from top to bottom. area: the side of the square
    that each LED sees, as a share of the shorter side; at an edge all of it is inside. box: left,
    top, right, bottom of the picture without bars, in pixels.
    """
    left, top, right, bottom = box
    side = max(area * min(right - left, bottom - top), 1.0)
    rows, columns, data = [], [], []
    for number, (u, v) in enumerate(np.asarray(places, float)):
        spans = []
        for share, low, high in ((u, left, right), (v, top, bottom)):
            half = min(side, high - low) / 2
            middle = min(max(low + share * (high - low), low + half), high - half)
            first = min(int(np.floor(middle - half + 0.5)), high - 1)
            last = max(int(np.floor(middle + half + 0.5)), first + 1)
            spans.append(np.arange(max(first, low), min(last, high)))
        x, y = spans
        pixels = (y[:, None] * width + x[None, :]).reshape(-1)
        rows.append(np.full(len(pixels), number))
        columns.append(pixels)
        data.append(np.full(len(pixels), 1.0 / len(pixels), np.float32))
    from scipy.sparse import csr_array  # a package of the desk, and slow to import

    place = np.concatenate(rows), np.concatenate(columns)
    return csr_array((np.concatenate(data), place), shape=(len(places), width * height))


def find_bars(picture: Array) -> tuple[int, int, int, int]:
    """Left, top, right and bottom of the picture without black bars; all of it if everything is
    black.

    picture: (height, width, 3) uint8. Bars are as wide on both sides.
    """
    height, width = picture.shape[:2]
    bright = picture.max(axis=2) > BLACK
    box = []
    for lit, size in ((bright.any(axis=0), width), (bright.any(axis=1), height)):
        at = np.flatnonzero(lit)
        bar = 0 if len(at) == 0 else min(int(at[0]), size - 1 - int(at[-1]))
        box.append((bar, size - bar) if bar < size // 3 else (0, size))
    (left, right), (top, bottom) = box
    return left, top, right, bottom


Curve: TypeAlias = list[tuple[float, float]]
"""Points (bright, shown), as the eye sees them, 0 to 1."""
DARKEST = 1e-4
"""Light up to this has no colour that could be kept."""


class ScreenLight:
    """Pictures in, the light of LEDs out. All but the first five may change between pictures.

    places, area: as in `area_weights`. step: samples every n-th pixel across and down. finds_bars:
    leaves out black bars. settle: how far the light moves towards a new picture, 0 to 1.
    saturation: 1 keeps it, 0 is grey, more is stronger. floor: the least brightness, 0 to 1; light
    below it keeps its colour. grey: colours weaker than this become plain grey, 0 to 1. curve: how
    bright the light is for a brightness of the screen.
    """

    def __init__(
        self, places: Array, *, area: float = 0.15, step: int = 4, finds_bars: bool = True,
        settle: float = 1.0, saturation: float = 1.0, floor: float = 0.0, grey: float = 0.0,
        curve: Curve | None = None,
    ) -> None:  # fmt: skip
        self._places, self._area, self._step = np.asarray(places, float), area, step
        self._finds_bars, self._settle = finds_bars, settle
        self.saturation, self.floor, self.grey = saturation, floor, grey
        self.curve = curve
        self._weights: csr_array | None = None
        self._shape = (0, 0)
        self._box = self._new_box = (0, 0, 0, 0)
        self._steady = 0
        self._light: Array | None = None

    def look(self, picture: Array) -> Array:
        """The light of each LED, linear, 0 to 1: (LEDs, 3) float32.

        picture: (height, width, 3) uint8, sRGB.
        """
        small = picture[:: self._step, :: self._step]
        self._fit(small)
        assert self._weights is not None
        height, width = small.shape[:2]
        linear = _LINEAR[small.reshape(height * width, 3)]
        light = self._shaped(np.asarray(self._weights @ linear))
        if self._light is not None:
            light = self._light + (light - self._light) * np.float32(self._settle)
        self._light = light
        return light

    def _fit(self, small: Array) -> None:
        """Weights for the picture's size and bars."""
        height, width = small.shape[:2]
        whole = (0, 0, width, height)
        box = find_bars(small) if self._finds_bars else whole
        if (height, width) != self._shape:
            self._shape, self._box, self._steady = (height, width), (-1, -1, -1, -1), STEADY
        elif box != self._new_box:
            self._steady = 0
        self._new_box = box
        self._steady += 1
        if box != self._box and self._steady >= STEADY:
            self._box = box
            self._weights = area_weights(self._places, self._area, width, height, box)

    def _shaped(self, light: Array) -> Array:
        luma = (light @ LUMA)[:, None]
        colour = light - luma
        if self.grey > 0:
            strength = np.abs(colour).max(axis=1, keepdims=True)
            colour = np.where(strength < self.grey, 0.0, colour)
        light = np.clip(luma + colour * self.saturation, 0.0, 1.0)
        if self.curve:
            seen = np.cbrt(np.maximum(luma, 1e-9))
            x, y = zip(*self.curve, strict=True)
            shown = np.interp(seen, x, y)
            light = light * (shown / seen) ** 3
        return np.asarray(np.clip(at_least(light, self.floor), 0.0, 1.0), np.float32)


def at_least(light: Array, floor: float) -> Array:
    """Light whose brightness is at least `floor`, with its colour as it was: as bright as that
    colour can be, if it cannot be so bright. Light without a colour becomes grey.

    light: (LEDs, 3), linear. floor: linear, 0 to 1.

    >>> at_least(np.array([[0.02, 0.0, 0.0], [0.0, 0.0, 0.0]]), 0.1).round(3).tolist()
    [[0.47, 0.0, 0.0], [0.1, 0.1, 0.1]]
    """
    luma = (light @ LUMA)[:, None]
    raised = light * (floor / np.maximum(luma, DARKEST))
    raised = raised / np.maximum(raised.max(axis=1, keepdims=True), 1.0)
    raised = np.where(luma <= DARKEST, floor, raised)
    return np.asarray(np.where(luma < floor, raised, light))
