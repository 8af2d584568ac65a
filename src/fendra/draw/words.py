"""Words on a picture."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache

from PIL import Image, ImageDraw, ImageFont

from fendra.draw.style import DARK


def write_words(
    picture: Image.Image, title: str, notes: Sequence[str] = (), side: str = "front ↑"
) -> None:
    """Title and notes, a line each, at the left; the side that it is seen from at the right."""
    size = max(picture.height // 34, 11)
    pen = ImageDraw.Draw(picture)
    large, small = _font(size), _font(max(size * 0.68, 9.0))
    pen.text((size, size), title, font=large, fill=DARK.text)
    for row, note in enumerate(notes):
        pen.text((size, size * (3.0 + 1.15 * row)), note, font=small, fill=DARK.faint)
    pen.text((picture.width - size, size), side, font=small, fill=DARK.faint, anchor="ra")


@cache
def _font(size: float) -> ImageFont.FreeTypeFont:
    """The font that comes with Matplotlib, so that pictures look the same everywhere."""
    from matplotlib import font_manager

    return ImageFont.truetype(font_manager.findfont("DejaVu Sans"), size)
