"""What firmware needs on each chip of the table, told against real: the table of docs/firmware.md.

    .venv-dev/bin/python benchmarks/boards.py [CHIP ...]

Swift, Kestrel and Heron are built for each chip; flash and RAM are as the linker has them. Frames a
second are measured at the pins of the emulated chip, where there is one: with a rate of 1,000 the
loop never waits, and frames are counted while a design hears nothing. Of the others the table has
what is told alone. The packages are those of tests/firmware.
"""

from __future__ import annotations

import subprocess
import sys
import tempfile
from dataclasses import replace
from pathlib import Path

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

import numpy as np

import fendra as fd
from fendra.core.errors import FirmwareError
from fendra.firmware.chips import CHIPS
from fendra.firmware.write import write_project
from fendra.native.compiler import find_compiler
from rp2040 import emulate, outs_of
from targets import HERE, build, make, size_of

DESIGNS = {"swift": "Swift", "drone": "Kestrel", "heron": "Heron"}
SECONDS = 3
SIZES = {"avr": "avr-size", "arm": "arm-none-eabi-size", "rp2040": "arm-none-eabi-size"}


def quick(name):
    """A demo design whose loop never waits."""
    return fd.load(fd.demo_file(f"{name}.toml")).model_copy(update={"rate": 1000.0})


def frames_on_avr(project, elf, chip, emulator):
    """How many frames leave the pins in a second, after the first."""
    outs = []
    for line, (pin, _) in zip(project.emitted.lines, project.pins, strict=False):
        own = pin.partition("(")[2].rstrip(")") or pin
        outs.append(f"out={own[1]}{own[2:]}:{line.size}")
    done = subprocess.run(
        [emulator, elf, f"mcu={chip}", *outs, "timed"],
        input=f"{SECONDS * 16_000_000} end\n".encode(), capture_output=True, check=True,
    )  # fmt: skip
    size = 4 + sum(line.size for line in project.emitted.lines)
    return (len(done.stdout) // size - 1) / SECONDS


def measured(chip, name, folder, emulator):
    """Flash, RAM, and frames a second, where they can be had."""
    design = quick(name)
    silent = fd.load(fd.demo_file(f"{name}.toml"))
    none = np.full(2, np.nan)
    nothing = fd.Tape(np.array([0.0, SECONDS]), {next(iter(silent.signals)): none}, "nothing heard")
    film = silent.compile().film(nothing)
    project = replace(design.firmware(chip), told=silent.firmware(chip, film=film).told)
    write_project(project.files, folder)
    kind = project.kind
    told = project.told.cost if project.told else None
    work = project.told.on_tape[0] if project.told else None
    if kind not in SIZES:
        return told, work, None, None, None
    make(folder)
    elf = folder / f"{project.name}.elf"
    flash, ram = size_of(SIZES[kind], elf)
    rate = None
    if kind == "rp2040":
        (board,) = emulate(
            {"uf2": str(folder / f"{project.name}.uf2"), "outs": outs_of(project)}, seconds=1
        )
        rate = len(board["lines"][0]["frames"]) - 1
        ram += flash
    elif kind == "avr":
        rate = frames_on_avr(project, elf, chip, emulator)
    return told, work, flash, ram, rate


def main():
    chips = sys.argv[1:] or [*CHIPS]
    with tempfile.TemporaryDirectory() as folder:
        emulator = Path(folder) / "emulate_board"
        build([*find_compiler().command, "-O2", "-w", HERE / "emulate_board.c", "-o", emulator,
               "-I/usr/include/simavr", "-lsimavr"])  # fmt: skip
        for chip in chips:
            for name, title in DESIGNS.items():
                place = Path(folder) / f"{chip}-{name}"
                try:
                    told, work, flash, ram, rate = measured(chip, name, place, emulator)
                except (FirmwareError, AssertionError) as exc:
                    print(f"| {chip} | {title} | {str(exc).splitlines()[-1][:70]} |")
                    continue
                if told is None:
                    print(f"| {chip} | {title} | told nothing |")
                    continue
                mean_hz = told.rate_of(work)
                rows = [(told.flash, flash), (told.memory, ram), (mean_hz, rate)]
                cells = (f"{a:,.0f} / {b:,.0f}" if b else f"{a:,.0f} / -" for a, b in rows)
                print(f"| {chip} | {title} | {' | '.join(cells)} |", flush=True)


if __name__ == "__main__":
    main()
