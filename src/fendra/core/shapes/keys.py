"""The LEDs of a keyboard, one under each key."""

from __future__ import annotations

from typing import Annotated, Any, ClassVar, Literal

import numpy as np
from pydantic import Field, model_validator

from fendra.core.arrays import Floats
from fendra.core.shapes import Part, shape
from fendra.core.values import MOST_LEDS, Length, Model, Number

KEY_MM = 19.05
"""From key to key; the usual spacing of full-size keyboards, 3/4 inch."""


class Column(Model):
    """A column of keys from the top row down.

    Attributes:
        keys: how many keys
        shift: how far it stands to the front, in keys
    """

    keys: Annotated[int, Field(ge=1, le=100)]
    shift: Number = 0.0


@shape
class Keys(Part):
    """LEDs under keys: each by name and place, in wire order, or whole columns.

    Attributes:
        keys: `[name, x, y]` for each
        file: instead, a CSV file beside the design with the columns name, x, y
        columns: instead, columns from left to right, each from its top key at its shift
        back_and_forth: every second column is wired from its lowest key up
        unit: the length of one step of x and y; one key, 19.05 mm, by default. `unit = 1`
            means the design's own unit

    >>> pad = Keys(name="pad", shape="keys", keys=[("esc", 0, 0), ("ok", 1.5, -1)])
    >>> pad.positions()[1, :2].round(6).tolist()
    [28.575, -19.05]
    """

    has_rows: ClassVar[bool] = True

    shape: Literal["keys"]
    keys: list[Annotated[tuple[str, Number, Number], Field(strict=False)]] = Field(
        [], max_length=MOST_LEDS
    )
    file: str = ""
    columns: list[Column] = []
    back_and_forth: bool = False
    unit: Length | None = None

    @model_validator(mode="after")
    def _has_keys(self) -> Any:
        if self.file and not self.keys:
            raise ValueError(f"the file '{self.file}' was not read; give `keys` instead")
        if self.keys and self.names:
            raise ValueError("keys already have names; leave `names` out")
        if bool(self.keys) == bool(self.columns):
            raise ValueError("keys need `keys`, a `file` or `columns`, one of them")
        return self

    def positions(self, unit_mm: float = 1.0) -> Floats:
        unit = KEY_MM / unit_mm if self.unit is None else self.unit
        if self.keys:
            places = np.array([(x, y) for _, x, y in self.keys], float)
        else:
            columns = [
                [(number, column.shift - row) for row in range(column.keys)]
                for number, column in enumerate(self.columns)
            ]
            if self.back_and_forth:
                columns[1::2] = [column[::-1] for column in columns[1::2]]
            places = np.array([place for column in columns for place in column], float)
        return np.concatenate([places * unit, np.zeros((len(places), 1))], axis=1)

    def slips(self) -> dict[str, tuple[Any, ...]]:
        wiring = {"back_and_forth": (False, True)} if self.columns else {}
        return {**wiring, **super().slips()}

    def led_names(self, count: int) -> list[str]:
        return [name for name, _, _ in self.keys] or super().led_names(count)
