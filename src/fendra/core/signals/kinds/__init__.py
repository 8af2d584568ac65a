"""Kinds of signals, one a file: raw values, values for layers, and texts for people.

To add one, write a file with a class like `ChoiceKind` in choice.py, marked with `@signal_kind`.
`signal` holds its keys in the design.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, ClassVar, Literal, TypeVar

from fendra.core.document.signal import Input, Signal
from fendra.core.errors import SignalError
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.trace import Value
from fendra.core.names import listed, truth_of
from fendra.core.registry import Registry
from fendra.core.signals.condition import Fed
from fendra.core.toml_text import value_text


class SignalKind:
    """A kind of signals.

    name: in the design. keys: those that it has beside the ones that all signals have. of_input:
    those that each of its inputs may have.

    is_truth: expressions read it as a condition. is_list: by its numbers alone. is_picture: as the
    colour of a layer alone. measures: it is a number on a scale, with a lowest and a highest value.
    is_moment: it is there in one frame and gone in the next. has_words: its numbers stand for
    words. is_computed: it may follow from other signals, by an expression; wants_colour: that is a
    colour. compares: conditions compare it with numbers or words. plot: how it is drawn over time.
    """

    name: ClassVar[str]
    keys: ClassVar[frozenset[str]] = frozenset()
    of_input: ClassVar[frozenset[str]] = frozenset()
    is_truth: ClassVar[bool] = False
    is_list: ClassVar[bool] = False
    is_picture: ClassVar[bool] = False
    measures: ClassVar[bool] = False
    is_moment: ClassVar[bool] = False
    has_words: ClassVar[bool] = False
    is_computed: ClassVar[bool] = False
    wants_colour: ClassVar[bool] = False
    compares: ClassVar[bool] = False
    plot: ClassVar[Literal["line", "bars", "ticks", "none"]] = "none"

    # What comes in

    def parts(self, signal: Signal, name: str) -> tuple[str, ...]:  # noqa: ARG002
        """The numbers that feed it, when it is called so."""
        return (name,)

    def numbers(self, signal: Signal, name: str, raw: Any) -> dict[str, float]:
        """Its numbers, from a value as a source gives it; NaN is no news. Raises SignalError."""
        raise NotImplementedError

    def pin(self, signal: Signal, given: Input) -> Literal["switch", "analogue"] | None:
        """The kind of pin that can feed it, given the keys of the pin; None if no pin can."""
        del signal, given
        return None

    # What layers read

    def recorded(self, fed: Fed) -> Value:
        """The value that layers read, conditioned as the signal says."""
        raise NotImplementedError

    def computed(self, fed: Fed, value: Value) -> Value:
        """The same from the value of an expression, for a computed signal.

        Kinds that cannot be computed are reported, and read as the number that it gives.
        """
        return KINDS["number"].computed(fed, value)

    def wants_truth(self, signal: Signal) -> bool:  # noqa: ARG002
        """Whether that expression is a condition."""
        return self.is_truth and self.is_computed

    def remembers(self, signal: Signal) -> bool:  # noqa: ARG002
        """Whether the switch has memory (threshold, hold, dwell or debounce)."""
        return False

    def fallback(self, signal: Signal) -> float:
        """Its value while it is lost."""
        return float(signal.fallback or 0.0) if not isinstance(signal.fallback, str) else 0.0

    # What is wrong with it

    def check(self, signal: Signal, path: KeyPath, report: Report) -> None:
        """Report what its keys contradict."""
        if isinstance(signal.fallback, str):
            message = f"'{signal.fallback}' is a word, but this is not a choice."
            truth = truth_of(signal.fallback)
            remedy = "Write true or false." if self.is_truth else "Write a number."
            if self.is_truth and truth is not None:
                remedy = f"Write: fallback = {value_text(truth)}"
            report.error((*path, "fallback"), "wrong-type", message, remedy)

    def why_not_alone(self, signal: Signal, name: str) -> str:  # noqa: ARG002
        """Why expressions cannot read it by its name alone; empty if they can."""
        return ""

    def parts_in_words(self, signal: Signal) -> str:  # noqa: ARG002
        """Its parts in words, to follow a message about an unknown one."""
        return ""

    # What conditions can tell apart

    def cases(self, signal: Signal, numbers: Iterable[float]) -> list[float]:
        """Values in which conditions can differ that compare it with some numbers."""
        raise NotImplementedError

    def bounds(self, signal: Signal) -> tuple[float, float]:
        """The lowest and the highest value that expressions can read."""
        words = [*signal.numbers.values()] or [0, 1]
        return float(min(words)), float(max(words))

    # How people see it

    def in_c(self, signal: Signal) -> str:
        """Its unit and range, in a few words behind its field in C."""
        parts = [signal.unit] if signal.unit else []
        if signal.range is not None:
            parts.append(f"{signal.range[0]:g} to {signal.range[1]:g}")
        return ", ".join(parts)

    def word(self, signal: Signal, value: float) -> str | None:  # noqa: ARG002
        """The word for a value; None if it is just a number, a truth or a colour."""
        return None

    def note(self, signal: Signal, name: str, value: float) -> str:  # noqa: ARG002
        """The text about it below a picture; empty for none."""
        return ""


KINDS: Registry[SignalKind] = Registry(
    "fendra.core.signals.kinds", "fendra.signal_kinds", "a kind of signal"
)

K = TypeVar("K", bound=type[SignalKind])


def signal_kind(kind: K) -> K:
    """Register a kind of signals under its name."""
    KINDS.add(kind.name, kind(), kind)
    return kind


def kind_of(signal: Signal) -> SignalKind:
    """The kind of a signal; a number if the design names an unknown kind."""
    return KINDS[signal.kind if signal.kind in KINDS else "number"]


def needs_a(what: str, name: str, raw: Any) -> SignalError:
    """The error of a value that a signal cannot take."""
    return SignalError(f"signal '{name}' needs {what}, but got {raw!r:.60}")


def listed_kinds(kinds: Iterable[SignalKind]) -> str:
    """Kinds as a message names them.

    >>> listed_kinds([KINDS["switch"], KINDS["event"], KINDS["number"]])
    'a switch, an event or a number'
    """
    words = [f"{'an' if kind.name[0] in 'aeiou' else 'a'} {kind.name}" for kind in kinds]
    return listed(words, "or")
