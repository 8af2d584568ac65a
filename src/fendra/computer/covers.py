"""The colours of a cover."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from PIL import Image

from fendra.core.light.colours import srgb_to_linear
from fendra.core.limits import PICTURE_PIXELS

MOST = 3
"""How many colours."""
SIDE = 48
"""Pixels a side that are looked at."""
_APART = 60.0
"""How far two colours are apart at least, in steps of 0 to 255."""


def colours_of(data: bytes) -> list[str]:
    """The most striking colours of a picture, as `#rrggbb`, at most three; the first is that of
    the most vivid pixels.

    >>> picture = Image.new("RGB", (60, 60), "#202020")
    >>> picture.paste("#e01010", (0, 0, 30, 60))
    >>> held = io.BytesIO(); picture.save(held, "PNG")
    >>> colours_of(held.getvalue())
    ['#e01010', '#202020']
    """
    with Image.open(io.BytesIO(data)) as picture:
        if picture.width * picture.height > PICTURE_PIXELS.most:
            return []
        small = np.asarray(picture.convert("RGB").resize((SIDE, SIDE)), np.float64)
    pixels = small.reshape(-1, 3)
    vivid = pixels.max(axis=1) - pixels.min(axis=1)
    weights = 0.1 + vivid / 255 * srgb_to_linear(pixels.max(axis=1) / 255) * 4
    boxes: dict[tuple[int, ...], Any] = {}
    for pixel, weight in zip(pixels, weights, strict=True):
        key = tuple((pixel // 32).astype(int))
        held = boxes.setdefault(key, [0.0, np.zeros(3)])
        held[0] += weight
        held[1] += weight * pixel
    found: list[np.ndarray] = []
    for weight, total in sorted(boxes.values(), key=lambda box: -box[0]):
        colour = total / weight
        if all(np.abs(colour - other).max() >= _APART for other in found):
            found.append(colour)
        if len(found) == MOST:
            break
    return ["#" + "".join(f"{round(v):02x}" for v in colour) for colour in found]
