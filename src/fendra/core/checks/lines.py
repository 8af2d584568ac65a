"""Lines: can the wire carry the frames, and does the colour order fit the LEDs?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.electric.data import line_time_s
from fendra.core.findings import Report


@check(stops=False)
def slow_lines(subject: Subject, report: Report) -> None:
    """A line that takes longer to send than a frame lasts."""
    rate = subject.design.rate
    for i, line in enumerate(subject.design.line):
        leds = subject.layout.line_sizes[i]
        time_s = line_time_s(leds, line.led_type)
        if time_s * rate > 1:
            report.warning(
                ("line", i),
                "slow-line",
                f"{leds} LEDs take {time_s * 1000:.1f} ms to send, and a frame "
                f"at {rate:g} a second lasts {1000 / rate:.1f} ms.",
                f"Split the line, or set rate = {int(1 / time_s)}."
                if time_s <= 1
                else "Split the line.",
            )


@check
def colour_orders(subject: Subject, report: Report) -> None:
    """A colour order with more or fewer channels than the LED type has."""
    for i, line in enumerate(subject.design.line):
        own = line.led_type.order
        if line.order is not None and len(line.order) != len(own):
            message = f"{line.led} has {len(own)} channels, and '{line.order}' {len(line.order)}."
            remedy = f"Its own order is '{own}'; `fendra probe` finds out which one yours have."
            report.error(("line", i, "order"), "colour-order", message, remedy)
