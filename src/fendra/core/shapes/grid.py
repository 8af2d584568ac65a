"""A matrix of rows and columns."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, TypeAlias, get_args

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats, Ints
from fendra.core.shapes import Corner, Part, shape
from fendra.core.values import MOST_LEDS, Count, Length, Point, one_of

if TYPE_CHECKING:
    Pitch: TypeAlias = Length | tuple[Length, Length]
else:
    Pitch = one_of(number=Length, numbers=Annotated[tuple[Length, Length], Field(strict=False)])


@shape
class Grid(Part):
    """`columns` x `rows` LEDs round `centre`, columns to the right, rows upward, as drawn.

    Attributes:
        columns: LEDs in a row
        rows: LEDs in a column
        pitch: from LED to LED: one number, or `[across, upward]`
        centre: the middle of the grid
        first: the corner of the first LED
        wiring: the chain runs along `rows` or `columns`
        back_and_forth: every second row or column runs back; else each begins at the side
            of the first

    >>> panel = Grid(name="p", shape="grid", columns=2, rows=2, pitch=10, first="top-left")
    >>> panel.positions()[:, :2].tolist()
    [[-5.0, 5.0], [5.0, 5.0], [-5.0, -5.0], [5.0, -5.0]]
    """

    has_rows: ClassVar[bool] = True

    shape: Literal["grid"]
    columns: Count
    rows: Count
    pitch: Pitch
    centre: Point = (0.0, 0.0, 0.0)
    first: Corner = "bottom-left"
    wiring: Literal["rows", "columns"] = "rows"
    back_and_forth: bool = False

    @model_validator(mode="after")
    def _is_not_too_large(self) -> Grid:
        if self.columns * self.rows > MOST_LEDS:
            raise ValueError(f"a part has at most {MOST_LEDS} LEDs")
        return self

    def cells(self) -> tuple[Ints, Ints]:
        """Column and row of each LED, (n,) each, from 0 at the bottom left, in wire order."""
        by_rows = self.wiring == "rows"
        inner, outer = (self.columns, self.rows) if by_rows else (self.rows, self.columns)
        step = np.tile(np.arange(inner), (outer, 1))
        if self.back_and_forth:
            step[1::2] = step[1::2, ::-1]
        lane = np.repeat(np.arange(outer), inner)
        column, row = (step.ravel(), lane) if by_rows else (lane, step.ravel())
        if self.first.endswith("right"):
            column = self.columns - 1 - column
        if self.first.startswith("top"):
            row = self.rows - 1 - row
        return column, row

    def slips(self) -> dict[str, tuple[Any, ...]]:
        return {
            "first": get_args(Corner),
            "wiring": ("rows", "columns"),
            "back_and_forth": (False, True),
            **super().slips(),
        }

    def positions(self, unit_mm: float = 1.0) -> Floats:  # noqa: ARG002 - pitch is in that unit
        across, upward = self.pitch if isinstance(self.pitch, tuple) else (self.pitch, self.pitch)
        column, row = self.cells()
        flat = np.stack(
            [
                (column - (self.columns - 1) / 2) * across,
                (row - (self.rows - 1) / 2) * upward,
                np.zeros(len(row)),
            ],
            axis=1,
        )
        return np.asarray(flat + self.centre)
