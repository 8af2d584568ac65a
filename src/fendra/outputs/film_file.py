"""Frames into a file: a film to look at later, or to play elsewhere.

`.npz`: NumPy's format, with `times` (s), `rgb` (frames, LEDs, 3) uint8, linear, and `parts`. Any
other name: raw bytes, frame after frame, a byte each for red, green and blue of every LED. A
design may name `.npz` and `.rgb`. With `lines`, only the LEDs of those lines, in their order.

Until the film is whole, its frames are in a file beside it, `ride.part.npy` for `ride.npz`. NumPy
can load this file at any moment: an array with `time` and `rgb`, up to the last frame. So an old
film stays until the new one is whole, and a run that is killed leaves its frames.
"""

from __future__ import annotations

import contextlib
import io
import zipfile
from pathlib import Path
from typing import Annotated, Any, BinaryIO

import numpy as np
from pydantic import Field

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.errors import NEVER, FileError, OutputError, reason
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.drivers import is_missing
from fendra.outputs import OutputOptions
from fendra.outputs.files import MARK, FileOutput
from fendra.whole import write_whole


class FilmOptions(OutputOptions):
    """Options of a film file.

    Attributes:
        address: the file: `.npz`, or any other ending for raw bytes
    """

    address: Annotated[str, Field(min_length=1)]


class FilmOutput(FileOutput):
    """Writes every frame that it gets into a file."""

    Options = FilmOptions
    example = "film:ride.npz"
    kind = "film"
    endings = (".npz", ".rgb")

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._made: _Rows | _Pipe | None = None
        self._part = 1

    def __str__(self) -> str:
        return f"film {self.address}"

    @property
    def _target(self) -> Path:
        """The file that is made; after the LEDs changed a further one."""
        name = self.path
        return name if self._part == 1 else name.with_stem(f"{name.stem}-{self._part}")

    def is_ours(self, path: Path) -> bool:
        """Whether it is a `.npz` with our mark; raw bytes have none."""
        with contextlib.suppress(OSError, zipfile.BadZipFile), zipfile.ZipFile(path) as film:
            return "made_by.npy" in film.namelist()
        return False

    def _open(self, design: Design) -> None:
        if self._made is not None:
            return  # a failure stays
        self.check_target()
        self._part += self.sent > 0  # the frames so far are in their file
        self._begin(design)

    def _begin(self, design: Design) -> None:
        count = len(place(design))
        self._is_whole = len(self.wire.spots) == count
        self._leds, self._parts = count, place(design).part_names
        try:
            target = self._target
            is_stream = target.exists() and not target.is_file()
            self._made = _Pipe(target) if is_stream else _Rows(target, len(self.wire.spots))
        except OSError as exc:
            code = NEVER if is_missing(exc) else ""
            raise OutputError(f"{self} cannot be written: {reason(exc)}", code=code) from exc

    def _use(self, design: Design) -> None:
        """Go on in the same file, unless the LEDs are others."""
        if len(place(design)) == self._leds:
            return
        self._close()
        self._part += 1
        self._begin(design)

    def _send(self, frame: Frame) -> None:
        assert self._made is not None
        rgb = frame.rgb if self._is_whole else frame.rgb[self.wire.spots]
        try:
            self._made.write(frame.at_s, rgb)
        except OSError as exc:
            raise OutputError(f"{self} cannot be written: {reason(exc)}") from exc

    def _close(self) -> None:
        """Put the film in its place. If the disk is full now or was at the last frame, the frames
        stay where they are.
        """
        made = self._made
        if made is None or made.is_broken:
            return
        try:
            if isinstance(made, _Rows):
                write_whole(self._target, lambda beside: made.pack(beside, self._parts))
        except FileError as exc:
            made.is_broken = True
            raise OutputError(f"{exc}; {made.count} frames are in '{made.path}'") from exc
        made.close(keep=False)
        self._made = None

    def finish(self) -> None:
        """End the run: a failure now is final. Raises OutputError."""
        made = self._made
        if made is None:
            return
        made.is_broken = False
        try:
            self._close()
        finally:
            if self._made is not None:
                self._made.close(keep=True)
                self._made = None


class _Rows:
    """Frames in a file of NumPy's, one behind the other, whose head is right after each.

    count: of whole frames. is_broken: the last one could not be written.
    """

    def __init__(self, target: Path, leds: int) -> None:
        self._type = np.dtype([("time", "<f8"), ("rgb", "u1", (leds, 3))])
        self._is_raw = target.suffix != ".npz"
        self.count, self.is_broken = 0, False
        self._file, self.path = _new_beside(target)
        try:
            self._head = self._write_head()
        except OSError:
            self.close(keep=False)
            raise

    def _write_head(self) -> int:
        """Write the head for the frames there are; gives its length, which is always the same."""
        head = io.BytesIO()
        kept = np.lib.format.dtype_to_descr(self._type)
        about = {"descr": kept, "fortran_order": False, "shape": (self.count,)}
        np.lib.format.write_array_header_1_0(head, about)
        self._file.seek(0)
        self._file.write(head.getvalue())
        return len(head.getvalue())

    def write(self, at_s: float, rgb: Array) -> None:
        row = np.zeros((), self._type)
        row["time"], row["rgb"] = at_s, rgb
        self._file.seek(self._head + self.count * self._type.itemsize)
        self.is_broken = True
        data = row.tobytes()
        if self._file.write(data) != len(data):
            raise OSError(28, "No space left on device")
        self.count += 1
        self._write_head()
        self.is_broken = False

    def pack(self, beside: Path, parts: tuple[str, ...]) -> None:
        """Write the finished film."""
        shape = (self.count,)
        rows = np.zeros(shape, self._type)
        if self.count:
            rows = np.memmap(self.path, self._type, "r", self._head, shape)
        with beside.open("wb") as file:
            if self._is_raw:
                for row in rows:
                    file.write(row["rgb"].tobytes())
                return
            np.savez_compressed(
                file, times=rows["time"], rgb=rows["rgb"], parts=np.array(parts),
                made_by=np.array(MARK),
            )  # fmt: skip

    def close(self, *, keep: bool) -> None:
        with contextlib.suppress(OSError):
            self._file.close()
        if not keep or self.count == 0:
            self.path.unlink(missing_ok=True)


class _Pipe:
    """A pipe or a device that takes raw frames as they come."""

    def __init__(self, path: Path) -> None:
        self.path, self.count, self.is_broken = path, 0, False
        self._file: BinaryIO = path.open("wb", buffering=0)

    def write(self, at_s: float, rgb: Array) -> None:  # noqa: ARG002 - raw bytes have no time
        self._file.write(rgb.tobytes())
        self.count += 1

    def close(self, *, keep: bool) -> None:  # noqa: ARG002
        with contextlib.suppress(OSError):
            self._file.close()


def _new_beside(target: Path) -> tuple[BinaryIO, Path]:
    """A file for the frames of a film that is made; those of a run that was killed stay."""
    for number in range(1, 1000):
        stem = f"{target.stem}.part" if number == 1 else f"{target.stem}.part-{number}"
        path = target.with_name(f"{stem}.npy")
        with contextlib.suppress(FileExistsError):
            return path.open("xb+", buffering=0), path
    raise OSError(17, f"there are a thousand {target.stem}.part files; delete them")
