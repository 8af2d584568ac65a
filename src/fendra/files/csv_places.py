"""Positions in CSV files: placement exports of circuit-board programs, key maps, own layouts."""

from __future__ import annotations

import csv
import io
import math
import re
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from fendra.core.errors import LayoutError
from fendra.core.limits import LAYOUT_BYTES, LAYOUT_PLACES
from fendra.core.names import did_you_mean
from fendra.files.placement import UNITS_MM, Placement, Triple
from fendra.whole import read_bytes

COLUMNS: dict[str, tuple[str, ...]] = {
    "name": ("name", "reference", "ref", "refdes", "designator", "key", "label", "id"),
    "x": ("x", "posx", "midx", "centrex", "centerx", "xpos", "refx", "locationx"),
    "y": ("y", "posy", "midy", "centrey", "centery", "ypos", "refy", "locationy"),
    "z": ("z", "posz", "height"),
    "rotation": ("rotation", "rot", "angle", "orientation"),
    "side": ("side", "layer", "face", "tb"),
    "line": ("line",),
    "part": ("part",),
    "address": ("address",),
    "index": ("index",),
    "skipped": ("skipped",),
    "facing_x": ("facingx",),
    "facing_y": ("facingy",),
    "facing_z": ("facingz",),
}
"""The columns, and the names by which each is known, without case, spaces
and signs."""

_UNIT = re.compile(rf"[(\[ _]({'|'.join(UNITS_MM)})[)\]]?\s*$", re.IGNORECASE)
_VALUE = re.compile(rf"([-+]?[\d.,]+(?:e[-+]?\d+)?)\s*({'|'.join(UNITS_MM)})?", re.IGNORECASE)
_LONGEST = 60
"""Characters of a number with its unit."""


@dataclass(frozen=True)
class _Column:
    """The index of a column, and the unit in its head in mm, if any."""

    place: int
    unit_mm: float | None


def read_csv(
    text: str,
    *,
    columns: Mapping[str, str] | None = None,
    unit: str = "mm",
    facing: str = "side",
) -> list[Placement]:
    """Read the LEDs of a CSV text, one per row. Skips lines before the heads that begin with #.

    columns: which column has which value (`{"x": "PosX"}`); the others are found by the names in
    `COLUMNS`. unit: for numbers without one, in the cell or the head of the column. facing: `side`,
    up or down by the column `side`; or `rotation`, sideways by that column.

    Raises LayoutError, with the numbers of the wrong rows.
    """
    heads, rows = _table(text)
    found = _find_columns(heads, columns or {})
    if facing == "rotation" and "rotation" not in found:
        raise LayoutError(f"no column holds the rotation. {_naming('rotation', heads)}")
    placements: list[Placement] = []
    wrong: list[str] = []
    for number, row in rows:
        try:
            placements.append(_placement(row, found, UNITS_MM[unit], facing))
        except ValueError as exc:
            wrong.append(f"row {number}: {exc}")
    if wrong:
        more = f" (and {len(wrong) - 3} rows more)" if len(wrong) > 3 else ""
        raise LayoutError("; ".join(wrong[:3]) + more + ".")
    if not placements:
        raise LayoutError("there are heads but no rows.")
    if len(placements) > LAYOUT_PLACES.most:
        raise LayoutError(f"there are too many rows; the limit is {LAYOUT_PLACES.in_words}.")
    return placements


def _table(text: str) -> tuple[list[str], list[tuple[int, list[str]]]]:
    """Heads, and rows with their numbers in the file; commas, semicolons or tabs between."""
    lines = text.lstrip("\ufeff").splitlines()
    first = next((i for i, line in enumerate(lines) if line.strip() and line[0] != "#"), None)
    if first is None:
        raise LayoutError("the file is empty.")
    delimiter = max(",;\t", key=lines[first].count)
    reader = csv.reader(io.StringIO("\n".join(lines[first:])), delimiter=delimiter)
    try:
        read = [(first + reader.line_num, row) for row in reader if any(map(str.strip, row))]
    except csv.Error as exc:
        raise LayoutError(f"this is not CSV: {exc}.") from exc
    return [head.strip() for head in read[0][1]], read[1:]


