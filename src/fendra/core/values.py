"""Values: the base of all tables of a design, and the values that keys can have."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING, Annotated, Any, TypeAlias

from pydantic import (
    AfterValidator,
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Discriminator,
    Field,
    Tag,
    WithJsonSchema,
)

from fendra.core.limits import LEDS
from fendra.core.names import NAME


class Model(BaseModel):
    """A table: only its own keys, only values of the right type, and it never changes."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, defer_build=True)


def _kind(value: Any) -> str:
    match value:
        case str():
            return "text"
        case dict() | BaseModel():
            return "table"
        case [first, *_] if isinstance(first, (int, float)):
            return "numbers"
        case list() | tuple():
            return "list"
    return "number"


def one_of(**branches: Any) -> Any:
    """A value with several forms, told apart by the kind of value.

    branches: the type for a `text`, a `table`, a list of `numbers`, a `list` or a `number`; other
    values are reported against the first.
    """
    default = next(iter(branches))
    tagged = [Annotated[branch, Tag(kind)] for kind, branch in branches.items()]

    def tell(value: Any) -> str:
        kind = _kind(value)
        return kind if kind in branches else default

    return Annotated[reduce(or_, tagged), Discriminator(tell)]


MOST_LEDS = LEDS.most
"""LEDs of one part at most."""


def _check_name(name: str) -> str:
    if not NAME.fullmatch(name):
        raise ValueError("a name has letters, digits, _ and, but for the first, spaces, . and -")
    return name


def _check_title(title: str) -> str:
    if not title.strip() or not title.isprintable() or len(title) > 80:
        raise ValueError("a name here is a text of one line, with 1 to 80 characters")
    return title


Name: TypeAlias = Annotated[str, AfterValidator(_check_name)]
"""A name that expressions and other keys refer to."""
Title: TypeAlias = Annotated[str, AfterValidator(_check_title)]
"""A text that only people read."""
Number: TypeAlias = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]
Count: TypeAlias = Annotated[int, Field(ge=1, le=MOST_LEDS)]
Length: TypeAlias = Annotated[float, Field(gt=0, le=1e6, allow_inf_nan=False)]


def _to_point(value: Any) -> Any:
    if isinstance(value, (list, tuple)) and len(value) == 2:
        return (*value, 0.0)
    return value


Point: TypeAlias = Annotated[
    tuple[Number, Number, Number],
    BeforeValidator(_to_point),
    Field(strict=False),
    WithJsonSchema(
        {"type": "array", "items": {"type": "number"}, "minItems": 2, "maxItems": 3},
        mode="validation",
    ),
]
"""x, y, z; z may be left out in a file and is 0 then."""


def _check_vector(value: tuple[float, float, float]) -> tuple[float, float, float]:
    if not any(value):
        raise ValueError("a direction of length 0 leads nowhere")
    return value


Vector: TypeAlias = Annotated[Point, AfterValidator(_check_vector)]
Seconds: TypeAlias = Annotated[float, Field(ge=0, le=86_400, allow_inf_nan=False)]

Plain: TypeAlias = bool | Annotated[float, Field(allow_inf_nan=False)] | str
"""A literal, or a text that holds a colour or an expression."""

Setting: TypeAlias = Plain | list[Plain] | dict[str, Plain]
"""The value of a parameter: plain; a list of plain ones; or a table of them to look up."""

if TYPE_CHECKING:
    Texts: TypeAlias = str | list[str]
else:
    Texts = one_of(text=str, list=list[str])
"""One text, or a list of them."""
