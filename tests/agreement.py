"""What holds two engines against each other."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import numpy as np

from fendra.core.engine import Engine


def assert_same_light(
    first: Engine, second: Engine, frames: Iterable[tuple[int, Mapping[str, float]]]
) -> None:
    """Both give the same float bits before quantising, frame by frame, and the same bytes.

    frames: (ms to the frame, news) each.
    """
    frames = list(frames)
    shape = (first.recording.spot_count, 3)
    for engine in (first, second):
        engine.reset()
    now_ms = 0
    for number, (step_ms, news) in enumerate(frames):
        now_ms = (now_ms + step_ms) & 0xFFFFFFFF
        (light, master), (other, other_master) = (e.light(now_ms, news) for e in (first, second))
        assert light.tobytes() == other.tobytes(), f"frame {number}: {_differences(light, other)}"
        assert np.float32(master).tobytes() == np.float32(other_master).tobytes()
    for engine in (first, second):
        engine.reset()
    now_ms = 0
    for step_ms, news in frames:
        now_ms = (now_ms + step_ms) & 0xFFFFFFFF
        bytes_of = [np.empty(shape, np.uint8) for _ in range(2)]
        for engine, out in zip((first, second), bytes_of, strict=True):
            engine.frame(now_ms, news, out)
        assert bytes_of[0].tobytes() == bytes_of[1].tobytes()


def _differences(light: np.ndarray, other: np.ndarray) -> str:
    places = np.argwhere(light.view(np.uint32) != other.view(np.uint32))[:5]
    return "; ".join(
        f"{tuple(p.tolist())}: {light[tuple(p)]!r} {other[tuple(p)]!r}" for p in places
    )
