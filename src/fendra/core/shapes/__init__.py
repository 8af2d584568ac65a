"""Shapes, one a file: the keys of a part, and where its LEDs are in its own axes.

To add one, write a file with a class like `Ring` in ring.py, marked with `@shape`.
"""

from __future__ import annotations

from abc import abstractmethod
from typing import (
    TYPE_CHECKING,
    Annotated,
    Any,
    ClassVar,
    Literal,
    TypeAlias,
    TypeVar,
    get_args,
    get_type_hints,
)

import numpy as np
from pydantic import Field

from fendra.core.arrays import Floats
from fendra.core.registry import Registry
from fendra.core.values import MOST_LEDS, Model, Name, Number, Point, Vector, one_of

FACINGS: dict[str, tuple[float, float, float]] = {
    "right": (1.0, 0.0, 0.0),
    "left": (-1.0, 0.0, 0.0),
    "front": (0.0, 1.0, 0.0),
    "back": (0.0, -1.0, 0.0),
    "up": (0.0, 0.0, 1.0),
    "down": (0.0, 0.0, -1.0),
}
"""Directions in which LEDs look, as unit vectors."""

Turning: TypeAlias = Literal["counter-clockwise", "clockwise"]
Corner: TypeAlias = Literal["top-left", "top-right", "bottom-right", "bottom-left"]


Direction: TypeAlias = Literal["right", "left", "front", "back", "up", "down"]


if TYPE_CHECKING:
    Facing: TypeAlias = Literal[Direction, "out", "in"] | Vector
    Facings: TypeAlias = Facing | list[Facing]
    Place: TypeAlias = int | str
else:
    _Word = Literal[Direction, "out", "in"]
    Facing = one_of(text=_Word, numbers=Vector)
    Facings = one_of(text=_Word, numbers=Vector, list=list[Facing])
    Place = one_of(number=Annotated[int, Field(ge=0, le=MOST_LEDS)], text=str)
"""A direction by name, `out` or `in` as seen from the part's middle, or a vector."""


