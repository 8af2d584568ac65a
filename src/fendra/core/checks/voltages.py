"""Voltages: does every LED get enough?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.electric.line_budget import LineBudget
from fendra.core.findings import KeyPath, Report
from fendra.core.names import listed


@check(stops=False)
def voltages(subject: Subject, report: Report) -> None:
    """Lines on which the voltage falls so far that colours shift, blue first."""
    for line in subject.budget.lines:
        if line.feeding.volts < line.led.least_volts or line.feeding.volts > line.led.most_volts:
            continue
        path: KeyPath = ("line", line.number)
        sag, least = line.sag, line.led.least_volts
        if line.worst is not None and line.worst.first_low is not None:
            message = (
                f"on the tape, at {line.worst.at_s:g} s, LED {line.worst.at} gets "
                f"{line.worst.lowest_v:.2f} V; from LED {line.worst.first_low} on it is less than "
                f"the {least:g} V that {line.line.led} needs."
            )
            remedy = feed_remedy(line, line.extra_in_film)
            report.warning(path, "low-voltage", message, remedy)
        elif sag.first_low is not None:
            message = (
                f"at {line.brightest} LED {sag.at} gets {_volts(sag.lowest_v)}; from LED "
                f"{sag.first_low} on it is less than the {least:g} V that {line.line.led} needs."
            )
            remedy = feed_remedy(line, line.extra)
            if line.worst is None:
                report.warning(path, "low-voltage", message, remedy)
            else:
                seen = f" On the tape the lowest is {line.worst.lowest_v:.2f} V."
                report.note(path, "low-voltage", message + seen, remedy)
        elif sag.lowest_v - least < 0.1 * (line.feeding.volts - least):
            message = (
                f"at {line.brightest} LED {sag.at} gets {sag.lowest_v:.2f} V, just above the "
                f"{least:g} V that {line.line.led} needs."
            )
            report.note(path, "low-voltage", message, "A thicker lead, or a second one, helps.")


def _volts(volts: float) -> str:
    return f"{volts:.2f} V" if volts > 0 else "nothing"


def feed_remedy(line: LineBudget, extra: tuple[int, ...] | None) -> str:
    """Where else to feed a line, in words."""
    if extra is None:
        return "Even a dozen more feeds are too few: use thicker leads, or a lower level."
    return f"Feed it at LED {listed([*map(str, extra)])} too, through {line.leads[0][1]}."
