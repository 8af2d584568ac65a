"""The compilers and emulators of controllers; what is not there is said."""

from __future__ import annotations

import subprocess
from pathlib import Path

import numpy as np
import pytest

from targets import HERE, Avr, build, film_of, frames_of, missing

AVR_PACKAGES = "gcc-avr avr-libc simavr libsimavr-dev"
ARM_PACKAGES = "gcc-arm-none-eabi libnewlib-arm-none-eabi qemu-system-arm"


@pytest.fixture(scope="session")
def avr(need, compiler, tmp_path_factory):
    """An ATmega328P in simavr."""
    what = missing("avr-gcc", "avr-size")
    what += [] if Path("/usr/include/simavr/sim_avr.h").exists() else ["simavr"]
    need(what, AVR_PACKAGES)
    return Avr(compiler, tmp_path_factory.mktemp("simavr"))


@pytest.fixture(scope="session")
def arm(need):
    """The tools for a Cortex-M in qemu."""
    need(missing("arm-none-eabi-gcc", "qemu-system-arm"), ARM_PACKAGES)


@pytest.fixture(scope="session")
def demo_frames():
    """The trike on its ride, with ten frames a second, and the drone on its flight."""
    films = {name: film_of(name)[1] for name in ("heron", "drone")}
    slow = films["heron"].design.model_copy(update={"rate": 10.0})
    return {
        "heron": frames_of(slow, films["heron"].tape),
        "drone": frames_of(films["drone"].design, films["drone"].tape),
    }


@pytest.fixture(scope="session")
def board(avr, compiler, tmp_path_factory):
    """Runs a whole firmware with its pins."""
    program = tmp_path_factory.mktemp("board") / "emulate_board"
    build([*compiler.command, "-O2", "-w", HERE / "emulate_board.c", "-o", program,
           "-I/usr/include/simavr", "-lsimavr"])  # fmt: skip

    def run(firmware, words, given):
        done = subprocess.run(
            [program, firmware, *words], input=given, capture_output=True, timeout=300, check=False
        )
        said = done.stderr.decode(errors="replace")
        assert done.returncode == 0, said[-500:]
        size = 4 + sum(int(word.partition(":")[2]) for word in words if ":" in word)
        whole = done.stdout[: len(done.stdout) // size * size]
        frames = np.frombuffer(whole, [("us", "<u4"), ("bytes", "u1", (size - 4,))])
        rows = [row.split() for row in said.splitlines()]
        pulses = next([int(word) for word in row[1:]] for row in rows if row[:1] == ["pulses"])
        back = bytes(int(row[1], 16) for row in rows if row[:1] == ["back"])
        return frames, pulses, back

    return run
