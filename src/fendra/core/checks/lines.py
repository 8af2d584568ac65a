"""Lines: can the wire carry the frames?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.electric.leds import LED_TYPES, line_time_s
from fendra.core.findings import Report


@check
def slow_lines(subject: Subject, report: Report) -> None:
    """A line that takes longer to send than a frame lasts."""
    rate = subject.design.rate
    for i, line in enumerate(subject.design.line):
        leds = line.led_count
        time_s = line_time_s(leds, LED_TYPES[line.led])
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
