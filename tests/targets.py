"""Emitted designs on what they are for: a computer, an 8-bit part in simavr, Cortex-M in qemu."""

from __future__ import annotations

import shutil
import subprocess
from dataclasses import dataclass
from functools import cache
from pathlib import Path

import numpy as np

import fendra as fd
from fendra.core.layout.wire import LineBytes

TAPES = {"heron": "ride", "drone": "flight", "swift": "glide", "pad": "typing", "cabinet": "game"}
"""The demo designs, and what drives them."""
HERE = Path(__file__).parent / "firmware"
SANE = ("-O1", "-g", "-fsanitize=address,undefined,float-cast-overflow,float-divide-by-zero",
        "-fno-sanitize-recover=all")  # fmt: skip
AVR = ("avr-gcc", "-mmcu=atmega328p", "-DF_CPU=16000000UL", "-Os", "-mcall-prologues")
AVR_HZ = 16e6
CORTEX = {
    "cortex-m0": ("microbit", "16K", ()),
    "cortex-m3": ("mps2-an385", "256K", ()),
    "cortex-m4": ("mps2-an386", "256K", ("-mfloat-abi=hard", "-mfpu=fpv4-sp-d16")),
    "cortex-m7": ("mps2-an500", "256K", ("-mfloat-abi=hard", "-mfpu=fpv5-sp-d16")),
}
"""The processor, the board of qemu that has it, its RAM, and the flags for its unit for floats."""


@dataclass
class Frames:
    """A design on a tape: what goes in, frame by frame, and what must come out.

    packed: now_ms, and for each signal a value and whether it is new. bytes: of all lines.
    light: before it is quantised, (frames, LEDs, 3); master: the level of each frame.
    """

    design: object
    packed: np.ndarray
    bytes: np.ndarray
    light: np.ndarray
    master: np.ndarray

    @property
    def signals(self):
        return self.packed.dtype["signals"].shape[0]

    @property
    def leds(self):
        return self.light.shape[1]


def frames_of(design, tape, most=None):
    """The film of a tape, as NumPy makes it, and the light behind it. most: so many frames of it."""
    program = design.compile(engine="numpy")
    if most is not None:
        tape = tape.until(tape.start_s + (most - 1) / design.rate)
    film = program.film(tape)
    values, is_new = tape.heard(program.fed, film.times)
    row = [("now_ms", "<u4"),
           ("signals", [("value", "<f4"), ("is_new", "u1")], (len(program.fed),))]  # fmt: skip
    packed = np.zeros(len(film), np.dtype(row))
    packed["now_ms"] = np.rint((film.times - tape.start_s) * 1000)
    packed["signals"]["value"], packed["signals"]["is_new"] = values, is_new
    wire, engine = LineBytes(program.layout, design), program.engine
    engine.reset()
    light = np.zeros((len(packed), *film.rgb.shape[1:]), np.float32)
    master = np.zeros(len(packed), np.float32)
    for i, each in enumerate(packed):
        news = {name: float(each["signals"]["value"][j]) for j, name in enumerate(program.fed)
                if each["signals"]["is_new"][j]}  # fmt: skip
        channels, master[i] = engine.light(int(each["now_ms"]), news)
        light[i] = channels.T
    lines = np.array([np.concatenate(wire.arrays(frame)) for frame in film.rgb])
    return Frames(design, packed, lines, light, master)


def write(design, folder, at_once=None):
    """The emitted C in a folder, and the flags that name it."""
    emitted = design.emit()
    (folder / f"{emitted.name}.h").write_text(emitted.header, encoding="utf-8")
    (folder / f"{emitted.name}.c").write_text(emitted.source, encoding="utf-8")
    words = [f"-D{word}={emitted.name.upper()}_{word}" for word in ("LEDS", "BYTES")]
    return [
        f"-DPROGRAM={emitted.name}", f'-DPROGRAM_C="{emitted.name}.c"', *words, f"-I{folder}",
        "-ffp-contract=off", *([f"-DAT_ONCE={at_once}"] if at_once else []),
    ]  # fmt: skip


