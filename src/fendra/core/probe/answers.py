"""What somebody saw on the bench, as text, and the lines of the design that follow from it."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass, fields
from typing import Any

from fendra.core.document.design import Design
from fendra.core.errors import LayoutError
from fendra.core.findings import KeyPath, Report
from fendra.core.layout import Layout
from fendra.core.layout.chain import unfold
from fendra.core.names import did_you_mean
from fendra.core.probe.bench import Bench
from fendra.core.probe.colours import deduce_order
from fendra.core.probe.deduce import (
    Deduction,
    Looked,
    Seen,
    deduce,
    deduce_whole,
)
from fendra.core.probe.marks import Sight, sight_of

_WORDS = {"top": "front", "bottom": "back", "rear": "back", "up": "front", "down": "back"}
"""How people call the ends of what is seen from above."""


@dataclass(frozen=True)
class Change:
    """A line of the design to change.

    path: of the table it is in. key, value: what to write; a value of None: take the key out.
    """

    path: KeyPath
    key: str
    value: Any


@dataclass(frozen=True)
class Verdict:
    """What follows from what was seen.

    words: the verdict. ways: each a list of changes, any of which explains it; none where nothing
    is to be changed, or nothing explains it. hint: what would tell several ways apart.
    """

    is_explained: bool
    words: str
    ways: tuple[tuple[Change, ...], ...] = ()
    hint: str = ""


def judge_colours(design: Design, line: str | None, seen: Sequence[str]) -> Verdict:
    """The colour order of a line, from the colours that were seen. Raises LayoutError."""
    names = [each.name for each in design.line]
    if line is None and len(names) > 1:
        raise LayoutError(f"which line was that? The lines are: {', '.join(names)}.")
    if line is not None and line not in names:
        raise LayoutError(f"there is no line '{line}'. {did_you_mean(line, names, 'lines')}")
    number = names.index(line) if line else 0
    written = design.line[number]
    found = deduce_order(written.wire_order, seen)
    words = f"line '{written.name}': {found.words}"
    if found.order is None or found.order == written.wire_order:
        return Verdict(found.order is not None, words)
    is_own = found.order == written.led_type.order
    change = Change(("line", number), "order", None if is_own else found.order)
    return Verdict(True, words, ((change,),))


def read_seen(text: str) -> tuple[Seen, float | None]:
    """`red=front-left green=front-right start=...` as values, and an angle if `start` is a number.

    Raises LayoutError.
    """
    known = [field.name for field in fields(Seen)]
    values: dict[str, str] = {}
    angle = None
    for word in text.replace(",", " ").split():
        key, equals, value = word.casefold().partition("=")
        if key not in known or not equals:
            remedy = did_you_mean(key, known, "things that can be seen")
            raise LayoutError(f"'{word}' is not like red=front-left. {remedy}")
        if key == "start":
            with suppress(ValueError):
                angle, value = float(value), ""
        values[key] = value
    return Seen(**values), angle


def judge_places(bench: Bench, part: str | None, text: str) -> Verdict:
    """What is wrong with the map of a part, or of all, from where marks and the walk were seen.

    Raises LayoutError for a text or a part that cannot be made sense of.
    """
    seen, angle = read_seen(text)
    rows = [row for row in bench.layout.parts if row.name == part and row.kind == "lit"]
    if not rows:
        return _judge_whole(bench, seen, angle)
    if rows[0].count == len(rows[0].skipped):
        raise LayoutError(f"all of part '{part}' is skipped; there is nothing to be seen.")
    looked = _looked(bench.design, bench.layout, rows[0].name)
    seen = _as_seen(looked.sight, seen)
    found = deduce(looked, seen, angle)
    if not found:
        words = (
            f"part '{part}': no mistake in one part explains that. Look again; its chain may be "
            "another than the map says: send walk."
        )
        return Verdict(False, words)
    if not found[0].changes:
        return Verdict(True, f"part '{part}': the map is right.")
    path = rows[0].path
    where = ", and of all copies of its assembly" if path[0] == "assemblies" else ""
    words = f"part '{part}'{where}: this explains it."
    ways = tuple(_changes(path, explanation) for explanation in found)
    return Verdict(True, words, ways, _hint(seen, angle, found, looked.link.part.has_rows))


def _as_seen(sight: Sight, seen: Seen) -> Seen:
    """What is said of what lies flat, in the words for that."""
    if sight.top != "front":
        return seen
    said = [getattr(seen, field.name).split("-") for field in fields(seen)]
    return Seen(*("-".join(_WORDS.get(piece, piece) for piece in pieces) for pieces in said))


def _looked(design: Design, layout: Layout, name: str) -> Looked:
    link = next(link for link in unfold(design, Report()).links if link.name == name)
    row = layout.part_row(name)
    led = design.line[row.line].led_type
    per = link.part.leds_per_address or led.leds_a_chip
    unseen = frozenset(row.place_of(row.first + place) for place in row.skipped)  # along the wire
    return Looked(link, per, layout.unit_mm, unseen)


def _changes(path: KeyPath, explanation: Deduction) -> tuple[Change, ...]:
    return tuple(Change(path, key, value) for key, value in explanation.changes.items())


def _hint(seen: Seen, angle: float | None, found: Sequence[Deduction], has_rows: bool) -> str:
    if len(found) < 2:
        return ""
    keys = ["red", "green", "start", "runs", *(["then"] if has_rows else [])]
    open_ = [
        key for key in keys if not getattr(seen, key) and not (key == "start" and angle is not None)
    ]
    if not open_:
        return "Those look alike; see which is so."
    return f"More answers tell these apart: {', '.join(f'{key}=...' for key in open_)}."


def _judge_whole(bench: Bench, seen: Seen, angle: float | None) -> Verdict:
    if seen.start or seen.runs or seen.then or angle is not None:
        raise LayoutError("the walk is about one part; say which one by --part.")
    rows = bench.placed
    if len(rows) == 0:
        raise LayoutError("nothing here has a place.")
    position = bench.position[rows]
    sight = sight_of(position, bench.facing[rows])
    found = deduce_whole(position, sight, _as_seen(sight, seen))
    if not found:
        return Verdict(
            False,
            "no turn and no mirror of all explains that: single parts are wrong. Probe each one by "
            "--part.",
        )
    if found[0].cure(sight) == "[x, y, z]":
        return Verdict(True, "the map is right.")
    cures = [
        f"{turned.words}: write {turned.cure(sight)} for each place [x, y, z]" for turned in found
    ]
    return Verdict(True, f"{'; or '.join(cures)}.")
