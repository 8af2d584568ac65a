"""What finishing the light costs: a ceiling, white balance, dither, against none of them.

    .venv-dev/bin/python benchmarks/finishes.py

The demo designs on their tapes, in both engines, turn by turn; and the smallest one on an
ATmega328P in simavr, which counts its cycles (gcc-avr, avr-libc, simavr and libsimavr-dev).
"""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path
from statistics import median
from time import perf_counter

import numpy as np

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

import fendra as fd
from fendra.native.compiler import find_compiler
from targets import TAPES, Avr, frames_of

TURNS = 25
FRAMES = 400
NAMES = ("swift", "heron", "cabinet")
KINDS = ("plain", "ceiling", "balance", "dither", "all")


def with_finish(name: str, kind: str) -> fd.Design:
    """A demo design with one kind of finish, or all of them."""
    design = fd.load(fd.demo_file(f"{name}.toml"))
    keys = {}
    if kind in ("ceiling", "all"):
        keys["most"] = 0.5
    if kind in ("dither", "all"):
        keys["dither"] = True
    if kind in ("balance", "all"):
        keys["leds"] = {line.led: {"white": [1.0, 0.8, 0.6]} for line in design.line}
    return fd.Design.from_values({**design.model_dump(exclude_unset=True), **keys})


def main() -> None:
    """Print a row for each design and engine, and one for the controller."""
    print(f"| design | engine | {' | '.join(KINDS[1:])} |")
    print("| --- " * (len(KINDS) + 1) + "|")
    for name in NAMES:
        for engine in ("numpy", "native"):
            seconds = in_turns(name, engine)
            ratios = [median(np.divide(seconds[kind], seconds["plain"])) for kind in KINDS[1:]]
            print(f"| {name} | {engine} | {' | '.join(f'{each:.2f}' for each in ratios)} |")
    cycles, flash = on_avr("swift")
    ratios = [f"{cycles[kind] / cycles['plain']:.2f}" for kind in KINDS[1:]]
    more = [f"{flash[kind] - flash['plain']:+,}" for kind in KINDS[1:]]
    print(f"| swift | ATmega328P, cycles | {' | '.join(ratios)} |")
    print(f"| swift | ATmega328P, bytes of flash | {' | '.join(more)} |")


def in_turns(name: str, engine: str) -> dict[str, list[float]]:
    """Seconds of some frames of a film, turn by turn."""
    programs = {kind: with_finish(name, kind).compile(engine=engine) for kind in KINDS}
    tape = fd.read_tape(fd.demo_file(f"{TAPES[name]}.csv"))
    tape = tape.until(tape.start_s + FRAMES / 50)
    seconds: dict[str, list[float]] = {kind: [] for kind in KINDS}
    for _ in range(TURNS):
        for kind, program in programs.items():
            begin = perf_counter()
            program.film(tape)
            seconds[kind].append(perf_counter() - begin)
    return seconds


def on_avr(name: str) -> tuple[dict[str, float], dict[str, int]]:
    """Cycles of a frame in the mean, and bytes of flash, of each kind."""
    tape = fd.read_tape(fd.demo_file(f"{TAPES[name]}.csv"))
    cycles, flash = {}, {}
    with tempfile.TemporaryDirectory() as made:
        avr = Avr(find_compiler(), Path(made))
        for kind in KINDS:
            ran = avr.film(frames_of(with_finish(name, kind), tape, most=300), Path(made))
            cycles[kind], flash[kind] = float(ran.cycles.mean()), ran.flash
    return cycles, flash


if __name__ == "__main__":
    main()
