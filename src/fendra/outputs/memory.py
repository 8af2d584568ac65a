"""Outputs that send nothing: `memory` keeps its frames, for tests; `null` drops them."""

from __future__ import annotations

from typing import Any

from fendra.core.document.design import Design
from fendra.core.film import Frame
from fendra.outputs import Output


class MemoryOutput(Output):
    """Keeps every frame in `frames`, in the order in which they came."""

    def __init__(self, address: str = "", **options: Any) -> None:
        super().__init__(address, **options)
        self.frames: list[Frame] = []

    def __str__(self) -> str:
        return "memory"

    def _open(self, design: Design) -> None:  # noqa: ARG002 - every design fits
        self.frames.clear()

    def _use(self, design: Design) -> None:
        pass

    def _send(self, frame: Frame) -> None:
        self.frames.append(frame)

    def _close(self) -> None:
        pass


class NullOutput(Output):
    """Forgets every frame: to try sources, and to measure."""

    def __str__(self) -> str:
        return "nowhere"

    def _open(self, design: Design) -> None:
        pass

    def _send(self, frame: Frame) -> None:
        pass

    def _close(self) -> None:
        pass
