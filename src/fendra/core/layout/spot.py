"""One LED by its name, and the name of an LED."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from fendra.core.errors import ExpressionError, LayoutError
from fendra.core.layout.choice import Choice, choose
from fendra.core.layout.table import Layout
from fendra.core.names import counted, did_you_mean


def spot_of(layout: Layout, text: str, choices: Mapping[str, Choice]) -> int:
    """The row of the layout that a text names.

    It is `part:place`, where the place is a number or the LED's own name; or any text that chooses
    one LED in a group: `part[place]`, `trail[place]`, a condition as `x < -230 and y > 0`.

    choices: all of the design, by name. Raises LayoutError.
    """
    name, sign, place = text.partition(":")
    if name in layout.part_names and (sign or "[" not in text):
        return _in_part(layout, name, place if sign else "0", text)
    if sign and name not in choices:
        remedy = did_you_mean(name, choices, "parts, groups and trails")
        raise LayoutError(f"there is no part, group or trail '{name}'. {remedy}")
    if sign:
        text = f"{name}[{place}]"
    try:
        found = choose(layout, text, choices)
    except ExpressionError as exc:
        why = f"{exc.problem.rstrip('.')}. {exc.remedy}".strip()
        raise LayoutError(f"'{text}' is not an LED: {why}") from exc
    if len(found) != 1:
        which = ", ".join(name_of(layout, spot) for spot in found[:3].tolist())
        which = f" ({which}{', ...' if len(found) > 3 else ''})" if len(found) else ""
        raise LayoutError(f"'{text}' is {counted(len(found), 'LED')}{which}. Name one LED.")
    return int(found[0])


def _in_part(layout: Layout, part: str, place: str, text: str) -> int:
    """The LED of a part by its place as the map counts it, or by its own name."""
    rows = layout.spots_of_part(part)
    names, index = layout.names[rows], layout.index[rows]
    last = int(index.max())
    if place in names:
        return int(rows.start + names.index(place))
    if not place.isdigit() or int(place) > last or (":" not in text and last > 0):
        raise LayoutError(f"'{text}' is not an LED; use {part}:0 to {part}:{last}.")
    found = np.flatnonzero(index == int(place))
    if len(found) == 0:
        raise LayoutError(f"LED {place} of '{part}' is skipped, so it shows nothing.")
    return int(rows.start + found[0])


def name_of(layout: Layout, spot: int) -> str:
    """A spot by its part and its place in it, and its own name if it has one."""
    name = f"{layout.part_names[int(layout.part[spot])]}:{int(layout.index[spot])}"
    return f"{name} ({layout.names[spot]})" if layout.names[spot] else name