def build(command):
    done = subprocess.run([*map(str, command)], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr[:2000]
    assert done.stderr == ""


def run(command, given):
    done = subprocess.run(
        [*map(str, command)], input=given, capture_output=True, timeout=600, check=False
    )
    assert done.returncode == 0, done.stderr.decode()[-2000:]
    return done


def unpacked(out, frames, *, has_light, has_cycles=False):
    row = [("cycles", "<u4")] if has_cycles else []
    row += [("bytes", "u1", (frames.bytes.shape[1],))]
    row += [("master", "<f4"), ("light", "<f4", (frames.leds, 3))] if has_light else []
    return np.frombuffer(out, np.dtype(row))


def assert_same(got, frames):
    """Byte for byte, and float bit for float bit where there is light."""
    assert len(got) == len(frames.packed)
    different = np.flatnonzero((got["bytes"] != frames.bytes).any(axis=1))
    assert not len(different), f"bytes differ from frame {different[0]} on"
    if "light" in got.dtype.names:
        bits, wanted = (
            np.ascontiguousarray(a).view(np.uint32) for a in (got["light"], frames.light)
        )
        assert (bits == wanted).all()
        assert got["master"].tobytes() == frames.master.tobytes()


def on_computer(compiler, frames, folder, flags=(), at_once=None, *, light=True):
    """Frames that the computer makes, with the sanitisers looking on."""
    named, program = write(frames.design, folder, at_once), folder / "replay"
    build([*compiler.command, "-std=c99", *SANE, *named, *flags, f"-DSIGNALS={frames.signals}",
           *(["-DLIGHT"] if light else []), HERE / "replay.c", "-o", program, "-lm"])  # fmt: skip
    return unpacked(run([program], frames.packed.tobytes()).stdout, frames, has_light=light)


def on_cortex(processor, frames, folder):
    """Frames that a Cortex-M makes in qemu."""
    board, ram, flags = CORTEX[processor]
    program = folder / "replay.elf"
    build(["arm-none-eabi-gcc", f"-mcpu={processor}", "-mthumb", *flags, "-std=c99", "-Os",
           *write(frames.design, folder), f"-DSIGNALS={frames.signals}", "-DLIGHT",
           "-ffunction-sections", "-nostartfiles", f"-Wl,--gc-sections,--defsym=ram_size={ram}", "-T", HERE / "board_arm.ld",
           HERE / "replay.c", HERE / "start_arm.c", "-o", program, "-lm"])  # fmt: skip
    command = ["qemu-system-arm", "-M", board, "-nographic", "-monitor", "none", "-serial", "none",
               "-semihosting-config", "enable=on,target=native", "-kernel", program]  # fmt: skip
    return unpacked(run(command, frames.packed.tobytes()).stdout, frames, has_light=True)


RISCV = ("riscv64-unknown-elf-gcc", "-march=rv32imc", "-mabi=ilp32", "-std=c99", "-Os",
         "--specs=picolibc.specs", "-nostartfiles", "-Wl,--no-warn-rwx-segments")  # fmt: skip
"""A processor like that of an ESP32-C3: 32 bits, without a unit for floats."""


RISCV_PACKAGES = "gcc-riscv64-unknown-elf picolibc-riscv64-unknown-elf qemu-system-misc"


def on_riscv(frames, folder, *, light=True):
    """Frames that a RISC-V makes in qemu."""
    program, here = folder / "replay_riscv.elf", HERE / "riscv"
    build([*RISCV, f"-I{here}", *write(frames.design, folder), f"-DSIGNALS={frames.signals}",
           *(["-DLIGHT"] if light else []), "-T", here / "virt.ld", HERE / "replay.c",
           here / "start.c", "-o", program, "-lm"])  # fmt: skip
    command = ["qemu-system-riscv32", "-M", "virt", "-bios", "none", "-nographic", "-monitor", "none",
               "-serial", "none", "-semihosting-config", "enable=on,target=native", "-kernel",
               program]  # fmt: skip
    return unpacked(run(command, frames.packed.tobytes()).stdout, frames, has_light=light)


@dataclass
class OnAvr:
    """What an 8-bit part made, and took.

    cycles: of each frame. flash, static, stack: bytes; the stack is what was touched.
    """

    frames: np.ndarray
    cycles: np.ndarray
    flash: int
    static: int
    stack: int


class Avr:
    """An ATmega328P in simavr."""

    def __init__(self, compiler, folder):
        self._emulator = folder / "emulate_avr"
        build([*compiler.command, "-O2", "-w", HERE / "emulate_avr.c", "-o", self._emulator,
               "-I/usr/include/simavr", "-lsimavr"])  # fmt: skip

    def run(self, program, given, sizes):
        """What comes out, and the bytes of the stack. sizes: of a frame's signals and bytes."""
        at = {words[-1]: (int(words[0], 16) & 0xFFFF, int(words[1], 16) if len(words) > 3 else 0)
              for words in symbols(program)}  # fmt: skip
        chunk = at.get("light", (0, 0))
        numbers = [at["signals"][0], sizes[0], at["now_ms"][0], at["bytes"][0], sizes[1],
                   at.get("master", (0, 0))[0], chunk[0], chunk[1] // 12, at["_end"][0]]  # fmt: skip
        done = run([self._emulator, program, *numbers], given)
        return done.stdout, int(done.stderr.split()[0])

    def film(self, frames, folder, flags=(), *, light=False):
        """Frames that it makes."""
        program = folder / "replay_avr.elf"
        build([*AVR, "-std=gnu99", *write(frames.design, folder), *flags,
               *(["-DLIGHT"] if light else []), HERE / "replay_avr.c", "-o", program, "-lm"])  # fmt: skip
        packed = frames.packed.tobytes()
        sizes = (frames.packed.dtype["signals"].itemsize, frames.bytes.shape[1])
        out, stack = self.run(program, packed, sizes)
        got = unpacked(out, frames, has_light=light, has_cycles=True)
        size = subprocess.run(["avr-size", program], capture_output=True, text=True, check=True)
        text, data, bss = map(int, size.stdout.splitlines()[1].split()[:3])
        return OnAvr(got, got["cycles"], text + data, data + bss, stack)


def symbols(program):
    listing = subprocess.run(["avr-nm", "-S", program], capture_output=True, text=True, check=True)
    return [line.split() for line in listing.stdout.splitlines()]


def missing(*tools):
    """Those tools that are not there."""
    return [tool for tool in tools if shutil.which(tool) is None]


@cache
def film_of(name):
    design = fd.load(fd.demo_file(f"{name}.toml"))
    return design, design.compile().film(fd.read_tape(fd.demo_file(f"{TAPES[name]}.csv")))


def project_of(name, target, *, receiver=False):
    """The project of a demo design; of receivers, which play no tape, without the tape's work."""
    design, film = film_of(name)
    return design.firmware(target, film=None if receiver else film, receiver=receiver)


def make(folder, *words):
    done = subprocess.run(
        ["make", "-s", "-C", folder, *words], capture_output=True, text=True, check=False
    )
    assert done.returncode == 0, done.stdout + done.stderr
    return done


def size_of(tool, program):
    """Flash and static memory of a program, in bytes."""
    done = subprocess.run([tool, program], capture_output=True, text=True, check=True)
    text, data, bss = map(int, done.stdout.splitlines()[1].split()[:3])
    return text + data, data + bss


def assert_pulses(pulses):
    """What every one-wire type takes: a 0 is high 0.25 to 0.38 us, a 1 0.65 to 0.75 us, and it is
    never low so long that a line takes it for the end of a frame (5 us)."""
    zero, longest_zero, one, longest_one, pause = (cycles / 16 for cycles in pulses)
    assert 0.25 <= zero <= longest_zero <= 0.38
    assert 0.65 <= one <= longest_one <= 0.75
    assert pause < 5
