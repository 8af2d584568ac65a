"""Draws: a current over a film, in figures."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from fendra.core.arrays import Floats


@dataclass(frozen=True)
class Draw:
    """A current over a film, in amperes.

    peak_a at at_s, which is frame `frame`; mean_a; p99_a: passed in one frame of a hundred.
    layers: the names of those that are on at the peak.
    """

    peak_a: float
    mean_a: float
    p99_a: float
    frame: int
    at_s: float
    layers: tuple[str, ...] = ()


def draw_of(amps: Floats, times: Floats) -> Draw:
    """The figures of a current, (frames,) A, at times, (frames,) s.

    >>> draw_of(np.array([1.0, 3.0, 2.0]), np.array([0.0, 0.5, 1.0])).at_s
    0.5
    """
    frame = int(np.argmax(amps))
    return Draw(
        float(amps[frame]),
        float(amps.mean()),
        float(np.percentile(amps, 99)),
        frame,
        float(times[frame]),
    )
