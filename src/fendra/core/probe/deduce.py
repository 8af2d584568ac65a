"""The mistakes in a map, from where the user saw marks and the walk's first steps.

Every change of a part's keys that makers get wrong is tried: the places that it would give are
looked at as a person would, and the changes under which that person sees what was seen explain it.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, fields
from functools import cached_property
from itertools import product
from typing import Any, Protocol, TypeVar, get_args

import numpy as np
from pydantic import ValidationError

from fendra.core.arrays import Floats, Ints
from fendra.core.errors import LayoutError
from fendra.core.findings import KeyPath
from fendra.core.layout.chain import ChainPart, with_pose
from fendra.core.layout.listing import turning
from fendra.core.layout.pose import Pose
from fendra.core.layout.table import leds_of, means
from fendra.core.names import did_you_mean
from fendra.core.probe.cures import Change, Way
from fendra.core.probe.marks import Extent, Sight, places_in_words, quadrants, sight_of
from fendra.core.shapes import Part, Turning
from fendra.core.shapes.ring import Ring

TURNS, JUMPS = "turns", "jumps"
"""How a chain continues after its first row: it turns back, or jumps to the side where it began."""

_COST = {
    "first": 1.0,
    "direction": 1.05,
    "wiring": 1.1,
    "back_and_forth": 1.15,
    "start_angle": 1.2,
    "reverse": 1.25,
    "mirror": 1.5,
    "turn": 1.6,
    "at": 0.0,
}
"""The likelier a mistake, the less; `at` follows from the others."""

_USUAL = 1.2
"""The cost of the keys of other shapes."""

SAME = 0.2
"""Explanations that cost at most this much more than the best one are listed too."""

MOST_TOLD = 4


@dataclass(frozen=True)
class Seen:
    """The user's sightings; empty if nobody looked.

    red, green: where the marks of the pattern `corners` were. start: where the walk began; runs:
    which way it went first; then: whether, after its first row, it turned or jumped. lit: the part
    that was lit, or several with + between; at: where it is in the whole.
    """

    red: str = ""
    green: str = ""
    start: str = ""
    runs: str = ""
    then: str = ""
    lit: str = ""
    at: str = ""

    def agrees(self, other: Seen, *, loosely: bool = False) -> bool:
        """Whether another description agrees with this one.

        loosely: `left` also fits the front left, and `mixed` fits no corner.
        """
        return all(
            _agree(
                getattr(self, field.name),
                getattr(other, field.name),
                loosely and field.name != "lit",
            )
            for field in fields(self)
        )


def _agree(said: str, place: str, loosely: bool) -> bool:
    if said in ("", place) or (said and {*said.split("+")} <= {*place.split("+")}):
        return True
    if not loosely:
        return False
    if said == "mixed":
        return "-" not in place
    return {*said.split("-")} <= {*place.split("-")}


def cost_of(changes: Mapping[str, Any]) -> float:
    """How unlikely it is that all of these keys are wrong."""
    return sum(_COST.get(key, _USUAL) for key in changes)


@dataclass(frozen=True)
class Looked:
    """A part as the user looks at it.

    link: as it is written. per: LEDs per address. unit_mm: the design's unit. skipped: its
    addresses without visible LEDs.
    """

    link: ChainPart
    per: int
    unit_mm: float
    skipped: frozenset[int]

    @cached_property
    def written(self) -> Floats:
        """The places of its addresses that are seen, as the map has them: (n, 3) mm."""
        return self.position(self.link.part)

    @cached_property
    def sight(self) -> Sight:
        """The side from which the user looks at it."""
        position, facing, _ = leds_of(self.link, self.unit_mm)
        return sight_of(position, facing)

    @cached_property
    def marks(self) -> tuple[Ints, Ints]:
        """Which of those places get the red and which the green mark."""
        return quadrants(self.sight.flat(self.written))

    def position(self, part: Part) -> Floats:
        """The same places with the keys of another part."""
        values = leds_of(with_pose(self.link, part), self.unit_mm)[0]
        count = -(-len(values) // self.per)
        each = means(values, np.arange(len(values)) // self.per, count)
        return each[[i for i in range(count) if i not in self.skipped]]


def see(looked: Looked, position: Floats, lit: str = "", at: str = "") -> Seen:
    """The sightings of a part whose LEDs are really at other places (n, 3) mm.

    lit, at: what is lit then, and where on the whole thing.
    """
    sight = looked.sight
    flat = sight.flat(position)
    red_at, green_at = places_in_words(sight, flat, *looked.marks)
    start = sight.place(flat[0], Extent.of(flat))
    return Seen(red_at, green_at, start, _runs(looked, sight, flat), _then(looked, flat), lit, at)


def _runs(looked: Looked, sight: Sight, flat: Floats) -> str:
    if len(flat) < 2:
        return ""
    if looked.link.part.runs_round and len(flat) > 2:
        return "counter-clockwise" if turning(flat) > 0 else "clockwise"
    return sight.way(flat[1] - flat[0])


def _then(looked: Looked, flat: Floats) -> str:
    """Whether the chain turns or jumps after its first row; of matrices and keys only."""
    if not looked.link.part.has_rows or len(flat) < 4:
        return ""
    steps = np.diff(flat, axis=0)
    first = steps[0]
    along = steps @ first / max(float(first @ first), 1e-12)
    ends = np.flatnonzero(np.abs(along - 1) > 1e-3)
    if len(ends) == 0 or ends[0] + 1 >= len(steps):
        return ""
    return JUMPS if along[ends[0] + 1] > 0 else TURNS


@dataclass(frozen=True)
class Outlook:
    """The sightings to expect if the design were changed like this.

    changes: the new keys of a part, None to remove one; path: its place. before: other changes, and
    their cost. position: (n, 3) mm, where the LEDs are then.
    """

    changes: Mapping[str, Any]
    position: Floats
    seen: Seen
    path: KeyPath = ()
    before: Way = ()
    base: float = 0.0

    @property
    def way(self) -> Way:
        """All cures."""
        own = (Change(self.path, key, value) for key, value in self.changes.items())
        return (*self.before, *own)

    @property
    def cost(self) -> float:
        """The likelier, the less."""
        return self.base + cost_of(self.changes)


def outlooks(looked: Looked, angles: Sequence[float] = ()) -> list[Outlook]:
    """The sightings after each change of keys; see `candidates`."""
    found = []
    for changes, part in candidates(looked, angles):
        position = looked.position(part)
        found.append(Outlook(changes, position, see(looked, position)))
    return found


def possible(looked: Looked, angle: float | None) -> list[Outlook]:
    """The same, if the first LED of a ring was seen at an angle."""
    part = looked.link.part
    if angle is None or not isinstance(part, Ring):
        return outlooks(looked)
    every = outlooks(looked, (angle,))
    return [each for each in every if _begins_at(looked, part, each.position, angle)]


def explain(every: Sequence[Outlook], seen: Seen) -> list[Outlook]:
    """The changes that explain the sightings, the likeliest first; empty if there are none.

    Changes that put every LED at the same place count as one, the simplest.
    """
    agreeing = [outlook for outlook in every if seen.agrees(outlook.seen)] or [
        outlook for outlook in every if seen.agrees(outlook.seen, loosely=True)
    ]
    found: dict[tuple[bytes, str], Outlook] = {}
    for outlook in agreeing:
        same = ((outlook.position.round(2) + 0.0).tobytes(), outlook.seen.lit)
        if same not in found or outlook.cost < found[same].cost:
            found[same] = outlook
    return likeliest(found.values())[:MOST_TOLD]


class _Costs(Protocol):
    @property
    def cost(self) -> float: ...


C = TypeVar("C", bound=_Costs)


def likeliest(every: Iterable[C]) -> list[C]:
    """The changes that cost as little as the cheapest, or hardly more; the cheapest first."""
    ranked = sorted(every, key=lambda each: each.cost)
    return [each for each in ranked if each.cost <= ranked[0].cost + SAME]


def _begins_at(looked: Looked, ring: Ring, position: Floats, angle: float) -> bool:
    """Whether a ring's first LED is at an angle, in the user's view; to half a degree."""
    centre = looked.link.pose.points(np.array([ring.centre])) * looked.unit_mm
    x, y = looked.sight.flat(position[:1] - centre)[0]
    off = (float(np.degrees(np.arctan2(y, x))) - angle + 180) % 360 - 180
    return abs(off) < 0.5


def check_seen(looked: Looked, seen: Seen, whole: Sight) -> None:
    """Raises LayoutError for words that name no place or way. whole: the whole thing's sight."""
    sight = looked.sight
    ways = ("left", "right", *(("up", "down") if sight.top == "top" else (sight.top, sight.bottom)))
    known: dict[str, Sequence[str]] = {
        **_marks_words(sight),
        "start": sight.places,
        "runs": get_args(Turning) if looked.link.part.runs_round else ways,
        "then": (TURNS, JUMPS),
        "at": whole.places,
    }
    _check_words(seen, known)


