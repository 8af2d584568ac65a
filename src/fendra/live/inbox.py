"""The inbox: the values from all sources, as the numbers that a frame takes.

Sources put values into it from their own threads; the loop takes them once a frame and never waits.
A hand may hold a signal: values from sources are then kept, but used in no frame. For a number only
the newest value is kept. Events and texts wait in a short queue; each frame takes at most one, with
an empty frame between two, so that each is seen.
"""

from __future__ import annotations

import re
import time
from collections import deque
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from threading import Lock
from typing import Any

from fendra.core.document.design import Design
from fendra.core.errors import SignalError
from fendra.core.limits import NAME_LETTERS
from fendra.core.names import did_you_mean
from fendra.core.quoting import visible
from fendra.core.signals.door import Door, door_of, through
from fendra.core.signals.inputs import ANY, fed, split_source
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.raw import number_of
from fendra.core.signals.values import to_numbers

LONGEST_ROW = 16
"""Events of one signal that wait; more at once are too many to be seen."""
LONGEST_NAME = NAME_LETTERS.most
"""Characters of a name."""
MOST_NAMES = 500
"""How many unused names to remember."""
_ITEM = re.compile(r"(.+)\[(\d{1,3})\]")
SETTLE = 0.2
"""How quickly a rate follows."""


MOST_WRONG = 5
"""Values that made no sense and are remembered, of each signal."""


@dataclass
class Heard:
    """The values that arrived for one signal.

    raw: the newest raw value. at_s: when it arrived. count: of all. rate_hz: how often lately.
    spans: lowest and highest raw number, by the place of the source among the signal's sources,
    None for a tape; place: of the newest. refused: raw values that made no sense; wrong: the first
    few of them; problem: of the last one. source: the source of the newest.
    """

    raw: Any = None
    at_s: float = -1e9
    count: int = 0
    rate_hz: float = 0.0
    spans: dict[int | None, tuple[float, float]] = field(default_factory=dict)
    place: int | None = None
    refused: int = 0
    wrong: tuple[str, ...] = ()
    problem: str = ""
    source: str = ""

    def hear(self, raw: Any, source: str, now_s: float) -> None:
        step_s = now_s - self.at_s
        if self.count and step_s > 0:
            self.rate_hz += (1.0 / max(step_s, 1e-3) - self.rate_hz) * SETTLE
        self.raw, self.at_s, self.source = raw, now_s, source
        self.count += 1

    @property
    def span(self) -> tuple[float, float] | None:
        """Lowest and highest raw number of the newest input; None if there is none."""
        return self.spans.get(self.place)

    def refuse(self, why: Exception, raw: Any) -> None:
        """Count a raw value that made no sense, and remember the first few."""
        self.refused += 1
        self.problem = str(why)
        if len(self.wrong) < MOST_WRONG and (text := f"{raw!r:.40}") not in self.wrong:
            self.wrong = (*self.wrong, text)

    def note(self, place: int | None, numbers: Iterable[float]) -> None:
        """Widen the span of one input to include this number."""
        values = [*numbers, *self.spans.get(place, ())]
        self.spans[place], self.place = (min(values), max(values)), place


@dataclass(frozen=True)
class _Route:
    """A way to a signal: by a door; place: among the signal's sources."""

    signal: str
    door: Door | None
    place: int


@dataclass
class _Row:
    """Events that wait, and whether one was given in the last frame."""

    waiting: deque[dict[str, float]] = field(default_factory=lambda: deque(maxlen=LONGEST_ROW))
    was_given: bool = False


