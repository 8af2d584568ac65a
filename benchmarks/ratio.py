"""The three versions of the scene against each other in one run, turn by turn.

    .venv-dev/bin/python benchmarks/ratio.py

On a shared machine the same code is twice as fast in one second as in the next. Here each takes
a short turn after the other, many times over, so that all see the same machine; what counts is
the middle of the ratios.
"""

from __future__ import annotations

from itertools import count
from statistics import median
from time import perf_counter

import numpy as np

from scene import HandWritten, fendra_program, plain_python, state

TURNS = 60


def main() -> None:
    """Print a row for each number of spots."""
    print("| spots | Fendra, ms | by hand / Fendra | plain Python / Fendra |")
    print("| --- | --- | --- | --- |")
    for spots in (30, 300, 3_000, 100_000):
        program, hand = fendra_program(spots), HandWritten(spots)
        versions = {
            "fendra": lambda at_s, now: program.frame(now, at=at_s),  # noqa: B023
            "hand": lambda at_s, now: hand.frame(at_s, **now),  # noqa: B023
            "plain": lambda at_s, now: plain_python(spots, at_s, **now),  # noqa: B023
        }
        frames = max(min(30_000 // spots, 200), 5)
        clock, seconds = count(), {name: [] for name in versions}
        for _ in range(TURNS if spots < 100_000 else 5):
            for name, draw in versions.items():
                each = 1 if name == "plain" else frames
                times = [next(clock) / 50 for _ in range(each)]
                states = [state(at_s) for at_s in times]
                begin = perf_counter()
                for at_s, now in zip(times, states, strict=True):
                    draw(at_s, now)
                seconds[name].append((perf_counter() - begin) / each)
        ratios = [median(np.divide(seconds[name], seconds["fendra"])) for name in ("hand", "plain")]
        ours_ms = median(seconds["fendra"]) * 1000
        print(f"| {spots:,} | {ours_ms:.3f} | {ratios[0]:.2f} | {ratios[1]:.0f} |")


if __name__ == "__main__":
    main()
