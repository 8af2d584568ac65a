"""The user's answers on the bench, as text, and the lines of the design that follow from them."""

from __future__ import annotations

import re
from collections.abc import Collection, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, fields

import numpy as np

from fendra.core.arrays import Ints
from fendra.core.document.design import Design
from fendra.core.errors import LayoutError
from fendra.core.names import did_you_mean, listed
from fendra.core.probe.bench import Bench
from fendra.core.probe.chain import Arrangement, Block, arrangements, blocks_of, exchanged_plugs
from fendra.core.probe.colours import deduce_order
from fendra.core.probe.cures import MEASURED, Change, Exchange, Way
from fendra.core.probe.deduce import MOST_TOLD, Seen, likeliest
from fendra.core.probe.explain import explain_whole, explanations, looked_at
from fendra.core.probe.marks import Sight, sight_of
from fendra.core.probe.patterns import LINE_COLOURS, part_colours

PIN, COUNTED = "its pin", "as many as you count"
"""Placeholders for values that only looking can give."""
_PAIR = re.compile(r"""(?:(["'])(.+?)\1|([\w.-]+))=([\w.+-]*)""")
_WORDS = {"top": "front", "bottom": "back", "rear": "back", "up": "front", "down": "back"}
"""Names for the ends of a thing seen from above."""


@dataclass(frozen=True)
class Verdict:
    """A conclusion from the user's answers.

    words: the conclusion. ways: each a list of changes that explain it; empty if nothing needs a
    change, or nothing explains it. hint: how to tell several ways apart.
    """

    is_explained: bool
    words: str
    ways: tuple[Way, ...] = ()
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
    for key, value in pairs(text).items():
        if key.casefold() not in known:
            remedy = did_you_mean(key, known, "things that can be seen")
            raise LayoutError(f"'{key}={value}' is not like red=front-left. {remedy}")
        word = value if key.casefold() == "lit" else value.casefold()
        if key.casefold() == "start":
            with suppress(ValueError):
                angle, word = float(value), ""
        values[key.casefold()] = word
    return Seen(**values), angle


def pairs(text: str) -> dict[str, str]:
    """`nose=red tail=green` as names and values; a name may be in quotes. Raises LayoutError.

    >>> pairs("nose=red, 'left arm'=green")
    {'nose': 'red', 'left arm': 'green'}
    """
    found: dict[str, str] = {}
    for quote, name, plain, value in _PAIR.findall(text):
        found[name if quote else plain] = value
    rest = _PAIR.sub("", text).replace(",", " ").split()
    if rest:
        raise LayoutError(f"'{rest[0]}' has no '='. Write KEY=VALUE, as in red=front-left.")
    return found


def judge(
    bench: Bench, line: str | None, part: str | None, text: str, sent: Collection[str] = ()
) -> Verdict:
    """Draw a conclusion from the user's answers: colours, lines, parts, a count, or places.

    sent: the patterns that were sent; the next one will be another. Raises LayoutError for texts or
    names that make no sense.
    """
    if "=" not in text:
        return judge_colours(bench.design, line, text.replace(",", " ").split())
    said = pairs(text)
    lines = [each.name for each in bench.design.line]
    parts = [block.name for block in blocks_of(bench)]
    if {*said} <= {*parts} and ("parts" in sent or not {*said} <= {*lines}):
        return judge_parts(bench, said)
    if {*said} <= {*lines}:
        return judge_lines(bench, said)
    if {*said} == {"count"}:
        return judge_count(bench, line, part, said["count"])
    if not {key.casefold() for key in said} & {field.name for field in fields(Seen)}:
        wrong = min({*said} - {*lines} - {*parts})
        remedy = did_you_mean(wrong, [*lines, *parts], "lines and parts")
        raise LayoutError(f"there is no line and no part '{wrong}'. {remedy}")
    return judge_places(bench, part, text, sent)


