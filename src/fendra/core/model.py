"""What all tables of a design are made from."""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import Annotated, Any

from pydantic import BaseModel, ConfigDict, Discriminator, Tag


class Model(BaseModel):
    """A table: no keys but its own, no value of another type, and nobody changes it."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True)


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
    """A value that may be written in several ways, told apart by what kind of value it is.

    branches: the type for a `text`, a `table`, a list of `numbers`, a `list` or a `number`; what is
    none of these is said to be wrong as the first.
    """
    default = next(iter(branches))
    tagged = [Annotated[branch, Tag(kind)] for kind, branch in branches.items()]

    def tell(value: Any) -> str:
        kind = _kind(value)
        return kind if kind in branches else default

    return Annotated[reduce(or_, tagged), Discriminator(tell)]