def _plain(head: str) -> str:
    return re.sub(r"[\W_]", "", _UNIT.sub("", head)).casefold()


def _find_columns(heads: Sequence[str], columns: Mapping[str, str]) -> dict[str, _Column]:
    found = {}
    for what, given in columns.items():
        if what not in COLUMNS:
            remedy = did_you_mean(what, COLUMNS, "columns")
            raise LayoutError(f"no column can hold '{what}'. {remedy}")
        if given not in heads:
            raise LayoutError(
                f"there is no column '{given}'. {did_you_mean(given, heads, 'heads')}"
            )
    plain = [_plain(head) for head in heads]
    for what, names in COLUMNS.items():
        if what in columns:
            place = heads.index(columns[what])
        else:
            place = next((plain.index(name) for name in names if name in plain), -1)
        if place >= 0:
            unit = _UNIT.search(heads[place])
            found[what] = _Column(place, UNITS_MM[unit[1].casefold()] if unit else None)
    for what in ("x", "y"):
        if what not in found:
            raise LayoutError(f"no column holds {what}. {_naming(what, heads)}")
    return found


def _naming(what: str, heads: Sequence[str]) -> str:
    more = ", ..." if len(heads) > 30 else ""
    return f"Name it: {what}=HEAD. The heads are: {', '.join(heads[:30])}{more}."


def _placement(
    row: Sequence[str], columns: Mapping[str, _Column], unit_mm: float, facing: str
) -> Placement:
    def cell(what: str) -> str:
        column = columns.get(what)
        return row[column.place].strip() if column and column.place < len(row) else ""

    def length(what: str) -> float:
        return _number(cell(what), what, columns[what].unit_mm or unit_mm)

    def plain(what: str) -> float:
        return _number(cell(what), what, 1.0)

    is_skipped = cell("skipped").casefold() in ("true", "yes", "1")
    position: Triple | None = None
    if cell("x") or cell("y") or not is_skipped:
        position = (length("x"), length("y"), length("z") if cell("z") else 0.0)
    address = cell("address")
    if address and not (address.isdecimal() and len(address) <= 6):
        raise ValueError(f"address '{address:.20}' is not a whole number below a million")
    return Placement(
        cell("name"),
        position,
        _facing(cell, plain, facing),
        line=cell("line"),
        part=cell("part"),
        address=int(address) if address else None,
        is_skipped=is_skipped,
        index=int(cell("index")) if re.fullmatch(r"\d{1,6}", cell("index")) else None,
    )


def _facing(
    cell: Callable[[str], str], plain: Callable[[str], float], facing: str
) -> Triple | None:
    if cell("facing_x") or cell("facing_y") or cell("facing_z"):
        return plain("facing_x"), plain("facing_y"), plain("facing_z")
    if facing == "rotation":
        angle = math.radians(plain("rotation"))
        return round(math.cos(angle), 6), round(math.sin(angle), 6), 0.0
    if cell("side").casefold().startswith("b"):  # bottom, back, bottomlayer, B.Cu
        return 0.0, 0.0, -1.0
    return None


def _number(text: str, what: str, unit_mm: float) -> float:
    found = _VALUE.fullmatch(text.strip()) if len(text) <= _LONGEST else None
    try:
        if found is None:
            raise ValueError
        value = float(found[1].replace(",", "."))
    except ValueError:
        raise ValueError(f"{what} is '{text:.40}', which is not a number") from None
    own = UNITS_MM[found[2].casefold()] if found[2] else unit_mm
    if not math.isfinite(value) or abs(value * own) > 1e6:
        raise ValueError(f"{what} = {text:.40} is out of range")
    return value * own


def read_places(path: Path, names: bool) -> tuple[list[Triple], list[str]]:
    """The places and names of a CSV file that a design names, in the file's own numbers.

    names: whether every row needs a name. Raises LayoutError and FileError.
    """
    text = read_bytes(path, LAYOUT_BYTES, is_plain=True).decode("utf-8", "replace")
    placements = read_csv(text)
    if names and not all(p.name for p in placements):
        raise LayoutError("every key needs a name, in a column `name`.")
    places = [p.position for p in placements if p.position is not None]
    return places, [p.name for p in placements]