def judge_lines(bench: Bench, said: Mapping[str, str]) -> Verdict:
    """Lines whose plugs are exchanged, from the colour, or the number of blinks, of each line."""
    names, sent_as = [line.name for line in bench.design.line], [*LINE_COLOURS]
    shows: dict[int, int] = {}
    for name, value in said.items():
        number = int(value) - 1 if value.isdecimal() else None
        known = [
            i for i in range(len(names))
            if number == i or sent_as[i % len(sent_as)] == value.casefold()
        ]  # fmt: skip
        if value.casefold() == "dark":
            message = f"line '{name}' stays dark: no data comes out where it is plugged in."
            return Verdict(True, message, ((Change(("line", names.index(name)), "pin", PIN),),))
        if not known:
            colours = ", ".join(sent_as[: len(names)])
            raise LayoutError(f"no line was sent '{value}'. They were sent {colours}.")
        shows[names.index(name)] = known[0]
    for place, shown in [*shows.items()]:  # of two that are exchanged one answer is enough
        shows.setdefault(shown, place)
    moved = {place: shown for place, shown in shows.items() if place != shown}
    if not moved:
        return Verdict(True, "every line is where the design says.")
    if {*moved} != {*moved.values()}:
        return Verdict(False, f"two lines cannot be the same one. {_again('lines')}")
    if all(moved[shown] == place for place, shown in moved.items()):
        done = [exchanged_plugs(bench.design, a, b) for a, b in moved.items() if a < b]
        way: Way = tuple(cure for each in done for cure in each)
    else:
        way = tuple(
            Change(("line", place), "pin", bench.design.line[shown].pin or PIN)
            for place, shown in moved.items()
        )
    which = listed([f"'{names[place]}'" for place in sorted(moved)])
    return Verdict(True, f"lines {which} are swapped.", (way,))


def judge_parts(bench: Bench, said: Mapping[str, str]) -> Verdict:
    """Parts that have another place in their chain, from the colour of each part."""
    every = blocks_of(bench)
    number = {
        block.name: place % len(LINE_COLOURS) for place, block in enumerate(part_colours(bench))
    }
    of_row = np.full(len(bench), -1)
    for block in every:
        of_row[block.rows] = number.get(block.name, -1)
    colours = [*LINE_COLOURS]
    for value in said.values():
        if value.casefold() not in (*colours, "dark"):
            remedy = did_you_mean(value, [*colours, "dark"], "colours")
            raise LayoutError(f"no part was sent '{value}'. {remedy}")
    wanted = {
        name: -1 if value.casefold() == "dark" else colours.index(value.casefold())
        for name, value in said.items()
    }
    found: dict[bytes, Arrangement] = {}
    for arrangement in arrangements(bench):
        shown = _colours_shown(every, arrangement, of_row)
        if all(shown[name] == colour for name, colour in wanted.items()):
            known = found.setdefault(arrangement.source.tobytes(), arrangement)
            if arrangement.cost < known.cost:
                found[arrangement.source.tobytes()] = arrangement
    best = likeliest(found.values())[:MOST_TOLD]
    if not best:
        several = _several_exchanges(every, number, wanted)
        if several:
            words = "several pairs of parts are swapped: this explains it."
            return Verdict(True, words, (several,))
        words = "no single swap explains that: more than two parts are elsewhere."
        return Verdict(False, f"{words} {_again('walk', 'each part, from data-in on')}")
    if not best[0].way:
        return Verdict(True, "every part is where the design says, in the order of the wire.")
    lines = {block.path[1] for block in every if block.name in said}
    more = [b.name for b in every if b.name not in said and b.path[1] in lines]
    hint = f"More answers tell these apart: {', '.join(f'{n}=...' for n in more[:4])}."
    return Verdict(
        True, "the chain differs from the map: this explains it.",
        tuple(each.way for each in best), hint if len(best) > 1 and more else "",
    )  # fmt: skip


