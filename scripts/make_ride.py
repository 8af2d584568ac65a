"""Make the demo tape ride.csv: Heron, driven round the block by a small model.

A rider follows a target speed with throttle and brake; motor, slope, drag and rolling
resistance move 210 kg; the battery sags under the current; the trike leans into turns; a
relay flashes the turn signals. A recorder samples all of it 20 times a second, with the
sensors' noise and steps, and loses the bus for three seconds. Seeded: the same file each time.

    python scripts/make_ride.py
"""

from __future__ import annotations

import csv
import math
from pathlib import Path

import numpy as np

RIDE = Path(__file__).parents[1] / "src" / "fendra" / "demo" / "files" / "ride.csv"

DURATION_S, STEP_S, ROW_S = 90.0, 0.01, 0.05
BUS_GAP_S = (47.0, 50.0)
MASS_KG, GRAVITY = 210.0, 9.81
WHEEL_RADIUS_M, GEAR_RATIO = 0.254, 15.5
MOST_FORCE_N, MOST_POWER_W, MOST_BRAKE_N = 420.0, 1500.0, 900.0
DRAG_AREA_M2, AIR_DENSITY, ROLLING = 0.75, 1.2, 0.008
CELLS_OPEN_V, RESISTANCE_OHM, EFFICIENCY = 47.2, 0.115, 0.86
FLASHES_HZ = 1.45

TARGET_KMH = [  # time in seconds, speed to ride at
    (0, 0), (7, 0), (8, 21), (22.5, 21), (24, 11), (29, 11), (30, 29), (44, 29), (46, 24),
    (52.5, 24), (54, 11), (58.5, 11), (60, 24), (71, 24), (72, 0), (78.5, 0), (79, 17),
    (84, 17), (84.5, 0), (90, 0),
]  # fmt: skip
SLOPE = [  # time in seconds, rise over run
    (0, 0.0), (34, 0.0), (36, -0.03), (43, -0.03), (45, 0.0),
    (60, 0.0), (62, 0.07), (69, 0.07), (71, 0.0), (90, 0.0),
]  # fmt: skip
TURN_RADIUS_M = [(25.0, 28.5, -11.0), (38.0, 41.0, 70.0), (55.0, 58.5, 9.0)]
"""From, to, radius; a left turn is negative."""
LEFT_S, RIGHT_S, LIGHTS_S = (20.5, 28.2), (51.5, 58.2), (2.0, 91.0)


def between(times: tuple[float, float], now_s: float) -> bool:
    return times[0] <= now_s < times[1]


def course(points: list[tuple[float, float]], now_s: float) -> float:
    times, values = zip(*points, strict=True)
    return float(np.interp(now_s, times, values))


def flasher(times: tuple[float, float], now_s: float) -> bool:
    """The relay begins with light, then equal halves."""
    return between(times, now_s) and ((now_s - times[0]) * FLASHES_HZ) % 1.0 < 0.5


def simulate() -> list[dict[str, float]]:
    """The true state every `STEP_S`."""
    speed_ms = throttle = brake = lean_deg = 0.0
    rows = []
    for tick in range(round(DURATION_S / STEP_S) + 1):
        now_s = tick * STEP_S
        error = course(TARGET_KMH, now_s) / 3.6 - speed_ms
        stands = course(TARGET_KMH, now_s) < 0.5
        wanted_throttle = 0.0 if stands else min(max(0.55 * error + 0.03 * speed_ms, 0.0), 1.0)
        wanted_brake = min(max(-0.45 * error - 0.12, 0.0), 1.0)
        if stands and 7.0 < now_s < 86.0:
            wanted_brake = max(wanted_brake, 0.35)
        throttle += (wanted_throttle - throttle) * STEP_S / 0.25
        brake += (wanted_brake - brake) * STEP_S / 0.15

        drive_n = min(throttle * MOST_FORCE_N, throttle * MOST_POWER_W / max(speed_ms, 0.5))
        slope = course(SLOPE, now_s)
        resist_n = 0.5 * AIR_DENSITY * DRAG_AREA_M2 * speed_ms**2 + MASS_KG * GRAVITY * slope
        if speed_ms > 0:
            resist_n += MASS_KG * GRAVITY * ROLLING + brake * MOST_BRAKE_N
        speed_ms = max(speed_ms + (drive_n - resist_n) / MASS_KG * STEP_S, 0.0)

        current_a = (drive_n * speed_ms / EFFICIENCY + 12.0 + 90.0 * throttle) / CELLS_OPEN_V
        radius_m = next((r for a, b, r in TURN_RADIUS_M if a <= now_s < b), math.inf)
        wanted_lean = math.degrees(math.atan(speed_ms**2 / (radius_m * GRAVITY)))
        lean_deg += (wanted_lean - lean_deg) * STEP_S / 0.35
        rows.append(
            {
                "time": now_s,
                "speed": speed_ms * 3.6,
                "rpm": speed_ms / (2 * math.pi * WHEEL_RADIUS_M) * 60 * GEAR_RATIO,
                "throttle": throttle,
                "brake": brake,
                "left": float(flasher(LEFT_S, now_s)),
                "right": float(flasher(RIGHT_S, now_s)),
                "battery": CELLS_OPEN_V - 0.012 * now_s - current_a * RESISTANCE_OHM,
                "lean": lean_deg,
                "lights": float(between(LIGHTS_S, now_s)),
            }
        )
    return rows


def recorded(rows: list[dict[str, float]]) -> list[dict[str, str]]:
    """What the recorder writes: noise, the sensors' steps, and the gap."""
    noise = np.random.default_rng(20)
    written = []
    for row in rows[:: round(ROW_S / STEP_S)]:
        moving = row["speed"] > 0.1
        cells = {
            "time": f"{row['time']:.2f}",
            "speed": f"{max(row['speed'] + moving * noise.normal(0, 0.08), 0):.1f}",
            "rpm": f"{max(row['rpm'] + moving * noise.normal(0, 9), 0):.0f}",
            "throttle": f"{min(max(row['throttle'] + noise.normal(0, 0.002), 0), 1):.2f}",
            "brake": f"{min(max(row['brake'], 0), 1):.2f}",
            "left": f"{row['left']:.0f}",
            "right": f"{row['right']:.0f}",
            "battery": f"{row['battery'] + noise.normal(0, 0.03):.2f}",
            "lean": f"{row['lean'] + noise.normal(0, 0.15):.1f}",
            "lights": f"{row['lights']:.0f}",
        }
        if between(BUS_GAP_S, row["time"]):
            cells = {name: text if name == "time" else "" for name, text in cells.items()}
        written.append(cells)
    return written


def write(path: Path) -> int:
    """Write the tape; gives its number of rows."""
    rows = recorded(simulate())
    with path.open("w", newline="", encoding="utf-8") as file:
        writer = csv.DictWriter(file, fieldnames=list(rows[0]), lineterminator="\n")
        writer.writeheader()
        writer.writerows(rows)
    return len(rows)


if __name__ == "__main__":
    print(f"{RIDE.name}: {write(RIDE)} rows, {DURATION_S:g} s")
