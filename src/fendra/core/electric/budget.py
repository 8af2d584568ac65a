"""Budgets: what a design draws, from which supply; the voltage on its lines; data and memory.

All of it follows from the design; with a film, also from the light in the film.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.catalogue.leds import MICRO
from fendra.core.document.design import Design
from fendra.core.electric.controller_budget import ControllerBudget, controller_budgets
from fendra.core.electric.draws import Draw, draw_of
from fendra.core.electric.line_budget import LineBudget, line_budget, line_in_film
from fendra.core.electric.loads import Loads, make_loads
from fendra.core.electric.supply_budget import SupplyBudget
from fendra.core.electric.words import in_amps
from fendra.core.film import Film
from fendra.core.layout.table import Layout
from fendra.core.shown import as_table, brief


@dataclass(frozen=True)
class Budget:
    """All of a design.

    level: the master level's share of the light, 0 to 1 linear. draw: of all supplies together.
    amps: (frames, supplies) over the film, and times of its frames; let_through: as in `Film`.
    """

    loads: Loads
    level: float
    supplies: tuple[SupplyBudget, ...]
    lines: tuple[LineBudget, ...]
    controllers: tuple[ControllerBudget, ...]
    draw: Draw | None = None
    times: Floats | None = None
    amps: Floats | None = None
    let_through: Mapping[str, Floats] = field(default_factory=dict)

    def __repr__(self) -> str:
        peak = f"peak {in_amps(self.draw.peak_a)} on the tape" if self.draw else ""
        return brief(
            "Budget", self.loads.design.name, f"{in_amps(self.idle_a)} dark",
            f"{in_amps(self.white_a)} at full white", f"at most {in_amps(self.most_a)}", peak,
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """Supplies, in a notebook; `lines` and `controllers` hold the rest."""
        rows = [
            (each.feeding.name or "(none)", in_amps(each.idle_a), in_amps(each.white_a),
             in_amps(each.most_a), in_amps(each.draw.peak_a) if each.draw else "",
             f"{each.fuse_a:g} A" if each.fuse_a else "")
            for each in self.supplies
        ]  # fmt: skip
        heads = ("supply", "dark", "full white", "at the most", "peak on the tape", "fuse")
        return as_table(self.loads.design.name, heads, rows)

    @property
    def idle_a(self) -> float:
        return sum(supply.idle_a for supply in self.supplies)

    @property
    def white_a(self) -> float:
        return sum(supply.white_a for supply in self.supplies)

    @property
    def full_a(self) -> float:
        return sum(supply.full_a for supply in self.supplies)

    @property
    def most_a(self) -> float:
        return sum(supply.most_a for supply in self.supplies)

    @property
    def watts(self) -> float:
        """Of all supplies at their peaks."""
        return sum(supply.watts for supply in self.supplies)

    @property
    def slowest(self) -> tuple[str, float] | None:
        """Which line or link carries the fewest frames a second, in words, and how many."""
        rates = {
            f"line '{line.line.name}'": line.rate_hz
            for line in self.lines
            if not line.line.led_type.has_own_device
        }
        for each in self.controllers:
            if each.link_hz is not None:
                rates[f"the link of '{each.name}'"] = each.link_hz
        return min(rates.items(), key=lambda item: item[1], default=None)


def make_budget(
    design: Design, layout: Layout, level: float = 1.0, film: Film | None = None
) -> Budget:
    """All sums of a design.

    level: the master level's share of the light, 0 to 1 linear. film: its light on a tape.
    """
    loads = make_loads(design, layout)
    idle_a = np.asarray(loads.idle_ua * MICRO, np.float64)
    white_a, full_a = loads.white_line_a(level), loads.full_line_a(level)
    line_a = None if film is None else loads.line_a(film.rgb)
    supply_a = None if line_a is None else loads.supply_a(line_a)
    lines = [
        line_budget(loads, number, level, idle_a, white_a, full_a)
        for number, size in enumerate(layout.line_sizes)
        if size  # a line whose parts are all wrong has none
    ]
    supplies = [
        SupplyBudget(
            feeding,
            float(idle_a[[*feeding.lines]].sum()),
            float(white_a[[*feeding.lines]].sum()),
            float(full_a[[*feeding.lines]].sum()),
            leds=sum(line.leds for line in lines if line.number in feeding.lines),
        )
        for feeding in loads.feedings
    ]
    draw = None
    if film is not None and line_a is not None and supply_a is not None:
        lines = [line_in_film(loads, line, film, line_a[:, line.number]) for line in lines]
        supplies = [
            replace(supply, draw=draw_of(supply_a[:, i], film.times))
            for i, supply in enumerate(supplies)
        ]
        draw = draw_of(supply_a.sum(axis=1), film.times)
    return Budget(
        loads,
        level,
        tuple(supplies),
        tuple(lines),
        tuple(controller_budgets(design, lines)),
        draw,
        None if film is None else film.times,
        supply_a,
        {} if film is None else film.let_through,
    )