def _check_words(seen: Seen, known: Mapping[str, Sequence[str]]) -> None:
    """Check that each answer uses a known word. Raises LayoutError."""
    for key, words in known.items():
        said = getattr(seen, key)
        if said and said not in words:
            remedy = did_you_mean(said, words, "words for it")
            raise LayoutError(f"'{key} = {said}' says nothing here. {remedy}")


def candidates(
    looked: Looked, angles: Sequence[float] = ()
) -> Iterator[tuple[dict[str, Any], Part]]:
    """Every change of keys that makers get wrong, with the part as it would be then.

    angles: those to try for the first LED of a ring, the eighths of a turn if not given.
    """
    part = looked.link.part
    options = part.slips()
    if angles:
        options["start_angle"] = tuple(angles)
    now = {key: getattr(part, key) for key in options} | (
        {"turn": part.turn % 360} if "turn" in options else {}
    )
    for key, values in options.items():
        options[key] = values if now[key] in values else (now[key], *values)
    for values in product(*options.values()):
        changes = {
            key: value for key, value in zip(options, values, strict=True) if value != now[key]
        }
        changed = _changed(looked, part, changes)
        if changed is not None:
            yield changed


def _changed(
    looked: Looked, part: Part, changes: Mapping[str, Any]
) -> tuple[dict[str, Any], Part] | None:
    """A part with other keys, about the same middle; None if it cannot have them."""
    keys = part.model_dump(exclude_unset=True)
    try:
        other = type(part).model_validate({**keys, **changes})
    except ValidationError:
        return None
    moved = dict(changes)
    if "turn" in changes or "mirror" in changes:
        away = _middle(looked.written) - _middle(looked.position(other))
        shift = looked.link.pose.matrix.T @ away / looked.unit_mm
        outer = Pose.of(part).matrix @ shift
        if np.abs(outer).max() > 1e-3:
            at = tuple(round(float(a + b), 3) + 0.0 for a, b in zip(part.at, outer, strict=True))
            moved["at"] = at
            other = type(part).model_validate({**keys, **changes, "at": at})
    return moved, other


