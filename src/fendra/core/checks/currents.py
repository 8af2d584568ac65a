"""Currents: can supplies, wires and regulators carry what the LEDs draw?"""

from __future__ import annotations

import numpy as np

from fendra.core.catalogue.supplies import SHARE
from fendra.core.catalogue.wires import FUSES_A, WIRES_A, Jump
from fendra.core.checks import Subject, check
from fendra.core.electric.leads import bears_a, fuse_for, wire_for
from fendra.core.electric.line_budget import LineBudget
from fendra.core.electric.supply_budget import SupplyBudget
from fendra.core.findings import KeyPath, Report
from fendra.core.names import listed

SPOKEN_OF_A = 0.5
"""The current of any USB port: a supply needs no finding below it."""

LITTLE_LEFT = 0.5
"""A limiter that leaves less than this share of full white is reported."""
WARM_W, HOT_W = 15.0, 25.0
"""Watts of heat from a metre of strip: one that should have metal behind it; one that must."""
STUCK = frozenset({"strip", "path", "arc", "ring", "frame", "grid", "assembly"})
"""Shapes whose LEDs are stuck onto the thing."""
LITTLE_W = 10.0
"""Watts of a whole line that need not be spoken of."""


@check
def supply_currents(subject: Subject, report: Report) -> None:
    """Supplies that cannot give what the LEDs draw, or whose rating is unknown."""
    for budget in subject.budget.supplies:
        feeding = budget.feeding
        path: KeyPath = ("supplies", feeding.name) if feeding.supply else ("line", feeding.lines[0])
        if feeding.amps is None and feeding.budget_a is None:
            _unrated(budget, path, report)
            continue
        most_a = feeding.amps if feeding.amps is not None else feeding.budget_a
        assert most_a is not None
        kept_a = min(most_a, feeding.budget_a) if feeding.budget_a is not None else most_a
        if budget.idle_a > kept_a:
            whose = "its rating" if kept_a == feeding.amps else "its budget"
            message = (
                f"its LEDs draw {budget.idle_a:.3g} A even when all are off. That is more than "
                f"{whose}, {kept_a:.3g} A, so no light is left."
            )
            report.error(path, "no-current-left", message, "Use a larger supply, or fewer LEDs.")
        elif feeding.budget_a is not None and budget.share_of_full < LITTLE_LEFT:
            remedy = "That is enough if little is lit at a time; else use a larger one"
            if budget.proposed_a is not None:
                remedy += f", of {budget.proposed_a:g} A"
            report.note(path, "part-of-full", f"{budget.part_of_full}.", f"{remedy}.")
        elif feeding.budget_a is None:
            _unlimited(budget, path, report)


def _unrated(budget: SupplyBudget, path: KeyPath, report: Report) -> None:
    if budget.full_a <= SPOKEN_OF_A:
        return
    name = budget.feeding.name
    whose = f"supply '{name}' can give" if name else "feeds this line"
    key = f"[supplies.{name or 'NAME'}]"
    message = (
        f"{budget.brightest} draws {budget.full_a:.3g} A, and the design does not say what {whose}."
    )
    remedy = f"Set amps in {key}, so that the limiter can enforce it."
    if budget.feeding.supply is not None and budget.feeding.supply.converter is not None:
        remedy = f"Set amps of its converter in {key}"
        if budget.proposed_a is not None:
            remedy += f"; one of {budget.proposed_a:g} A gives all the light"
        remedy += "."
    report.note(path, "no-rating", message, remedy)


def _unlimited(budget: SupplyBudget, path: KeyPath, report: Report) -> None:
    """A supply without a limiter: the most that it may have to give, and what a film draws."""
    amps, draw = budget.feeding.amps, budget.draw
    assert amps is not None
    remedy = (
        "Leave the limiter on, lower `level`, or use a supply of "
        f"{budget.full_a / SHARE:.3g} A or more."
    )
    if draw is not None and draw.peak_a > amps:
        message = (
            f"the tape draws {draw.peak_a:.3g} A at {draw.at_s:g} s, and its rating is {amps:g} A"
        )
        layers = [f"'{name}'" for name in draw.layers]
        by = f", by {listed(layers)}" if layers else ""
        report.error(path, "over-rating", f"{message}{by}.", remedy)
    elif draw is not None and draw.peak_a > SHARE * amps:
        share = draw.peak_a / amps
        message = (
            f"the tape draws {draw.peak_a:.3g} A at {draw.at_s:g} s, {share:.0%} of its rating."
        )
        report.warning(path, "derating", message, "Run it at four fifths or less.")
    elif budget.full_a > amps:
        full = f"{budget.brightest} draws {budget.full_a:.3g} A, its rating is {amps:g} A"
        message = f"{full}, and the limiter is off: {budget.part_of_full}."
        if draw is not None:
            seen = f" The tape draws at most {draw.peak_a:.3g} A."
            report.note(path, "over-rating", message + seen, remedy)
        elif budget.feeding.supply is not None and budget.feeding.supply.regulator_of:
            report.error(path, "over-rating", f"{message} This can overheat the regulator.", remedy)
        else:
            report.warning(path, "over-rating", message, remedy)
    elif budget.full_a > SHARE * amps:
        share = budget.full_a / amps
        message = f"{budget.brightest} draws {budget.full_a:.3g} A, {share:.0%} of its rating."
        report.note(path, "derating", message, "Run it at four fifths or less.")


