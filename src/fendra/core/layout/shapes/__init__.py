"""Shapes of parts, one a file. A shape is the model of its keys and the places of its LEDs.

To add one, write a file with a class like `Strip` in strip.py, marked with `@shape`.
"""

from __future__ import annotations

from abc import abstractmethod
from typing import Annotated, Any, Literal, TypeAlias, TypeVar, get_args, get_type_hints

import numpy as np
from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field

from fendra.core.names import NAME
from fendra.core.registry import Registry

Array: TypeAlias = np.ndarray[Any, np.dtype[np.float64]]

FACINGS: dict[str, tuple[float, float, float]] = {
    "right": (1.0, 0.0, 0.0),
    "left": (-1.0, 0.0, 0.0),
    "front": (0.0, 1.0, 0.0),
    "back": (0.0, -1.0, 0.0),
    "up": (0.0, 0.0, 1.0),
    "down": (0.0, 0.0, -1.0),
}
"""Directions in which LEDs look, as unit vectors."""

Facing: TypeAlias = Literal["right", "left", "front", "back", "up", "down"]


def _check_name(name: str) -> str:
    if not NAME.fullmatch(name):
        raise ValueError("a name has letters, digits, _ and, but for the first, spaces, . and -")
    return name


def _check_title(title: str) -> str:
    if not title.strip() or not title.isprintable() or len(title) > 80:
        raise ValueError("a name here is a text of one line, with 1 to 80 characters")
    return title


Name: TypeAlias = Annotated[str, AfterValidator(_check_name)]
"""What expressions and other keys refer to."""
Title: TypeAlias = Annotated[str, AfterValidator(_check_title)]
"""What only people read."""
Number: TypeAlias = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]


def _to_point(value: Any) -> Any:
    if isinstance(value, (list, tuple)) and len(value) == 2:
        return (*value, 0.0)
    return value


Point: TypeAlias = Annotated[
    tuple[Number, Number, Number], BeforeValidator(_to_point), Field(strict=False)
]
"""x, y, z in mm; z may be left out in a file and is 0 then."""


class Part(BaseModel):
    """A physical piece of LEDs on a line, in wire order from its data-in on."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True)

    name: Name
    shape: str
    facing: Facing = "up"

    @abstractmethod
    def positions(self) -> Array:
        """Where each LED sits: (n, 3) mm, in wire order."""


SHAPES: Registry[type[Part]] = Registry("fendra.core.layout.shapes", "fendra.shapes")

P = TypeVar("P", bound=type[Part])


def shape(part: P) -> P:
    """Register a shape under the value of its `shape` key."""
    (name,) = get_args(get_type_hints(part)["shape"])
    SHAPES.add(name, part)
    return part
