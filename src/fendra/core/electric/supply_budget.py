"""The budget of one supply: its lines together, its fuse, wire and battery."""

from __future__ import annotations

from dataclasses import dataclass

from fendra.core.catalogue.wires import Lead
from fendra.core.electric.draws import Draw
from fendra.core.electric.leads import fuse_for, wire_for
from fendra.core.electric.loads import Feeding
from fendra.core.electric.words import brightest_in_words, in_amps


@dataclass(frozen=True)
class SupplyBudget:
    """One supply: its lines together; see there."""

    feeding: Feeding
    idle_a: float
    white_a: float
    full_a: float
    draw: Draw | None = None

    @property
    def brightest(self) -> str:
        """The colours that draw most, in words."""
        return brightest_in_words(self.white_a, self.full_a)

    @property
    def most_a(self) -> float:
        """At the colours that draw most, as far as the limiter lets it."""
        budget_a = self.feeding.budget_a
        return self.full_a if budget_a is None else min(self.full_a, max(budget_a, self.idle_a))

    @property
    def peak_a(self) -> float:
        """What fuse and wire are chosen for: the most that may come; where no limiter is there to
        hold it, what the film shows, if there is one.
        """
        if self.feeding.budget_a is None and self.draw is not None:
            return self.draw.peak_a
        return self.most_a

    @property
    def headroom(self) -> float | None:
        """The share of its rating that is left at the peak; below 0 where it is too small."""
        amps = self.feeding.amps
        return None if amps is None else 1.0 - self.peak_a / amps

    @property
    def watts(self) -> float:
        """At the peak."""
        return self.peak_a * self.feeding.volts

    @property
    def fuse_a(self) -> float | None:
        """The fuse for its peak, in amperes; None above the largest."""
        return fuse_for(self.peak_a)

    @property
    def wire_mm2(self) -> float | None:
        """The cross-section for its peak and its lead; None above the largest."""
        supply = self.feeding.supply
        metres = (supply.wire if supply else Lead()).metres
        return wire_for(self.peak_a, metres, self.feeding.volts)

    @property
    def hours(self) -> float | None:
        """How long its battery lasts at the film's mean, else at the most; None without one."""
        supply = self.feeding.supply
        if supply is None or supply.battery is None:
            return None
        amps = self.peak_a if self.draw is None else self.draw.mean_a
        if amps <= 0:
            return None
        efficiency = supply.converter.efficiency if supply.converter else 1.0
        return supply.battery.watt_hours * efficiency / (amps * self.feeding.volts)


def peak_in_words(supply: SupplyBudget) -> str:
    """When the peak of a supply falls, and which layers make it."""
    draw = supply.draw
    assert draw is not None
    layers = ", ".join(f"'{name}'" for name in draw.layers) or "no layer is on"
    when = f"{in_amps(draw.peak_a)} at {draw.at_s:.4g} s"
    return f"Peak of {supply.feeding.in_words}, {when}: {layers}"
