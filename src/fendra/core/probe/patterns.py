"""Test patterns: what to send to the lines, and in words what you should see."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

import numpy as np

from fendra.core.catalogue.supplies import SHARE
from fendra.core.light.colours import linear_to_srgb, srgb_to_linear
from fendra.core.probe.bench import MOST, Bench, PatternStep, light
from fendra.core.probe.chain import Block, blocks_of
from fendra.core.probe.marks import marks_of

RED, GREEN, BLUE, WHITE = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0), (1.0, 1.0, 1.0)

LINE_COLOURS = {
    "red": RED,
    "green": GREEN,
    "blue": BLUE,
    "yellow": (1.0, 0.6, 0.0),
    "magenta": (1.0, 0.0, 0.7),
    "cyan": (0.0, 1.0, 0.7),
    "white": WHITE,
}
_BLINK_S, _PAUSE_S = 0.25, 1.0
_STAY_S = 3.0
_AXES = (
    ("left to right", "red", RED),
    ("back to front", "green", GREEN),
    ("bottom to top", "blue", BLUE),
)
_PLANES = 24
_RAMP_STEPS = 20


@dataclass(frozen=True)
class Pattern:
    """A test pattern.

    make: the steps, from the bench and a speed in steps a second. share, most: the share of a
    supply's rating and of full light that it may take. times: how often it is played if nobody can
    end it.
    """

    name: str
    make: Callable[[Bench, float], Iterator[PatternStep]]
    share: float = SHARE
    most: float = MOST
    times: int = 1

    def steps(self, bench: Bench, speed: float) -> list[PatternStep]:
        """All steps in order."""
        return [*self.make(bench, speed)]

    def level(self, bench: Bench, steps: list[PatternStep]) -> float:
        """The highest level, linear, that the supplies allow."""
        return bench.level_for(steps, self.share, self.most)


def _walk(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """One LED after another, white."""
    for row in bench.chosen.tolist():
        rows = np.array([row])
        yield PatternStep(rows, light(rows, WHITE), _where(bench, row), 1 / speed, waits=True)


def _where(bench: Bench, row: int) -> str:
    line = bench.design.line[int(bench.addresses.line[row])]
    address = int(bench.addresses.address[row])
    words = f"line '{line.name}', address {address}"
    part = bench.row_of(row)
    if part is None:
        return f"{words}: beyond the design's last LED"
    place = part.place_of(address)
    words += f": '{part.name}' {place}"
    if part.kind == "hidden" or place in part.skipped:
        return f"{words}, skipped: you see nothing if that is true"
    x, y, z = bench.layout.in_unit(bench.position[row]).round(1)
    return f"{words} at {x:g}, {y:g}, {z:g}"


def _count(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """All dim, every tenth and every hundredth marked."""
    number = bench.addresses.address[bench.chosen] + 1
    colours = light(bench.chosen, (0.12, 0.12, 0.12))
    colours[number % 10 == 0] = BLUE
    colours[number % 100 == 0] = RED
    colours[number == 1] = GREEN
    words = (
        "the first LED is green, every 10th blue, every 100th red, all others are dim white. "
        "Count: a red one is 100, a blue one 10. A dark one is dead or skipped; if all are dark "
        "from there on, the wire is broken there, or the chain ends."
    )
    yield PatternStep(bench.chosen, colours, words, _STAY_S / speed * 10, waits=True)


def _lines(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """Each line in its colour, blinking its number."""
    lines = sorted({*bench.addresses.line[bench.chosen].tolist()})
    names = [*LINE_COLOURS]
    words = []
    for number in lines:
        line = bench.design.line[number]
        pin = f" on pin {line.pin}" if line.pin else ""
        colour = names[number % len(names)]
        times = {0: "once", 1: "twice"}.get(number, f"{number + 1} times")
        words.append(f"line '{line.name}'{pin} is {colour} and blinks {times}")
    line_of = bench.addresses.line[bench.chosen]
    colours = np.array([[*LINE_COLOURS.values()][n % len(names)] for n in line_of.tolist()])
    scale = 10 / speed
    for blink in range(max(lines) + 1):
        on = line_of >= blink
        said = "; ".join(words) if blink == 0 else ""
        yield PatternStep(bench.chosen[on], colours[on], said, _BLINK_S * scale)
        yield PatternStep(bench.chosen[:0], colours[:0], "", _BLINK_S * scale)
    yield PatternStep(bench.chosen[:0], colours[:0], "", _PAUSE_S * scale)


def part_colours(bench: Bench) -> list[Block]:
    """The parts that the pattern `parts` lights, those that are probed, each in the next of
    `LINE_COLOURS`.
    """
    chosen = {*bench.chosen.tolist()}
    return [block for block in blocks_of(bench) if chosen & {*block.rows.tolist()}]


def _parts(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """Each part in its colour."""
    names, chosen, words = [*LINE_COLOURS], {*bench.chosen.tolist()}, []
    rows, colours = [], []
    for place, block in enumerate(part_colours(bench)):
        colour = names[place % len(names)]
        own = np.array([row for row in block.rows.tolist() if row in chosen], np.int64)
        rows.append(own)
        colours.append(light(own, LINE_COLOURS[colour]))
        words.append(f"part '{block.name}' is {colour}")
    lit = np.concatenate([np.zeros(0, np.int64), *rows])
    of_all = np.concatenate([np.zeros((0, 3)), *colours])
    yield PatternStep(lit, of_all, "; ".join(words), _STAY_S * 10 / speed, waits=True)


def _corners(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """An asymmetric mark at the corners that the map says."""
    marks = marks_of(bench)
    rows = np.concatenate([marks.red, marks.green])
    colours = np.concatenate([light(marks.red, RED), light(marks.green, GREEN)])
    yield PatternStep(rows, colours, marks.words, _STAY_S * 10 / speed, waits=True)


def _colours(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """Red, green, blue and white in turn."""
    for name, colour in (("red", RED), ("green", GREEN), ("blue", BLUE), ("white", WHITE)):
        words = f"{name} goes to all LEDs; note which colour you see"
        rows = bench.chosen
        yield PatternStep(rows, light(rows, colour), words, _STAY_S * 10 / speed, waits=True)


def _axes(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """A plane of light that moves along each axis."""
    rows = bench.placed
    place = bench.position[rows]
    for axis, (words, name, colour) in enumerate(_AXES):
        low, high = (place[:, axis].min(), place[:, axis].max()) if len(rows) else (0.0, 0.0)
        if high - low < 1e-6:
            continue
        said = f"a plane of {name} light moves from {words}"
        half = (high - low) / _PLANES
        for step in range(_PLANES + 1):
            lit = rows[np.abs(place[:, axis] - (low + (high - low) * step / _PLANES)) <= half]
            yield PatternStep(lit, light(lit, colour), said if step == 0 else "", 1 / speed)


def _ramp(bench: Bench, speed: float) -> Iterator[PatternStep]:
    """White that rises slowly, as far as the supplies are rated."""
    rows = bench.chosen
    full = PatternStep(rows, light(rows, WHITE), "", 0.0)
    most = bench.level_for([full], 1.0, 1.0)
    bright = float(linear_to_srgb(np.float64(most)))
    for number in range(1, _RAMP_STEPS + 1):
        level = bright * number / _RAMP_STEPS  # even to the eye
        share = float(srgb_to_linear(np.float64(level))) / most if most > 0 else 0.0
        step = PatternStep(rows, light(rows, WHITE) * share, "", 0.0)
        drawn = zip(bench.feeds, bench.draw_a(step, most), strict=True)
        amps = [f"about {drawn_a:.2f} A of {feed}" for feed, drawn_a in drawn]
        words = f"white at {level:.2f}: {', '.join(amps)}"
        if number == 1:
            words += ". Where it turns yellow or red, or flickers, the supply sags"
        yield PatternStep(step.rows, step.light, words, 10 / speed)


PATTERNS: dict[str, Pattern] = {
    pattern.name: pattern
    for pattern in (
        Pattern("lines", _lines, times=3),
        Pattern("parts", _parts),
        Pattern("colours", _colours),
        Pattern("walk", _walk),
        Pattern("count", _count),
        Pattern("corners", _corners),
        Pattern("axes", _axes),
        Pattern("ramp", _ramp, 1.0, 1.0),
    )
}
