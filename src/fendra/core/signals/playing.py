"""A tape as the frames of its film hear it: how many there are, when, and what they are told."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from fendra.core.arrays import Floats, Floats32, Ints, Truths
from fendra.core.errors import SignalError
from fendra.core.graph.ops import LARGEST
from fendra.core.signals.tape import Tape


def frame_count(tape: Tape, rate: float) -> int:
    """How many frames the film of a tape has, at so many a second."""
    return int(tape.duration_s * rate + 1e-6) + 1


def frame_times(tape: Tape, rate: float) -> Floats:
    """When they are, in seconds on the tape's clock."""
    return np.asarray(tape.start_s + np.arange(frame_count(tape, rate)) / rate)


def clock_of(tape: Tape, times: Floats, clock_s: float = 0.0) -> Ints:
    """What the program's clock shows at such times, in milliseconds.

    clock_s: what it shows as the tape begins.
    """
    return np.rint((clock_s + times - tape.start_s) * 1000).astype(np.int64)


def heard_by(tape: Tape, fed: Sequence[str], times: Floats) -> tuple[Floats32, Truths]:
    """What is known of the numbers that come in, and whether it is news: see `Tape.heard`.

    Values are held within +-1e9, as a program holds what comes in. With a tape without signals,
    all have their fallback. Raises SignalError for a tape that has signals, but none of these.
    """
    if fed and tape.signals and not {*fed} & {*tape.signals}:
        raise SignalError(
            "the tape has none of the design's signals. It has "
            f"{', '.join(tape.signals)}; the design has {', '.join(fed)}"
        )
    values, is_new = tape.heard(fed, times)
    return np.clip(values, -LARGEST, LARGEST).astype(np.float32), is_new
