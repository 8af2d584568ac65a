"""The scene in C written by hand, compiled with the flags of the native engine."""

from __future__ import annotations

import ctypes
import tempfile
from pathlib import Path
from typing import Any

import numpy as np

from fendra.native.compiler import find_compiler
from scene import GOLD, LIME, RED

SOURCE = Path(__file__).parent / "scene.c"


class _Scene(ctypes.Structure):
    _fields_ = [("spots", ctypes.c_int), ("third", ctypes.c_int)] + [
        (name, ctypes.c_void_p) for name in ("along", "ramp_red", "ramp_green")
    ]


class _State(ctypes.Structure):
    _fields_ = [(name, ctypes.c_float) for name in ("brake", "rpm", "left", "battery")]


class HandWrittenC:
    """Like `HandWritten`, with everything that a frame does in C."""

    def __init__(self, spots: int) -> None:
        third = spots // 3
        way = np.linspace(0, 1, third, dtype=np.float32)
        low, high = np.clip(2 * way, 0, 1), np.clip(2 * way - 1, 0, 1)
        ramps = [
            ((a + (b - a) * low) * (1 - high) + c * high).astype(np.float32)
            for a, b, c in zip(LIME, GOLD, RED, strict=True)
        ]
        self._arrays = [np.linspace(0, 1, spots, dtype=np.float32), *ramps[:2]]
        self._scene = _Scene(spots, third, *(array.ctypes.data for array in self._arrays))
        self._spots = spots
        with tempfile.TemporaryDirectory() as folder:
            target = Path(folder) / "scene.so"
            find_compiler().make_library(SOURCE.read_text(encoding="utf-8"), target)
            library = ctypes.CDLL(str(target))
        pointer = ctypes.c_void_p
        self._frame, self._film = library.scene_frame, library.scene_film
        self._frame.restype = self._film.restype = None
        self._frame.argtypes = [pointer, ctypes.c_double, _State, pointer]
        self._film.argtypes = [pointer, pointer, pointer, ctypes.c_int, pointer]

    def frame(self, at_s: float, brake: float, rpm: float, left: float, battery: float) -> Any:
        rgb = np.empty((self._spots, 3), np.uint8)
        state = _State(brake, rpm, left, battery)
        self._frame(ctypes.addressof(self._scene), at_s, state, rgb.ctypes.data)
        return rgb

    def film(self, times: Any, states: Any, rgb: Any) -> None:
        """times: (frames,) float64 seconds. states: (frames, 4) float32. rgb: filled."""
        self._film(
            ctypes.addressof(self._scene), times.ctypes.data, states.ctypes.data, len(times),
            rgb.ctypes.data,
        )  # fmt: skip
