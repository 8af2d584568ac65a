"""A run as an animated GIF."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Annotated, Any

import numpy as np
from PIL import Image
from pydantic import Field

from fendra.core.document.design import Design
from fendra.core.errors import FendraError, OutputError
from fendra.core.film import Film, Frame
from fendra.core.layout import place
from fendra.core.names import ViewName
from fendra.core.signals.tape import Tape
from fendra.draw.animation import PICTURES_PER_S, write_animation
from fendra.outputs import OutputOptions
from fendra.outputs.files import MAKER, FileOutput


class GifOptions(OutputOptions):
    """Options of a GIF.

    Attributes:
        address: the file
        seconds: how much of the run it shows, from the start
        view: the side it is seen from
    """

    address: Annotated[str, Field(pattern=r"(?i).+\.(gif|png|apng|mp4)$")]
    seconds: Annotated[float, Field(gt=0, le=120)] = 10.0
    view: ViewName = "top"


class GifOutput(FileOutput):
    """Keeps the first seconds of a run, and draws them when it ends."""

    Options = GifOptions
    kind = "gif"
    endings = (".gif", ".png", ".apng", ".mp4")
    options: GifOptions
    example = "gif:look.gif,seconds=5"

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self._frames: list[Frame] = []
        self._is_drawn = False

    def __str__(self) -> str:
        return f"picture {self.address}"

    def _open(self, design: Design) -> None:  # noqa: ARG002 - every design fits
        if not self.path.parent.is_dir():
            raise OutputError(f"there is no folder '{self.path.parent}'")
        self.check_target()

    def is_ours(self, path: Path) -> bool:
        """Whether it is a GIF or PNG with our mark; a film of another kind has none."""
        try:
            with Image.open(path) as picture:
                said = picture.info.get("comment") or picture.info.get("Software") or ""
        except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
            return False
        text = said.decode("ascii", "replace") if isinstance(said, bytes) else said
        return text.startswith(MAKER)

    def _use(self, design: Design) -> None:
        if self._frames and len(place(design)) != len(self._frames[0].layout):
            try:
                self.finish()
            finally:
                self._frames, self._is_drawn = [], True  # the next frames are another picture

    def _send(self, frame: Frame) -> None:
        start_s = self._frames[0].at_s if self._frames else frame.at_s
        if 0 <= frame.at_s - start_s <= self.options.seconds:
            rgb = np.zeros_like(frame.rgb)
            rgb[self.wire.spots] = frame.rgb[self.wire.spots]
            self._frames.append(replace(frame, rgb=rgb))

    def finish(self) -> None:
        """Draw the frames so far."""
        frames = self._frames
        if not frames or self._is_drawn:
            return
        times = np.array([frame.at_s for frame in frames])
        rgb = np.array([frame.rgb for frame in frames])
        tape = Tape(times[:1], {})
        film = Film(times, rgb, frames[0].layout, frames[0].design, tape)
        span_s = max(float(times[-1] - times[0]), 1 / PICTURES_PER_S)
        try:
            write_animation(film, self.path, float(times[0]), span_s, view=self.options.view)
        except FendraError as exc:
            raise OutputError(f"{self}: {exc}") from exc
        self._frames, self._is_drawn = [], True

    def _close(self) -> None:
        self.finish()
