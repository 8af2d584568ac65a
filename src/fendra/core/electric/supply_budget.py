"""The budget of one supply: its lines together, its fuse, wire and battery."""

from __future__ import annotations

from dataclasses import dataclass

from fendra.core.catalogue.supplies import RATINGS_A, SHARE
from fendra.core.catalogue.wires import Lead
from fendra.core.electric.draws import Draw
from fendra.core.electric.leads import fuse_for, wire_for
from fendra.core.electric.loads import Feeding
from fendra.core.electric.words import brightest_in_words, in_amps
from fendra.core.shown import brief


@dataclass(frozen=True)
class SupplyBudget:
    """One supply: its lines together; see there. leds: how many it feeds."""

    feeding: Feeding
    idle_a: float
    white_a: float
    full_a: float
    draw: Draw | None = None
    leds: int = 0

    def __repr__(self) -> str:
        return brief(
            "SupplyBudget", self.feeding.name, f"{in_amps(self.idle_a)} dark",
            f"{in_amps(self.white_a)} at full white", f"at most {in_amps(self.most_a)}",
        )  # fmt: skip

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
        """The current for fuse and wire: the most that may flow; without a limiter, the film's
        peak, if there is a film.
        """
        if self.feeding.budget_a is None and self.draw is not None:
            return self.draw.peak_a
        return self.most_a

    @property
    def kept_a(self) -> float | None:
        """The most current: its limiter's budget, else its rating; None if unknown."""
        amps = self.feeding.budget_a
        return self.feeding.amps if amps is None else amps

    @property
    def share_of_full(self) -> float:
        """How much of the brightest colour's light it can give, 0 to 1: linear, as the limiter
        takes it back.
        """
        kept_a, lit_a = self.kept_a, self.full_a - self.idle_a
        if kept_a is None or lit_a <= 0:
            return 1.0
        return min(max((kept_a - self.idle_a) / lit_a, 0.0), 1.0)

    @property
    def bears_leds(self) -> int:
        """How many of its LEDs it can feed at the brightest colour."""
        kept_a = self.kept_a
        if kept_a is None or self.full_a <= kept_a or self.leds == 0:
            return self.leds
        return int(kept_a / (self.full_a / self.leds) + 1e-9)

    @property
    def part_of_full(self) -> str:
        """The share of full white in words: how much of the brightest colour is left, and for how
        many LEDs it is enough.

        Empty if it can give all.
        """
        if self.kept_a is None or self.full_a <= self.kept_a:
            return ""
        return (
            f"{in_amps(self.kept_a)} gives {self.share_of_full:.0%} of "
            f"{self.brightest} on {self.leds} LEDs, or all of it on "
            f"{self.bears_leds}"
        )

    @property
    def battery_a(self) -> float | None:
        """The current into a converter at the peak, with the battery nearly empty, in amperes.

        None without battery or converter.
        """
        supply = self.feeding.supply
        if supply is None or supply.battery is None or supply.converter is None:
            return None
        return self.watts / (supply.converter.efficiency * supply.battery.lowest_volts)

    @property
    def battery_fuse_a(self) -> float | None:
        """The fuse between battery and converter; None without them, or above the largest."""
        return None if self.battery_a is None else fuse_for(self.battery_a)

    @property
    def battery_wire_mm2(self) -> float | None:
        """The wire between battery and converter, of a lead's usual length."""
        supply = self.feeding.supply
        if self.battery_a is None or supply is None or supply.battery is None:
            return None
        return wire_for(self.battery_a, Lead().metres, supply.battery.lowest_volts)

    @property
    def proposed_a(self) -> float | None:
        """A usual rating that gives all its LEDs ask for at four fifths of it; None above them."""
        return next((amps for amps in RATINGS_A if SHARE * amps >= self.full_a - 1e-9), None)

    @property
    def headroom(self) -> float | None:
        """The share of its rating that is left at the peak; below 0 if it is too small."""
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
        """How long its battery lasts at the film's mean, else at the highest load; None without
        one.
        """
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
