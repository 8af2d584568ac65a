"""A text: words that arrive now and then, such as a message or the name of a key."""

from __future__ import annotations

from typing import Any

from fendra.core.document.signal import Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.functions import select
from fendra.core.graph.trace import Value
from fendra.core.signals.condition import Fed
from fendra.core.signals.kinds import SignalKind, signal_kind
from fendra.core.signals.kinds.choice import check_words, number_of_word, word_of, words_in_c

NOTHING = -1e9
"""The value of a text in all frames but that in which it comes."""


@signal_kind
class TextKind(SignalKind):
    """One of some words, in the frame in which it comes."""

    name = "text"
    keys = frozenset({"choices"})
    is_moment = True
    has_words = True

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:
        return {name: number_of_word(signal, name, raw)}

    def recorded(self, fed: Fed) -> Value:
        return select(fed.news, fed.values[0], NOTHING)

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        check_words(self, signal, path, report)

    def in_c(self, signal: Signal) -> str:
        return words_in_c(signal)

    def word(self, signal: Signal, value: float) -> str:
        return word_of(signal, value) if value > NOTHING / 10 else ""
