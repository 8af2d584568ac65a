"""The compilers and emulators of controllers; what is not there is said."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

import fendra as fd
from targets import Avr, frames_of, missing

AVR_PACKAGES = "gcc-avr avr-libc simavr libsimavr-dev"
ARM_PACKAGES = "gcc-arm-none-eabi libnewlib-arm-none-eabi qemu-system-arm"


def need(what, packages):
    """Leave tests out where tools are missing, with the word how to get them; fail in CI."""
    if what:
        reason = f"no {', '.join(what)} (on Debian: apt install {packages})"
        (pytest.fail if os.environ.get("CI") else pytest.skip)(
            f"firmware is not emulated: {reason}"
        )


@pytest.fixture(scope="session")
def avr(compiler, tmp_path_factory):
    """An ATmega328P in simavr."""
    what = missing("avr-gcc", "avr-size")
    what += [] if Path("/usr/include/simavr/sim_avr.h").exists() else ["simavr"]
    need(what, AVR_PACKAGES)
    return Avr(compiler, tmp_path_factory.mktemp("simavr"))


@pytest.fixture(scope="session")
def arm():
    """The tools for a Cortex-M in qemu."""
    need(missing("arm-none-eabi-gcc", "qemu-system-arm"), ARM_PACKAGES)


@pytest.fixture(scope="session")
def demo_frames():
    """The trike on its ride, and the drone on its flight."""
    pairs = {"heron": "ride.csv", "drone": "flight.csv"}
    return {name: frames_of(fd.load(fd.demo_file(f"{name}.toml")), fd.read_tape(fd.demo_file(tape)))
            for name, tape in pairs.items()}  # fmt: skip
