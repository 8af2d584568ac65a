"""Fits what operations cost on each processor: the figures of core/catalogue/cores.toml.

    .venv-dev/bin/python benchmarks/fit_costs.py

On every effect, plain and with everything bound, on 12 and on 40 LEDs, on three dozen designs of
several effects, and on the demo's: the flash of whole projects as the compilers make them, cycles
of an ATmega328P as simavr counts them, instructions of Cortex-M as qemu counts them, at one and a
half cycles each. Sizes are fitted so that none is told too small; of works, one in fourteen is. It
takes eight minutes, and prints what would stand in the file. None of these designs has dither or is
a receiver: what those take is put in by hand. The packages are those of tests/firmware.
"""

from __future__ import annotations

import sys
import tempfile
from collections.abc import Iterator, Mapping
from itertools import chain
from pathlib import Path
from typing import Any

import numpy as np
from scipy.optimize import linprog

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

import fendra as fd
from agreement import BOUND, PLAIN
from fendra.core.effects import EFFECTS
from fendra.core.engines.c99.cost import FLOATS, KINDS
from fendra.core.engines.c99.count import Count
from fendra.firmware.write import write_project
from fendra.native.compiler import find_compiler
from helpers import strip
from targets import Avr, Frames, make, size_of, write
from targets import build as run_tool
from targets import run as run_program

TESTS = Path(__file__).parents[1] / "tests" / "firmware"
CYCLES = 1.5
"""Of an instruction of a Cortex-M, with the waiting for flash."""
CORTEX = {
    "cortex-m0": ("mps2-an385", ["-mcpu=cortex-m0"]),
    "cortex-m3": ("mps2-an385", ["-mcpu=cortex-m3"]),
    "cortex-m4f": (
        "mps2-an386", ["-mcpu=cortex-m4", "-mfloat-abi=hard", "-mfpu=fpv4-sp-d16"],
    ),
}  # fmt: skip

ALONE = {
    "sum": 145, "mul": 150, "div": 480, "compare": 70, "select": 15, "floor": 110, "sqrt": 480,
    "convert": 90, "uint": 15, "shift": 90, "uint_mul": 80, "uint_mul_high": 300, "uint_div": 600,
    "take": 40, "read": 60, "light": 25, "led": 900, "turn": 30, "limit": 1500, "limited": 110,
    "field": 15, "frame": 400, "row": 120,
}  # fmt: skip
"""Cycles on the 8-bit part, as single operations measure there."""
ALONE_ARM = {
    "sum": 60, "mul": 50, "div": 120, "compare": 25, "select": 5, "floor": 30, "sqrt": 150,
    "convert": 25, "uint": 3, "shift": 2, "uint_mul": 3, "uint_mul_high": 6, "uint_div": 15,
    "take": 8, "read": 20, "light": 4, "led": 250, "turn": 10, "limit": 400, "limited": 25,
    "field": 4, "frame": 150, "row": 25,
}  # fmt: skip
"""Instructions on a Cortex-M3; twice as many on an M0, an eighth with a unit for floats."""
ALONE_CODE = {
    "sum": 26, "mul": 26, "div": 30, "compare": 30, "select": 20, "floor": 14, "sqrt": 14,
    "convert": 14, "uint": 20, "shift": 24, "uint_mul": 24, "uint_mul_high": 40, "uint_div": 30,
    "take": 24, "read": 24, "light": 16, "field": 10, "layer": 60,
}  # fmt: skip
"""Bytes of flash of an operation on the 8-bit part; half of that elsewhere."""


def designs() -> Iterator[fd.Design]:
    """Each effect by itself."""
    for effect, about in EFFECTS.items():
        for is_bound in (False, True):
            for leds in (12, 40):
                keys = {
                    key: BOUND[item.kind](item)
                    for key, item in about.parameters.items()
                    if is_bound and item.kind in BOUND and (effect, key) not in PLAIN
                }
                keys |= {"file": "heart.png"} if effect == "picture" else {}
                keys |= {"level": "0.2 + 0.6 * t", "blend": "add"} if is_bound else {}
                line = {"name": "a", "supply": "p", "part": [strip("bar", leds)]}
                supply = {"volts": 5, **({"amps": 0.3} if is_bound and leds == 12 else {})}
                values = {
                    "name": "x", "line": [line], "supplies": {"p": supply},
                    "signals": {"s": {"smooth": 0.05}, "t": {}},
                    "layer": [{"name": "one", "on": "bar", "effect": effect, **keys}],
                }  # fmt: skip
                folder = fd.demo_file("heart.png").parent
                yield fd.Design.from_values(values, folder=folder)


