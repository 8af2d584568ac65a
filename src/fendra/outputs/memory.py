"""An output that keeps its frames: for tests, and to look at what would have been sent."""

from __future__ import annotations

from fendra.core.design import Design
from fendra.core.film import Frame
from fendra.outputs import Output


class MemoryOutput(Output):
    """Keeps every frame in `frames`, in the order in which they came."""

    def __init__(self, address: str = "") -> None:
        super().__init__(address)
        self.frames: list[Frame] = []

    def __str__(self) -> str:
        return "memory"

    def _open(self, design: Design) -> None:  # noqa: ARG002 - every design fits
        self.frames.clear()

    def _send(self, frame: Frame) -> None:
        self.frames.append(frame)

    def _close(self) -> None:
        pass
