"""Engines: what runs a plan. All of them give the same bits."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import ClassVar

import numpy as np

from fendra.core.arrays import Array
from fendra.core.composition.plan import Plan
from fendra.core.errors import EngineError
from fendra.core.shown import brief


class Engine(ABC):
    """Runs a plan, and remembers from frame to frame: frames are asked for in order.

    Times are milliseconds of an unsigned 32-bit clock, which may wrap; between two frames lie less
    than 49 days. News are values within +-1e9 by signal; a signal keeps its value until there is
    news of it.
    """

    name: ClassVar[str]

    def __init__(self, plan: Plan) -> None:
        self.plan = plan

    def __repr__(self) -> str:
        return brief("Engine", self.name, f"{self.plan!r}")

    @abstractmethod
    def reset(self) -> None:
        """Forget everything: as after power-up."""

    @abstractmethod
    def light(self, now_ms: int, news: Mapping[str, float]) -> tuple[Array, np.float32]:
        """A frame before it is quantised: linear light, (3, spots) float32, and the master's
        share of it. The array is the engine's own and changes with the next frame.
        """

    def picture(self, name: str, light: Array) -> None:  # noqa: B027 - most engines show none
        """Show a picture from the next frame on: linear light, (all spots, 3) float32."""

    @abstractmethod
    def frame(self, now_ms: int, news: Mapping[str, float], out: Array) -> None:
        """A frame as bytes into `out`, (spots, 3) uint8 without gaps, within the budgets."""

    @abstractmethod
    def gains(self) -> list[int]:
        """The share of the newest frame that the limiter lets through, for each of `plan.limits`;
        `limiter.FULL` is all.
        """

    @abstractmethod
    def memory(self) -> dict[str, float]:
        """Its memory from frame to frame: each memory cell by its name, and the limiters."""

    @abstractmethod
    def recall(self, memory: Mapping[str, float], last_ms: int) -> None:
        """Go on as if that had been remembered, and the last frame been at that time.

        Cells that are not named stay as they are.
        """

    def film(self, times_ms: Array, values: Array, is_new: Array, out: Array, gains: Array) -> None:
        """Write frames in a row into `out`, (frames, spots, 3) uint8 without gaps, and the
        limiter's gain of each into `gains`, (frames, limits) uint32 without gaps.

        times_ms: (frames,) uint32. values, is_new: (frames, signals) float32 and bool, in the order
        of `plan.fed`: the known value of each signal, and whether it is new.
        """
        fed = self.plan.fed
        for row, now_ms in enumerate(times_ms.tolist()):
            heard = {fed[i]: values[row, i].item() for i in np.flatnonzero(is_new[row])}
            self.frame(now_ms, heard, out[row])
            gains[row] = self.gains()


def unknown(step: object, engine: str) -> EngineError:
    """The error of an engine for a step of a plan that it does not know."""
    return EngineError(f"engine '{engine}' does not know the step {type(step).__name__}.")
