"""What effects of one's own are written with.

A file that a design names in `effects = ["mine.py"]`, or a package with an entry point of the
group `fendra.effects`, marks functions as those of Fendra are marked:

>>> from fendra.effects import Led, Look, colour, effect, number, select, fraction
>>> from fendra.core.effects import gathering
>>> with gathering() as mine:
...     @effect
...     def stripes(led: Led, colour=colour("red", "of the stripes"),
...                 size=number(4, "LEDs", 1, 100, "from stripe to stripe")) -> Look:
...         \"\"\"Every second run of LEDs is lit.\"\"\"
...         return Look(colour, select(fraction(led.rank / size) < 0.5, 1.0, 0.0))
>>> mine["stripes"].parameters["size"].unit
'LEDs'
"""

from __future__ import annotations

from fendra.core.effects import (
    Led,
    Look,
    colour,
    colours,
    effect,
    number,
    numbers,
    picture,
    place,
    text,
    truth,
    word,
)
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
    palette,
    pick,
    ramp,
    select,
    shift_hue,
    sine,
    smooth,
    sqrt,
    table,
    to_and_fro,
    turn_of,
)
from fendra.core.graph.trace import Value

__all__ = [
    "Led", "Look", "Value", "chance", "clamp", "colour", "colours", "effect", "even_mix", "floor",
    "fraction", "hue", "maximum", "minimum", "mix", "number", "numbers", "palette", "pick",
    "picture", "place", "ramp", "select", "shift_hue", "sine", "smooth", "sqrt", "table", "text",
    "to_and_fro", "truth", "turn_of", "word",
]  # fmt: skip
