"""Supplies: do the figures make sense, and does each line get the voltage that it is made for?"""

from __future__ import annotations

from fendra.core.catalogue.leds import CATALOGUE, LedError, LedType, led_type
from fendra.core.catalogue.supplies import SHARE, Supply
from fendra.core.catalogue.wires import Jump, Lead, awg_to_mm2
from fendra.core.checks import Subject, check
from fendra.core.document.line import Line
from fendra.core.electric.copper import address_of
from fendra.core.findings import KeyPath, Report
from fendra.core.names import did_you_mean, number_meant

NEAR = 0.05
"""Two figures for one thing that differ by less than this share are taken as the same."""

MEASURED_SHARE = (0.08, 1.6)
"""Usual range of measured currents, as shares of the data sheet's."""

CELL_VOLTS = (1.0, 4.3)
"""Nominal voltage of one cell: lead, nickel and lithium ones lie between."""


@check
def led_types(subject: Subject, report: Report) -> None:
    """LED types with impossible figures, and lines with an unknown type."""
    design = subject.design
    for name, figures in design.leds.items():
        try:
            _far_measured(led_type(name, figures, CATALOGUE), ("leds", name, "measured"), report)
        except LedError as exc:
            path: KeyPath = ("leds", name) if exc.is_missing else ("leds", name, exc.key)
            report.error(path, "led-type", exc.message, exc.remedy)
        if all(line.led != name for line in design.line):
            message = f"no line has LEDs of type '{name}'."
            report.note(("leds", name), "unused", message, "Remove it, or name it in a line.")
    for i, line in enumerate(design.line):
        if line.led not in design.led_types and line.led not in design.leds:
            message = f"there is no LED type '{line.led}'."
            remedy = number_meant(line.led, design.led_types, "types", "Add another one in [leds].")
            report.error(("line", i, "led"), "unknown-led", message, remedy)


def _far_measured(led: LedType, path: KeyPath, report: Report) -> None:
    """A measured current that is a small part of the data sheet's, or far above it."""
    by_sheet, measured = (sum(each.values()) for each in (led.sheet_ua, led.channel_ua))
    if by_sheet and not MEASURED_SHARE[0] <= measured / by_sheet <= MEASURED_SHARE[1]:
        share = measured / by_sheet
        message = (
            f"that is {share:.2g} times the data sheet's figure, without the current when dark."
        )
        report.note(path, "far", message, "Check that amps is for all those LEDs, at full white.")


@check
def supply_names(subject: Subject, report: Report) -> None:
    """Lines on a supply that is not among those described, and supplies that feed nothing."""
    supplies = subject.design.supplies
    for i, line in enumerate(subject.design.line):
        if supplies and line.supply and line.supply not in supplies:
            message = f"there is no supply '{line.supply}'."
            remedy = did_you_mean(line.supply, supplies, "supplies")
            report.error(("line", i, "supply"), "unknown-name", message, remedy)
    for name, supply in supplies.items():
        path: KeyPath = ("supplies", name)
        if all(line.supply != name for line in subject.design.line):
            message = f"supply '{name}' feeds no line."
            report.note(path, "unused", message, "Remove it, or name it in a line.")
        board = supply.regulator_of
        if board is not None and board not in subject.design.controllers:
            remedy = did_you_mean(board, subject.design.controllers, "controllers")
            message = f"there is no controller '{board}'."
            report.error((*path, "regulator_of"), "unknown-name", message, remedy)
        elif board is not None and subject.design.controllers[board].regulator_amps is None:
            message = f"the regulator of '{board}' has no rating."
            remedy = (
                f"Write regulator_amps in [controllers.{board}]; small ones give 0.5 A or less."
            )
            report.warning((*path, "regulator_of"), "no-rating", message, remedy)


@check
def contradictions(subject: Subject, report: Report) -> None:
    """Figures of one supply that cannot all be true, and keys that do nothing."""
    for name, supply in subject.design.supplies.items():
        path: KeyPath = ("supplies", name)
        _ratings(subject, supply, path, report)
        _volts(supply, path, report)
        _wire(supply.wire, (*path, "wire"), report)
        if supply.budget is not None and not supply.limiter:
            message = "without the limiter, nothing enforces the budget."
            report.warning((*path, "budget"), "no-effect", message, "Remove one of them.")
    for i, line in enumerate(subject.design.line):
        _wire(line.jump, ("line", i, "jump"), report)
        for j, feed in enumerate(line.feed):
            if feed.wire is not None:
                _wire(feed.wire, ("line", i, "feed", j, "wire"), report)


