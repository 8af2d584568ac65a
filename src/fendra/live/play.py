"""Test patterns on an output: each step shown, and kept alive, until its time is over."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from contextlib import ExitStack

import numpy as np

from fendra.core.film import Frame
from fendra.core.probe.bench import Bench, PatternStep
from fendra.outputs import Output

KEEP_S = 0.5
"""How often a picture that stays is sent again, so that no receiver takes the stream for dead."""

DARK = PatternStep(np.zeros(0, np.int64), np.zeros((0, 3)), "", 0.0)


def play(
    bench: Bench,
    steps: Sequence[PatternStep],
    level: float,
    outputs: Sequence[Output],
    *,
    say: Callable[[str], object],
    times: int | None = 1,
    enter: Callable[[float], bool] | None = None,
    is_stepped: bool = False,
    clock: Callable[[], float] = time.perf_counter,
    sleep: Callable[[float], None] = time.sleep,
) -> int:
    """Play the steps of a pattern; returns how many were shown. All is dark at the end.

    outputs: each takes its own lines.

    level: linear, 0 to 1. say: takes the words of each step. times: how often, None for ever.
    enter: waits this many seconds for the Enter key, and returns whether it was pressed; that
    ends a pattern or, if is_stepped, the step. clock, sleep: for tests. Raises OutputError.
    """

    def wait(seconds: float) -> bool:
        if enter is not None:
            return enter(max(seconds, 0.0))
        sleep(max(seconds, 0.0))
        return False

    def send(frame: Frame) -> None:
        for output in outputs:
            output.send(frame)

    shown = 0
    with ExitStack() as stack:
        for output in outputs:
            stack.enter_context(output).open(bench.design, bench.addresses)
        try:
            round_ = 0
            while times is None or round_ < times:
                round_ += 1
                for step in steps:
                    if step.words and round_ == 1:
                        say(f"{step.words[:1].upper()}{step.words[1:]}")
                    shown += 1
                    holds = is_stepped and step.waits
                    end_s = clock() + step.seconds
                    has_pressed = False
                    while not has_pressed and (holds or clock() < end_s):
                        send(bench.frame(step, level))
                        left_s = KEEP_S if holds else min(end_s - clock(), KEEP_S)
                        has_pressed = wait(left_s)
                    if has_pressed and not holds:
                        return shown
                if is_stepped and all(step.waits for step in steps):
                    break
        finally:
            send(bench.frame(DARK, 0.0))
    return shown
