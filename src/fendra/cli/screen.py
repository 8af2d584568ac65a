"""The screen output of the commands: lines, findings, and progress that garbles nothing."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from itertools import zip_longest
from textwrap import wrap
from typing import TYPE_CHECKING, Any

from fendra.core.findings import Finding, Severity
from fendra.core.names import counted
from fendra.core.quoting import in_lines, json_text, visible

if TYPE_CHECKING:
    from rich.console import Console

Report = Callable[[float, float], None]
"""Called with how much is done, and how much there is in all."""

NARROWEST = 12
"""Characters of a column that is narrowed."""

_STYLES = {Severity.ERROR: "bold red", Severity.WARNING: "yellow", Severity.NOTE: "cyan"}


WIDTH = 80
"""Width of tables without a terminal."""
_aside = {"is_wanted": False}
"""Whether messages go to standard error: see `said_aside`."""


def console() -> Console:
    """The terminal, or its replacement in tests; only the terminal wraps lines."""
    from rich.console import Console

    return Console(
        highlight=False, soft_wrap=True, markup=False, emoji=False, stderr=_aside["is_wanted"]
    )


@contextmanager
def said_aside(wanted: bool) -> Iterator[None]:
    """Texts within the block go to standard error, so that standard output has only JSON."""
    before = _aside.copy()
    _aside["is_wanted"] = wanted
    try:
        yield
    finally:
        _aside.update(before)


def say_json(value: Any) -> None:
    """One JSON object on standard output."""
    import typer

    typer.echo(json_text(value))


def table_width() -> int:
    """How wide a table may be: as the terminal, or 80 characters."""
    screen = console()
    return screen.width if screen.is_terminal else WIDTH


def say(text: str = "", *, style: str = "") -> None:
    """One line on standard output."""
    console().print(in_lines(text), style=style or None)


def say_columns(
    heads: Sequence[str], rows: Sequence[Sequence[str]], *, right: Sequence[str] = ()
) -> None:
    """Rows under heads, each column as wide as needed. right: the heads of right-aligned columns.

    If they are too wide together, the widest columns get narrower and their cells wrap.
    """
    rows = [[visible(cell) for cell in row] for row in rows]
    widths = [max(len(row[i]) for row in (heads, *rows)) for i in range(len(heads))]
    words = [
        max((len(word) for row in (heads, *rows) for word in row[i].split()), default=0)
        for i in range(len(heads))
    ]
    longest = [max((len(row[i]) for row in rows), default=0) for i in range(len(heads))]
    least = [
        max(cell, word) if head in right else word
        for head, cell, word in zip(heads, longest, words, strict=True)
    ]
    widths = narrowed(widths, table_width(), least)
    for row in (heads, *rows):
        pieces = [
            wrap(cell, width, break_on_hyphens=False) or [""]
            for cell, width in zip(row, widths, strict=True)
        ]
        for cells in zip_longest(*pieces, fillvalue=""):
            set_ = [
                cell.rjust(width) if head in right else cell.ljust(width)
                for head, cell, width in zip(heads, cells, widths, strict=True)
            ]
            say("  ".join(set_).rstrip(), style="dim" if row is heads else "")


def narrowed(widths: Sequence[int], most: int, least: Sequence[int]) -> list[int]:
    """Widths of columns with two blanks between, so that all fit: the widest lose first.

    least: their longest words, into which no column cuts, unless all of them are too wide as well.

    >>> narrowed([10, 60, 40], 80, [5, 20, 10]), narrowed([10, 60, 40], 60, [5, 50, 10])
    ([10, 33, 33], [5, 41, 10])
    """
    found = [*widths]

    def narrow(down_to: Sequence[int]) -> None:
        while sum(found) + 2 * (len(found) - 1) > most:
            wide = [i for i, width in enumerate(found) if width > down_to[i]]
            if not wide:
                return
            found[max(wide, key=lambda i: found[i])] -= 1

    narrow(least)
    narrow([min(each, NARROWEST) for each in least])
    return found


def say_findings(findings: Sequence[Finding]) -> None:
    """Each finding with its severity, and the caret under its place, in colour."""
    from rich.text import Text

    for finding in findings:
        text = Text(in_lines(str(finding)))
        text.highlight_regex(rf"\b{finding.severity}:", _STYLES[finding.severity])
        text.highlight_regex(r"(?m)^ +\^$", _STYLES[finding.severity])
        console().print(text)


def say_pixels(lead: str, pixels: bytes, order: str) -> None:
    """The LEDs of a line: a coloured block each on a terminal with colours, else the first as text.

    pixels: a byte a channel, linear, in the line's colour order.
    """
    size = len(order)
    leds = [pixels[i : i + size] for i in range(0, len(pixels), size)]
    lit = f"{sum(map(any, leds)):>3} of {len(leds)} LEDs lit"
    screen = console()
    if not screen.is_terminal or screen.color_system != "truecolor":
        screen.print(visible(f"{lead} {lit}: {' '.join(led.hex() for led in leds[:6])} ..."))
        return
    from rich.text import Text

    from fendra.draw.glow import led_colour

    text = Text(visible(f"{lead} {lit} "))
    for led in leds:
        white = led[order.index("W")] if "W" in order else 0
        colour = led_colour([(led[order.index(letter)] + white) / 255 for letter in "RGB"])
        text.append("●", style=f"#{colour.tobytes().hex()}")
    screen.print(text)


def count_findings(findings: Sequence[Finding]) -> str:
    """How many there are of each severity, in words."""
    severities = [finding.severity for finding in findings]
    return ", ".join(counted(severities.count(severity), severity) for severity in Severity)


@contextmanager
def progress(what: str) -> Iterator[Report]:
    """A bar while the block runs, on a terminal; nothing at all elsewhere."""
    if not sys.stderr.isatty():
        yield lambda _done, _total: None
        return
    from rich.console import Console
    from rich.progress import BarColumn, Progress, TextColumn, TimeRemainingColumn

    columns = (TextColumn("{task.description}"), BarColumn(), TimeRemainingColumn())
    with Progress(*columns, console=Console(stderr=True), transient=True) as bar:
        task = bar.add_task(what, total=None)
        yield lambda done, total: bar.update(task, completed=done, total=total)
