"""The shipped drone over a flight: where its LEDs are, from above and below, and two moments.

Run it: it draws `drone-top.png`, `drone-bottom.png`, `drone-climb.png` and `drone-low.png` into the
folder given, or here.
"""

from __future__ import annotations

import sys
from pathlib import Path

import fendra as fd

design = fd.load(fd.demo_file("drone.toml"))
tape = fd.read_tape(fd.demo_file("flight.csv"))


def main(folder: Path) -> list[Path]:
    """List the parts of a wing, then look from both sides, and at full throttle and low battery."""
    leds = design.layout().table()
    print(leds.groupby("part", sort=False)[["x", "y", "z"]].agg(["min", "max"]).round(0))
    film = design.compile().film(tape)
    written = [
        design.save_map(folder / "drone-top.png", show="span"),
        design.save_map(folder / "drone-bottom.png", view="bottom"),
        film.save_still(folder / "drone-climb.png", 7.0),
        film.save_still(folder / "drone-low.png", 26.5, view="bottom"),
    ]
    print("\n".join(f"wrote {path}" for path in written))
    return written


if __name__ == "__main__":
    main(Path(sys.argv[1]) if len(sys.argv) > 1 else Path())
