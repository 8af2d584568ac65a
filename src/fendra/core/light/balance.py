"""White balance: how much of each channel makes white on LEDs whose full light is tinted."""

from __future__ import annotations

from typing import TypeAlias

import numpy as np

from fendra.core.arrays import Array, Bytes

Shares: TypeAlias = tuple[float, float, float]
"""How much of red, green and blue at full makes white."""

EVEN: Shares = (1.0, 1.0, 1.0)
"""Of LEDs whose full light is white."""

FROM_XYZ = np.array(
    [[3.2404542, -1.5371385, -0.4985314],
     [-0.9692660, 1.8760108, 0.0415560],
     [0.0556434, -0.2040259, 1.0572252]]
)  # fmt: skip
"""CIE XYZ to linear sRGB, white point D65 (IEC 61966-2-1)."""


def gains_of(x: float, y: float) -> Shares:
    """The shares of red, green and blue that look white (D65) on LEDs whose full light is at x, y.

    x, y: CIE 1931 chromaticity of all three channels at full, as a meter shows it. The channels'
    own colours are assumed to be sRGB's. The largest share is 1.

    Raises ValueError if no shares of the three make white.

    >>> gains_of(0.28, 0.29)
    (1.0, 0.8509, 0.6014)
    """
    light = FROM_XYZ @ np.array([x, y, 1.0 - x - y])
    if light.min() <= 0.02 * light.max():
        raise ValueError(f"no share of red, green and blue makes white of x = {x:g}, y = {y:g}")
    red, green, blue = (light.min() / light).round(4).tolist()
    return red, green, blue


def seen_of(rgb: Bytes, shares: Shares, has_white: bool) -> Bytes:
    """Balanced bytes as the eye sees them: white is white again. (..., 3) uint8.

    shares: as `gains_of` gives them. has_white: a white channel, which is not balanced, shows what
    red, green and blue have in common.

    >>> seen_of(np.array([200, 90, 120], np.uint8), (1.0, 0.9, 0.6), has_white=False).tolist()
    [200, 100, 200]
    """
    light: Array = rgb.astype(np.float32)
    common = light.min(axis=-1, keepdims=True) if has_white else np.float32(0)
    light = common + (light - common) / np.array(shares, np.float32)
    return np.asarray(np.minimum(np.rint(light), 255).astype(np.uint8))
