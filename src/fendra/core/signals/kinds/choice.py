"""A choice: one of some words, as a mode or a gear."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Literal

from fendra.core.document.signal import Input, Signal
from fendra.core.errors import SignalError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.functions import select
from fendra.core.graph.trace import Value
from fendra.core.language.vocabulary import tame
from fendra.core.names import did_you_mean
from fendra.core.signals.condition import Fed
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.raw import number_of


@signal_kind
class ChoiceKind(SignalKind):
    """One of several words, each with a number."""

    name = "choice"
    keys = frozenset({"choices"})
    of_input = frozenset({"bands"})
    has_words = True
    is_computed = True
    compares = True
    plot = "line"

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:
        return {name: number_of_word(signal, name, raw)}

    def recorded(self, fed: Fed) -> Value:
        return select(fed.is_lost, self.fallback(fed.signal), fed.values[0])

    def computed(self, fed: Fed, value: Value) -> Value:  # noqa: ARG002
        return tame(value)

    def pin(self, signal: Signal, given: Input) -> Literal["analogue"] | None:  # noqa: ARG002
        return "analogue" if given.bands else None

    def fallback(self, signal: Signal) -> float:
        if isinstance(signal.fallback, str):
            return float(signal.numbers.get(signal.fallback, 0))
        if signal.fallback is None:
            return float(min(signal.numbers.values(), default=0))
        return super().fallback(signal)

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        check_words(self, signal, path, report)

    def cases(self, signal: Signal, numbers: Iterable[float]) -> list[float]:  # noqa: ARG002
        known = [*map(float, signal.numbers.values())]
        return [*known, max(known, default=0.0) + 1.0]  # whatever else comes in

    def in_c(self, signal: Signal) -> str:
        return words_in_c(signal)

    def word(self, signal: Signal, value: float) -> str:
        return word_of(signal, value)

    def note(self, signal: Signal, name: str, value: float) -> str:
        return f"{name} {word_of(signal, value)}"


def number_of_word(signal: Signal, name: str, raw: Any) -> float:
    """The number of one of a signal's words, or that number itself. Raises SignalError."""
    if isinstance(raw, str):
        word = raw.strip()
        if word in signal.numbers:
            return float(signal.numbers[word])
        try:
            return number_of(name, float(word))
        except ValueError as exc:
            remedy = did_you_mean(word, signal.numbers, "words")
            raise SignalError(f"signal '{name}' has no word {word!r:.60}. {remedy}") from exc
    return number_of(name, raw)


def word_of(signal: Signal, value: float) -> str:
    """The word for a number; the number itself if it has no word.

    >>> word_of(Signal(kind="choice", choices=["calm", "wild"]), 1.0)
    'wild'
    """
    known = {number: word for word, number in signal.numbers.items()}
    return known.get(round(value), f"{value:g}")


def words_in_c(signal: Signal) -> str:
    """Every word with its number."""
    return ", ".join(f"{number} {word}" for word, number in signal.numbers.items())


def check_words(kind: SignalKind, signal: Signal, path: KeyPath, report: Report) -> None:
    """Report unknown words, words with the same number, and a fallback that is not one of them."""
    numbers, fallback = signal.numbers, signal.fallback
    if not numbers:
        message = f"a {kind.name} needs its words."
        report.error(path, "missing-key", message, 'Add choices = ["calm", "wild"].')
    if len({*numbers.values()}) < len(numbers) or len(numbers) < len([*signal.choices]):
        message = f"two words of this {kind.name} have one number."
        report.error((*path, "choices"), "duplicate-name", message, "Give each its own.")
    if isinstance(fallback, str) and fallback not in numbers:
        remedy = did_you_mean(fallback, numbers, "choices")
        message = f"there is no choice '{fallback}'."
        report.error((*path, "fallback"), "unknown-name", message, remedy)