HELD_BACK = 0.1
"""The share of a tape's frames from which on a limiter that holds them back is a warning."""


@check(stops=False)
def held_back(subject: Subject, report: Report) -> None:
    """Limiters that hold back much of a tape's light."""
    for each in subject.film.limited() if subject.film is not None else ():
        if each.frames <= HELD_BACK * each.of:
            continue
        budget = next(b for b in subject.budget.supplies if b.feeding.name == each.supply)
        message = (
            f"the limiter holds back {each.frames / each.of:.0%} of the tape's frames, down to "
            f"{each.least:.0%} of the light at {each.at_s:g} s."
        )
        larger = f"use a supply of {budget.proposed_a:g} A" if budget.proposed_a else "feed less"
        remedy = f"Lower `level` or the layers that are on then, or {larger}."
        path: KeyPath = ("supplies", each.supply) if each.supply else ()
        report.warning(path, "held-back", message, remedy)


@check
def wires(subject: Subject, report: Report) -> None:
    """Wires that get hot: leads from a supply, and wires from part to part."""
    for line in subject.budget.lines:
        _leads(subject, line, report)
        what = "its wires from part to part"
        path: KeyPath = ("line", line.number)
        _hold(what, line.line.jump, _jump_a(line), path, "jump", report)
    for budget in subject.budget.supplies:
        if budget.fuse_a is None and budget.feeding.supply is not None:
            message = (
                f"{budget.peak_a:.3g} A x 1.25 exceeds the largest standard fuse, "
                f"{max(FUSES_A):g} A."
            )
            path = ("supplies", budget.feeding.name)
            report.warning(path, "fuse", message, "Spread the lines over several supplies.")


def _leads(subject: Subject, line: LineBudget, report: Report) -> None:
    written = subject.design.line[line.number].feed
    for j, ((at, wire), amps) in enumerate(zip(line.leads, line.lead_a, strict=True)):
        what = f"the lead to LED {at} of '{line.line.name}'"
        path: KeyPath = ("line", line.number)
        if j < len(written) and written[j].wire is not None:
            path = (*path, "feed", j)
        elif line.feeding.supply is not None:
            path = ("supplies", line.feeding.name)
        if not _hold(what, wire, amps, path, "wire", report):
            continue
        least = wire_for(amps, wire.metres, line.feeding.volts)
        if wire.is_sized and least is not None and wire.area_mm2 < least * 0.97:
            message = (
                f"{what} has {wire.area_mm2:.2g} mm², but its fuse of "
                f"{fuse_for(amps):g} A, or its voltage drop, needs {least:g} mm²."
            )
            remedy = f"Use {least:g} mm², or feed the line at more places."
            report.warning((*path, "wire"), "thin-wire", message, remedy)


def _hold(what: str, wire: Jump, amps: float, path: KeyPath, key: str, report: Report) -> bool:
    """Report a wire that is too thin for a current, or whose size is needed and not given; return
    whether it can carry the current.
    """
    held_a = bears_a(wire.area_mm2)
    if amps <= held_a * (1 + 1e-9):
        return True
    size = _thicker(amps)
    if wire.is_sized:
        message = (
            f"{amps:.3g} A go through {what}, but {wire.area_mm2:.2g} mm² can carry {held_a:g} A."
        )
        remedy = f"Use {size}, or feed the line at more places."
        report.error((*path, key), "thin-wire", message, remedy)
    else:
        message = f"{amps:.3g} A go through {what}, whose size is not given."
        remedy = f"Use {size} or more, and write it as `{key}`."
        report.note(path, "thin-wire", message, remedy)
    return False


def _jump_a(line: LineBudget) -> float:
    """The largest current from one part to the next."""
    flow = np.abs(line.ladder.flow_a(line.load_a))[line.copper.is_jump]
    return float(flow.max(initial=0.0))


def _thicker(amps: float) -> str:
    area = next((area for area, held_a in WIRES_A.items() if held_a >= amps), None)
    return f"{area:g} mm²" if area is not None else "several wires"


@check(stops=False)
def heat(subject: Subject, report: Report) -> None:
    """Strips that get so hot that they need metal behind them."""
    for line in subject.budget.lines:
        watts = line.watts_a_metre
        if watts is None or watts < WARM_W or watts * line.metres < LITTLE_W:
            continue
        if not any(part.shape in STUCK for part in line.line.part):
            continue  # keys and single LEDs are not stuck onto anything
        is_seen = line.draw is not None
        when = "over the tape, on average," if is_seen else f"at {line.brightest}"
        message = f"{when} a metre of its strips turns {watts:.3g} W into heat."
        if watts < HOT_W or not is_seen:
            remedy = "Mount them on metal, and let air reach them."
            report.note(("line", line.number), "heat", message, remedy)
        else:
            remedy = "Mount them on metal, lower `level`, or use fewer LEDs a metre."
            report.warning(("line", line.number), "heat", message, remedy)