class Inbox:
    """News by signal of one design. Names that it does not use are remembered in `unused`."""

    def __init__(self, design: Design, *, clock: Callable[[], float] = time.perf_counter) -> None:
        self._lock = Lock()
        self._clock = clock
        self._numbers: dict[str, float] = {}
        self._pictures: dict[str, Any] = {}
        self._rows: dict[str, _Row] = {}
        self._last: dict[str, float] = {}
        self._held: dict[str, dict[str, float]] = {}
        self._kept: dict[str, float] = {}
        self.heard: dict[str, Heard] = {}
        self.unused: dict[tuple[str, str], int] = {}
        self.use(design)

    def use(self, design: Design) -> None:
        """From now on, take values for another design."""
        with self._lock:
            self.design, self._fed = design, fed(design)
            self._routes: dict[tuple[str, str], list[_Route]] = {}
            for name, signal in design.signals.items():
                if signal.of is not None:
                    continue
                for place, given in enumerate(signal.sources):
                    source, theirs = split_source(given.name or name)
                    route = _Route(name, door_of(signal, given), place)
                    self._routes.setdefault((source or ANY, theirs), []).append(route)
                self.heard.setdefault(name, Heard())
            self.heard = {name: self.heard[name] for name in design.signals if name in self.heard}
            self._held = {
                name: held
                for name, held in self._held.items()
                if all(self._fed.get(part) == name for part in held) and name in design.signals
            }
            self.unused.clear()

    def put(self, source: str, name: str, raw: Any) -> None:
        """Take a raw value, under the source's own name. A table or list is split into its parts if
        no signal takes it whole.
        """
        now_s = self._clock()
        waiting = deque([(name, raw, 0)])
        while waiting:  # each by itself, so that a frame never waits for a long message
            name, raw, depth = waiting.popleft()
            with self._lock:
                waiting.extend(self._put(source, name, raw, now_s, depth))

    def put_number(self, source: str, part: str, value: float) -> None:
        """Take a number that feeds a signal, or a part of one, as tapes have it."""
        now_s = self._clock()
        with self._lock:
            name = self._fed.get(part)
            if name is None:
                self._note_unused(source, visible(part[:80]))
                return
            heard = self.heard[name]
            if part == name or part.endswith("[0]"):
                heard.hear(value, source, now_s)
            if kind_of(self.design.signals[name]).measures:
                heard.note(None, [value])
            self._numbers[part] = value

    def _put(
        self, source: str, name: str, raw: Any, now_s: float, depth: int
    ) -> Iterable[tuple[str, Any, int]]:
        """Take a raw value, or return its parts if no signal takes it whole."""
        routes = self._routes.get((source, name)) or self._routes.get((ANY, name))
        if routes:
            for route in routes:
                self._take_raw(source, route, raw, now_s)
        elif self._put_item(source, name, raw, now_s):
            pass
        elif isinstance(raw, Mapping) and depth < 8:
            return [(f"{name}.{key}"[:LONGEST_NAME], raw[key], depth + 1) for key in raw]
        elif isinstance(raw, (list, tuple)) and self._wants_items(source, name):
            return [(f"{name}[{place}]", value, depth + 1) for place, value in enumerate(raw[:64])]
        else:
            self._note_unused(source, visible(name[:80]))
        return ()

    def _note_unused(self, source: str, name: str) -> None:
        if (source, name) in self.unused or len(self.unused) < MOST_NAMES:
            self.unused[source, name] = self.unused.get((source, name), 0) + 1

    def _put_item(self, source: str, name: str, raw: Any, now_s: float) -> bool:
        """Take one number of a vector, as columns give them; false if this is not one."""
        item = _ITEM.fullmatch(name)
        if item is None:
            return False
        routes = self._routes.get((source, item[1])) or self._routes.get((ANY, item[1])) or []
        parts = [(route, f"{route.signal}[{int(item[2])}]") for route in routes]
        wanted = [(route, part) for route, part in parts if self._fed.get(part) == route.signal]
        for route, part in wanted:
            first, heard = f"{route.signal}[0]", self.heard[route.signal]
            try:
                value = number_of(part, through(route.door, part, raw, 0.0))
                number = number_of(part, raw)
            except SignalError as exc:
                heard.refuse(exc, raw)
                continue
            if value != value:  # noqa: PLR0124 - NaN is no news
                continue
            if first not in self._numbers or part == first:
                heard.hear(raw, source, now_s)
            heard.note(route.place, [number])
            self._last[part] = value
            self._numbers[part] = value
            self._numbers.setdefault(first, self._last.get(first, 0.0))  # the vector's own news
        return bool(wanted)

    def _wants_items(self, source: str, name: str) -> bool:
        """Whether some signal has its value from an item of a list of this name."""
        return any(
            theirs.startswith(f"{name}[") and whose in (source, ANY)
            for whose, theirs in self._routes
        )

    def _take_raw(self, source: str, route: _Route, raw: Any, now_s: float) -> None:
        name = route.signal
        signal, heard = self.design.signals[name], self.heard[name]
        kind = kind_of(signal)
        if kind.is_picture:
            heard.hear(None, source, now_s)
            self._pictures[name] = raw
            return
        try:
            taken = through(route.door, name, raw, self._last.get(name, 0.0))
            numbers = to_numbers(name, signal, taken)
        except SignalError as exc:
            heard.refuse(exc, raw)
            return
        if not numbers:
            return
        heard.hear(raw, source, now_s)
        if kind.measures:
            told = numbers if route.door is None else to_numbers(name, signal, raw)
            heard.note(route.place, told.values())
        self._last[name] = next(iter(numbers.values()))
        if kind.is_moment:
            self._rows.setdefault(name, _Row()).waiting.append(numbers)
        else:
            self._numbers.update(numbers)

    def hold(self, name: str, raw: Any) -> None:
        """Hold a signal by hand: from the next frame on it has this value, whatever sources send.
        None: it gets no new values. An event and a text happen once, and are not held.

        Raises SignalError for an unknown signal, and for a value that makes no sense.
        """
        with self._lock:
            signal = self.design.signals.get(name)
            if signal is None:
                remedy = did_you_mean(name, self.heard, "signals")
                raise SignalError(f"the design has no signal '{name}'. {remedy}")
            kind = kind_of(signal)
            if signal.of is not None or kind.is_picture:
                what = "a picture" if kind.is_picture else "computed by the design"
                raise SignalError(f"signal '{name}' is {what}, so you cannot set it by hand")
            numbers = to_numbers(name, signal, raw)
            if kind.is_moment and numbers:
                self._rows.setdefault(name, _Row()).waiting.append(numbers)
                return
            for part in kind.parts(signal, name):
                if part in self._numbers:
                    self._kept[part] = self._numbers.pop(part)
            self._held[name] = numbers

    def release(self, name: str) -> None:
        """Release a signal: it takes the newest value from sources, else its fallback."""
        with self._lock:
            signal = self.design.signals.get(name)
            if self._held.pop(name, None) is None or signal is None:
                return
            kind = kind_of(signal)
            for part in kind.parts(signal, name):
                last = self._last.get(part, kind.fallback(signal))
                self._numbers[part] = self._kept.pop(part, last)

    @property
    def held(self) -> dict[str, dict[str, float]]:
        """The numbers of each signal that a hand holds; none if it holds back all news."""
        with self._lock:
            return {name: dict(numbers) for name, numbers in self._held.items()}

    def take(self) -> dict[str, Any]:
        """All that is new, for one frame; pictures as they came."""
        with self._lock:
            news: dict[str, Any] = self._numbers
            self._numbers = {}
            for part in [part for part in news if self._fed.get(part) in self._held]:
                self._kept[part] = news.pop(part)
            for numbers in self._held.values():
                news |= numbers
            for row in self._rows.values():
                if row.was_given or not row.waiting:
                    row.was_given = False
                else:
                    news |= row.waiting.popleft()
                    row.was_given = True
            news |= self._pictures
            self._pictures = {}
        return news

    def refused(self) -> int:
        """How many raw values made no sense to their signal."""
        return sum(heard.refused for heard in self.heard.values())

    def wrong(self) -> list[str]:
        """The first few that made no sense, each once, by signal."""
        return [f"{name}: {', '.join(h.wrong)}" for name, h in self.heard.items() if h.wrong]

    def lost(self, now_s: float | None = None) -> list[str]:
        """The signals that are lost just now."""
        now_s = self._clock() if now_s is None else now_s
        found = []
        for name, heard in self.heard.items():
            signal = self.design.signals[name]
            limit_s = float("inf") if signal.lost_after is None else signal.lost_after
            held = self._held.get(name)
            is_late = not heard.count or now_s - heard.at_s >= limit_s
            if is_late if held is None else not held:
                found.append(name)
        return found

    def unfed(self) -> list[str]:
        """The signals that have received nothing yet."""
        return [n for n, heard in self.heard.items() if not heard.count and n not in self._held]
