"""Layouts as files: every LED with its place, as CSV or JSON, and back into parts of a design."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterable, Sequence
from itertools import groupby
from pathlib import Path
from typing import Any

from fendra.core.catalogue.leds import LED_TYPES
from fendra.core.document.design import Design
from fendra.core.errors import FileError, LayoutError
from fendra.core.layout import Layout
from fendra.core.shapes import FACINGS
from fendra.files.design_text import NewLine
from fendra.files.placement import Placement, Triple
from fendra.whole import write_text

HEADS = (
    "line", "address", "part", "index", "name", "x", "y", "z", "facing_x", "facing_y", "facing_z",
    "skipped",
)  # fmt: skip

VERSION = 1
_DIGITS, _FACING_DIGITS = 6, 9
"""Behind the point; facings of LEDs that share an address nearly cancel each other out at times."""


def write_layout(path: str | Path, design: Design, layout: Layout) -> Path:
    """Write every LED of a layout as CSV, or as JSON if the file's ending says so.

    Places are mm. Addresses without a place get their own row. Raises FileError.
    """
    path = Path(path)
    if path.suffix not in (".csv", ".json"):
        raise FileError(f"'{path}' cannot be written: a layout needs a .csv or a .json")
    text = to_csv(layout) if path.suffix == ".csv" else to_json(design, layout)
    return write_text(path, text)


def to_csv(layout: Layout) -> str:
    """A layout as CSV, a row an LED."""
    text = io.StringIO()
    writer = csv.writer(text, lineterminator="\n")
    writer.writerow(HEADS)
    for led in _rows(layout):
        place = led.position or ("", "", "")
        facing = led.facing or ("", "", "")
        skipped = "yes" if led.is_skipped else ""
        index = "" if led.index is None else led.index
        head = [led.line, led.address, led.part, index, led.name]
        writer.writerow([*head, *place, *facing, skipped])
    return text.getvalue()


def to_json(design: Design, layout: Layout) -> str:
    """A layout as JSON: the lines with their types, and every LED."""
    lines = [
        {"name": line.name, "pin": line.pin, "led": line.led, "order": line.wire_order,
         "addresses": size}
        for line, size in zip(design.line, layout.line_sizes, strict=True)
    ]  # fmt: skip
    leds = [
        {"line": led.line, "address": led.address, "part": led.part, "index": led.index,
         "name": led.name, "position": led.position, "facing": led.facing,
         "skipped": led.is_skipped}
        for led in _rows(layout)
    ]  # fmt: skip
    head = {"fendra_layout": VERSION, "design": design.name, "unit": "mm", "lines": lines}
    rows = ",\n".join("    " + json.dumps(led, ensure_ascii=False) for led in leds)
    start = json.dumps(head, indent=2, ensure_ascii=False).removesuffix("\n}")
    return f'{start},\n  "leds": [\n{rows}\n  ]\n}}\n'


def _rows(layout: Layout) -> Iterable[Placement]:
    leds = layout.leds
    for row in layout.parts:
        line = layout.line_names[row.line]
        for offset in range(row.count if row.kind == "hidden" else 0):
            address = row.first + offset
            yield Placement("", None, None, (), line, row.name, address, is_skipped=True)
        for i in range(row.leds.start, row.leds.stop):
            yield Placement(
                leds.names[i],
                _triple(leds.position[i]),
                _triple(leds.facing[i], _FACING_DIGITS),
                (),
                line,
                row.name,
                int(leds.address[i]),
                is_skipped=bool(leds.spot[i] < 0),
                index=row.place_of(int(leds.address[i])),
            )


def _triple(values: Any, digits: int = _DIGITS) -> Triple:
    x, y, z = (round(float(value), digits) + 0.0 for value in values)
    return x, y, z


def read_json(text: str) -> tuple[list[Placement], dict[str, dict[str, Any]]]:
    """The LEDs of a layout in JSON, and the keys of its lines. Raises LayoutError."""
    try:
        plain = json.loads(text)
        if plain["fendra_layout"] != VERSION:
            raise LayoutError(
                f"this is a layout of version {plain['fendra_layout']}; this Fendra "
                f"reads version {VERSION}."
            )
        lines = {
            line["name"]: {key: line[key] for key in ("pin", "led", "order") if line.get(key)}
            for line in plain["lines"]
        }
        placements = [
            Placement(
                _word(led["name"]),
                led["position"] and _place(led["position"]),
                led["facing"] and _place(led["facing"]),
                line=_word(led["line"]),
                part=_word(led["part"]),
                address=_count(led["address"]),
                is_skipped=bool(led["skipped"]),
                index=None if led.get("index") is None else _count(led["index"]),
            )
            for led in plain["leds"]
        ]
    except (ValueError, TypeError, KeyError, AttributeError, RecursionError, OverflowError) as exc:
        if isinstance(exc, LayoutError):
            raise
        what = f"'{exc.args[0]}' is missing" if isinstance(exc, KeyError) else str(exc)[:100]
        raise LayoutError(f"this is not a layout from `fendra layout`: {what}.") from exc
    for keys in lines.values():
        led = LED_TYPES.get(keys.get("led", ""))
        if led is not None and keys.get("order") == led.order:
            del keys["order"]
    return placements, lines


def _place(given: Any) -> Triple:
    x, y, z = map(float, given)
    if not all(abs(value) <= 1e6 for value in (x, y, z)):  # NaN is not within anything
        raise ValueError(f"a place must be three numbers within 1e6, not {given!s:.60}")
    return x, y, z


def _word(given: Any) -> str:
    if not isinstance(given, str) or len(given) > 1_000:
        raise ValueError(f"a name must be a text, not {given!s:.40}")
    return given


def _count(given: Any) -> int:
    if not isinstance(given, int) or not 0 <= given < 1_000_000:
        raise ValueError(f"an address must be a whole number below a million, not {given!s:.40}")
    return given


def to_lines(
    placements: Sequence[Placement],
    *,
    line: str,
    part: str,
    unit_mm: float = 1.0,
    keys: dict[str, dict[str, Any]] | None = None,
) -> list[NewLine]:
    """Lines and parts as a design says them, of shape `points`.

    line, part: the names where a placement has none. unit_mm: the unit of the design. keys: those
    of each line. Placements that name line, part and address come back as they were: also the LEDs
    that share an address, copies, skipped and hidden ones. Raises LayoutError.
    """
    keys = keys or {}
    by_line: dict[str, dict[str, list[Placement]]] = {}
    for placement in placements:
        parts = by_line.setdefault(placement.line or line, {})
        parts.setdefault(placement.part or part, []).append(placement)
    return [
        NewLine(name, _parts(parts, unit_mm, keys.get(name, {})), keys.get(name, {}))
        for name, parts in by_line.items()
    ]


def _parts(
    parts: dict[str, list[Placement]], unit_mm: float, keys: dict[str, Any]
) -> list[dict[str, Any]]:
    used = 0
    starts: dict[int, str] = {}
    chip = LED_TYPES[keys["led"]].leds_a_chip if keys.get("led") in LED_TYPES else 1
    found = []
    for name, leds in parts.items():
        values: dict[str, Any] = {"name": name}
        if all(led.position is None for led in leds):
            values |= {"shape": "hidden", "count": len(leds)}
            used += len(leds)
        else:
            places = _addresses(name, leds, used)
            is_reversed = _is_reversed(leds)
            own = leds[::-1] if is_reversed else leds
            values |= {"shape": "points", "points": [_point(led, unit_mm) for led in own]}
            values |= _facing(own) | _names(own) | ({"reverse": True} if is_reversed else {})
            per = max(len(list(same)) for _, same in groupby(places))
            if per != chip:
                values["leds_per_address"] = per
            if places[0] < used:
                if places[0] not in starts:
                    raise LayoutError(f"part '{name}' begins within another part's addresses.")
                values["parallel_to"] = starts[places[0]]
            else:
                values |= _skipped(leds, places, is_reversed)
                used = places[-1] + 1
            starts.setdefault(places[0], name)
        found.append(values)
    return found


def _is_reversed(leds: Sequence[Placement]) -> bool:
    """Whether a part is fed from its end: its own places go down where addresses go up."""
    first, last = leds[0].index, leds[-1].index
    return first is not None and last is not None and first > last


def _addresses(name: str, leds: Sequence[Placement], used: int) -> list[int]:
    """The address of each LED; consecutive if the file has none."""
    if any(led.position is None for led in leds):
        raise LayoutError(f"some LEDs of part '{name}' have no place.")
    given = [led.address for led in leds]
    if all(address is None for address in given):
        return [used + i for i in range(len(leds))]
    places = [address for address in given if address is not None]
    is_run = len(places) == len(given) and [*dict.fromkeys(places)] == [
        *range(places[0], places[-1] + 1)
    ]
    if not is_run:
        raise LayoutError(f"the addresses of part '{name}' are not consecutive.")
    if places[0] > used:
        raise LayoutError(f"before part '{name}', the addresses from {used} on are missing.")
    return places


def _point(led: Placement, unit_mm: float) -> list[float]:
    assert led.position is not None
    digits = _DIGITS if unit_mm == 1.0 else _DIGITS + 2
    x, y, z = (round(value / unit_mm, digits) + 0.0 for value in led.position)
    return [x, y, z] if z else [x, y]


def _facing(leds: Sequence[Placement]) -> dict[str, Any]:
    """Nothing if all face up; one facing if all are the same; else one each."""
    words = {vector: word for word, vector in FACINGS.items()}
    each = [led.facing or FACINGS["up"] for led in leds]
    said: list[Any] = [words.get(facing, list(facing)) for facing in each]
    if any(facing != each[0] for facing in each):
        return {"facing": said}
    return {} if said[0] == "up" else {"facing": said[0]}


def _names(leds: Sequence[Placement]) -> dict[str, Any]:
    return {"names": [led.name for led in leds]} if any(led.name for led in leds) else {}


def _skipped(
    leds: Sequence[Placement], places: Sequence[int], is_reversed: bool
) -> dict[str, Any]:  # fmt: skip
    first, last = places[0], places[-1]
    dead = sorted({
        last - a if is_reversed else a - first
        for led, a in zip(leds, places, strict=True) if led.is_skipped
    })  # fmt: skip
    runs: list[list[int]] = []
    for place in dead:
        if runs and place == runs[-1][-1] + 1:
            runs[-1].append(place)
        else:
            runs.append([place])
    if not runs:
        return {}
    return {"skip": [run[0] if len(run) == 1 else f"{run[0]}-{run[-1]}" for run in runs]}