def _several_exchanges(
    every: Sequence[Block], number: Mapping[str, int], wanted: Mapping[str, int]
) -> Way:
    """Exchanges of equally long parts, two and two, that explain every colour; else none."""
    of_colour = {number[block.name]: block for block in every if block.name in number}
    way: list[Exchange] = []
    for block in every:
        other = of_colour.get(wanted.get(block.name, number.get(block.name, -1)))
        if other is None or other.name == block.name:
            continue
        is_pair = wanted.get(other.name, number.get(block.name)) == number.get(block.name)
        if not is_pair or len(other.rows) != len(block.rows):
            return ()
        if block.path < other.path:
            way.append(Exchange(block.path, other.path))
    return tuple(way)


def _colours_shown(
    every: Sequence[Block], arrangement: Arrangement, of_row: Ints
) -> dict[str, int]:  # fmt: skip
    """The colour that most LEDs of each part really have; -1 for none."""
    really = np.full(len(of_row), -1)
    is_there = arrangement.source >= 0
    really[arrangement.source[is_there]] = of_row[is_there]
    found = {}
    for block in every:
        values, counts = np.unique(really[block.rows], return_counts=True)
        found[block.name] = int(values[counts.argmax()])
    return found


def judge_count(bench: Bench, line: str | None, part: str | None, text: str) -> Verdict:
    """A part that is longer or shorter than the design says, from the length of its chain."""
    if not text.isdecimal():
        raise LayoutError(f"'count={text}' is not a whole number.")
    names = [each.name for each in bench.design.line]
    rows = [row for row in bench.layout.parts if row.name == part]
    if line is None and rows:
        line = names[rows[0].line]
    if line is None and len(names) > 1:
        raise LayoutError(f"which line was that? The lines are: {', '.join(names)}.")
    place = names.index(line) if line else 0
    size, seen = bench.layout.line_sizes[place], int(text)
    if seen == size:
        return Verdict(True, f"line '{names[place]}': {size} LEDs, as the design says.")
    parts = [
        (("line", place, "part", j), each.name, getattr(each, "count", None))
        for j, each in enumerate(bench.design.line[place].part)
    ]
    ways: list[Way] = []
    for path, name, count in parts:
        if isinstance(count, int) and count + seen - size > 0 and part in (None, name):
            ways.append((Change(path, "count", count + seen - size),))
    words = f"line '{names[place]}' has {seen} LEDs, but the design says {size}."
    if not ways:
        path = ("line", place, "part", 0)
        return Verdict(True, words, ((Change(path, "count", COUNTED),),))
    hint = "" if len(ways) == 1 else f"Which part is it? {_again('parts')}"
    return Verdict(True, words, tuple(ways[-4:]), hint)


def judge_places(
    bench: Bench, part: str | None, text: str, sent: Collection[str] = ()
) -> Verdict:  # fmt: skip
    """A verdict on the map of a part, or of all, from where marks and the walk were seen.

    A design with one part needs no part name. Raises LayoutError for a text or a part that cannot
    be made sense of.
    """
    seen, angle = read_seen(text)
    lit = [row for row in bench.layout.parts if row.kind == "lit"]
    if part is None and len(lit) == 1:
        part = lit[0].name
    rows = [row for row in lit if row.name == part]
    if not rows:
        return _judge_whole(bench, seen, angle, sent)
    if rows[0].count == len(rows[0].skipped):
        raise LayoutError(f"all of part '{part}' is skipped, so there is nothing to see.")
    looked = looked_at(bench.design, bench.layout, rows[0].name)
    seen = _as_seen(looked.sight, seen)
    _check_names(bench, seen)
    path = rows[0].path
    found = explanations(bench, looked, rows[0], seen, angle)
    if not found:
        if seen.at and seen.lit in ("", part):
            key = next(
                (k for k in ("start", "centre") if k in looked.link.part.model_fields_set), "at"
            )
            words = f"part '{part}' is not where the map says. Measure where it is."
            return Verdict(True, words, ((Change(path, key, MEASURED),),))
        words = f"part '{part}': no single mistake explains that. Look again, or give more answers."
        return Verdict(False, f"{words} {_next(sent, seen, part, len(lit))}")
    if not found[0].way:
        return Verdict(True, f"part '{part}': the map is right.")
    where = ", and of all copies of its assembly" if path[0] == "assemblies" else ""
    words = f"part '{part}'{where}: this explains it."
    ways = tuple(explanation.way for explanation in found)
    return Verdict(True, words, ways, _hint(seen, angle, len(found), looked.link.part.has_rows))


