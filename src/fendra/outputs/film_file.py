"""Frames into a file: a film to look at later, or to play elsewhere.

`.npz`: NumPy's, with `times` (s), `rgb` (frames, LEDs, 3) uint8, linear, and `parts`. Any other
name: raw bytes, frame after frame, a byte each for red, green and blue of every LED. With `lines`
the LEDs of those alone, in their order.
"""

from __future__ import annotations

import contextlib
from pathlib import Path
from typing import Annotated, Any, BinaryIO

import numpy as np
from pydantic import Field

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.errors import OutputError
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.outputs import Output, OutputOptions

MOST_BYTES = 2_000_000_000
"""Of frames that wait in memory for a `.npz`."""


class FilmOptions(OutputOptions):
    """What can be said to a film file.

    address: the file, `.npz` or anything else for raw bytes.
    """

    address: Annotated[str, Field(min_length=1)]


class FilmOutput(Output):
    """Writes every frame that it gets into a file."""

    Options = FilmOptions
    example = "film:ride.npz"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._path = Path(self.address)
        self._file: BinaryIO | None = None
        self._part = 1
        self._times: list[float] = []
        self._frames: list[Array] = []
        self._bytes = 0

    def __str__(self) -> str:
        return f"film {self.address}"

    @property
    def _now(self) -> Path:
        """The file that is written; after the LEDs changed a further one."""
        name = self._path
        return name if self._part == 1 else name.with_stem(f"{name.stem}-{self._part}")

    def _open(self, design: Design) -> None:
        self._leds = len(place(design))
        self._is_whole = len(self.wire.spots) == self._leds
        try:
            self._file = self._now.open("ab" if self.sent else "wb")  # what failed goes on
        except OSError as exc:
            raise OutputError(f"{self} cannot be written: {exc.strerror}") from exc

    def _use(self, design: Design) -> None:
        """Go on in the same file, unless the LEDs are others."""
        if len(place(design)) == self._leds:
            return
        self._close()
        self._part += 1
        self._leds = len(place(design))
        self._file = self._now.open("wb")

    def _send(self, frame: Frame) -> None:
        assert self._file is not None
        rgb = frame.rgb if self._is_whole else frame.rgb[self.wire.spots]
        if self._path.suffix == ".npz":
            self._bytes += rgb.nbytes
            if self._bytes > MOST_BYTES:
                raise OutputError(f"{self} would hold more than {MOST_BYTES / 1e9:g} GB")
            self._times.append(frame.at_s)
            self._frames.append(rgb)
            self._parts = frame.layout.part_names
            return
        try:
            self._file.write(rgb.tobytes())
        except OSError as exc:
            raise OutputError(f"{self} cannot be written: {exc.strerror}") from exc

    def _close(self) -> None:
        if self._file is None:
            return
        try:
            if self._frames:
                np.savez_compressed(
                    self._file, times=np.array(self._times), rgb=np.array(self._frames),
                    parts=np.array(self._parts),
                )  # fmt: skip
            self._file.close()
        except OSError as exc:
            raise OutputError(f"{self} cannot be written: {exc.strerror}") from exc
        finally:
            with contextlib.suppress(OSError):
                self._file.close()
            self._file, self._frames, self._times, self._bytes = None, [], [], 0