def mixed() -> Iterator[fd.Design]:
    """Several effects each, on two parts of unequal length; some on RGBW, some with a limiter."""
    random = np.random.default_rng(7)
    names = [name for name in EFFECTS if name not in ("picture", "screen-glow")]
    for number in range(36):
        leds = int(random.integers(6, 40))
        chosen = random.choice(names, size=int(random.integers(2, 5)), replace=False)
        line = {
            "name": "a", "supply": "p", "led": "sk6812-rgbw" if number % 3 == 0 else "ws2812b",
            "part": [strip("bar", leds), strip("foo", int(random.integers(3, 20)))],
        }  # fmt: skip
        layers = [
            {
                "name": f"{effect} {i}", "effect": effect, "blend": "add" if i % 2 else "over",
                "on": ("bar", "foo", "all")[int(random.integers(3))],
                **({"level": "0.2 + 0.6 * t"} if random.random() < 0.4 else {}),
            }
            for i, effect in enumerate(chosen.tolist())
        ]  # fmt: skip
        values = {
            "name": "x", "line": [line], "layer": layers,
            "supplies": {"p": {"volts": 5, **({"amps": 0.3} if number % 4 == 1 else {})}},
            "signals": {"s": {"smooth": 0.05}, "t": {}},
        }  # fmt: skip
        yield fd.Design.from_values(values)


def frames_of_chance(design: fd.Design, count: int = 50) -> Frames:
    """Frames with random values of all signals."""
    fed, random = [*design.compile().fed], np.random.default_rng(1)
    row = [("now_ms", "<u4"), ("signals", [("value", "<f4"), ("is_new", "u1")], (len(fed),))]
    packed = np.zeros(count, np.dtype(row))
    packed["now_ms"] = 23 * np.arange(count)
    packed["signals"]["value"] = random.random((count, len(fed)))
    packed["signals"]["is_new"] = 1
    emitted_size = sum(line.size for line in design.emit().lines)
    nothing = np.zeros((count, emitted_size), np.uint8)
    return Frames(design, packed, nothing, np.zeros((count, 1, 3)), np.zeros(count))


def measured(design: fd.Design, avr: Avr, folder: Path) -> dict[str, float]:
    """Flash of its projects, and the mean work of a frame on each processor."""
    found: dict[str, float] = {}
    arm = "arm-none-eabi-size"
    tools = {"avr": "avr-size", "arm": arm, "rp2040": arm, "stm32f405": arm}
    for target, tool in tools.items():
        here = folder / target
        write_project(design.firmware(target).files, here)
        make(here, "clean")
        make(here)
        found[f"flash {target}"] = size_of(tool, here / "x.elf")[0]
    frames = frames_of_chance(design)
    on_avr = avr.film(frames, folder)
    found["avr"], found["stack avr"] = float(on_avr.cycles.mean()), float(on_avr.stack)
    for name, (board, flags) in CORTEX.items():
        program = folder / "count.elf"
        run_tool(["arm-none-eabi-gcc", *flags, "-mthumb", "-std=c99", "-Os", *write(design, folder),
                  f"-DSIGNALS={frames.signals}", "-DCOUNT", "-ffunction-sections",
                  "-nostartfiles", "-Wl,--gc-sections,--defsym=ram_size=256K", "-T",
                  TESTS / "board_arm.ld",
                  TESTS / "replay.c", TESTS / "start_arm.c", "-o", program, "-lm"])  # fmt: skip
        out = run_program(["qemu-system-arm", "-icount", "shift=0", "-M", board, "-nographic",
                           "-monitor", "none", "-serial", "none", "-semihosting-config",
                           "enable=on,target=native", "-kernel", program],
                          frames.packed.tobytes()).stdout  # fmt: skip
        found[name] = CYCLES * float(np.frombuffer(out, "<u4").mean())
    return found


KIND_OF = {name: kind for kind, names in KINDS.items() for name in names}


