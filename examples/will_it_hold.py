"""Will it hold? Two metres of LEDs up an arcade cabinet: which fuse, and where to feed them.

Run it: it prints what three ways of wiring come to, and draws the voltage along each into one
picture.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

from matplotlib.figure import Figure

import fendra as fd

AT_ONE_END: list[dict[str, Any]] = [{"at": 0}]
AT_BOTH_ENDS: list[dict[str, Any]] = [{"at": 0}, {"at": "end"}]


def side(feed: list[dict[str, Any]], **led: Any) -> fd.Design:
    """120 LEDs on a 5 V supply of 10 A, through leads of a metre; led: what is known of them."""
    strip = {
        "name": "edge", "shape": "strip", "start": [0, 0], "direction": "up", "count": 120,
        "per_metre": 60,
    }  # fmt: skip
    line = {"name": "side", "led": "edge-led", "supply": "wall"}
    return fd.Design.from_values(
        {
            "name": "Palace, a side panel",
            "leds": {"edge-led": {"like": "ws2812b", **led}},
            "supplies": {"wall": {"volts": 5, "amps": 10, "wire": {"metres": 1, "mm2": 1.5}}},
            "line": [{**line, "feed": feed, "part": [strip]}],
            "layer": [{"name": "warm", "on": "all", "effect": "solid", "colour": "#ffd9a0"}],
        }
    )


def main(into: Path = Path()) -> list[Path]:
    """Compare three ways; gives the picture."""
    figure = Figure(figsize=(12.8, 8.0), layout="constrained")
    ways = {
        "by data sheet, fed at one end": side(AT_ONE_END),
        "fed at both ends": side(AT_BOTH_ENDS),
        "measured: 2.3 A for 60 LEDs": side(AT_ONE_END, measured={"amps": 2.3, "leds": 60}),
    }
    for i, (words, design) in enumerate(ways.items()):
        budget = design.budget()
        supply, line = budget.supplies[0], budget.lines[0]
        print(
            f"{words}: {supply.most_a:.1f} A at the most, fuse {supply.fuse_a:g} A, lowest "
            f"{line.sag.lowest_v:.2f} V at LED {line.sag.at}, feed it too at {line.extra}"
        )
        ax = figure.add_subplot(len(ways), 1, i + 1)
        design.voltage(ax)
        ax.set_title(words, loc="right")
    path = into / "side-voltage.png"
    figure.savefig(path, dpi=100)
    return [path]


if __name__ == "__main__":
    main()
