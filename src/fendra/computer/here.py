"""The parts that this computer has."""

from __future__ import annotations

import sys

from fendra.computer import sensors
from fendra.computer.parts import Part

if sys.platform == "win32":
    from fendra.computer.windows import PARTS as OWN
elif sys.platform == "darwin":
    from fendra.computer.macos import PARTS as OWN
else:
    from fendra.computer.linux import PARTS as OWN

PARTS: tuple[type[Part], ...] = (*sensors.PARTS, *OWN)
