"""Parts: do their LEDs fit where they are said to be?"""

from __future__ import annotations

import numpy as np

from fendra.core.checks import Subject, check
from fendra.core.findings import Report
from fendra.core.layout.chain import unfold
from fendra.core.layout.table import PartRow
from fendra.core.names import counted
from fendra.core.shapes.assembly import Assembled
from fendra.core.shapes.hidden import Hidden
from fendra.core.shapes.spaced import Spaced

_NEAR_MM = 0.01


@check(stops=False)
def lengths(subject: Subject, report: Report) -> None:
    """Counts that do not fit the length that the LEDs are on."""
    seen = set()
    for link in unfold(subject.design, Report()).links:
        if isinstance(link.part, Spaced) and link.path not in seen:
            seen.add(link.path)
            problem = link.part.misfit(subject.layout.unit_mm)
            if problem:
                remedy = "Mend one of them; until then the LEDs are spread evenly."
                report.warning((*link.path, "count"), "length", f"{problem}.", remedy)


@check(stops=False)
def uneven_addresses(subject: Subject, report: Report) -> None:
    """A number of LEDs that cannot be cut into chips of so many."""
    for row in subject.layout.parts:
        leds = row.leds.stop - row.leds.start
        if row.kind == "hidden" or not row.count or leds % row.count == 0:
            continue
        per = -(-leds // row.count)
        message = (
            f"{counted(leds, 'LED')} cannot be shared out among chips that drive {per} each; the "
            f"last one has {leds - per * (row.count - 1)}."
        )
        remedy = f"Such strips are cut after {per} LEDs each: count {per * row.count}, or fewer."
        report.warning(row.path, "uneven", message, remedy)


@check(stops=False)
def places_taken(subject: Subject, report: Report) -> None:
    """LEDs of two parts at one place, as they are where a part was copied and not moved."""
    leds = subject.layout.leds
    if len(leds) == 0:
        return
    cells = np.rint(leds.position / _NEAR_MM).astype(np.int64)
    _, group = np.unique(cells, axis=0, return_inverse=True)
    order = np.lexsort((leds.part, group.ravel()))
    same = (np.diff(group.ravel()[order]) == 0) & (np.diff(leds.part[order]) != 0)
    told = set()
    for i in np.flatnonzero(same).tolist():
        first, second = (subject.layout.parts[leds.part[order[i + k]]] for k in (0, 1))
        if (first.name, second.name) not in told:
            told.add((first.name, second.name))
            message = f"{_led(first, order[i])} and {_led(second, order[i + 1])} are at one place."
            report.warning(second.path, "same-place", message, "Move one of the parts.")


def _led(row: PartRow, led: int) -> str:
    return f"LED {led - row.leds.start} of '{row.name}'"


@check(stops=False)
def useless_keys(subject: Subject, report: Report) -> None:
    """Keys that mean nothing for a part that has no LEDs of its own."""
    of_assembly = ("facing", "leds_per_address", "skip", "parallel_to", "names")
    of_hidden = (*of_assembly, "at", "turn", "tilt", "mirror", "on", "reverse")
    paths = [("line", i, "part", j) for i, line in enumerate(subject.design.line)
             for j in range(len(line.part))]  # fmt: skip
    for path in paths:
        part = subject.design.line[path[1]].part[path[3]]
        if isinstance(part, Assembled):
            useless = [key for key in of_assembly if key in part.model_fields_set]
            remedy = "Set it in the parts of the assembly."
        elif isinstance(part, Hidden):
            useless = [key for key in of_hidden if key in part.model_fields_set]
            remedy = "Remove it."
        else:
            continue
        for key in useless:
            message = f"`{key}` does nothing for a part of shape '{part.shape}'."
            report.warning((*path, key), "no-effect", message, remedy)
