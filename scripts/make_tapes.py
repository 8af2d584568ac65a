"""Make the short demo tapes beside the ride: a flight, typing, a game, and a lever that is moved.

Each is a course of points, straight between them, or switches that are on for a time, ten rows a
second. Nothing is random: the same files each time.

    python scripts/make_tapes.py
"""

from __future__ import annotations

import csv
from pathlib import Path

import numpy as np

DEMO = Path(__file__).parents[1] / "src" / "fendra" / "demo"
ROW_S = 0.1

Course = list[tuple[float, float]]

COURSES: dict[str, tuple[float, dict[str, Course]]] = {
    "flight.csv": (
        30.0,
        {
            "throttle": [
                (0, 0), (4, 0), (6, 1), (12, 0.8), (14, 0.5), (24, 0.45), (27, 0.1), (30, 0),
            ],
            "roll": [
                (0, 0), (12, 0), (13, -38), (16, -38), (17, 0), (19, 30), (21, 30), (22, 0),
                (30, 0),
            ],
            "battery": [(0, 16.6), (6, 16.3), (14, 15.6), (24, 14.5), (27, 14.0), (30, 14.3)],
        },
    ),
    "typing.csv": (
        20.0,
        {"volume": [(0, 0.2), (3, 0.2), (7, 0.9), (10, 0.9), (14, 0.5), (20, 0.5)]},
    ),
    "game.csv": (
        25.0,
        {
            "loudness": [
                (0, 0.1), (2, 0.1), (3, 0.6), (6, 0.4), (9, 0.9), (12, 0.5), (15, 1), (18, 0.3),
                (25, 0.1),
            ],
            "lives": [
                (0, 1), (8, 1), (8.1, 0.667), (14, 0.667), (14.1, 0.333), (20, 0.333), (20.1, 0),
            ],
        },
    ),
    "lever.csv": (10.0, {"throttle": [(0, 0), (1, 0), (4, 1), (6, 1), (9, 0), (10, 0)]}),
}  # fmt: skip
"""File to its length in seconds, and the points, (s, value), of each number."""

SWITCHES: dict[str, dict[str, list[tuple[float, float]]]] = {
    "flight.csv": {"armed": [(3, 29)]},
    "typing.csv": {"muted": [(15, 18)], "caps": [(4, 6.5)], "recording": [(8, 17)]},
    "game.csv": {"coin": [(1, 1.3), (22, 22.3)]},
    "lever.csv": {},
}
"""File to the stretches, in seconds, over which each switch is on."""

DIGITS = {"roll": 1, "battery": 2}


def rows(name: str) -> list[list[str]]:
    """The rows of a tape, heads first."""
    length_s, courses = COURSES[name]
    switches = SWITCHES[name]
    table = [["time", *switches, *courses]]
    for number in range(round(length_s / ROW_S) + 1):
        at_s = number * ROW_S
        row = [f"{at_s:.1f}"]
        row += [
            str(int(any(low <= at_s < high for low, high in times))) for times in switches.values()
        ]
        row += [
            f"{np.interp(at_s, *zip(*points, strict=True)):.{DIGITS.get(key, 3)}f}"
            for key, points in courses.items()
        ]
        table.append(row)
    return table


def main(folder: Path = DEMO) -> None:
    """Write them all."""
    for name in COURSES:
        with (folder / name).open("w", newline="", encoding="utf-8") as file:
            csv.writer(file, lineterminator="\n").writerows(rows(name))


if __name__ == "__main__":
    main()
