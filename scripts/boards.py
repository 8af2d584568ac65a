"""The tables of docs/boards.md: what a chip can show by itself, and what a strip needs."""

from __future__ import annotations

from pathlib import Path

import fendra as fd
from fendra.core.catalogue.controllers import CONTROLLERS, unfold_pins
from fendra.core.catalogue.leds import LED_TYPES
from fendra.core.catalogue.supplies import RATINGS_A, SHARE
from fendra.files.design_file import check_text
from fendra.firmware.chips import CHIPS

SIZES = (30, 60, 100, 150, 200, 300, 450, 600)
"""Strips that a chip is tried with. On one line no more than 650 LEDs take 50 frames a second."""

STRIPS = (
    (10, "ws2812b", 60), (30, "ws2812b", 60), (60, "ws2812b", 60), (150, "ws2812b", 60),
    (300, "ws2812b", 60), (60, "sk6812-rgbw", 60), (150, "ws2811", 30), (300, "ws2815", 60),
)  # fmt: skip
"""Strips that are sold: LEDs, type, LEDs a metre."""

TABLES = """
[controllers.main]
type = "{chip}"
[supplies.wall]
volts = {volts}
amps = {amps}
[[line]]
name = "strip"
pin = "{pin}"
led = "{led}"
supply = "wall"
level_shifter = true
[[line.part]]
name = "strip"
shape = "strip"
start = [0, 0]
direction = "right"
count = {leds}
per_metre = {per_metre}
[signals.throttle]
{source}
[[layer]]
name = "ground"
on = "all"
effect = "solid"
colour = "#202840"
[[layer]]
name = "throttle"
on = "all"
effect = "gauge"
value = "throttle"
"""
"""A strip with a plain light and a gauge."""


def chips() -> str:
    """A row for each chip for which Fendra writes firmware."""
    rows = []
    for name, chip in CHIPS.items():
        known = CONTROLLERS[name]
        shown = [leds for leds in SIZES if runs(name, leds)]
        fits = f"{max(shown)}" if shown else "fewer than 30"
        rows.append(
            f"| `{name}` | {known.about} | {known.logic_volts:g} V "
            f"| {'yes' if known.logic_volts < 5 else 'no'} | {fits} "
            f"| {'yes' if chip.serial else 'no'} |\n"
        )
    head = "| chip | | logic | level shifter for 5 V LEDs | LEDs by itself | receiver |\n"
    return head + "| --- | --- | --- | --- | ---: | --- |\n" + "".join(rows)


def runs(chip: str, leds: int) -> bool:
    """Whether a chip shows such a strip at 50 frames a second with nothing to report."""
    known = CONTROLLERS[chip]
    analogue, *_ = unfold_pins(known.analogue)
    pin = next(each for each in CHIPS[chip].outputs if each != analogue)
    text = TABLES.format(
        chip=chip, volts=5, amps=60, pin=pin, led="ws2812b", leds=leds, per_metre=60,
        source=f'pin = "{analogue}"\nrange = [0, 1]',
    )  # fmt: skip
    checked = check_text(text, "strip.toml", fd.Design, Path())
    about = {each.code for each in checked.findings if each.severity != "note"}
    return not about & {"firmware-slow", "too-little-flash", "too-little-memory"}


def strips() -> str:
    """A row for each strip: its currents, and what feeds it."""
    rows = []
    for leds, led, per_metre in STRIPS:
        volts = LED_TYPES[led].volts
        made = TABLES.format(
            chip="rp2040", volts=volts, amps=60, pin="GP2", led=led, leds=leds,
            per_metre=per_metre, source="range = [0, 1]",
        )  # fmt: skip
        design = check_text(made, "strip.toml", fd.Design, Path()).design
        assert isinstance(design, fd.Design)
        budget = design.budget()
        (supply,), (line,) = budget.supplies, budget.lines
        amps = next(each for each in RATINGS_A if SHARE * each >= supply.full_a)
        feeds = ", ".join(map(str, (0, *(line.extra or ()))))
        rows.append(
            f"| {leds} `{led}`, {leds / per_metre:.3g} m | {volts:g} V | {supply.idle_a * 1000:.0f} mA "
            f"| {supply.full_a:.3g} A | {amps:g} A | {supply.fuse_a:g} A | {supply.wire_mm2:g} mm² "
            f"| {feeds} |\n"
        )
    head = "| strip | | all dark | full white | supply | fuse | lead of 0.3 m | power in at LED |\n"
    return head + "| --- | --- | ---: | ---: | ---: | ---: | ---: | --- |\n" + "".join(rows)


if __name__ == "__main__":
    print(chips())
    print(strips())
