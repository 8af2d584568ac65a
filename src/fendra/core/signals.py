"""Signals: what comes in, conditioned as the design says, as values of the graph."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.design import Design, Signal
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.findings import Report
from fendra.core.graph.clock import FOREVER_MS, Clock
from fendra.core.graph.expr import Scope, compile_expression, tame
from fendra.core.graph.functions import clamp, select
from fendra.core.graph.node import NEWS, VALUE
from fendra.core.graph.ops import LARGEST, Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.layout.choice import report_expression

EVERY = "all"
"""In `lost(all)`: every signal that is fed."""


class Signals:
    """The design's signals by name; each is recorded when it is first asked for.

    A signal's raw value is held within its range and kept until there is news. After
    `lost_after` without news, and before the first, it is lost and has its fallback.

    words: of each signal that is a choice, and their numbers.
    """

    def __init__(
        self,
        design: Design,
        tracer: Tracer,
        clock: Clock,
        report: Report,
        dropped: Iterable[str] = (),
    ) -> None:
        self._signals = design.signals
        self.words = design.words
        self._tracer = tracer
        self._clock = clock
        self._report = report
        self._dropped = dropped
        self._recorded: dict[str, tuple[Value, Value]] = {}
        self._open: list[str] = []

    @property
    def names(self) -> tuple[str, ...]:
        return tuple(self._signals)

    def look_up(self, name: str) -> Value | None:
        """A signal's conditioned value; None where there is no such signal.

        Raises GraphError where signals are computed from each other in a circle.
        """
        found = self._record(name.removesuffix(":number"))
        return None if found is None else found[0]

    def lost(self, name: str) -> Value | None:
        """Whether a signal is lost; a computed one is when one that it reads is."""
        if name == EVERY and name not in self._signals:
            return self._all_lost()
        found = self._record(name)
        return None if found is None else found[1]

    def _all_lost(self) -> Value:
        """Whether every signal that is fed is lost: nothing is known."""
        found = self._tracer.const(True)
        for name, signal in self._signals.items():
            if signal.of is None:
                found = found & self._record(name)[1]  # type: ignore[index]
        return found

    @property
    def recorded(self) -> dict[str, tuple[Value, Value]]:
        """The value of each signal, and whether it is lost."""
        return self._recorded

    def record_all(self) -> None:
        """Record every signal, so that each has been checked."""
        for name in self._signals:
            self._record(name)

    def _record(self, name: str) -> tuple[Value, Value] | None:
        if name not in self._signals:
            return None
        if name in self._open:
            circle = " -> ".join([*self._open[self._open.index(name) :], name])
            raise GraphError(f"'{name}' is computed from itself: {circle}")
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
        news = tracer.input(f"{NEWS}{name}", Kind.TRUTH)
        fallback = fallback_of(signal)
        newest = tracer.input(f"{VALUE}{name}", Kind.FLOAT)
        if signal.range is not None:
            newest = clamp(newest, *signal.range)
        if signal.lost_after is None:
            is_lost = ~clock.ever(news)
        else:
            age_ms = clock.since_ms(news, start=FOREVER_MS)
            limit_ms = max(round(signal.lost_after * 1000), 1)
            is_heard = tracer.apply("uint_less", age_ms, limit_ms)
            tracer.label(is_heard, f"{name}_heard")
            is_lost = ~is_heard
        if signal.kind == "choice":
            return select(is_lost, fallback, newest), is_lost
        if signal.kind == "number":
            value = select(is_lost, fallback, newest)
            return self._smoothed(name, value, signal), is_lost
        is_on = newest > 0.5
        if signal.hold > 0:
            is_on = clock.hold(is_on & ~is_lost, signal.hold)
        return select(is_lost, tracer.const(fallback > 0.5), is_on), is_lost

    def _computed(self, name: str, signal: Signal, text: str) -> tuple[Value, Value]:
        tracer = self._tracer
        read: list[Value] = []

        def look_up(other: str) -> Value | None:
            found = self._record(other)
            if found is None:
                return None
            read.append(found[1])
            return found[0]

        def look_up_plain(other: str) -> Value | None:
            return look_up(other.removesuffix(":number"))

        scope = Scope(tracer, look_up_plain, self.names, self.words, self.lost, self._clock)
        kind = Kind.TRUTH if signal.kind == "switch" else Kind.FLOAT
        try:
            value = compile_expression(text, scope, kind)
        except ExpressionError as exc:
            report_expression(exc, ("signals", name, "of"), self._report, self._dropped)
            return tracer.input(f"wrong:{name}", kind), tracer.const(False)
        is_lost = tracer.const(False)
        for other in read:
            is_lost = is_lost | other
        if kind is Kind.TRUTH:
            return (self._clock.hold(value, signal.hold) if signal.hold > 0 else value), is_lost
        value = tame(value) if signal.range is None else clamp(value, *signal.range)
        return self._smoothed(name, value, signal), is_lost

    def _smoothed(self, name: str, value: Value, signal: Signal) -> Value:
        if signal.smooth <= 0:
            return value
        self._tracer.label(value, f"{name}_raw")
        return self._clock.lag(value, max(signal.smooth, 0.001))


def fallback_of(signal: Signal) -> float:
    """What a signal is while it is lost: its fallback, else 0 held within its range."""
    low, high = signal.range or (-LARGEST, LARGEST)
    if isinstance(signal.fallback, str):
        return float(signal.numbers.get(signal.fallback, 0))
    if signal.kind == "choice" and signal.fallback is None:
        return float(min(signal.numbers.values(), default=0))
    return min(max(float(signal.fallback or 0.0), low), high)
