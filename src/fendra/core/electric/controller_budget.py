"""The budget of one controller: memory, logic, and the load of its link."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fendra.core.document.design import Design
from fendra.core.document.line import Controller
from fendra.core.electric.data import (
    baud_for,
    sacn_mbit,
    serial_bytes,
    serial_rate_hz,
    universes,
)
from fendra.core.electric.line_budget import LineBudget


@dataclass(frozen=True)
class ControllerBudget:
    """One controller; name and controller are empty if the design speaks of none.

    lines: those plugged into it. pixel_bytes: of its lines, one frame. ram: bytes; logic_volts: of
    its pins; None if nothing is known. lowest_baud: of the usual ones, that carries the rate.
    """

    name: str
    controller: Controller | None
    lines: tuple[LineBudget, ...]
    rate_hz: float

    @property
    def sizes(self) -> list[tuple[int, int]]:
        """Addresses and bytes a pixel of each line."""
        return [(line.addresses, len(line.line.wire_order)) for line in self.lines]

    @property
    def line_bytes(self) -> list[int]:
        return [count * size for count, size in self.sizes]

    @property
    def pixel_bytes(self) -> int:
        return sum(self.line_bytes)

    @property
    def ram(self) -> int | None:
        if self.controller is None:
            return None
        kind = self.controller.known_type
        return self.controller.ram or (kind.ram if kind else None)

    @property
    def logic_volts(self) -> float | None:
        if self.controller is None:
            return None
        kind = self.controller.known_type
        return self.controller.logic_volts or (kind.logic_volts if kind else None)

    @property
    def serial_bytes(self) -> int:
        """Of a frame in the serial stream."""
        return serial_bytes(self.line_bytes)

    @property
    def lowest_baud(self) -> int | None:
        return baud_for(self.line_bytes, self.rate_hz)

    @property
    def universes(self) -> int:
        return universes(self.sizes)

    @property
    def sacn_mbit(self) -> float:
        return sacn_mbit(self.sizes, self.rate_hz)

    @property
    def link_hz(self) -> float | None:
        """Frames a second that its link carries; None if the design gives no link."""
        link = self.controller.link if self.controller else None
        if link is None:
            return None
        if link.baud is not None:
            return serial_rate_hz(self.line_bytes, link.baud)
        if link.network is not None:
            return link.mbit / sacn_mbit(self.sizes, 1.0)
        return None

    @property
    def load(self) -> float | None:
        """The share of its link that the design's rate takes; above 1 it is too slow."""
        return None if self.link_hz is None else self.rate_hz / self.link_hz

    @property
    def slowest(self) -> LineBudget | None:
        """The line that takes longest."""
        return max(self.lines, key=lambda line: line.time_s, default=None)


def controller_budgets(design: Design, lines: Sequence[LineBudget]) -> list[ControllerBudget]:
    """Each controller with its lines; one without a name if the design has none."""
    if not design.controllers:
        return [ControllerBudget("", None, tuple(lines), design.rate)]
    by_number = {line.number: line for line in lines}
    return [
        ControllerBudget(
            name,
            controller,
            tuple(by_number[i] for i in design.lines_of(name) if i in by_number),
            design.rate,
        )
        for name, controller in design.controllers.items()
    ]
