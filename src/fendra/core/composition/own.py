"""Effects and blends that users write: their results, and the lines where they fail."""

from __future__ import annotations

import inspect
import traceback
from collections.abc import Callable
from pathlib import PurePath
from typing import NamedTuple

import numpy as np

from fendra.core.effects.led import Look
from fendra.core.errors import GraphError
from fendra.core.graph.functions import select
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value


class Drawn(NamedTuple):
    """A look whose plain numbers are constants of the graph."""

    colour: Value
    cover: Value


def line_in(own: Callable[..., object], exc: BaseException) -> str:
    """The line of a function's file that failed, in brackets; nothing for what Fendra ships."""
    if own.__module__.startswith("fendra."):
        return ""
    code = inspect.unwrap(own).__code__
    file = code.co_filename
    frames = traceback.extract_tb(exc.__traceback__)
    lines = [frame.lineno for frame in frames if frame.filename == file]
    return f" ({PurePath(file).name}:{lines[-1] if lines else code.co_firstlineno})"


def drawn_of(look: object, tracer: Tracer) -> Drawn:
    """A look, its plain numbers as constants and its truth values as 1 and 0.

    Raises GraphError if an effect gives something else.
    """
    if not isinstance(look, Look):
        written = "nothing" if look is None else f"a value of type {type(look).__name__}"
        raise GraphError(
            f"it returns {written}, but a Look is needed.",
            remedy="End the function with: return Look(colour, cover)",
        )
    colour, cover = (_number_of(value, tracer) for value in (look.colour, look.cover))
    if colour is None:
        raise GraphError(
            f"the colour of its Look is {look.colour!r}.",
            remedy="Use a parameter that is colour(...), or three numbers, "
            "of linear light: (1, 0.2, 0).",
        )
    if cover is None or cover.width != 1:
        written = "a colour" if cover is not None else f"{look.cover!r}"
        raise GraphError(
            f"the cover of its Look is {written}, and one number from 0 to 1 is needed.",
            remedy="Write the colour first, then the cover: Look(colour, 1.0)",
        )
    return Drawn(colour, cover)


def _number_of(value: object, tracer: Tracer) -> Value | None:
    """A number or a colour of the light; None if it is neither."""
    if isinstance(value, Value):
        if value.kind is Kind.TRUTH:
            return select(value, 1.0, 0.0)
        return value if value.kind is Kind.FLOAT else None
    if isinstance(value, (bool, int, float, np.number)):
        return tracer.const(float(value))
    try:
        channels = [float(channel) for channel in value]  # type: ignore[attr-defined]
    except (TypeError, ValueError):
        return None
    return tracer.const(channels) if len(channels) == 3 else None
