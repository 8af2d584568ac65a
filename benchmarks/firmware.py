"""What the demo's firmware takes on controllers, by emulation: for docs/performance.md.

    .venv-dev/bin/python benchmarks/firmware.py

It runs on an ATmega328P in simavr, which counts its cycles, and needs gcc-avr, avr-libc, simavr and
libsimavr-dev.
"""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

from fendra.firmware.write import write_project
from fendra.native.compiler import find_compiler
from targets import AVR_HZ, Avr, film_of, frames_of, make, project_of, size_of

NAMES = ("swift", "drone", "heron")


def main() -> None:
    """Print a row for each design."""
    with tempfile.TemporaryDirectory() as made:
        folder = Path(made)
        avr = Avr(find_compiler(), folder)
        print("design  LEDs  flash  static  stack  cycles mean, most  frames/s mean, least  an op")
        for name in NAMES:
            on_avr(avr, name, folder)


def on_avr(avr: Avr, name: str, folder: Path) -> None:
    """One design on an ATmega328P: its whole project, and every frame of its tape."""
    project = project_of(name, "avr")
    here = folder / name
    write_project(project.files, here)
    make(here)
    flash, static = size_of("avr-size", here / f"{project.name}.elf")
    _, film = film_of(name)
    ran = avr.film(frames_of(film.design, film.tape), folder)
    lines_s = sum(line.size for line in project.emitted.lines) * 8 * 21 / AVR_HZ
    rates = 1 / (np.array([ran.cycles.mean(), ran.cycles.max()]) / AVR_HZ + lines_s)
    assert project.told is not None
    each = ran.cycles.max() / project.told.cost.operations
    print(
        f"{name:<7} {len(film.layout):>4} {flash:>6} {static:>7} {ran.stack:>6}  "
        f"{ran.cycles.mean():>9,.0f} {ran.cycles.max():>9,}  {rates[0]:>6.1f} {rates[1]:>6.1f}  "
        f"{each:>5.0f}"
    )


if __name__ == "__main__":
    main()
