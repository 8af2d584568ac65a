"""Signals that follow from others: by an expression, or, of a choice, by a table of its words."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from fendra.core.document.signal import Of, Signal
from fendra.core.errors import ExpressionError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.functions import select
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Value
from fendra.core.language.expression import Scope, compile_expression
from fendra.core.language.lookup import BY, ELSE, entries, looked_up
from fendra.core.language.report import report_expression
from fendra.core.language.vocabulary import tame
from fendra.core.names import did_you_mean, must_be
from fendra.core.signals.kinds import kind_of
from fendra.core.values import Plain


@dataclass(frozen=True)
class Computed:
    """Records computed signals.

    scope: the names that expressions may use. dropped: names that were wrong before; nothing that
    follows from them is reported again.
    """

    signal: Signal
    scope: Scope
    report: Report
    dropped: Iterable[str] = ()

    def value(self, of: Of, path: KeyPath) -> Value | None:
        """The value of `of`; None if it is wrong, which is reported."""
        kind = kind_of(self.signal)
        if isinstance(of, str):
            wants_truth = kind.wants_truth(self.signal)
            return self._expression(
                of, path, Kind.TRUTH if wants_truth else Kind.FLOAT, of_words=kind.has_words,
                colour=kind.wants_colour,
            )  # fmt: skip
        if not kind.has_words:
            message = f"an expression computes a {self.signal.kind}, but this is a table."
            self.report.error(path, "wrong-type", message, 'Write it in quotes: of = "...".')
            return None
        return self._by_table(of, path) if BY in of else self._by_conditions(of, path)

    def _expression(
        self, text: str, path: KeyPath, want: Kind, *, of_words: bool = False, colour: bool = False
    ) -> Value | None:
        """A number, a condition, a colour, or the number of one of the signal's own words."""
        texts = self.signal.numbers if of_words else None
        try:
            value = compile_expression(text, self.scope, want, colour=colour, texts=texts)
            if value.rate & Rate.SPOT:
                raise ExpressionError("a picture differs from LED to LED, but a signal does not")
        except ExpressionError as exc:
            report_expression(exc, path, self.report, self.dropped)
            return None
        return value

    def _word(self, word: Plain, path: KeyPath) -> Value | None:
        """One of the signal's own words, or an expression that gives one."""
        if isinstance(word, str) and word not in self.signal.numbers:
            return self._expression(word, path, Kind.FLOAT, of_words=True)
        number = self.signal.numbers.get(word) if isinstance(word, str) else word
        if isinstance(number, bool) or number is None:
            message = must_be("a word", word)
            self.report.error(path, "wrong-type", message, "Write one of the choices, in quotes.")
            return None
        return self.scope.tracer.const(float(number))

    def _by_table(self, table: Mapping[str, Plain], path: KeyPath) -> Value | None:
        """A word for each number, or for each word of another choice."""
        by = str(table[BY])
        numbers = entries(table, self.scope.words.get(by.strip()), path, self.report)
        place = self._expression(by, (*path, BY), Kind.FLOAT)
        if numbers is None or place is None:
            return None
        found = {
            key: self._word(table[key], (*path, key)) for key in [*numbers, ELSE] if key in table
        }
        known = {key: value for key, value in found.items() if value is not None}
        if len(known) < len(found) or not known:
            return None
        return looked_up(
            tame(place), [(number, known[key]) for key, number in numbers.items()], known.get(ELSE)
        )

    def _by_conditions(self, table: Mapping[str, Plain], path: KeyPath) -> Value | None:
        """The first word whose condition holds; otherwise the word of `else`, or the fallback."""
        kind, known = kind_of(self.signal), self.signal.numbers
        rest: Plain = table.get(ELSE, kind.fallback(self.signal))
        found = self._word(rest, (*path, ELSE))
        for word, text in reversed([*table.items()]):
            if word == ELSE:
                continue
            if word not in known:
                remedy = did_you_mean(word, known, "choices")
                message = f"'{word}' is not one of the choices."
                self.report.error((*path, word), "unknown-name", message, remedy)
                found = None
                continue
            holds = self._condition(text, (*path, word))
            if holds is None or found is None:
                found = None
            else:
                found = select(holds, float(known[word]), found)
        return found

    def _condition(self, text: Plain, path: KeyPath) -> Value | None:
        if isinstance(text, bool):
            return self.scope.tracer.const(text)
        if isinstance(text, str):
            return self._expression(text, path, Kind.TRUTH)
        message = must_be("a condition", text)
        self.report.error(path, "wrong-type", message, "Write it in quotes.")
        return None
