"""Make the short demo tapes beside the ride: a flight, typing, a game, and a lever that is moved.

Each is a course of points, straight between them, steps, or switches that are on for a time, ten
rows a second. Nothing is random: the same files each time.

    python scripts/make_tapes.py
"""

from __future__ import annotations

import csv
from pathlib import Path

import numpy as np

DEMO = Path(__file__).parents[1] / "src" / "fendra" / "demo" / "files"
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
            "pitch": [
                (0, 0), (5, 0), (6.5, 18), (11, 12), (13, 2), (24, 0), (26, -9), (29, 4), (30, 0),
            ],
            "stick_1": [
                (0, 0), (11.5, 0), (12, -0.6), (13.2, 0), (15.8, 0), (16.2, 0.7), (17, 0),
                (18.2, 0.5), (19, 0), (21, -0.5), (22, 0), (30, 0),
            ],
            "stick_2": [
                (0, 0), (5, 0), (5.5, 0.4), (7, 0.1), (12, 0), (25, -0.3), (28, 0.2), (30, 0),
            ],
            "rssi": [(0, 1), (8, 0.95), (14, 0.62), (18, 0.34), (22, 0.55), (30, 0.97)],
        },
    ),
    "typing.csv": (
        24.0,
        {"volume": [(0, 0.2), (3, 0.2), (7, 0.9), (10, 0.9), (14, 0.5), (24, 0.5)]},
    ),
    "game.csv": (
        30.0,
        {
            "loudness": [
                (0, 0.1), (5, 0.1), (6, 0.6), (9, 0.4), (12, 0.9), (15, 0.5), (18, 1), (23, 0.3),
                (30, 0.1),
            ],
            "bass": [(0, 0.1), (5.9, 0.1)] + [(at, level) for beat in range(40)
                     for at, level in ((6 + beat / 2, 0.95), (6.4 + beat / 2, 0.15))],
            "mid": [(0, 0.1), (6, 0.3), (9, 0.8), (12, 0.4), (15, 0.9), (20, 0.5), (30, 0.1)],
            "treble": [(0, 0), (6, 0.1), (8, 0.7), (10, 0.2), (13, 0.8), (17, 0.3), (21, 0.7),
                       (25, 0.1), (30, 0)],
            "score": [(0, 0), (6, 0), (10, 1200), (14, 3400), (17, 3400), (22, 8250), (30, 8250)],
        },
    ),
    "lever.csv": (10.0, {"throttle": [(0, 0), (1, 0), (4, 1), (6, 1), (9, 0), (10, 0)]}),
}  # fmt: skip
"""File to its length in seconds, and the points, (s, value), of each number."""

STEPS: dict[str, dict[str, Course]] = {
    "flight.csv": {"mode": [(0, 0), (11, 1), (17, 2), (22, 11)]},
    "typing.csv": {
        "key": [
            (0, 0),
            (1.0, 4),
            (1.6, 9),
            (2.1, 2),
            (2.7, 6),
            (3.1, 10),
            (3.6, 1),
            (4.2, 7),
            (11.2, 5),
            (12, 8),
            (12.8, 3),
            (19, 0),
            (19.6, 11),
        ]
    },
    "game.csv": {
        "state": [(0, 0), (5.5, 1), (23, 2)],
        "lives": [(0, 3), (11, 2), (17, 1), (23, 0)],
    },
    "lever.csv": {},
}
"""File to the points from which on a number has each value."""

SWITCHES: dict[str, dict[str, list[tuple[float, float]]]] = {
    "flight.csv": {"armed": [(3, 29)]},
    "typing.csv": {
        "muted": [(15, 18)], "caps": [(4, 6.5)], "recording": [(8, 17)],
        "press": [(at, at + 0.2) for at, _ in STEPS["typing.csv"]["key"][1:]],
        "knob": [(10.5, 10.7), (18.5, 18.7)],
    },
    "game.csv": {"coin": [(5, 5.3), (28, 28.3)],
                 "beat": [(6 + beat / 2, 6.1 + beat / 2) for beat in range(34)]},
    "lever.csv": {},
}  # fmt: skip
"""File to the stretches, in seconds, over which each switch is on."""

DIGITS = {"roll": 1, "battery": 2, "score": 0}


def rows(name: str) -> list[list[str]]:
    """The rows of a tape, heads first."""
    length_s, courses = COURSES[name]
    switches, steps = SWITCHES[name], STEPS[name]
    table = [["time", *switches, *steps, *courses]]
    for number in range(round(length_s / ROW_S) + 1):
        at_s = number * ROW_S
        row = [f"{at_s:.1f}"]
        row += [
            str(int(any(low - 1e-9 <= at_s < high - 1e-9 for low, high in times)))
            for times in switches.values()
        ]
        row += [
            f"{[value for start, value in points if start <= at_s + 1e-9][-1]:g}"
            for points in steps.values()
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
