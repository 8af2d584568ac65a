"""White balance: how much of each channel makes white on LEDs whose full light is tinted."""

from __future__ import annotations

import numpy as np

FROM_XYZ = np.array(
    [[3.2404542, -1.5371385, -0.4985314],
     [-0.9692660, 1.8760108, 0.0415560],
     [0.0556434, -0.2040259, 1.0572252]]
)  # fmt: skip
"""CIE XYZ to linear sRGB, white point D65 (IEC 61966-2-1)."""


def gains_of(x: float, y: float) -> tuple[float, float, float]:
    """The shares of red, green and blue that look white (D65) on LEDs whose full light is at x, y.

    x, y: CIE 1931 chromaticity of all three channels at full, as a meter shows it. The channels'
    own colours are taken for those of sRGB. The largest share is 1.

    Raises ValueError where no shares of the three make white.

    >>> gains_of(0.28, 0.29)
    (1.0, 0.8509, 0.6014)
    """
    light = FROM_XYZ @ np.array([x, y, 1.0 - x - y])
    if light.min() <= 0.02 * light.max():
        raise ValueError(f"no share of red, green and blue makes white of x = {x:g}, y = {y:g}")
    red, green, blue = (light.min() / light).round(4).tolist()
    return red, green, blue
