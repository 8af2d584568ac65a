"""Two versions of Fendra against each other in one run, turn by turn.

    git worktree add /tmp/before COMMIT
    .venv-dev/bin/python benchmarks/versions.py /tmp/before .

Each version runs in a process of its own, with the same Python and the same packages. They take
turns, so that both see the same machine; what counts is the middle of the ratios. A ratio above 1
says that the second version takes longer.
"""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path
from statistics import median
from time import perf_counter

TURNS = {"start": 15, "help": 15, "load": 25, "compile": 25, "film": 15, "emit": 15, "explain": 15}
SPOTS = (30, 300, 3_000, 100_000)

WORKER = """
import sys, time, warnings
sys.path.insert(0, sys.argv[1] + "/benchmarks")
warnings.simplefilter("ignore")
import numpy as np
import fendra as fd
from scene import fendra_program, state
heron, ride = fd.demo_file("heron.toml"), fd.read_tape(fd.demo_file("ride.csv")).until(10.0)
design = fd.load(heron)
program = design.compile(engine="numpy")
film = program.film(ride)
def fresh():
    return fd.load(heron)
scenes = {n: fendra_program(n, "numpy") for n in SPOTS}
many = {30: 400, 300: 400, 3000: 200, 100000: 12}
def frames(n):
    scene = scenes[n]
    for i in range(many[n]):
        scene.frame(**state(i / 50), at=frames.at + i / 50)
    frames.at += many[n] / 50
frames.at = 1.0
work = {
    "load": lambda _: fresh(), "compile": lambda made: made.compile(engine="numpy"),
    "film": lambda _: program.film(ride), "emit": lambda made: made.emit(),
    "explain": lambda _: film.explain("tail-bar:4", 8.0),
    **{f"frames {n}": (lambda n: lambda _: frames(n))(n) for n in SPOTS},
}
print("ready", flush=True)
for line in sys.stdin:
    name = line.strip()
    made = fresh() if name in ("compile", "emit") else None
    start = time.perf_counter()
    work[name](made)
    print(time.perf_counter() - start, flush=True)
""".replace("SPOTS", repr(SPOTS))


class Version:
    """A checkout, and a process that works in it."""

    def __init__(self, folder: Path) -> None:
        self.environment = {**os.environ, "PYTHONPATH": str(folder.resolve() / "src")}
        command = [sys.executable, "-c", WORKER, str(folder.resolve())]
        self._process = subprocess.Popen(
            command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True, env=self.environment
        )
        self._read()

    def turn(self, name: str) -> float:
        """Seconds that a piece of work takes."""
        if name in ("start", "help"):
            return self._started(["-c", "import fendra"] if name == "start" else
                                 ["-m", "fendra", "--help"])  # fmt: skip
        assert self._process.stdin is not None
        self._process.stdin.write(f"{name}\n")
        self._process.stdin.flush()
        return float(self._read())

    def _read(self) -> str:
        assert self._process.stdout is not None
        line = self._process.stdout.readline()
        if not line:
            raise SystemExit("a version ended before its work was done")
        return line

    def _started(self, words: list[str]) -> float:
        start = perf_counter()
        subprocess.run(
            [sys.executable, *words], env=self.environment, check=True, capture_output=True
        )
        return perf_counter() - start


def main(first: str, second: str) -> None:
    """Print a row for each piece of work."""
    versions = [Version(Path(folder)) for folder in (first, second)]
    print("| work | first, ms | second, ms | second / first | middle half |")
    print("| --- | --- | --- | --- | --- |")
    for name, turns in {**TURNS, **{f"frames {spots}": 31 for spots in SPOTS}}.items():
        pairs = []
        for number in range(turns + 2):
            order = versions if number % 2 else versions[::-1]
            took = {version: version.turn(name) for version in order}
            pairs.append([took[version] for version in versions])
        pairs = pairs[2:]  # the first turns fill caches
        ratios = sorted(b / a for a, b in pairs)
        quarter = len(ratios) // 4
        a, b = (1000 * median(column) for column in zip(*pairs, strict=True))
        span = f"{ratios[quarter]:.2f} to {ratios[-quarter - 1]:.2f}"
        print(f"| {name} | {a:.1f} | {b:.1f} | {median(ratios):.2f} | {span} |", flush=True)


if __name__ == "__main__":
    main(*sys.argv[1:])
