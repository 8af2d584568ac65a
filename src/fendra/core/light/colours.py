"""Colours as people write them, and their linear light."""

from __future__ import annotations

import re
from typing import Any

import numpy as np
import webcolors

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

    >>> srgb_bytes("#ff8000"), srgb_bytes("Dark Orange")
    ((255, 128, 0), (255, 140, 0))
    """
    name = "".join(text.casefold().split())
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


_DIGITS = re.compile(r"(?:#|0x)?([0-9a-f]{6})")
_WHOLE = re.compile(r"\d{1,3}")


def heard_colour(text: str) -> int:
    """A colour as a source or a tape may write it, in one number: see `pack_colour`.

    It is `#rrggbb`, `0xrrggbb`, `rrggbb` or `#rgb`; three whole numbers from 0 to 255, as
    `255,138,0`; a CSS name; or `off`, which is black. Raises ValueError for anything else.

    >>> [hex(heard_colour(text)) for text in ("ff8a00", "0xFF8A00", "255, 138, 0", "Off")]
    ['0xff8a00', '0xff8a00', '0xff8a00', '0x0']
    """
    text = text.strip().casefold()
    if text == "off":
        return 0
    digits = _DIGITS.fullmatch(text)
    if digits is not None:
        return int(digits[1], 16)
    channels = [channel.strip() for channel in text.split(",")]
    if len(channels) == 3 and all(_WHOLE.fullmatch(channel) for channel in channels):
        red, green, blue = map(int, channels)
        if max(red, green, blue) <= 255:
            return pack_colour(red, green, blue)
    return pack_colour(*srgb_bytes(text))


_SHORT_OF_HASH = re.compile(r"(?:0x|#)?(?:([0-9a-f]{6})(?:[0-9a-f]{2})?|([0-9a-f]{3})[0-9a-f]?)")
"""Six digits and two of opacity, or three and one."""


def colour_meant(text: str) -> str | None:
    """The colour that the user meant: digits without #, with 0x, or three numbers.

    >>> colour_meant("ff7a00"), colour_meant("255, 122, 0"), colour_meant("#ff7a0080")
    ('#ff7a00', '#ff7a00', '#ff7a00')
    """
    text = text.strip().casefold()
    if is_colour(text):
        return None
    digits = _SHORT_OF_HASH.fullmatch(text)
    if digits is not None:
        return f"#{digits[1] or digits[2]}"
    if re.fullmatch(r"\d+(?: *, *\d+){2}", text) is None:
        return None
    try:
        return f"#{heard_colour(text):06x}"
    except ValueError:
        return None


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