def _ratings(subject: Subject, supply: Supply, path: KeyPath, report: Report) -> None:
    board = subject.design.controllers.get(supply.regulator_of or "")
    ratings = supply.ratings_a(board.regulator_amps if board else None)
    if len(ratings) > 1 and max(ratings.values()) > min(ratings.values()) * (1 + NEAR):
        said = ", ".join(f"{key} {amps:g} A" for key, amps in ratings.items())
        message = f"its rated current is given more than once: {said}. The smallest counts."
        report.warning(path, "contradiction", message, "Remove the others.")
    rating = min(ratings.values(), default=None)
    if supply.budget is None or rating is None or not supply.limiter:
        return
    figures = f"the limiter would pass {supply.budget:g} A, but the supply gives {rating:g} A"
    safe = SHARE * rating
    if supply.budget > rating * (1 + 1e-9):
        remedy = f"Set the budget to {safe:g} A, four fifths of the rating, or less."
        report.error((*path, "budget"), "over-rating", f"{figures}.", remedy)
    elif supply.budget > safe * (1 + 1e-9):
        share = supply.budget / rating
        message = f"{figures}: {share:.0%} of its rating."
        remedy = f"Run it at four fifths or less, {safe:g} A; it lasts longer and stays cooler."
        report.warning((*path, "budget"), "derating", message, remedy)


def _volts(supply: Supply, path: KeyPath, report: Report) -> None:
    if supply.usb is not None and supply.volts is not None and not 4.0 <= supply.volts <= 5.5:
        message = f"a USB port gives 5 V, but volts is {supply.volts:g}."
        report.error((*path, "volts"), "contradiction", message, "Remove one of them.")
    battery = supply.battery
    if battery is None:
        return
    volts = battery.nominal_volts
    if battery.cells is not None and battery.volts is not None:
        each = battery.volts / battery.cells
        if not CELL_VOLTS[0] <= each <= CELL_VOLTS[1]:
            message = f"{battery.volts:g} V of {battery.cells} cells are {each:.2f} V a cell."
            remedy = "Lead has 2, nickel 1.2, lithium 3.2 to 3.7 V; count the cells in series."
            report.error((*path, "battery"), "contradiction", message, remedy)
    given = supply.volts
    if supply.converter is None and given and not 0.75 * volts <= given <= 1.25 * volts:
        message = f"a battery of {volts:g} V cannot give {given:g} V by itself."
        remedy = "Add its converter, or leave volts out."
        report.error((*path, "volts"), "contradiction", message, remedy)
    if supply.usb is not None or supply.regulator_of is not None:
        message = "it is a battery and another supply at once."
        report.warning((*path, "battery"), "contradiction", message, "Remove one of them.")


def _wire(wire: Jump, path: KeyPath, report: Report) -> None:
    if wire.mm2 is not None and wire.awg is not None:
        area = awg_to_mm2(wire.awg)
        if abs(area - wire.mm2) > NEAR * area:
            message = f"AWG {wire.awg} has {area:.2g} mm², but mm2 is {wire.mm2:g}."
            report.error(path, "contradiction", message, "Remove one of them.")
    if isinstance(wire, Lead) and wire.metres > 30:
        message = f"a lead of {wire.metres:g} m is long for LEDs."
        report.note((*path, "metres"), "far", message, "Is it in metres?")


@check
def feeds(subject: Subject, report: Report) -> None:
    """Feeds at places that the line does not have, or given twice."""
    for i, line in enumerate(subject.design.line):
        size = subject.layout.line_sizes[i]
        seen: set[int] = set()
        for j, feed in enumerate(line.feed):
            at = address_of(feed, size)
            path: KeyPath = ("line", i, "feed", j)
            if at >= size:
                message = f"there is no LED {at} on this line: they go from 0 to {size - 1}."
                report.error((*path, "at"), "no-such-led", message, "Write one of those, or 'end'.")
            elif at in seen:
                message = f"LED {at} is fed twice."
                remedy = "Remove one; a thicker wire does the same."
                report.warning((*path, "at"), "duplicate-feed", message, remedy)
            seen.add(at)


@check
def wrong_voltages(subject: Subject, report: Report) -> None:
    """Lines on a supply whose voltage is too high or too low for their LEDs."""
    told: set[tuple[str, str]] = set()
    for budget in subject.budget.lines:
        line, feeding = budget.line, budget.feeding
        if feeding.supply is None or feeding.supply.known_volts() is None:
            continue
        if (feeding.name, line.led) in told:
            continue
        told.add((feeding.name, line.led))
        led, volts = line.led_type, feeding.volts
        what = f"{feeding.in_words} gives {volts:g} V, and {line.led} is made for {led.volts:g} V"
        is_for_one = len(feeding.lines) == 1
        path: KeyPath = ("line", budget.number, "supply")
        path = path if is_for_one else ("supplies", feeding.name, "volts")
        if volts > led.most_volts:
            message = f"{what}, at most {led.most_volts:g} V."
            report.error(path, "wrong-volts", message, "It would destroy the LEDs: " + _cure(line))
        elif volts < led.least_volts:
            message = f"{what}, at least {led.least_volts:g} V."
            report.error(path, "wrong-volts", message, "They would light wrongly: " + _cure(line))


def _cure(line: Line) -> str:
    return f"use a supply of {line.led_type.volts:g} V."
