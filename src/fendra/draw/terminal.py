"""The layout in a terminal: each LED is a block of its colour, at its place on the thing, live."""

from __future__ import annotations

import os
import shutil
import sys
import time
from collections.abc import Callable
from typing import Annotated, Any, TextIO

import numpy as np
from pydantic import Field

from fendra.core.arrays import Array
from fendra.core.document.design import Design
from fendra.core.errors import NEVER, OutputError
from fendra.core.film import Frame
from fendra.core.layout import place
from fendra.core.layout.table import Layout
from fendra.core.layout.views import VIEWS, best_view
from fendra.core.names import ViewName
from fendra.draw.glow import led_colour
from fendra.outputs import Output, OutputOptions

UNLIT = np.array((34, 36, 40), np.uint8)
"""The colour of a dark LED, sRGB: it stays visible."""
ENTER = "\x1b[?1049h\x1b[?25l\x1b[2J"
LEAVE = "\x1b[0m\x1b[?25h\x1b[?1049l"
STATUS_ROWS = 2
"""Rows at the bottom that are left to whoever says how the run goes."""


class TerminalOptions(OutputOptions):
    """Options of the terminal.

    Attributes:
        address: the side it is seen from; the one that shows most by default
        rate: pictures a second, at most
        columns: width; the terminal's by default
        rows: height; the terminal's by default
    """

    address: ViewName | Annotated[str, Field(max_length=0)] = ""
    rate: Annotated[float, Field(gt=0, le=60)] = 20.0
    columns: Annotated[int, Field(ge=10, le=1000)] | None = None
    rows: Annotated[int, Field(ge=4, le=500)] | None = None


class Blocks:
    """A layout as a grid of square pixels, two of them in each character.

    size: columns and rows of characters.
    """

    def __init__(self, layout: Layout, spots: Array, view: str, size: tuple[int, int]) -> None:
        side = VIEWS[view] if view else VIEWS[best_view(layout.position, layout.facing)]
        flat = side.flat(layout.position[spots]) * (-1.0 if side.is_flipped else 1.0, 1.0)
        self.columns, self.rows = size
        low, high = flat.min(axis=0), flat.max(axis=0)
        room = np.array([self.columns - 2, 2 * self.rows - 2])
        scale = float(np.min(room / np.maximum(high - low, 1e-6)))
        middle = (flat - (low + high) / 2) * (scale, -scale)
        place_of = np.rint(middle + np.array([self.columns, 2 * self.rows]) / 2 - 0.5).astype(int)
        place_of = np.clip(place_of, 0, [self.columns - 1, 2 * self.rows - 1])
        self._pixel = place_of[:, 1] * self.columns + place_of[:, 0]
        self._spots = spots
        self._used = np.zeros(2 * self.rows * self.columns, bool)
        self._used[self._pixel] = True

    def pixels(self, rgb: Array) -> Array:
        """A frame (spots, 3) as (2 * rows, columns, 3) sRGB; of LEDs in one place the brightest."""
        light = np.zeros((len(self._used), 3), np.uint8)
        np.maximum.at(light, self._pixel, rgb[self._spots])
        colours = np.zeros_like(light)
        shown = np.asarray(led_colour(light[self._used] / 255.0), np.uint8)
        colours[self._used] = np.maximum(shown, UNLIT)
        return colours.reshape(2 * self.rows, self.columns, 3)

    def text(self, rgb: Array, *, true_colour: bool = True) -> str:
        """A frame as rows of text with colour codes (ECMA-48)."""
        pixels = self.pixels(rgb)
        paint = _true if true_colour else _of_256
        lines = []
        for row in range(self.rows):
            upper, lower = pixels[2 * row], pixels[2 * row + 1]
            pieces: list[str] = []
            before = ""
            for top, bottom in zip(upper.tolist(), lower.tolist(), strict=True):
                code, letter = _character(top, bottom, paint)
                pieces.append(letter if code == before else code + letter)
                before = code
            lines.append("".join(pieces) + "\x1b[0m")
        return "\r\n".join(lines)


def _character(
    top: list[int], bottom: list[int], paint: Callable[[list[int]], str]
) -> tuple[str, str]:  # fmt: skip
    """Two pixels as one character and the code before it; pixels without an LED are blank."""
    if any(top) and any(bottom):
        return f"\x1b[0;38;{paint(top)};48;{paint(bottom)}m", "▀"
    if any(top):
        return f"\x1b[0;38;{paint(top)}m", "▀"
    return (f"\x1b[0;38;{paint(bottom)}m", "▄") if any(bottom) else ("\x1b[0m", " ")


def _true(colour: list[int]) -> str:
    return f"2;{colour[0]};{colour[1]};{colour[2]}"


def _of_256(colour: list[int]) -> str:
    """The nearest of the 6 x 6 x 6 colours that terminals have from 16 on."""
    red, green, blue = (0 if level < 48 else min(int((level - 35) / 40), 5) for level in colour)
    return f"5;{16 + 36 * red + 6 * green + blue}"


class TerminalOutput(Output):
    """The terminal that this runs in. The last two rows are left free."""

    Options = TerminalOptions
    options: TerminalOptions
    fills_screen = True
    example = "terminal:front,rate=10"

    def __init__(
        self, address: str = "", *, stream: TextIO | None = None,
        clock: Callable[[], float] = time.perf_counter, **options: Any,
    ) -> None:  # fmt: skip
        super().__init__(address, **options)
        self._stream, self._clock = stream, clock
        self._has_entered = False

    def __str__(self) -> str:
        return "the terminal"

    def _open(self, design: Design) -> None:
        self._into = self._stream or sys.stdout
        if self._stream is None and not self._into.isatty():
            raise OutputError(
                "there is no terminal to draw in; use another output, such as null:", code=NEVER
            )
        self._layout = place(design)
        self._spots = self.wire.spots
        self._size = (0, 0)
        self._next_s = 0.0
        self._is_true = "truecolor" in os.environ.get("COLORTERM", "") or "24bit" in os.environ.get(
            "COLORTERM", ""
        )
        self._has_entered = True
        self._write(ENTER)

    def _use(self, design: Design) -> None:
        self._layout, self._spots = place(design), self.wire.spots
        self._size = (0, 0)

    def _send(self, frame: Frame) -> None:
        now_s = self._clock()
        if now_s < self._next_s:
            return
        self._next_s = now_s + 1.0 / self.options.rate
        screen = shutil.get_terminal_size()
        columns = self.options.columns or screen.columns
        rows = self.options.rows or max(screen.lines - STATUS_ROWS, 2)
        if (columns, rows) != self._size:
            self._size = columns, rows
            self._blocks = Blocks(self._layout, self._spots, self.options.address, self._size)
            self._write("\x1b[2J")
        text = self._blocks.text(frame.seen, true_colour=self._is_true)
        self._write(f"\x1b7\x1b[H{text}\x1b8")

    def _write(self, text: str) -> None:
        try:
            self._into.write(text)
            self._into.flush()
        except (OSError, ValueError) as exc:
            raise OutputError("the terminal is gone") from exc

    def _close(self) -> None:
        if not self._has_entered:
            return
        self._has_entered = False
        try:
            self._write(LEAVE)
        except OutputError:
            return
