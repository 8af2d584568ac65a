"""The bench test: its steps, and the readings to expect."""

from __future__ import annotations

from dataclasses import dataclass

from fendra.core.electric.budget import Budget
from fendra.core.electric.line_budget import LineBudget
from fendra.core.electric.words import in_amps
from fendra.sheet.tables import fuse

NEAR = 0.05
"""Share by which a supply's voltage may be off."""

READ = "Read: ________"


@dataclass(frozen=True)
class SheetStep:
    """One thing to try. words: what to do, or what should be seen. command: to type."""

    words: str
    command: str = ""


def bench_steps(budget: Budget, file: str) -> list[tuple[str, list[SheetStep]]]:
    """Stages of the bench test, each with its steps. file: of the design, for the commands."""
    return [
        ("Before you switch on", _before(budget)),
        ("Supplies, without LEDs", _supplies(budget)),
        ("Lines, one after another, dark", _dark(budget)),
        ("The map", _map(budget, file)),
        ("Under load", _load(budget)),
    ]


def _before(budget: Budget) -> list[SheetStep]:
    steps = [
        SheetStep("No line has a connection between plus and ground (ohmmeter)."),
        SheetStep("The grounds of controller, supplies and all lines are joined."),
        SheetStep("Data goes in at DI, and arrows on the strips point away from there."),
    ]
    for kind, words in (
        ("chip", "Level shifters are in the data of"),
        ("pixel", "The first pixel, which nobody sees, lifts the data of"),
    ):
        shifted = [line.line.name for line in budget.lines if line.shifter == kind]
        if shifted:
            steps.append(SheetStep(f"{words} {', '.join(shifted)}."))
    for line in budget.lines:
        for (at, wire), flow_a in zip(line.leads, line.lead_a, strict=True):
            where = f"{line.line.name}, LED {at}"
            steps.append(SheetStep(f"{where}: lead of {wire}, plus to plus, fuse {fuse(flow_a)}."))
    return steps


def _supplies(budget: Budget) -> list[SheetStep]:
    steps = []
    for each in budget.supplies:
        volts, name = each.feeding.volts, each.feeding.in_words
        low, high = volts * (1 - NEAR), volts * (1 + NEAR)
        range_ = f"{volts:g} V ({low:.2f} to {high:.2f})"
        steps.append(SheetStep(f"{name} gives {range_}; main fuse {fuse(each.peak_a)}. {READ}"))
    return steps


def _dark(budget: Budget) -> list[SheetStep]:
    return [
        SheetStep(f"{line.line.name} alone, dark: {in_amps(line.idle_a)}. {READ}")
        for line in budget.lines
    ]


def _map(budget: Budget, file: str) -> list[SheetStep]:
    probe, to = f"fendra probe {file}", "--to serial:PORT"
    steps = [SheetStep("each line shows its own colour.", f"{probe} lines {to}")]
    for line in budget.lines:
        name = f"--line {line.line.name}"
        last = line.addresses - 1
        seen = "red, green, blue, white, in this order."
        steps.append(SheetStep(seen, f"{probe} colours {name} {to}"))
        steps.append(SheetStep(f"the last LED is number {last}.", f"{probe} count {name} {to}"))
    steps.append(SheetStep("front left red, front right green.", f"{probe} corners {to}"))
    return steps


def _load(budget: Budget) -> list[SheetStep]:
    steps = [_full(line) for line in budget.lines]
    for each in budget.supplies:
        most = f"at most {in_amps(each.peak_a)}"
        steps.append(SheetStep(f"{each.feeding.in_words} at the brightest look: {most}. {READ}"))
    steps.append(
        SheetStep(
            "After ten minutes like this, no lead, fuse, strip or supply is too hot to touch."
        )
    )
    steps.append(SheetStep("Unplug data and plug it in again: the light comes back."))
    return steps


def _full(line: LineBudget) -> SheetStep:
    volts = f"{max(line.sag.lowest_v, 0):.2f} V between plus and ground at LED {line.sag.at}"
    return SheetStep(
        f"{line.line.name} at {line.brightest}: {volts}, {in_amps(line.most_a)}. {READ}"
    )
