"""Recording signals: raw values, conditioned as the design says, as values of the graph."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from fendra.core.document.design import Design
from fendra.core.document.signal import Of, Signal
from fendra.core.errors import GraphError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.clock import FOREVER_MS, Clock
from fendra.core.graph.functions import select
from fendra.core.graph.node import NEWS, VALUE
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.language.expression import Scope
from fendra.core.layout.columns import ORDER_COLUMNS, SPOT_COLUMNS
from fendra.core.names import cannot_stand, listed
from fendra.core.signals.computed import Computed
from fendra.core.signals.condition import Fed, fallback_colour
from fendra.core.signals.inputs import words
from fendra.core.signals.kinds import KINDS, kind_of

EVERY = "all"
"""In `lost(all)`: every signal that is fed."""


def split(name: str) -> tuple[str, str]:
    """A signal's name and the part of it that is meant, if any.

    >>> split("hit.x"), split("sound[3]"), split("speed")
    (('hit', '.x'), ('sound', '[3]'), ('speed', ''))
    """
    end = next((i for i, letter in enumerate(name) if letter in ".["), len(name))
    return name[:end], name[end:]


_KINDS_ELSEWHERE = {
    "bool": "switch", "boolean": "switch", "truth": "switch", "float": "number", "int": "number",
    "integer": "number", "string": "text", "enum": "choice", "list": "vector", "array": "vector",
    "color": "colour", "rgb": "colour", "image": "picture",
}  # fmt: skip
"""Kinds as other languages call them."""


class Signals:
    """The design's signals by name; each is recorded when it is first needed.

    A signal's raw value is held within its range and kept until there is news. After `lost_after`
    without news, and before the first, it is lost and has its fallback.

    words: of each choice, with their numbers. dropped: names that were wrong before; nothing that
    reads them is reported again.
    """

    def __init__(
        self,
        design: Design,
        tracer: Tracer,
        clock: Clock,
        report: Report,
        dropped: Iterable[str] = (),
    ) -> None:
        unknown = {name: s for name, s in design.signals.items() if s.kind not in KINDS}
        self._signals = {n: s for n, s in design.signals.items() if n not in unknown}
        self._unknown = unknown
        self.words = words(design)
        self._tracer = tracer
        self._clock = clock
        self._report = report
        wordless = {n for n, s in self._signals.items() if kind_of(s).has_words and not s.numbers}
        self.dropped = frozenset({*dropped, *unknown, *wordless})
        self._recorded: dict[str, tuple[Value, Value]] = {}
        self._inputs: dict[str, Value] = {}
        self._parts: dict[str, Value] = {}
        self._raw: dict[str, Value] = {}
        self._open: list[str] = []
        self._every_lost: Value | None = None

    @property
    def names(self) -> tuple[str, ...]:
        return tuple(self._signals)

    def look_up(self, name: str) -> Value | None:
        """A signal's conditioned value, or a part of one, as `hit.x` or `sound[3]`; None if there
        is no such signal.

        Raises GraphError if signals are computed from each other in a circle, if a signal has no
        such part, or if it has no value without a part.
        """
        name = name.removesuffix(":number")
        whole, part = split(name)
        signal = self._signals.get(whole)
        if signal is None:
            return None
        found = self._record(whole)
        assert found is not None
        if part:
            if name not in self._parts:
                parts = kind_of(signal).parts_in_words(signal)
                problem = f"'{whole}' is a {signal.kind} and has no '{part}'{parts}"
                raise GraphError(problem, names=(whole,))
            return self._parts[name]
        problem = kind_of(signal).why_not_alone(signal, name)
        if problem:
            raise GraphError(problem, names=(name,))
        return found[0]

    def raw(self, name: str) -> Value | None:
        """Whether a switch is on just now, before it is debounced or held; else as `look_up`."""
        value = self.look_up(name)
        return self._raw.get(name, value)

    def items(self, name: str) -> tuple[str, ...] | None:
        """The numbers of a vector; None for other signals."""
        signal = self._signals.get(name)
        if signal is None or not kind_of(signal).is_list:
            return None
        return kind_of(signal).parts(signal, name)

    def picture(self, name: str, space: str) -> Value | None:
        """A picture over the spots of a space; its fallback while it is lost. None for other
        signals.
        """
        signal = self._signals.get(name)
        if signal is None or not kind_of(signal).is_picture:
            return None
        is_lost = self.lost(name)
        assert is_lost is not None
        fallback = self._tracer.const(fallback_colour(signal))
        return select(is_lost, fallback, self._tracer.pixels(name, space))

    def lost(self, name: str) -> Value | None:
        """Whether a signal is lost; a computed one is lost if one that it reads is."""
        if name == EVERY and name not in self._signals:
            return self._all_lost()
        found = self._record(name)
        return None if found is None else found[1]

    def _all_lost(self) -> Value:
        """Whether every signal that is fed is lost: nothing is known. A key that nobody presses is
        not lost, so events and texts count only with a `lost_after`, or if nothing else is fed.
        """
        if self._every_lost is None:
            fed = {name: signal for name, signal in self._signals.items() if signal.of is None}
            last = {
                n: s for n, s in fed.items() if s.lost_after is not None or not kind_of(s).is_moment
            }
            self._tell_of_never_lost(last)
            self._every_lost = self._tracer.const(True)
            for name in last or fed:
                self._every_lost &= self._record(name)[1]  # type: ignore[index]
        return self._every_lost

    def _tell_of_never_lost(self, signals: Mapping[str, Signal]) -> None:
        """Note signals that are never lost again once they were heard, where others are."""
        never = [name for name, signal in signals.items() if signal.lost_after is None]
        if never and len(never) < len(signals):
            problem = f"once {listed(never)} came, lost(all) is never true again."
            remedy = f"Add lost_after = 3 to [signals.{never[0]}], or name those that you mean."
            self._report.note(("signals", never[0]), "never-lost", problem, remedy)

    @property
    def recorded(self) -> dict[str, tuple[Value, Value]]:
        """The value of each signal, and whether it is lost."""
        return self._recorded

    def record_all(self) -> None:
        """Record every signal, so that each has been checked."""
        for name, signal in self._unknown.items():
            path = ("signals", name, "kind")
            problem, remedy = cannot_stand(signal.kind, KINDS)
            meant = _KINDS_ELSEWHERE.get(signal.kind)
            remedy = f'Write: kind = "{meant}"' if meant is not None else remedy
            self._report.error(path, "wrong-value", problem, remedy)
        for name in self._signals:
            self._record(name)

    def _record(self, name: str) -> tuple[Value, Value] | None:
        if name not in self._signals:
            return None
        if name in self._open:
            circle = " -> ".join([*self._open[self._open.index(name) :], name])
            raise GraphError(f"'{name}' is computed from itself: {circle}", names=(name,))
        if name not in self._recorded:
            signal = self._signals[name]
            with self._tracer.within(("signals", name)):
                if signal.of is None:
                    value, is_lost = self._fed(name, signal)
                else:
                    self._open.append(name)
                    value, is_lost = self._computed(name, signal, signal.of)
                    self._open.pop()
            self._tracer.label(value, name)
            self._tracer.label(is_lost, f"{name}_lost")
            self._recorded[name] = value, is_lost
        return self._recorded[name]

    def _fed(self, name: str, signal: Signal) -> tuple[Value, Value]:
        tracer, clock = self._tracer, self._clock
        kind = kind_of(signal)
        parts = kind.parts(signal, name)
        news = tracer.input(f"{NEWS}{parts[0]}", Kind.TRUTH)
        if signal.lost_after is None:
            is_lost = ~clock.ever(news)
        else:
            age_ms = clock.since_ms(news, start=FOREVER_MS)
            limit_ms = max(round(signal.lost_after * 1000), 1)
            is_heard = tracer.apply("uint_less", age_ms, limit_ms)
            tracer.label(is_heard, f"{name}_heard")
            is_lost = ~is_heard
        start = kind.fallback(signal)
        fallback = tracer.const(start > 0.5 if kind.is_truth else start)
        values = [self._newest(part) for part in parts]
        fed = Fed(name, signal, clock, news, is_lost, values, fallback)
        return self._taken(fed, kind.recorded(fed)), is_lost

    def _taken(self, fed: Fed, value: Value) -> Value:
        """Return a value, after noting its parts and its raw value."""
        self._parts |= fed.parts
        if fed.raw is not None:
            self._raw[fed.name] = fed.raw
        return value

    def _newest(self, part: str) -> Value:
        if part not in self._inputs:
            self._inputs[part] = self._tracer.input(f"{VALUE}{part}", Kind.FLOAT)
        return self._inputs[part]

    def _computed(self, name: str, signal: Signal, of: Of) -> tuple[Value, Value]:
        tracer = self._tracer
        read: list[Value] = []

        def look_up(other: str) -> Value | None:
            value = self.look_up(other)
            is_lost = self.lost(split(other)[0])
            if is_lost is not None:
                read.append(is_lost)
            return value

        def look_up_plain(other: str) -> Value | None:
            return look_up(other.removesuffix(":number"))

        scope = Scope(
            tracer,
            look_up_plain,
            self.names,
            self.words,
            self.lost,
            self._clock,
            raw=self.raw,
            items=self.items,
            of_leds=(*SPOT_COLUMNS, *ORDER_COLUMNS),
        )
        kind = kind_of(signal)
        path: KeyPath = ("signals", name, "of")
        computed = Computed(signal, scope, self._report, self.dropped)
        value = computed.value(of, path)
        if value is None:
            stands_for = Kind.TRUTH if kind.is_truth and kind.is_computed else Kind.FLOAT
            return tracer.input(f"wrong:{name}", stands_for), tracer.const(False)
        is_lost = tracer.const(False)
        for other in read:
            is_lost = is_lost | other
        fed = Fed(name, signal, self._clock, tracer.const(True), is_lost)
        return self._taken(fed, kind.computed(fed, value)), is_lost
