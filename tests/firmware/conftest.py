"""The compilers and emulators of controllers; what is not there is said."""

from __future__ import annotations

import os
from pathlib import Path

import pytest

from targets import Avr, film_of, frames_of, missing

AVR_PACKAGES = "gcc-avr avr-libc simavr libsimavr-dev"
ARM_PACKAGES = "gcc-arm-none-eabi libnewlib-arm-none-eabi qemu-system-arm"


@pytest.fixture(scope="session")
def need():
    """Leaves tests out where tools are missing, with the word how to get them; fails in CI."""

    def ask(what, packages):
        if what:
            reason = f"no {', '.join(what)} (on Debian: apt install {packages})"
            tell = pytest.fail if os.environ.get("CI") else pytest.skip
            tell(f"firmware is left out: {reason}")

    return ask


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
