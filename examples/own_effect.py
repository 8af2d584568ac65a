"""A lamp post with an effect of one's own, and a scene for the night.

The effect stands in `effects/barber_pole.py`. Run it: it draws `post-day.png` and `post-night.png`
into the folder given, or here, and says which scene an LED is in.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

import fendra as fd

HERE = Path(__file__).parent
# Python that a design names runs only when you say so.
fd.trust(HERE / "effects" / "barber_pole.py")

# A matrix of 6 x 20 LEDs that stands upright, wired up the first column and down the second.
post = {"name": "post", "shape": "grid", "columns": 6, "rows": 20, "pitch": 12, "wiring": "columns",
        "first": "bottom-left", "back_and_forth": True, "tilt": [90, 0]}  # fmt: skip

design = fd.Design.from_values(
    {
        "name": "Post",
        "supplies": {"mains": {"volts": 5, "amps": 8}},
        "line": [{"name": "post", "supply": "mains", "part": [post]}],
        "effects": ["effects/barber_pole.py"],
        "signals": {"light": {"range": [0, 1], "about": "daylight"}, "wind": {"range": [0, 1]}},
        "scene": [{"name": "night", "when": "light < 0.2", "fade": 1.5}, {"name": "day"}],
        "layer": [
            {"name": "stripes", "on": "post", "effect": "barber-pole", "scene": "day",
             "rate": "0.2 + wind"},
            {"name": "embers", "on": "post", "effect": "flicker", "scene": "night", "level": 0.6},
        ],
    },
    folder=HERE,
)  # fmt: skip

# The sun goes down within six seconds; the wind comes up.
times = np.arange(0, 8, 0.05)
tape = fd.Tape(times, {"light": np.clip(1 - times / 6, 0, 1), "wind": np.clip(times / 8, 0, 1)})


def main(folder: Path) -> list[Path]:
    """Play the evening, and look."""
    film = design.compile().film(tape)
    written = [
        film.save_still(folder / "post-day.png", 2.0, view="back"),
        film.save_still(folder / "post-night.png", 7.0, view="back"),
    ]
    why = film.explain("post:7", 7.0)
    print(f"{why.spot} at 7 s: {', '.join(f'{name} {there:.0%}' for name, there, _ in why.scenes)}")
    print("\n".join(f"wrote {path}" for path in written))
    return written


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path())
