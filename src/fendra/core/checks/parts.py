"""Parts: do their LEDs fit their places?"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from fendra.core.arrays import Floats, Ints
from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.findings import KeyPath, Report
from fendra.core.layout.chain import unfold
from fendra.core.layout.table import PartRow
from fendra.core.names import counted
from fendra.core.shapes import Part
from fendra.core.shapes.assembly import Assembled
from fendra.core.shapes.hidden import Hidden
from fendra.core.shapes.spaced import Spaced

_NEAR_MM = 0.01
LEAST_PITCH_MM = 0.5
"""Between two LEDs; the smallest packages are a millimetre across."""
STRAIGHT = 0.94
"""The cosine of 20 degrees."""


@check(stops=False)
def lengths(subject: Subject, report: Report) -> None:
    """Counts that do not fit the length that the LEDs are on."""
    seen = set()
    for link in unfold(subject.design, Report()).links:
        if isinstance(link.part, Spaced) and link.path not in seen:
            seen.add(link.path)
            problem = link.part.misfit(subject.layout.unit_mm)
            if problem:
                remedy = "Correct one of them; until then the LEDs are spread evenly."
                report.warning((*link.path, "count"), "length", f"{problem}.", remedy)


@check(stops=False)
def unit(subject: Subject, report: Report) -> None:
    """LEDs so near each other that a length must have been meant in another unit."""
    position = subject.layout.leds.position
    for row in subject.layout.parts:
        places = position[row.leds]
        if row.kind == "hidden" or len(places) < 3:
            continue
        step_mm = float(np.median(np.linalg.norm(np.diff(places, axis=0), axis=1)))
        if not 0 < step_mm < LEAST_PITCH_MM:
            continue
        message = f"its LEDs are {step_mm:.2g} mm apart; no LED is that small."
        remedy = "All lengths are in millimetres: 5 metres are 5000."
        if subject.design.units == "in":
            remedy = "All lengths are in inches here."
        report.warning(row.path, "unit", message, remedy)


@check(stops=False)
def uneven_addresses(subject: Subject, report: Report) -> None:
    """A number of LEDs that does not fit the chips of the strip."""
    for row in subject.layout.parts:
        leds = row.leds.stop - row.leds.start
        if row.kind == "hidden" or not row.count or leds % row.count == 0:
            continue
        per = -(-leds // row.count)
        message = (
            f"{counted(leds, 'LED')} do not fit chips that drive {per} each; the "
            f"last chip has {leds - per * (row.count - 1)}."
        )
        remedy = (
            f"Such strips are cut after every {per} LEDs: write count {per * row.count}, or fewer."
        )
        report.warning(row.path, "uneven", message, remedy)


@check(stops=False)
def places_taken(subject: Subject, report: Report) -> None:
    """LEDs of two parts at one place, for example if a part was copied and not moved."""
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
        is_whole = _is_twice(leds.position[first.leds], leds.position[second.leds])
        if (first.name, second.name) not in told and not is_whole:
            told.add((first.name, second.name))
            message = (
                f"{_led(first, order[i])} and {_led(second, order[i + 1])} are at the same place."
            )
            report.warning(second.path, "same-place", message, "Move one of the parts.")


@check(stops=False)
def bent_chips(subject: Subject, report: Report) -> None:
    """LEDs of one chip that lie round a corner: they show one colour, at the middle of them."""
    leds, layout = subject.layout.leds, subject.layout
    for row in layout.parts:
        if row.shape in ("ring", "arc"):
            continue  # these are round everywhere
        order = row.leds.start + np.argsort(leds.address[row.leds], kind="stable")
        cuts = np.flatnonzero(np.diff(leds.address[order])) + 1
        sizes = np.diff([0, *cuts.tolist(), len(order)])
        chips = np.split(order, cuts) if sizes.max(initial=0) > 2 else []
        bent = [chip for chip in chips if len(chip) > 2 and _is_bent(leds.position[chip])]
        if row.kind != "hidden" and bent:
            place = row.place_of(int(leds.address[bent[0][0]]))
            more = f", and {len(bent) - 1} more" if len(bent) > 1 else ""
            x, y, z = layout.in_unit(leds.position[bent[0]].mean(axis=0)).round(1).tolist()
            message = (
                f"the {len(bent[0])} LEDs of chip {place} of '{row.name}'{more} "
                "go round a corner; they show one colour, as if they were all at "
                f"{x:g}, {y:g}, {z:g}."
            )
            remedy = "Cut the strip so that a chip ends at the corner, or make two parts of it."
            report.note(row.path, "round-a-corner", message, remedy)


def _cells(position: Floats) -> Ints:
    """Places (n, 3) on a fine grid, each once."""
    return np.unique(np.rint(position / _NEAR_MM).astype(np.int64), axis=0)


def _is_twice(first: Floats, second: Floats) -> bool:
    """Whether all LEDs of two parts are at the same places."""
    return np.array_equal(_cells(first), _cells(second))


def _is_bent(places: Floats) -> bool:
    """Whether the way along places (n, 3) turns by more than 20 degrees."""
    steps = np.diff(places, axis=0)
    length = np.linalg.norm(steps, axis=1)
    steps = steps[length > 1e-9] / length[length > 1e-9, None]
    return bool(((steps[1:] * steps[:-1]).sum(axis=1) < STRAIGHT).any())


@check(stops=False)
def placed_twice(subject: Subject, report: Report) -> None:
    """Parts that are a copy of another one, at its place; assemblies that nothing places."""
    design, layout = subject.design, subject.layout
    used = {part.use for part in _all_parts(design) if isinstance(part, Assembled)}
    for name in design.assemblies:
        if name not in used:
            message = f"no part places assembly '{name}'."
            remedy = f'Place it: shape = "assembly", use = "{name}"; or remove it.'
            report.warning(("assemblies", name), "unused", message, remedy)
    seen: dict[bytes, str] = {}
    for row in layout.parts:
        places = _cells(layout.leds.position[row.leds])
        key = places.tobytes()
        if len(places) and key in seen:
            message = f"'{row.name}' lies exactly on '{seen[key]}': the same place is used twice."
            remedy = "Give it its own place, or remove it."
            report.warning(row.path, "same-place", message, remedy)
        elif len(places):
            seen[key] = row.name


def _all_parts(design: Design) -> Iterator[Part]:
    for line in design.line:
        yield from line.part
    for assembly in design.assemblies.values():
        yield from assembly.part


@check(stops=False)
def switched_off(subject: Subject, report: Report) -> None:
    """Lines and parts that are dark since the design says so."""
    every: list[tuple[KeyPath, str, object]] = []
    for i, line in enumerate(subject.design.line):
        every.append((("line", i), f"line '{line.name}'", line.off))
        for j, part in enumerate(line.part):
            every.append((("line", i, "part", j), f"part '{part.name}'", part.off))
    for path, what, off in every:
        if off is True:
            report.note(
                (*path, "off"), "off", f"{what} is switched off.", "Remove `off` to light it."
            )


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
            message = f"`{key}` has no effect on a part of shape '{part.shape}'."
            report.warning((*path, key), "no-effect", message, remedy)
