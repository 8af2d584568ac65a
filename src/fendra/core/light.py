"""Light: colours as people write them, linear light inside, bytes on the wire."""

from __future__ import annotations

from typing import Any

import numpy as np
import webcolors

Array = np.ndarray[Any, np.dtype[Any]]
Colour = tuple[float, float, float]

COLOUR_NAMES: tuple[str, ...] = (*webcolors.names("css3"), "rebeccapurple")
"""CSS Color 4, section 6.1."""


def parse_colour(text: str) -> Colour:
    """A colour as written, `#rgb`, `#rrggbb` or a CSS name, as linear red, green and blue, 0 to 1.

    Raises ValueError for anything else.

    >>> parse_colour("#ff8000")[0], round(parse_colour("#ff8000")[1], 4)
    (1.0, 0.2159)
    """
    red, green, blue = (srgb_to_linear(np.float64(b / 255)).item() for b in srgb_bytes(text))
    return red, green, blue


def srgb_bytes(text: str) -> tuple[int, int, int]:
    """A colour as written as its three sRGB bytes. Raises ValueError for anything else.

    >>> srgb_bytes("#ff8000")
    (255, 128, 0)
    """
    name = text.strip().casefold()
    if name == "rebeccapurple":
        name = "#663399"
    rgb = webcolors.hex_to_rgb(name) if name.startswith("#") else webcolors.name_to_rgb(name)
    return rgb.red, rgb.green, rgb.blue


def pack_colour(red: int, green: int, blue: int) -> int:
    """Three sRGB bytes in one number, as they feed a signal.

    >>> hex(pack_colour(255, 138, 0))
    '0xff8a00'
    """
    return red << 16 | green << 8 | blue


def is_colour(text: str) -> bool:
    """Whether `parse_colour` would take it."""
    try:
        parse_colour(text)
    except ValueError:
        return False
    return True


def srgb_to_linear(level: Any) -> Any:
    """sRGB levels, 0 to 1, to linear light, 0 to 1 (IEC 61966-2-1)."""
    level = np.asarray(level)
    return np.where(level <= 0.04045, level / 12.92, ((level + 0.055) / 1.055) ** 2.4)


def linear_to_srgb(light: Any) -> Any:
    """Linear light, 0 to 1, to sRGB levels, 0 to 1 (IEC 61966-2-1)."""
    light = np.clip(light, 0.0, 1.0)
    return np.where(light <= 0.0031308, light * 12.92, 1.055 * light ** (1 / 2.4) - 0.055)


MANY = 400
"""Spots from which on bytes are quicker made channel by channel than all at once."""

_ZERO, _HALF, _FULL = (np.array(value, np.float32) for value in (0.0, 0.5, 255.0))


def quantise(light: Array, master: np.float32, scratch: Array, planes: Array, out: Array) -> None:
    """Linear light to bytes, rounded to the nearest, after the master level.

    Each is `light * (master * 255) + 0.5`, held within 0 and 255, without its fraction.

    light: (3, n) float32; what is above 1 is full, what is below 0 or no number is dark.
    master: the share of the light that is let through, 0 to 1.
    scratch: (3, n) float32, planes: (3, n) uint8; both overwritten.
    out: (n, 3) uint8.
    """
    np.multiply(light, master * _FULL, scratch)
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
    """Red, green and blue (..., 3) as four channels (..., 4): white gets what they have in common.

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
