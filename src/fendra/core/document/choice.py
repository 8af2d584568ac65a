"""Groups, trails and canvases: choices of LEDs by name, their order, and other places for them."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, TypeAlias

from pydantic import Field

from fendra.core.values import Count, Length, Model, Number, Point, Setting, Texts, one_of

if TYPE_CHECKING:
    _Near: TypeAlias = str | Point
else:
    _Near = one_of(text=str, numbers=Point)


class SpotTable(Model):
    """A choice of LEDs. Each key narrows down what the keys before it left.

    Attributes:
        of: what to begin with: a condition, a name, or a list of them
        without: LEDs to remove
        near: a point, or the name of a part, group or trail for its middle
        within: keep the LEDs within this radius of `near`
        nearest: keep this many LEDs nearest to `near`
        outermost: keep this many LEDs farthest from the middle of them all
    """

    of: Texts = "all"
    without: Texts = []
    near: _Near | None = None
    within: Length | None = None
    nearest: Count | None = None
    outermost: Count | None = None


class GroupTable(SpotTable):
    """A choice of LEDs under a name.

    Attributes:
        most: ceiling for its light, 0 to 1 as the eye sees it
    """

    most: Setting | None = None


class Trail(Model):
    """An ordered path over LEDs.

    Attributes:
        of: its LEDs: a condition, a name, or a list of them
        join: names, one run after another; `-name` runs one from its end
        by: the order: an expression; by default the order of the wire
        from_middle: begins in the middle and goes both ways at once
        reverse: begins at the end
    """

    of: Texts | None = None
    join: list[str] = []
    by: str | None = None
    from_middle: bool = False
    reverse: bool = False


if TYPE_CHECKING:
    Group: TypeAlias = str | list[str] | GroupTable
    Spots: TypeAlias = str | list[str] | SpotTable
else:
    Group = one_of(text=str, list=list[str], table=GroupTable)
    Spots = one_of(text=str, list=list[str], table=SpotTable)
"""A choice of spots written where it is used, without a name."""


class OnCanvas(Model):
    """Where a choice of LEDs is on a canvas.

    Attributes:
        at: its middle
        turn: degrees, counter-clockwise
        scale: how many times larger it is
    """

    at: Point
    turn: Number = 0.0
    scale: Annotated[float, Field(gt=0, le=1e6)] = 1.0
