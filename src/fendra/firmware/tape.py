"""A tape as the program on a computer reads it, with what must come of it."""

from __future__ import annotations

from zlib import crc32

import numpy as np

from fendra.core.composition.plan import Plan
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.graph.ops import LARGEST
from fendra.core.layout.wire import bytes_of_lines
from fendra.core.signals.tape import Tape

SILENT_S = 10.0
"""How long a tape without signals is."""

_HEAD = """\
# Frames for the program beside this file. A row is a frame: its time in ms, then every signal that
# has news, as PLACE=VALUE. Places count the fields of struct {name}_signals:
"""


def tape_text(plan: Plan, tape: Tape | None, rate: float, name: str) -> str:
    """Every frame of a tape with its news, and a checksum of the expected bytes.

    tape: None for a while without signals. rate: frames a second.
    """
    tape = tape or Tape(np.array([0.0, SILENT_S]), {}, "nothing heard")
    count = int(tape.duration_s * rate + 1e-6) + 1
    times = tape.start_s + np.arange(count) / rate
    times_ms = np.rint((times - tape.start_s) * 1000).astype(np.uint32)
    values, is_new = tape.heard(plan.fed, times)
    values = np.clip(values, -LARGEST, LARGEST).astype(np.float32)
    rgb = np.empty((count, plan.spot_count, 3), np.uint8)
    gains = np.empty((count, len(plan.limits)), np.uint32)
    NumpyEngine(plan).film(times_ms, values, is_new, rgb, gains)
    crc = 0
    for frame in rgb:
        crc = crc32(bytes_of_lines(plan.wires, frame), crc)
    text = [_HEAD.format(name=name)]
    text += [f"#   {place} {signal}\n" for place, signal in enumerate(plan.fed)]
    text.append(f"# What follows of {tape.name}: {count} frames, CRC-32 of their bytes\n")
    text.append(f"film {count} frames {crc:08x}\n")
    for row, ms in enumerate(times_ms):
        news = (f" {place}={values[row, place]:.9g}" for place in np.flatnonzero(is_new[row]))
        text.append(f"{ms}{''.join(news)}\n")
    return "".join(text)
