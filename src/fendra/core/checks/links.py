"""Links: do frames reach the controller fast enough, and does the first LED understand it?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.electric.controller_budget import ControllerBudget
from fendra.core.electric.data import BAUDS, baud_for
from fendra.core.engines.c99.cost import made_baud, most_baud
from fendra.core.findings import KeyPath, Report

NEAR = 0.8
"""From this share of a link's capacity on, there is a finding."""
MOST_OFF = 0.025
"""The largest difference between the speeds of both ends of a serial link."""


@check
def slow_links(subject: Subject, report: Report) -> None:
    """Links that carry fewer frames than the design makes."""
    for budget in subject.budget.controllers:
        link = budget.controller.link if budget.controller else None
        if link is None:
            continue
        path: KeyPath = ("controllers", budget.name, "link")
        if link.baud is None and link.network is None:
            message = "it has neither baud nor network."
            report.warning(path, "no-effect", message, "Add one of them, or remove it.")
        elif link.baud is not None and link.network is not None:
            message = "it has both a serial port and a network."
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
        faster = f"Raise it to {next_one} baud" if next_one else "Spread the lines"
    else:
        what = f"{budget.universes} universes over {link.mbit:g} Mbit/s are {link_hz:.3g} frames"
        faster = "Use a faster network"
    if rate_hz > link_hz:
        message = f"{what} a second, and the design makes {rate_hz:g}."
        slower = f", or set rate = {int(NEAR * link_hz)}" if NEAR * link_hz >= 1 else ""
        report.warning(path, "slow-link", message, f"{faster}{slower}.")
    elif rate_hz > NEAR * link_hz:
        message = f"{what} a second at most; the design makes {rate_hz:g}."
        report.note(path, "slow-link", message, "Leave some room for other data.")


@check(stops=False)
def receivers(subject: Subject, report: Report) -> None:
    """Serial ports that are too fast for the controller, or leave it no time to send."""
    for budget in subject.budget.controllers:
        kind = budget.controller.known_type if budget.controller else None
        link = budget.controller.link if budget.controller else None
        if kind is None or link is None or link.baud is None or not budget.lines:
            continue
        path: KeyPath = ("controllers", budget.name, "link")
        most = most_baud(kind)
        if most is not None and link.baud > most:
            able = max(baud for baud in BAUDS if baud <= most)
            message = f"a receiver on {kind.name} can take {most:,.0f} baud, not {link.baud}."
            report.warning(path, "link-too-fast", message, f"Write link = {{ baud = {able} }}.")
        elif kind.bits == 8 and abs(made_baud(kind, link.baud) / link.baud - 1) > MOST_OFF:
            made = made_baud(kind, link.baud)
            message = (
                f"{kind.name} turns {link.baud} baud into {made:,.0f}, "
                f"{abs(made / link.baud - 1):.1%} off; its bytes are damaged."
            )
            report.warning(path, "link-too-fast", message, f"Write link = {{ baud = {made:.0f} }}.")
        elif kind.bits == 8:
            _room(budget, link.baud, path, report)


def _room(budget: ControllerBudget, baud: int, path: KeyPath, report: Report) -> None:
    """A frame comes, then it is sent: both have to fit between two frames."""
    wires = [line for line in budget.lines if line.led.data == "one-wire"]
    sending_s = sum(line.time_s for line in wires)
    coming_s = 10 * budget.serial_bytes / baud
    if sending_s + coming_s <= 1 / budget.rate_hz or coming_s > 1 / budget.rate_hz:
        return  # it fits, or the link itself is too slow, which is reported
    message = (
        f"a frame takes {coming_s * 1000:.3g} ms to arrive and "
        f"{sending_s * 1000:.3g} ms to send, and an 8-bit controller hears nothing "
        f"while it sends. Together that is more than the {1000 / budget.rate_hz:.3g} "
        "ms of a frame."
    )
    remedy = f"Set rate = {int(1 / (sending_s + coming_s))}, or use a 32-bit controller."
    report.warning(path, "deaf", message, remedy)


@check(stops=False)
def logic_levels(subject: Subject, report: Report) -> None:
    """Data of 3.3 V for LEDs that need more."""
    for budget in subject.budget.controllers:
        if budget.logic_volts is None:
            continue
        for line in budget.lines:
            needed_v = line.logic_volts
            if budget.logic_volts < needed_v - 1e-9 and not line.line.level_shifter:
                message = (
                    f"'{budget.name}' gives {budget.logic_volts:g} V for a 1, but "
                    f"{line.line.led} at {line.feeding.volts:g} V needs "
                    f"{needed_v:.3g} V."
                )
                remedy = "Add a level shifter, and write level_shifter = true."
                report.warning(("line", line.number), "logic-level", message, remedy)
