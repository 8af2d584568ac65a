"""The versions of the scene against each other in one run, turn by turn.

    .venv-dev/bin/python benchmarks/ratio.py

On a shared machine the same code is twice as fast in one second as in the next. Here each takes
a short turn after the other, many times over, so that all see the same machine; what counts is
the middle of the ratios.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from itertools import count
from statistics import median
from time import perf_counter

import numpy as np

from by_hand_c import HandWrittenC
from fendra.native.wasm import WasmEngine
from scene import HandWritten, fendra_program, plain_python, state

TURNS = 60
SPOTS = (30, 300, 3_000, 100_000)


def main() -> None:
    """Print a row for each number of spots, frame by frame and in films."""
    print("A frame, called from Python:\n")
    heads = [
        "spots", "native, ms", "native / C by hand", "NumPy engine / native", "NumPy engine, ms",
        "NumPy by hand / NumPy engine", "plain Python / NumPy engine", "wasm, ms",
        "NumPy engine / wasm",
    ]  # fmt: skip
    print(f"| {' | '.join(heads)} |")
    print("| --- " * len(heads) + "|")
    for spots in SPOTS:
        s = frames_in_turns(spots)
        print(
            f"| {spots:,} | {1000 * median(s['native']):.3f} | {ratio(s, 'native', 'c'):.2f} "
            f"| {ratio(s, 'numpy', 'native'):.1f} | {1000 * median(s['numpy']):.3f} "
            f"| {ratio(s, 'hand', 'numpy'):.2f} | {ratio(s, 'plain', 'numpy'):.0f} "
            f"| {1000 * median(s['wasm']):.3f} | {ratio(s, 'numpy', 'wasm'):.1f} |"
        )
    print("\nA frame of a film, many frames in one call:\n")
    print(
        "| spots | native, ms | native / C by hand | NumPy engine / native | wasm, ms "
        "| NumPy engine / wasm | wasm / native |"
    )
    print("| --- " * 7 + "|")
    for spots in SPOTS:
        s = films_in_turns(spots)
        print(
            f"| {spots:,} | {1000 * median(s['native']):.4f} | {ratio(s, 'native', 'c'):.2f} "
            f"| {ratio(s, 'numpy', 'native'):.1f} | {1000 * median(s['wasm']):.4f} "
            f"| {ratio(s, 'numpy', 'wasm'):.1f} | {ratio(s, 'wasm', 'native'):.1f} |"
        )
    print("\nMaking the engine of a recorded design, in a process that has made others:\n")
    print("| spots | wasm, ms |\n| --- | --- |")
    for spots in SPOTS:
        print(f"| {spots:,} | {1000 * median(compiling(spots)):.0f} |")


def compiling(spots: int) -> list[float]:
    """Seconds to emit a recorded design as WebAssembly and to compile it."""
    plan, seconds = fendra_program(spots, "numpy").plan, []
    for _ in range(7):
        begin = perf_counter()
        WasmEngine(plan)
        seconds.append(perf_counter() - begin)
    return seconds


def ratio(seconds: Mapping[str, list[float]], one: str, other: str) -> float:
    """How many times longer one takes than the other, in the middle turn."""
    return median(np.divide(seconds[one], seconds[other]))


def frames_in_turns(spots: int) -> dict[str, list[float]]:
    """Seconds a frame, turn by turn."""
    native, numpy, wasm = (fendra_program(spots, each) for each in ("native", "numpy", "wasm"))
    assert native.engine.name == "native", "the native engine needs a C compiler"
    hand, by_c, clock = HandWritten(spots), HandWrittenC(spots), count()
    draw: dict[str, Callable[..., object]] = {
        "native": lambda at_s, now: native.frame(now, at=at_s),
        "c": lambda at_s, now: by_c.frame(at_s, **now),
        "numpy": lambda at_s, now: numpy.frame(now, at=at_s),
        "wasm": lambda at_s, now: wasm.frame(now, at=at_s),
        "hand": lambda at_s, now: hand.frame(at_s, **now),
        "plain": lambda at_s, now: plain_python(spots, at_s, **now),
    }
    seconds: dict[str, list[float]] = {name: [] for name in draw}
    for _ in range(TURNS if spots < 100_000 else 12):
        for name, one in draw.items():
            each = 1 if name == "plain" else max(min(30_000 // spots, 200), 5)
            times = [next(clock) / 50 + 1 for _ in range(each)]
            states = [state(at_s) for at_s in times]
            one(times[0] - 0.001, states[0])  # caches and clock rate as it likes them
            begin = perf_counter()
            for at_s, now in zip(times, states, strict=True):
                one(at_s, now)
            seconds[name].append((perf_counter() - begin) / each)
    return seconds


def films_in_turns(spots: int) -> dict[str, list[float]]:
    """Seconds a frame of a film, turn by turn; the engines are called without what is around."""
    frames = max(min(200_000 // spots, 400), 5)
    native, numpy, wasm = (
        fendra_program(spots, each).engine for each in ("native", "numpy", "wasm")
    )
    by_c, fed = HandWrittenC(spots), native.plan.fed
    times = np.arange(frames) / 50
    states = np.array([[state(at_s)[name] for name in fed] for at_s in times], np.float32)
    is_new, rgb = np.ones(states.shape, np.bool_), np.zeros((frames, spots, 3), np.uint8)
    times_ms = np.rint(times * 1000).astype(np.uint32)
    gains = np.zeros((frames, 0), np.uint32)
    assert fed == ("brake", "rpm", "left", "battery")
    draw: dict[str, Callable[[], None]] = {
        "native": lambda: native.film(times_ms, states, is_new, rgb, gains),
        "c": lambda: by_c.film(times, states, rgb),
        "numpy": lambda: numpy.film(times_ms, states, is_new, rgb, gains),
        "wasm": lambda: wasm.film(times_ms, states, is_new, rgb, gains),
    }
    seconds: dict[str, list[float]] = {name: [] for name in draw}
    for _ in range(TURNS):
        for name, one in draw.items():
            one()  # so that each finds the caches and the clock rate as it likes them
            begin = perf_counter()
            one()
            seconds[name].append((perf_counter() - begin) / frames)
    return seconds


if __name__ == "__main__":
    main()
