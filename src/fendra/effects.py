"""The kit for writing effects: Fendra's own are written with it, and yours can be.

A file that a design names in `effects = ["mine.py"]`, or a package with an entry point of the
group `fendra.effects`, marks its functions in the same way:

>>> from fendra.effects import Led, Look, colour, effect, fraction, number
>>> from fendra.core.effects import gathering
>>> with gathering() as mine:
...     @effect
...     def stripes(led: Led, colour=colour("red", "of the stripes"),
...                 size=number(4, "LEDs", 1, 100, "from stripe to stripe")) -> Look:
...         \"\"\"Every second run of LEDs is lit.\"\"\"
...         return Look(colour, fraction(led.rank / size) < 0.5)
>>> mine["stripes"].parameters["size"].unit
'LEDs'
"""

from __future__ import annotations

from fendra.core.effects.kit import *  # noqa: F403 - the kit whole, by its own list
from fendra.core.effects.kit import __all__  # noqa: F401 - for whoever imports all of it here