class Part(Model):
    """A physical piece of LEDs on a line, in wire order from data-in on.

    A shape says where the LEDs are in the part's own axes. From there the part is mirrored,
    then tilted, then turned, all about its own origin, and then moved to `at`.

    Attributes:
        name: its name, for layers and groups
        shape: what it is: strip, path, arc, ring, grid, frame, keys, points, hidden or
            assembly
        facing: where the LEDs look, in the part's own axes: `right`, `left`, `front`,
            `back`, `up`, `down`, `out` or `in`, a vector, or a list with one for each LED;
            the shape's own by default
        at: where the part's own origin is on the thing
        turn: degrees about z, counter-clockwise from above
        tilt: degrees `[about x, about y]`, before `turn`
        mirror: `x`, `y` or `z`: the axis along which the part is reflected, before all
            other moves
        on: another part, or a placed assembly, in whose axes this part lies
        reverse: the wire enters at the far end: addresses count from there, nothing else
            changes
        leds_per_address: how many neighbouring LEDs one chip drives; the LED type's by
            default
        skip: dead or hidden LEDs that take an address: `4` or `"4-9"`, counted from the
            part's start
        parallel_to: an earlier part of the line to which this one is soldered in parallel:
            it shows the same and takes no addresses
        names: names of its LEDs, one for each
        off: its LEDs stay dark; write a condition if they are to come back
    """

    runs_round: ClassVar[bool] = False
    """Whether its chain runs round its middle, clockwise or counter-clockwise."""
    has_rows: ClassVar[bool] = False
    """Whether its chain goes from row to row."""

    name: Name
    shape: str
    facing: Facings | None = None
    at: Point = (0.0, 0.0, 0.0)
    turn: Number = 0.0
    tilt: Annotated[tuple[Number, Number], Field(strict=False)] = (0.0, 0.0)
    mirror: Literal["x", "y", "z"] | None = None
    on: Name | None = None
    reverse: bool = False
    leds_per_address: Annotated[int, Field(ge=1, le=64)] | None = None
    skip: list[Place] = []
    parallel_to: Name | None = None
    names: list[str] = []
    off: bool | str = False

    @abstractmethod
    def positions(self, unit_mm: float = 1.0) -> Floats:
        """Where each LED sits in the part's own axes: (n, 3), in wire order.

        Lengths are in the design's unit, which has `unit_mm` millimetres.
        """

    def slips(self) -> dict[str, tuple[Any, ...]]:
        """Keys that are easily written down wrong, each with the values that it may really have.

        What the bench shows is compared with every one of them.
        """
        quarters = (0.0, 90.0, 180.0, 270.0)
        slips: dict[str, tuple[Any, ...]] = {"reverse": (False, True), "mirror": (None, "x", "y")}
        if not any(self.tilt):  # otherwise it would turn out of its plane
            slips["turn"] = tuple((self.turn + quarter) % 360 for quarter in quarters)
        return slips

    def normals(self, count: int) -> Floats:
        """The default facing of each LED: (n, 3); up, in the own axes."""
        return np.tile(FACINGS["up"], (count, 1))

    def outward(self, positions: Floats) -> Floats:
        """Which way is out for each LED: (n, 3), of any length; from the middle of them all."""
        return np.asarray(positions - (positions.min(axis=0) + positions.max(axis=0)) / 2)

    def facings(self, positions: Floats) -> Floats:
        """Where each LED looks: (n, 3) unit vectors in the part's own axes.

        Raises ValueError if there are more or fewer facings than LEDs.
        """
        count = len(positions)
        if isinstance(self.facing, list):
            if len(self.facing) != count:
                raise ValueError(f"there are {len(self.facing)} facings for {count} LEDs")
            outward = self.outward(positions) if {"out", "in"} & {*map(str, self.facing)} else None
            rows = [
                _direction(facing, None if outward is None else outward[[i]])[0]
                for i, facing in enumerate(self.facing)
            ]
            return _unit(np.array(rows, float).reshape(-1, 3))
        if self.facing is None:
            return self.normals(count)
        outward = self.outward(positions) if self.facing in ("out", "in") else None
        return np.broadcast_to(_unit(_direction(self.facing, outward)), (count, 3))

    def led_names(self, count: int) -> list[str]:
        """The name of each LED, empty if it has none; ValueError if there are not as many."""
        if self.names and len(self.names) != count:
            raise ValueError(f"there are {len(self.names)} names for {count} LEDs")
        return self.names or [""] * count

    def skipped(self, count: int) -> set[int]:
        """The places of the part that are skipped; raises ValueError for an unknown one."""
        found: set[int] = set()
        for item in self.skip:
            first, dash, last = (
                (str(item), "", "") if isinstance(item, int) else item.partition("-")
            )
            if not first.strip().isdecimal() or (dash and not last.strip().isdecimal()):
                raise ValueError(f"'{item}' is not a place: write 4, or '4-9'")
            low, high = int(first), int(last or first)
            if high < low or high >= count:
                raise ValueError(f"there is no place {item}: they go from 0 to {count - 1}")
            found.update(range(low, high + 1))
        return found


def _direction(facing: Any, outward: Floats | None) -> Floats:
    if outward is not None and facing in ("out", "in"):
        length = np.linalg.norm(outward, axis=1, keepdims=True)
        way = outward if facing == "out" else -outward
        return np.where(length > 1e-9, way, FACINGS["up"])
    return np.array([FACINGS[facing] if isinstance(facing, str) else facing], float)


def _unit(vectors: Floats) -> Floats:
    return np.asarray(vectors / np.linalg.norm(vectors, axis=1, keepdims=True))


SHAPES: Registry[type[Part]] = Registry("fendra.core.shapes", "fendra.shapes", "a shape")

P = TypeVar("P", bound=type[Part])


def shape(part: P) -> P:
    """Register a shape under the value of its `shape` key."""
    (name,) = get_args(get_type_hints(part)["shape"])
    SHAPES.add(name, part, part)
    return part