def _check_names(bench: Bench, seen: Seen) -> None:
    names = {row.name for row in bench.layout.parts}
    names |= {block.name for block in blocks_of(bench)}
    for name in filter(None, seen.lit.split("+")):
        if name not in names:
            remedy = did_you_mean(name, names, "parts")
            raise LayoutError(f"there is no part '{name}'. {remedy}")


def _as_seen(sight: Sight, seen: Seen) -> Seen:
    """An answer about something flat, in the words for flat things."""
    if sight.top != "front":
        return seen
    said = {field.name: getattr(seen, field.name) for field in fields(seen)}
    for name, text in said.items():
        if name != "lit":
            said[name] = "-".join(_WORDS.get(piece, piece) for piece in text.split("-"))
    return Seen(**said)


def _hint(seen: Seen, angle: float | None, count: int, has_rows: bool) -> str:
    if count < 2:
        return ""
    keys = ["red", "green", "start", "runs", *(["then"] if has_rows else []), "lit"]
    open_ = [
        key for key in keys if not getattr(seen, key) and not (key == "start" and angle is not None)
    ]
    if not open_:
        return "These look alike; find out which is true."
    return f"More answers tell these apart: {', '.join(f'{key}=...' for key in open_)}."


def _next(sent: Collection[str], seen: Seen, part: str | None, parts: int) -> str:
    """The pattern that would say most, of those that were not sent."""
    known = {*sent}
    known |= {"corners"} if seen.red or seen.green else set()
    known |= {"walk"} if seen.start or seen.runs or seen.then else set()
    order = ["corners", "walk", *(["parts"] if parts > 1 else []), "count", "axes"]
    left = [name for name in order if name not in known]
    return _again(left[0], part or "") if left else "Look at the chain itself: plugs, and data-in."


def _again(pattern: str, whose: str = "") -> str:
    """The next pattern to send, as written on the command line."""
    if " " in whose:
        return f"Next send {pattern} to {whose}."
    return f"Next send: fendra probe DESIGN {pattern}" + (f" --part {whose}." if whose else ".")


def _judge_whole(bench: Bench, seen: Seen, angle: float | None, sent: Collection[str]) -> Verdict:
    if seen.start or seen.runs or seen.then or angle is not None:
        raise LayoutError("the walk is about one part; say which one by --part.")
    rows = bench.placed
    if len(rows) == 0:
        raise LayoutError("nothing here has a place.")
    sight = sight_of(bench.position[rows], bench.facing[rows])
    found = explain_whole(bench, sight, _as_seen(sight, seen))
    if not found:
        return Verdict(
            False, f"no single mistake explains that. {_next({*sent, 'walk'}, seen, None, 2)}"
        )
    if not found[0].way and found[0].turned is None:
        return Verdict(True, "the map is right.")
    turned = [each.turned for each in found if each.turned is not None]
    ways = tuple(each.way for each in found if each.way)
    if not ways:
        cures = [
            f"{each.words}: write {each.cure(sight)} for each place [x, y, z]" for each in turned
        ]
        return Verdict(True, f"{'; or '.join(cures)}.", (_first_place(bench),))
    hint = f"To tell these apart: {_again('parts')}" if len(ways) > 1 else ""
    return Verdict(True, "this explains it.", ways, hint)


def _first_place(bench: Bench) -> Way:
    """The place in the file of the first value to change."""
    part = bench.design.line[0].part[0]
    key = next((k for k in ("start", "centre", "points") if k in part.model_fields_set), "at")
    return (Change(("line", 0, "part", 0), key, MEASURED),)
