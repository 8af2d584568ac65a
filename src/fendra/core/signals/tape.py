"""Tapes: signals over time, recorded or written."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from fendra.core.arrays import Floats, Truths
from fendra.core.errors import TapeError
from fendra.core.names import counted
from fendra.core.shown import as_table, brief, few, in_digits


@dataclass(frozen=True)
class Tape:
    """Signals over time.

    Attributes:
        times: (n,) seconds, ascending
        signals: name to (n,) values; NaN means no news
        words: of signals that were read as words, without a design; their values count these words

    >>> tape = Tape(np.array([0.0, 0.5]), {"speed": np.array([3.0, np.nan])})
    >>> list(tape.news())
    [(0.0, {'speed': 3.0}), (0.5, {})]
    """

    times: Floats
    signals: Mapping[str, Floats]
    name: str = "tape"
    words: Mapping[str, Sequence[str]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        try:
            object.__setattr__(self, "times", np.asarray(self.times, np.float64))
            columns = {name: np.asarray(each, np.float64) for name, each in self.signals.items()}
        except (TypeError, ValueError, AttributeError) as exc:
            raise TapeError(
                "a tape needs times, an array of seconds, and signals, a table of "
                "arrays of that length: Tape([0, 0.5], {'speed': [3, 4]})."
            ) from exc
        object.__setattr__(self, "signals", columns)
        if self.times.ndim != 1 or len(self.times) == 0:
            raise TapeError(f"a tape needs times of shape (n,), n > 0; got {self.times.shape}")
        if not np.all(np.isfinite(self.times)) or np.any(np.diff(self.times) <= 0):
            raise TapeError("the times of a tape must be finite and ascending, each once")
        for name, values in self.signals.items():
            if values.shape != self.times.shape:
                raise TapeError(
                    f"signal '{name}' has shape {values.shape}, the times have {self.times.shape}"
                )
            if np.any(np.isinf(values)):
                raise TapeError(f"signal '{name}' contains an infinity")

    def __repr__(self) -> str:
        return brief(
            "Tape", self.name, f"{self.start_s:g} to {self.end_s:g} s",
            counted(len(self.times), "row"),
            f"{counted(len(self.signals), 'signal')}: {few(self.signals)}",
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """Its signals, in a notebook."""
        rows = []
        for name, values in self.signals.items():
            heard = values[~np.isnan(values)]
            ends = (in_digits(heard.min()), in_digits(heard.max())) if len(heard) else ("", "")
            words = few(self.words.get(name, ()))
            rows.append((name, len(heard), *ends, words))
        title = f"{self.name}: {self.start_s:g} to {self.end_s:g} s"
        return as_table(title, ("signal", "values", "lowest", "highest", "words"), rows)

    @property
    def start_s(self) -> float:
        return float(self.times[0])

    @property
    def end_s(self) -> float:
        return float(self.times[-1])

    @property
    def duration_s(self) -> float:
        return self.end_s - self.start_s

    def news(self) -> Iterator[tuple[float, dict[str, float]]]:
        """Row by row: the time, and the signals that have a value there."""
        names = list(self.signals)
        columns = [self.signals[name].tolist() for name in names]
        for row, time_s in enumerate(self.times.tolist()):
            values = ((name, column[row]) for name, column in zip(names, columns, strict=True))
            yield time_s, {name: value for name, value in values if not math.isnan(value)}

    def heard(self, names: Sequence[str], times: Floats) -> tuple[Floats, Truths]:
        """The known values of signals at ascending times.

        Gives two arrays (times, names): the newest value up to and with the time, 0 before the
        first, and whether there was one since the time before.
        """
        values = np.zeros((len(times), len(names)))
        is_new = np.zeros(values.shape, np.bool_)
        ends = np.searchsorted(self.times, times + 1e-9, side="right")
        for i, name in enumerate(names):
            if name not in self.signals:
                continue
            rows = np.flatnonzero(~np.isnan(self.signals[name]))
            counts = np.searchsorted(rows, ends)  # how many values came so far
            if len(rows):
                newest = self.signals[name][rows[np.maximum(counts - 1, 0)]]
                values[:, i] = np.where(counts > 0, newest, 0.0)
            is_new[:, i] = np.diff(counts, prepend=0) > 0
        return values, is_new

    def last(self, at_s: float) -> dict[str, tuple[float, float]]:
        """The last news of each signal up to and with a time, and when it came.

        Signals without news are left out.
        """
        end = int(np.searchsorted(self.times, at_s + 1e-9, side="right"))
        known = {}
        for name, values in self.signals.items():
            rows = np.flatnonzero(~np.isnan(values[:end]))
            if len(rows):
                known[name] = (float(values[rows[-1]]), float(self.times[rows[-1]]))
        return known

    def until(self, end_s: float) -> Tape:
        """The beginning of the tape, up to and with `end_s` seconds on its clock.

        Raises TapeError if nothing would be left.
        """
        rows = self.times <= end_s
        if not rows.any():
            raise TapeError(
                f"until({end_s:g}) leaves nothing of the tape, which goes from "
                f"{self.start_s:g} s to {self.end_s:g} s."
            )
        signals = {name: values[rows] for name, values in self.signals.items()}
        return replace(self, times=self.times[rows], signals=signals)

    def in_words_of(self, known: Mapping[str, Mapping[str, int]]) -> Tape:
        """The tape with its own words as the numbers that they are in a design.

        known: the words of the design's signals, with their numbers. Raises TapeError for a word
        that its signal does not have.

        >>> tape = Tape(np.array([0.0, 0.5]), {"gear": np.array([0.0, 1.0])},
        ...             words={"gear": ["drive", "park"]})
        >>> tape.in_words_of({"gear": {"park": 0, "drive": 1}}).signals["gear"].tolist()
        [1.0, 0.0]
        """
        told = {name: each for name, each in self.words.items() if name in known}
        if not told:
            return self
        signals = dict(self.signals)
        for name, each in told.items():
            wrong = [word for word in each if word not in known[name]]
            if wrong:
                raise TapeError(
                    f"column '{name}' of tape '{self.name}' contains "
                    f"'{wrong[0]:.40}'; its words are {', '.join(known[name])}"
                )
            numbers = np.array([known[name][word] for word in each], np.float64)
            values = signals[name]
            is_there = ~np.isnan(values)
            signals[name] = values.copy()
            signals[name][is_there] = numbers[values[is_there].astype(np.int64)]
        words = {name: each for name, each in self.words.items() if name not in told}
        return replace(self, signals=signals, words=words)


def needs_tape(thing: object) -> Tape:
    """A tape as it is. Raises TapeError for anything else."""
    if isinstance(thing, Tape):
        return thing
    raise TapeError(
        f"this needs a tape, but got a {type(thing).__name__}. Read one: "
        "fd.read_tape(path); or make one: fd.Tape([0, 0.5], {'speed': [3, 4]})."
    )


class TapeReader:
    """Gives the newest value of each signal since it was last asked."""

    def __init__(self, tape: Tape) -> None:
        self._rows = list(tape.news())
        self._next = 0

    def news_until(self, time_s: float) -> dict[str, float]:
        """All news up to and with `time_s` that was not given yet, the newest of each signal."""
        news: dict[str, float] = {}
        while self._next < len(self._rows) and self._rows[self._next][0] <= time_s:
            news.update(self._rows[self._next][1])
            self._next += 1
        return news
