"""A macro pad built in Python: twelve keys with an LED each, and a ring round the knob.

Run it: it draws `macro-pad-map.png` and `macro-pad.png` into the folder given, or here.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np

import fendra as fd

KEY_MM = 19.05

# Wired back and forth: the second row runs from right to left.
keys = {"name": "keys", "shape": "grid", "columns": 4, "rows": 3, "pitch": KEY_MM,
        "first": "top-left", "back_and_forth": True, "centre": [1.5 * KEY_MM, -KEY_MM]}  # fmt: skip
knob = {"name": "knob", "shape": "ring", "centre": [95, -19], "radius": 15, "count": 12,
        "start_angle": -120, "direction": "clockwise"}  # fmt: skip

design = fd.Design.from_values(
    {
        "name": "Macro pad",
        "outline": [[[-14, 14], [118, 14], [118, -52], [-14, -52], [-14, 14]]],
        "line": [{"name": "pad", "pin": "GP2", "part": [keys, knob]}],
        "trails": {"across": {"of": "keys", "by": "x"}},
        "signals": {"volume": {"range": [0, 1], "smooth": 0.1}, "muted": {"kind": "switch"}},
        "layer": [
            {"name": "keys", "on": "across", "effect": "gradient",
             "colours": ["#0040ff", "#ff00a0"], "rate": 0.1, "level": 0.7},
            {"name": "volume", "on": "knob", "effect": "gauge", "value": "volume"},
            {"name": "muted", "on": "knob", "effect": "pulse", "colour": "red", "when": "muted"},
        ],
    }
)  # fmt: skip


# The volume goes up for four seconds, then it is muted.
times = np.arange(0, 5, 0.05)
tape = fd.Tape(times, {"volume": np.clip(times / 4, 0, 1), "muted": (times > 4.2) * 1.0})


def main(folder: Path) -> list[Path]:
    """Play the tape, and look."""
    film = design.compile().film(tape)
    written = [
        design.save_map(folder / "macro-pad-map.png"),
        film.save_still(folder / "macro-pad.png", 3.0),
    ]
    print("\n".join(f"wrote {path}" for path in written))
    return written


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path())
