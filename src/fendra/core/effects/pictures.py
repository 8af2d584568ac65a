"""Pictures: still or animated, sampled at the places of LEDs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from fendra.core.arrays import Floats32


@dataclass(frozen=True)
class Picture:
    """A still or animated picture.

    pixels: (pictures, height, width, 4) float32, the top row first: linear red, green and blue, 0
    to 1, and how much it covers. seconds: how long each picture is shown.
    """

    pixels: Floats32
    seconds: tuple[float, ...]

    @property
    def duration_s(self) -> float:
        """How long all of it takes."""
        return sum(self.seconds)


def sampled(picture: Picture, across: Any, up: Any, box: tuple[float, float]) -> Floats32:
    """A picture at places, each the mean of a box round it: (pictures, n, 4).

    across, up: (n,), from its left, 0, to its right, 1, and from its foot to its top. box: width
    and height of the boxes, as shares of the picture; what lies beside it covers nothing.
    """
    count, height, width, _ = picture.pixels.shape
    totals = np.zeros((count, height + 1, width + 1, 4))
    weighted = picture.pixels.astype(np.float64)
    weighted[..., :3] *= weighted[..., 3:]
    totals[:, 1:, 1:] = weighted.cumsum(axis=1).cumsum(axis=2)
    columns = _spans(np.asarray(across, float) * width, box[0] * width, width)
    rows = _spans((1.0 - np.asarray(up, float)) * height, box[1] * height, height)
    (left, right), (top, bottom) = columns, rows
    total = (
        _between(totals, bottom, right) - _between(totals, top, right)
        - _between(totals, bottom, left) + _between(totals, top, left)
    )  # fmt: skip
    alpha = total[..., 3:]
    colour = np.where(alpha > 1e-9, total[..., :3] / np.maximum(alpha, 1e-9), 0.0)
    cover = alpha / max(box[0] * width * box[1] * height, 1e-9)
    return np.asarray(np.clip(np.concatenate([colour, cover], axis=-1), 0.0, 1.0), np.float32)


def _spans(middle: Any, size: float, most: int) -> tuple[Any, Any]:
    """From where to where boxes go, in pixels, as far as they are on the picture."""
    return np.clip(middle - size / 2, 0, most), np.clip(middle + size / 2, 0, most)


def _between(totals: Any, row: Any, column: Any) -> Any:
    """A table of sums at places between its entries: (pictures, n, 4)."""
    height, width = totals.shape[1] - 1, totals.shape[2] - 1
    top, left = np.minimum(row.astype(int), height - 1), np.minimum(column.astype(int), width - 1)
    down, along = (row - top)[None, :, None], (column - left)[None, :, None]
    upper = totals[:, top, left] * (1 - along) + totals[:, top, left + 1] * along
    lower = totals[:, top + 1, left] * (1 - along) + totals[:, top + 1, left + 1] * along
    return upper * (1 - down) + lower * down
