"""Recording signals: what comes in, conditioned as the design says, as values of the graph."""

from __future__ import annotations

from collections.abc import Iterable

from fendra.core.document.design import Design
from fendra.core.document.signal import Signal
from fendra.core.errors import ExpressionError, GraphError
from fendra.core.findings import Report
from fendra.core.graph.clock import FOREVER_MS, Clock
from fendra.core.graph.functions import clamp, select
from fendra.core.graph.node import NEWS, VALUE, Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Tracer, Value
from fendra.core.language.expression import Scope, compile_expression
from fendra.core.language.report import report_expression
from fendra.core.language.vocabulary import tame
from fendra.core.signals.condition import (
    coloured,
    faded,
    fallback_colour,
    fallback_of,
    measured,
    settled,
    switched,
)

EVERY = "all"
"""In `lost(all)`: every signal that is fed."""

NOTHING = -1e9
"""The value of a text in all frames but that in which it comes."""


def split(name: str) -> tuple[str, str]:
    """A signal's name and the part of it that is meant, if any.

    >>> split("hit.x"), split("sound[3]"), split("speed")
    (('hit', '.x'), ('sound', '[3]'), ('speed', ''))
    """
    end = next((i for i, letter in enumerate(name) if letter in ".["), len(name))
    return name[:end], name[end:]


def _parts(signal: Signal) -> str:
    match signal.kind:
        case "event":
            return "; it has .strength, .x, .y and .z"
        case "vector":
            return f"; its numbers are [0] to [{(signal.size or 1) - 1}]"
    return ""


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
        self._inputs: dict[str, Value] = {}
        self._parts: dict[str, Value] = {}
        self._raw: dict[str, Value] = {}
        self._open: list[str] = []

    @property
    def names(self) -> tuple[str, ...]:
        return tuple(self._signals)

    def look_up(self, name: str) -> Value | None:
        """A signal's conditioned value, or a part of one, as `hit.x` or `sound[3]`; None where
        there is no such signal.

        Raises GraphError where signals are computed from each other in a circle, and where a signal
        has no such part, or is nothing by itself.
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
                raise GraphError(
                    f"'{whole}' is a {signal.kind} and has no '{part}'{_parts(signal)}"
                )
            return self._parts[name]
        if signal.kind == "vector":
            raise GraphError(f"'{name}' is {signal.size or 1} numbers; write one, as {name}[0]")
        if signal.kind == "picture":
            raise GraphError(f"'{name}' is a picture, and only the colour of a layer can be one")
        return found[0]

    def raw(self, name: str) -> Value | None:
        """Whether a switch is on just now, before it is debounced or held; else as `look_up`."""
        value = self.look_up(name)
        return self._raw.get(name, value)

    def kind_of(self, name: str) -> str:
        """The kind of a signal; empty where there is none."""
        return self._signals[name].kind if name in self._signals else ""

    def size_of(self, name: str) -> int:
        """How many numbers a vector has."""
        return self._signals[name].size or 1

    def picture(self, name: str, space: str) -> Value:
        """A picture over the spots of a space; its fallback while it is lost."""
        is_lost = self.lost(name)
        assert is_lost is not None
        fallback = self._tracer.const(fallback_colour(self._signals[name]))
        return select(is_lost, fallback, self._tracer.pixels(name, space))

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
        first = signal.parts(name)[0]
        news = tracer.input(f"{NEWS}{first}", Kind.TRUTH)
        if signal.lost_after is None:
            is_lost = ~clock.ever(news)
        else:
            age_ms = clock.since_ms(news, start=FOREVER_MS)
            limit_ms = max(round(signal.lost_after * 1000), 1)
            is_heard = tracer.apply("uint_less", age_ms, limit_ms)
            tracer.label(is_heard, f"{name}_heard")
            is_lost = ~is_heard
        return self._conditioned(name, signal, news, is_lost), is_lost

    def _conditioned(self, name: str, signal: Signal, news: Value, is_lost: Value) -> Value:
        """What a signal's kind makes of the numbers that feed it."""
        tracer, clock = self._tracer, self._clock
        first, *rest = [self._newest(part) for part in signal.parts(name)]
        fallback = fallback_of(signal)
        match signal.kind:
            case "choice":
                return select(is_lost, fallback, first)
            case "text":
                return select(news, first, NOTHING)
            case "colour":
                return coloured(first, is_lost, signal, clock)
            case "event":
                self._parts |= {f"{name}.{axis}": at for axis, at in zip("xyz", rest, strict=True)}
                self._parts[f"{name}.strength"] = first
                return news & (first > 0.0)
            case "picture":
                return first
            case "vector":
                items = [self._settled(item, news, is_lost, signal) for item in (first, *rest)]
                self._parts |= {f"{name}[{i}]": item for i, item in enumerate(items)}
                return items[0]
            case "number":
                return self._settled(first, news, is_lost, signal, name)
        is_on = first > 0.5
        if signal.has_threshold:
            is_on = clock.threshold(first, *signal.thresholds)
        self._raw[name] = is_on & ~is_lost
        is_on = switched(is_on, signal, clock)
        if signal.hold > 0:
            is_on = clock.hold(is_on & ~is_lost, signal.hold)
        return select(is_lost, tracer.const(fallback > 0.5), is_on)

    def _newest(self, part: str) -> Value:
        if part not in self._inputs:
            self._inputs[part] = self._tracer.input(f"{VALUE}{part}", Kind.FLOAT)
        return self._inputs[part]

    def _settled(
        self, raw: Value, news: Value, is_lost: Value, signal: Signal, name: str = ""
    ) -> Value:
        value = measured(raw, news, is_lost, signal, self._clock)
        value = select(is_lost, fallback_of(signal), value)
        if name and (signal.average or signal.slew or signal.smooth):
            self._tracer.label(value, f"{name}_raw")
        return settled(value, signal, self._clock)

    def _computed(self, name: str, signal: Signal, text: str) -> tuple[Value, Value]:
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
            tracer, look_up_plain, self.names, self.words, self.lost, self._clock, raw=self.raw
        )
        is_switch = signal.kind == "switch"
        kind = Kind.TRUTH if is_switch and not signal.has_threshold else Kind.FLOAT
        is_colour = signal.kind == "colour"
        try:
            value = compile_expression(text, scope, kind, colour=is_colour)
            if value.rate & Rate.SPOT:
                raise ExpressionError("a picture differs from LED to LED, and a signal does not")
        except ExpressionError as exc:
            report_expression(exc, ("signals", name, "of"), self._report, self._dropped)
            wrong = tracer.input(f"wrong:{name}", Kind.TRUTH if is_switch else Kind.FLOAT)
            return wrong, tracer.const(False)
        is_lost = tracer.const(False)
        for other in read:
            is_lost = is_lost | other
        if is_colour:
            return faded(clamp(value), signal, self._clock), is_lost
        if is_switch:
            if signal.has_threshold:
                value = self._clock.threshold(tame(value), *signal.thresholds)
            self._raw[name] = value
            value = switched(value, signal, self._clock)
            return (self._clock.hold(value, signal.hold) if signal.hold > 0 else value), is_lost
        value = measured(tame(value), tracer.const(True), is_lost, signal, self._clock)
        if signal.average or signal.slew or signal.smooth:
            tracer.label(value, f"{name}_raw")
        return settled(value, signal, self._clock), is_lost
