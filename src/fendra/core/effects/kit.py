"""The kit that effects are written with: all that `fendra.effects` gives, and nothing beside it.

The built-in effects import from here alone, which proves the kit.
"""

from __future__ import annotations

from fendra.core.effects import effect
from fendra.core.effects.fonts import FONTS, Font
from fendra.core.effects.led import Led, Look
from fendra.core.effects.numerals import Hole, characters
from fendra.core.effects.parameters import (
    colour,
    colours,
    number,
    numbers,
    picture,
    place,
    text,
    truth,
    word,
)
from fendra.core.effects.pictures import Picture, sampled
from fendra.core.effects.rows import row_of
from fendra.core.errors import GraphError
from fendra.core.graph.functions import (
    chance,
    clamp,
    even_mix,
    floor,
    fraction,
    hue,
    maximum,
    minimum,
    mix,
    nearest,
    palette,
    pick,
    ramp,
    reached,
    select,
    shift_hue,
    sine,
    smooth,
    sqrt,
    table,
    to_and_fro,
    to_ms,
    to_uint,
    turn_of,
)
from fendra.core.graph.trace import Value

__all__ = [
    "FONTS", "Font", "GraphError", "Hole", "Led", "Look", "Picture", "Value", "chance",
    "characters", "clamp", "colour", "colours", "effect", "even_mix", "floor", "fraction", "hue",
    "maximum", "minimum", "mix", "nearest", "number", "numbers", "palette", "pick", "picture",
    "place", "ramp", "reached", "row_of", "sampled", "select", "shift_hue", "sine", "smooth",
    "sqrt", "table", "text", "to_and_fro", "to_ms", "to_uint", "truth", "turn_of", "word",
]  # fmt: skip
