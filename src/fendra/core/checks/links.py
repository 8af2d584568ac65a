"""Links: do frames come to the controller fast enough, and does the first LED understand it?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.electric.controller_budget import ControllerBudget
from fendra.core.electric.data import baud_for
from fendra.core.findings import KeyPath, Report

NEAR = 0.8
"""Share of what a link carries from which on it is told."""


@check
def slow_links(subject: Subject, report: Report) -> None:
    """Links that carry fewer frames than the design makes."""
    for budget in subject.budget.controllers:
        link = budget.controller.link if budget.controller else None
        if link is None:
            continue
        path: KeyPath = ("controllers", budget.name, "link")
        if link.baud is None and link.network is None:
            message = "it says neither baud nor network."
            report.warning(path, "no-effect", message, "Add one of them, or remove it.")
        elif link.baud is not None and link.network is not None:
            message = "it is a serial port and a network at once."
            report.error(path, "contradiction", message, "Leave one of them out.")
        elif budget.link_hz is not None and budget.lines:
            _rate(budget, budget.link_hz, path, report)


def _rate(budget: ControllerBudget, link_hz: float, path: KeyPath, report: Report) -> None:
    assert budget.controller is not None
    assert budget.controller.link is not None
    link, rate_hz = budget.controller.link, budget.rate_hz
    if link.baud is not None:
        what = f"{budget.serial_bytes} bytes a frame at {link.baud} baud are {link_hz:.3g} frames"
        next_one = baud_for(budget.line_bytes, rate_hz)
        faster = f"Raise it to {next_one} baud" if next_one else "Share the lines out"
    else:
        what = f"{budget.universes} universes over {link.mbit:g} Mbit/s are {link_hz:.3g} frames"
        faster = "Take a faster network"
    if rate_hz > link_hz:
        message = f"{what} a second, and the design makes {rate_hz:g}."
        slower = f", or set rate = {int(NEAR * link_hz)}" if NEAR * link_hz >= 1 else ""
        report.warning(path, "slow-link", message, f"{faster}{slower}.")
    elif rate_hz > NEAR * link_hz:
        message = f"{what} a second at the most; the design makes {rate_hz:g}."
        report.note(path, "slow-link", message, "Leave some room for what else goes over it.")


@check(stops=False)
def deaf_controllers(subject: Subject, report: Report) -> None:
    """8-bit controllers that hear nothing of a serial port while they send one-wire data."""
    for budget in subject.budget.controllers:
        kind = budget.controller.known_type if budget.controller else None
        link = budget.controller.link if budget.controller else None
        wires = [line for line in budget.lines if line.led.data == "one-wire"]
        if kind is None or kind.bits != 8 or link is None or link.baud is None or not wires:
            continue
        sending_s = sum(line.time_s for line in wires)
        lost = sending_s * link.baud / 10
        if lost < 2:
            continue
        message = (
            f"while it sends, {sending_s * 1000:.3g} ms of each frame, an 8-bit controller hears "
            f"nothing: {lost:.0f} bytes at {link.baud} baud."
        )
        remedy = "Let it ask for each frame once it has shown one, or take a 32-bit controller."
        report.note(("controllers", budget.name, "link"), "deaf", message, remedy)


@check(stops=False)
def logic_levels(subject: Subject, report: Report) -> None:
    """Data of 3.3 V for LEDs that want more."""
    for budget in subject.budget.controllers:
        if budget.logic_volts is None:
            continue
        for line in budget.lines:
            needed_v = line.logic_volts
            if budget.logic_volts < needed_v - 1e-9 and not line.line.level_shifter:
                message = (
                    f"'{budget.name}' gives {budget.logic_volts:g} V for a 1, and "
                    f"{line.line.led} at {line.feeding.volts:g} V wants {needed_v:.3g} V."
                )
                remedy = "Put a level shifter in between, and write level_shifter = true."
                report.warning(("line", line.number), "logic-level", message, remedy)