def work_of(count: Count) -> dict[str, float]:
    """How often each thing is done in a frame."""
    done: dict[str, float] = dict.fromkeys([*KINDS, "led", "turn", "row"], 0.0)
    done |= {"frame": 1, "led": count.leds, "field": count.fields, "limit": count.limits,
             "limited": count.limits * count.leds}  # fmt: skip
    for layer in count.layers:
        done["turn"] += layer.leds
        done["row"] += layer.rows * -(-count.leds // 16)
        for name, times in layer.led.items():
            done[KIND_OF[name]] += times * layer.leds
    for part in (count.frame, *(layer.frame for layer in count.layers)):
        for name, times in part.items():
            done[KIND_OF[name]] += times
    return done


def code_of(count: Count) -> dict[str, float]:
    """How often each thing is written, and whether it is there at all."""
    written: dict[str, float] = dict.fromkeys(KINDS, 0.0)
    written |= {"base": 1, "field": count.fields, "limit": count.limits, "layer": len(count.layers),
                "scenes": any(each.scenes is not None for each in count.layers)}  # fmt: skip
    parts = [part for layer in count.layers for part in (layer.frame, layer.led)]
    for part in (count.frame, *parts):
        for name, times in part.items():
            written[KIND_OF[name]] += times
    for kind in ONCE:
        is_there = any(written[each] for each in FLOATS) if kind == "float" else written[kind]
        written[f"once {kind}"] = float(is_there > 0)
    return written


ONCE = ("float", "div", "sqrt", "floor", "compare", "select", "shift", "uint_mul_high", "uint_div",
        "light")  # fmt: skip
"""Kinds of operations that bring a piece of library with them, however often they are there."""
MARGIN = 1.012
"""What a size is told larger than the largest that was measured asks for."""
SURE = 0.93
"""The share of programs whose work is told as much as it is, or more."""


def fit_code(rows: list[dict[str, float]], wanted: Any, alone: Mapping[str, float]) -> Any:
    """Costs that tell none of the sizes too small, and together as little too large as can be."""
    keys, wanted = [*rows[0]], np.array(wanted, float)
    known = np.array([[row[key] for key in keys] for row in rows])
    low = [0.2 * alone.get(key, 0.0) for key in keys]
    over = (known / wanted[:, None]).mean(axis=0)
    found = linprog(over, -known, -MARGIN * wanted, bounds=[(each, None) for each in low]).x
    return dict(zip(keys, found, strict=True)), known @ found / wanted - 1


def fit_work(rows: list[dict[str, float]], wanted: Any, alone: Mapping[str, float]) -> Any:
    """Costs that tell so many of the works too small as `SURE` lets, held near what operations take
    alone.
    """
    keys, wanted = [*rows[0]], np.array(wanted, float)
    known = np.array([[row[key] for key in keys] for row in rows])
    count = len(wanted)
    price = [0.0] * len(keys) + [SURE] * count + [1 - SURE] * count
    sides = np.hstack([known / wanted[:, None], np.eye(count), -np.eye(count)])
    bounds: list[tuple[float, float | None]] = [
        (0.4 * alone[key], 2.2 * alone[key]) if key in alone else (0.0, None) for key in keys
    ]
    bounds += [(0.0, None)] * (2 * count)
    found = linprog(price, A_eq=sides, b_eq=np.ones(count), bounds=bounds).x[: len(keys)]
    return dict(zip(keys, found, strict=True)), known @ found / wanted - 1


def show(name: str, costs: Mapping[str, float], error: Any) -> None:
    """A table as it would stand in the file, and how near it comes."""
    print(f"\n# told {100 * error.min():.0f} to {100 * error.max():.0f} % too much, "
          f"{100 * error.mean():.0f} in the mean\n[{name}]")  # fmt: skip
    print("\n".join(f"{key} = {cost:.3g}" for key, cost in costs.items()))


def main() -> None:
    """Measure, fit, print."""
    counts, found = [], []
    with tempfile.TemporaryDirectory() as name:
        avr = Avr(find_compiler(), Path(name))
        for number, design in enumerate(chain(mixed(), designs()), 1):
            count = design.emit().count
            try:
                found.append(measured(design, avr, Path(name)))
                counts.append(count)
            except AssertionError:  # an effect that is too large for 32 KB
                print(f"left out: {design.layer[0].effect}", file=sys.stderr)
            print(f"\r{number}", end="", file=sys.stderr, flush=True)
    code, tables = [code_of(count) for count in counts], np.array([c.tables for c in counts])
    targets = {"avr": ("avr", 1.0), "rp2040": ("cortex-m0", 0.45), "arm": ("cortex-m3", 0.45),
               "stm32f405": ("cortex-m4f", 0.3)}  # fmt: skip
    for target, (core, share) in targets.items():
        flash = np.array([each[f"flash {target}"] for each in found]) - tables
        alone = {key: share * cost for key, cost in ALONE_CODE.items()}
        costs, error = fit_code(code, flash, alone)
        show(f"{core}.code", {k: v for k, v in costs.items() if not k.startswith("once ")}, error)
        once = {k.removeprefix("once "): v for k, v in costs.items() if k.startswith("once ")}
        show(f"{core}.once", once, error)
    work = [work_of(count) for count in counts]
    shares = {"cortex-m0": 2.0, "cortex-m3": 1.0, "cortex-m4f": 0.12}
    for core in ("avr", *CORTEX):
        alone = dict(ALONE) if core == "avr" else {
            key: max(CYCLES * shares[core] * cost, 0.5) for key, cost in ALONE_ARM.items()
        }  # fmt: skip
        show(f"{core}.work", *fit_work(work, [each[core] for each in found], alone))


if __name__ == "__main__":
    main()
