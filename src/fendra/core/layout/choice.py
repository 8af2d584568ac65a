"""Choices of spots: parts, groups and trails by name, with an order along each."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from fnmatch import fnmatchcase

import numpy as np

from fendra.core.arrays import Array, Floats, Ints
from fendra.core.document.choice import Group, Spots, SpotTable, Trail
from fendra.core.document.design import Design
from fendra.core.errors import ExpressionError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.fixed import compute_fixed
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import simplify
from fendra.core.graph.trace import Tracer
from fendra.core.language.expression import Scope, compile_expression
from fendra.core.language.report import report_expression
from fendra.core.language.vocabulary import tame
from fendra.core.layout.columns import SPOT_COLUMNS, column_values, look_up_in, words
from fendra.core.layout.table import Layout
from fendra.core.names import NAME, counted, did_you_mean
from fendra.core.toml_text import value_text

EVEN = 1e-6
"""Places on a trail that are off an even spacing by less are evenly spaced: float32, in which
`by` is computed, is not finer."""

CHOICES = "parts, lines, groups and trails"
ALL = "all"
"""The name of the choice of every spot."""

_PLACES = re.compile(r"([\w*][\w .*-]*)\[([^\[\]]+)\]")
_RANGE = re.compile(r"\s*(\d+)\s*(?:-\s*(\d+)\s*)?")


@dataclass(frozen=True)
class Choice:
    """Some spots, and their order.

    spots: rows of the layout, ascending.
    along: each spot's place on the way from start to end, 0 to 1.
    rank: each spot's place in the order, from 0; spots with an equal place share one.
    ranks: how many different ranks there are.
    """

    name: str
    spots: Ints
    along: Floats
    rank: Floats
    ranks: int

    @property
    def ordered(self) -> Ints:
        """The spots in their order."""
        return self.spots[np.argsort(self.rank, kind="stable")]


def in_order(name: str, spots: Ints) -> Choice:
    """A choice of spots that are given in their order."""
    rank = np.argsort(spots).astype(np.float64)
    return Choice(name, np.sort(spots), rank / max(len(spots) - 1, 1), rank, len(spots))


def in_own_order(name: str, spots: Ints, layout: Layout) -> Choice:
    """A choice in the order in which its parts are written, each along its own shape."""
    return in_order(name, spots[np.argsort(layout.order[spots])])


def ordered_by(name: str, spots: Ints, by: Floats) -> Choice:
    """A choice whose order, and distances along it, follow the numbers in `by`."""
    if len(spots) == 0:
        return Choice(name, spots, by, by, 0)
    span = float(by.max() - by.min())
    along = (by - by.min()) / span if span > 0 else np.zeros(len(spots))
    order = np.argsort(along, kind="stable")
    is_new = np.diff(along[order], prepend=-1.0) > 1e-5
    rank = np.empty(len(spots))
    rank[order] = np.cumsum(is_new) - 1
    ranks = int(is_new.sum())
    even = rank / max(ranks - 1, 1)
    if np.abs(along - even).max() < EVEN:
        along = even
    return Choice(name, spots, along, rank, ranks)


def joined(name: str, runs: Sequence[Choice]) -> Choice:
    """One run after the other, each in its own order; a spot counts where it comes first."""
    rank_of: dict[int, float] = {}
    start = 0
    for run in runs:
        for spot, rank in zip(run.spots.tolist(), run.rank.tolist(), strict=True):
            rank_of.setdefault(spot, start + rank)
        start += run.ranks
    spots = np.array(sorted(rank_of), np.int64)
    found, rank = np.unique([rank_of[spot] for spot in spots.tolist()], return_inverse=True)
    return Choice(name, spots, rank / max(len(found) - 1, 1), rank.astype(np.float64), len(found))


def evaluate(layout: Layout, text: str, want: Kind) -> Array:
    """An expression over the layout's columns, for every spot.

    Raises ExpressionError.
    """
    tracer = Tracer()
    scope = Scope(tracer, look_up_in(tracer, ALL), SPOT_COLUMNS, words(layout))
    value = compile_expression(text, scope, want)
    value = tame(value) if want is Kind.FLOAT else value
    tracer.roots["result"] = value.place
    graph = simplify(tracer.graph())
    columns = {
        (ALL, str(node.payload)): column_values(layout, str(node.payload))
        for node in graph.nodes
        if node.op == "column"
    }
    fixed = compute_fixed(graph, columns, lambda _: (len(layout),))
    return np.broadcast_to(fixed[graph.roots["result"]], (len(layout),))


class Choices(dict[str, Choice]):
    """Every choice of a design by name: `all`, the parts, the groups, the trails.

    written: choices without a name, by their place in the design.
    """

    def __init__(self) -> None:
        super().__init__()
        self.written: dict[KeyPath, Choice] = {}

    def on_canvas(self, name: str) -> dict[str, Choice]:
        """The LEDs that a canvas places, by the text of each choice."""
        here = ("canvases", name)
        return {str(path[2]): each for path, each in self.written.items() if path[:2] == here}


def named(layout: Layout, name: str, known: Mapping[str, Choice]) -> Choice | None:
    """The choice of a name; a line is one as well, where nothing else is called so."""
    if name not in known and name in layout.line_names:
        rows = np.arange(len(layout))[layout.spots_of_line(name)]
        return in_own_order(name, rows, layout)
    return known.get(name)


def choose(layout: Layout, text: str, known: Mapping[str, Choice]) -> Ints:
    """The spots that a text chooses.

    It is the name of a part, line, group or trail; names with `*` in them; places of one of them,
    as `tail[0-9]`, `tail[3]` or by an LED's own name `pad[esc]`; or a condition over columns.

    known: the choices above this one in the file. Raises ExpressionError.
    """
    found = named(layout, text, known)
    if found is not None:
        return found.spots
    places = _PLACES.fullmatch(text.strip())
    if places is not None:
        name, inside = places[1].strip(), places[2]
        names = _like(name, known) if "*" in name else [name]
        each = [_places_of(layout, one, inside, known, text) for one in names]
        return np.unique(np.concatenate(each))
    if "*" in text and NAME.fullmatch(text.replace("*", "a")) and " " not in text:
        return np.unique(np.concatenate([known[name].spots for name in _like(text, known)]))
    try:
        return np.flatnonzero(evaluate(layout, text, Kind.TRUTH))
    except ExpressionError as exc:
        several = [name.strip() for name in text.split(",")]
        if len(several) > 1 and all(named(layout, name, known) for name in several):
            raise ExpressionError(
                "several choices need a list.", remedy=f"Write {value_text(several)}."
            ) from exc
        if NAME.fullmatch(text) and exc.code == "unknown-name":
            remedy = did_you_mean(text, (*known, *layout.line_names), CHOICES)
            problem = f"there is no part, line, group or trail '{text}'."
            raise ExpressionError(
                problem, remedy=remedy, code="unknown-name", names=(text,)
            ) from exc
        exc.code = "expression"
        raise


def _like(pattern: str, known: Mapping[str, Choice]) -> list[str]:
    """The names that match a pattern with `*`. Raises ExpressionError if there are none."""
    found = [name for name in known if name != ALL and fnmatchcase(name, pattern)]
    if not found:
        remedy = did_you_mean(pattern.replace("*", ""), known, CHOICES)
        raise ExpressionError(f"no name matches '{pattern}'.", remedy=remedy)
    return found


def _places_of(
    layout: Layout, name: str, inside: str, known: Mapping[str, Choice], text: str
) -> Ints:
    """`name[inside]`: places of a part as the map counts them, of a choice in its own order."""
    choice = named(layout, name, known)
    if choice is None:
        remedy = did_you_mean(name, known, CHOICES)
        problem = f"there is no part, line, group or trail '{name}'."
        raise ExpressionError(problem, remedy=remedy, code="unknown-name", names=(name,), text=text)
    called = [spot for spot in choice.spots.tolist() if layout.names[spot] == inside.strip()]
    if called:
        return np.array(called, np.int64)
    span = _RANGE.fullmatch(inside)
    names = [layout.names[spot] for spot in choice.spots.tolist() if layout.names[spot]]
    if span is None:
        remedy = did_you_mean(inside, names, "LEDs") if names else "Write a place: [3] or [0-9]."
        problem = f"'{name}' has no LED '{inside}'."
        raise ExpressionError(problem, remedy=remedy, names=(name, inside.strip()), text=text)
    low, high = int(span[1]), int(span[2] or span[1])
    place = layout.index[choice.spots] if name in layout.part_names else choice.rank
    if high < low or len(place) == 0 or high > place.max():
        last = int(place.max()) if len(place) else -1
        raise ExpressionError(
            f"'{name}' has no places {inside}",
            remedy=f"They go from 0 to {last}.",
            names=(name,),
            text=text,
        )
    return choice.spots[(place >= low) & (place <= high)]


def chosen(layout: Layout, text: str, known: Mapping[str, Choice]) -> Choice:
    """The LEDs that a text chooses, in order: a single name in its own order, all else in the
    text's. Raises ExpressionError.
    """
    found = named(layout, text, known)
    return found or in_own_order(text, choose(layout, text, known), layout)


def union(layout: Layout, texts: str | Sequence[str], known: Mapping[str, Choice]) -> Ints:
    """The spots that one text or any of several chooses. Raises ExpressionError."""
    each = [texts] if isinstance(texts, str) else texts
    found = [choose(layout, text, known) for text in each]
    return np.unique(np.concatenate([np.zeros(0, np.int64), *found]))


def choose_all(
    design: Design, layout: Layout, report: Report, dropped: Iterable[str] = ()
) -> Choices:
    """Every choice of a design.

    dropped: names in the file that were left out because they were wrong; nothing more is reported
    about them. A wrong group or trail is reported once, and chooses all spots.
    """
    choices = Choices()
    choices[ALL] = in_own_order(ALL, np.arange(len(layout)), layout)
    for part in layout.parts:
        if part.kind != "hidden":
            choices[part.name] = in_order(part.name, part.rows)
    mine: dict[str, list[Ints]] = {}
    for part in layout.parts:
        for dot in re.finditer(r"\.", part.name if part.kind != "hidden" else ""):
            mine.setdefault(part.name[: dot.start()], []).append(choices[part.name].spots)
    for name, _ in layout.assemblies:
        spots = np.unique(np.concatenate([np.zeros(0, np.int64), *mine.get(name, [])]))
        choices.setdefault(name, in_own_order(name, spots, layout))
    later = {*design.groups, *design.trails}
    chooser = _Chooser(layout, report, frozenset(dropped), choices, later)
    for name, group in design.groups.items():
        spots = chooser.group(group, ("groups", name))
        chooser.add(in_own_order(name, spots, layout), ("groups", name))
    for name, trail in design.trails.items():
        chooser.add(chooser.trail(name, trail, ("trails", name)), ("trails", name))
    for number, layer in enumerate(design.layer):
        chooser.write(layer.on, ("layer", number, "on"))
    for name, signal in design.signals.items():
        chooser.write(signal.on, ("signals", name, "on"))
    for name, canvas in design.canvases.items():
        for text in canvas:
            chooser.write(text, ("canvases", name, text))
    return choices


class _Chooser:
    """Makes one choice after the other, each from those before it."""

    def __init__(
        self, layout: Layout, report: Report, dropped: frozenset[str], choices: Choices,
        later: set[str],
    ) -> None:  # fmt: skip
        self._layout, self._report, self._dropped = layout, report, dropped
        self._choices, self._later = choices, later
        self._is_wrong = False

    def add(self, choice: Choice, path: KeyPath) -> None:
        if choice.name in self._choices:
            message = f"'{choice.name}' is already the name of a part, group or trail."
            self._report.error(path, "duplicate-name", message, "Give it a name of its own.")
            return
        if len(choice.spots) == 0 and not self._dropped:
            message = "this chooses no LED."
            self._report.warning(path, "empty", message, "Compare with `fendra map`.")
        self._choices[choice.name] = choice

    def write(self, on: Spots, path: KeyPath) -> None:
        """Add a choice that is written where it is used; none if it is wrong.

        A single name has its own order, all else that of a group.
        """
        written = self._choices.written
        if isinstance(on, str):
            choice = named(self._layout, on, self._choices)
            if choice is not None:
                written[path] = choice
                return
        self._is_wrong = False
        spots = self.group(on, path)
        if not self._is_wrong:
            written[path] = in_own_order(in_words(on), spots, self._layout)

    def group(self, group: Group | Spots, path: KeyPath) -> Ints:
        if isinstance(group, (str, list)):
            return self._spots(group, path)
        spots = self._spots(group.of, (*path, "of"))
        spots = np.setdiff1d(spots, self._spots(group.without, (*path, "without"), nothing=True))
        spots = self._near(group, spots, path)
        if group.outermost is not None:
            self._tell_if_few(group.outermost, spots, (*path, "outermost"))
            spots = farthest(self._layout, spots, group.outermost)
        return spots

    def _near(self, group: SpotTable, spots: Ints, path: KeyPath) -> Ints:
        if group.near is None:
            for key in ("within", "nearest"):
                if getattr(group, key) is not None:
                    message = f"`{key}` needs a place or a name."
                    self._report.error((*path, key), "missing-key", message, "Add near = ...")
            return spots
        if group.within is None and group.nearest is None:
            message = "`near` alone chooses nothing."
            remedy = "Add within = a radius, or nearest = how many."
            self._report.error((*path, "near"), "missing-key", message, remedy)
        if isinstance(group.near, str):
            there = self._layout.position[self._spots(group.near, (*path, "near"))]
            if len(there) == 0:
                return spots
            point = (there.min(axis=0) + there.max(axis=0)) / 2
        else:
            point = np.array(group.near) * self._layout.unit_mm
        spots = spots[np.argsort(self._layout.order[spots])]  # of equally near ones the first
        away = np.linalg.norm(self._layout.position[spots] - point, axis=1)
        if group.within is not None:
            is_in = away <= group.within * self._layout.unit_mm * (1 + 1e-9)
            spots, away = spots[is_in], away[is_in]
        if group.nearest is not None:
            self._tell_if_few(group.nearest, spots, (*path, "nearest"))
            spots = spots[np.argsort(away.round(6), kind="stable")[: group.nearest]]
        return np.sort(spots)

    def _tell_if_few(self, wanted: int, spots: Ints, path: KeyPath) -> None:
        if wanted > len(spots) and not self._dropped:
            message = f"this asks for {counted(wanted, 'LED')}, but there are {len(spots)}."
            self._report.warning(path, "too-many", message, "All of them are chosen.")

    def trail(self, name: str, trail: Trail, path: KeyPath) -> Choice:
        if (trail.of is None) == (not trail.join):
            message = "a trail has either `of` or `join`; give one of them."
            self._report.error(path, "missing-key", message, "Add of = ... or join = [...].")
        if trail.join:
            choice = self._joined(name, trail, path)
        else:
            spots = self._spots(trail.of or ALL, (*path, "of"))
            choice = in_own_order(name, spots, self._layout)
        if trail.by is not None:
            try:
                by = evaluate(self._layout, trail.by, Kind.FLOAT).astype(np.float64)
                choice = ordered_by(name, choice.spots, by[choice.spots])
            except ExpressionError as exc:
                report_expression(exc, (*path, "by"), self._report, self._dropped)
        if trail.from_middle:
            choice = ordered_by(name, choice.spots, np.abs(2 * choice.along - 1))
        if trail.reverse:
            rank = choice.ranks - 1 - choice.rank
            choice = replace(choice, along=1 - choice.along, rank=rank)
        return choice

    def _joined(self, name: str, trail: Trail, path: KeyPath) -> Choice:
        if trail.by is not None:
            message = "joined runs have their own order; `by` would undo it."
            self._report.error((*path, "by"), "no-effect", message, "Use `of` instead of `join`.")
        runs = []
        for i, text in enumerate(trail.join):
            bare = text.removeprefix("-")
            known = named(self._layout, bare, self._choices)
            run = known or in_own_order(bare, self._spots(bare, (*path, "join", i)), self._layout)
            if text.startswith("-"):
                run = replace(run, rank=run.ranks - 1 - run.rank)
            runs.append(run)
        return joined(name, runs)

    def _spots(self, texts: str | Sequence[str], path: KeyPath, *, nothing: bool = False) -> Ints:
        """The spots that texts choose; if they are wrong, all spots, or none if that is safer."""
        try:
            return union(self._layout, texts, self._choices)
        except ExpressionError as exc:
            self._is_wrong = True
            late = [name for name in exc.names if name in self._later - {*self._choices}]
            if late:
                exc.remedy = f"'{late[0]}' comes later in the file. Move it above this."
            report_expression(exc, path, self._report, self._dropped, exc.code)
            return self._choices[ALL].spots[:0] if nothing else self._choices[ALL].spots


def in_words(on: Spots) -> str:
    """A choice that has no name of its own, as it is written.

    >>> in_words(["tail[0-3]", "x < 0"]), in_words(SpotTable(of="tail", outermost=2))
    ('tail[0-3], x < 0', 'of = tail, outermost = 2')
    """
    if isinstance(on, str):
        return on
    if isinstance(on, list):
        return ", ".join(on)
    keys = on.model_dump(exclude_unset=True).items()
    said = {key: in_words(v) if isinstance(v, (str, list)) else f"{v}" for key, v in keys}
    return ", ".join(f"{key} = {value}" for key, value in said.items())


def farthest(layout: Layout, spots: Ints, count: int) -> Ints:
    """The spots that are farthest from the middle of all; ascending."""
    if len(spots) == 0:
        return spots
    spots = spots[np.argsort(layout.order[spots])]  # of equally far ones the first
    there = layout.position[spots]
    middle = (there.min(axis=0) + there.max(axis=0)) / 2
    away = np.linalg.norm(there - middle, axis=1).round(6)
    return np.sort(spots[np.argsort(-away, kind="stable")[:count]])
