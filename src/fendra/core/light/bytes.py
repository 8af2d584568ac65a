"""From linear light to bytes: rounding, white apart, the order on the wire."""

from __future__ import annotations

import numpy as np

from fendra.core.arrays import Array

MANY = 400
"""Spots from which on bytes are quicker made channel by channel than all at once."""

_ZERO, _HALF, _ONE, _FULL = (np.array(value, np.float32) for value in (0.0, 0.5, 1.0, 255.0))


def quantise(
    light: Array, master: np.float32, scratch: Array, planes: Array, out: Array,
    offsets: Array | None = None,
) -> None:  # fmt: skip
    """Linear light to bytes, rounded to the nearest, after the master level.

    Each is `light * (master * 255) + 0.5`, held within 0 and 255, without its fraction. offsets:
    (3, n) float32, added before the 0.5, for spots with a channel of one byte or more.

    light: (3, n) float32; values above 1 clip to full, negative values and NaN become dark. master:
    the share of the light that passes, 0 to 1. scratch: (3, n) float32, planes: (3, n) uint8; both
    overwritten. out: (n, 3) uint8.
    """
    np.multiply(light, master * _FULL, scratch)
    if offsets is not None:
        np.add(scratch, offsets, scratch, where=(scratch >= _ONE).any(axis=0))
    np.add(scratch, _HALF, scratch)
    np.fmax(scratch, _ZERO, scratch)
    np.fmin(scratch, _FULL, scratch)
    if len(out) < MANY:
        np.copyto(out, scratch.T, casting="unsafe")
        return
    np.copyto(planes, scratch, casting="unsafe")
    for channel in range(3):
        out[:, channel] = planes[channel]


def set_white_apart(rgb: Array) -> Array:
    """Red, green and blue (..., 3) as four channels (..., 4): white gets the common part of the
    three.

    >>> set_white_apart(np.array([9, 5, 4])).tolist()
    [5, 1, 0, 4]
    """
    white = rgb.min(axis=-1, keepdims=True)
    return np.concatenate([rgb - white, white], axis=-1)


def wire_order(rgb: Array, order: str) -> Array:
    """Pixels (n, 3) uint8 in red, green, blue as a line takes them: (n, channels) uint8.

    order: the letters R, G, B, and W where there is a white channel, in the order in which the
    LEDs take them. What red, green and blue have in common is white's, where there is one.

    >>> wire_order(np.array([[1, 2, 3]], np.uint8), "GRB").tolist()
    [[2, 1, 3]]
    >>> wire_order(np.array([[9, 5, 4]], np.uint8), "GRBW").tolist()
    [[1, 5, 0, 4]]
    """
    channels = set_white_apart(rgb) if "W" in order else rgb
    return np.asarray(channels[:, ["RGBW".index(letter) for letter in order]])