def _middle(position: Floats) -> Floats:
    return np.asarray((position.min(axis=0) + position.max(axis=0)) / 2)


@dataclass(frozen=True)
class Turned:
    """A whole thing that is otherwise than it is mapped.

    matrix: (2, 2), from the mapped places to the real ones, to the right and up as it is seen.
    """

    words: str
    matrix: tuple[tuple[int, int], tuple[int, int]]

    def cure(self, sight: Sight) -> str:
        """The text to write for a place [x, y, z] of the map."""
        signs = {1: "", -1: "-"}
        cells = [
            f"{signs[round(float(row[axis]))]}{'xyz'[axis]}"
            for row in self.whole(sight)
            for axis in [int(np.abs(row).argmax())]
        ]
        return f"[{', '.join(cells)}]"

    def whole(self, sight: Sight) -> Floats:
        """The matrix (3, 3) from mapped places to real ones."""
        plane = np.array([sight.across, sight.upward], float)
        return np.asarray(np.eye(3) + plane.T @ (np.array(self.matrix) - np.eye(2)) @ plane)


WHOLE = (
    Turned("the map is right", ((1, 0), (0, 1))),
    Turned("the map is mirrored, left to right", ((-1, 0), (0, 1))),
    Turned("the map is mirrored, top to bottom", ((1, 0), (0, -1))),
    Turned("the map is turned by half a turn", ((-1, 0), (0, -1))),
    Turned("the thing is the map turned by a quarter, counter-clockwise", ((0, -1), (1, 0))),
    Turned("the thing is the map turned by a quarter, clockwise", ((0, 1), (-1, 0))),
    Turned("the map is mirrored about a diagonal", ((0, 1), (1, 0))),
    Turned("the map is mirrored about the other diagonal", ((0, -1), (-1, 0))),
)
"""Every way in which a flat map can be turned and mirrored by quarters."""


def deduce_whole(position: Floats, sight: Sight, seen: Seen) -> list[Turned]:
    """How the map of several parts (n, 3) has to be turned to explain where the marks were seen.

    Raises LayoutError for words that say no place.
    """
    _check_words(seen, _marks_words(sight))
    flat = sight.flat(position)
    marks = quadrants(flat)
    found = []
    for turned in WHOLE:
        seen_at = places_in_words(sight, flat @ np.array(turned.matrix).T, *marks)
        if Seen(seen.red, seen.green).agrees(Seen(*seen_at)):
            found.append(turned)
    return found


def _marks_words(sight: Sight) -> dict[str, tuple[str, ...]]:
    words = (*sight.places, "mixed", "nowhere")
    return {"red": words, "green": words}
