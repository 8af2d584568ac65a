"""A tape as the frames of its film get it: their number, their times, and their signals."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from fendra.core.arrays import Floats, Floats32, Ints, Truths
from fendra.core.errors import SignalError
from fendra.core.graph.ops import LARGEST
from fendra.core.signals.tape import Tape


def frame_count(tape: Tape, rate: float) -> int:
    """The number of frames in the film of a tape, at a rate."""
    return int(tape.duration_s * rate + 1e-6) + 1


def frame_times(tape: Tape, rate: float) -> Floats:
    """When they are, in seconds on the tape's clock."""
    return np.asarray(tape.start_s + np.arange(frame_count(tape, rate)) / rate)


def clock_of(tape: Tape, times: Floats, clock_s: float = 0.0) -> Ints:
    """The program's clock at these times, in milliseconds.

    clock_s: the clock at the start of the tape.
    """
    return np.rint((clock_s + times - tape.start_s) * 1000).astype(np.int64)


def heard_by(tape: Tape, fed: Sequence[str], times: Floats) -> tuple[Floats32, Truths]:
    """The known values of the numbers that a program takes, and whether they are new: see
    `Tape.heard`.

    Values are limited to +-1e9, as in a program. If a tape has no signals, all signals take their
    fallback. Raises SignalError for a tape that has signals, but none of these.
    """
    if fed and tape.signals and not {*fed} & {*tape.signals}:
        raise SignalError(
            "the tape has none of the design's signals. It has "
            f"{', '.join(tape.signals)}; the design has {', '.join(fed)}"
        )
    values, is_new = tape.heard(fed, times)
    return np.clip(values, -LARGEST, LARGEST).astype(np.float32), is_new
