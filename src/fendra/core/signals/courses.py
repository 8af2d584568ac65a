"""Courses: made-up values over time, so that one can look before there is a tape."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from functools import partial
from typing import TypeAlias

import numpy as np

from fendra.core.arrays import Floats
from fendra.core.document.design import Design
from fendra.core.document.signal import Signal
from fendra.core.errors import SignalError
from fendra.core.names import did_you_mean, truth_of
from fendra.core.signals.inputs import fed
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.kinds.colour import packed
from fendra.core.signals.tape import Tape

Course: TypeAlias = Callable[[Floats], Floats]
"""From seconds since the beginning to values."""

Number: TypeAlias = Callable[[str], float]
"""From a text to its number."""

_SECONDS = re.compile(r"(\d+(?:\.\d+)?)\s*s?")


def made_up(
    design: Design,
    *,
    sets: Sequence[str] = (),
    sweeps: Sequence[str] = (),
    steps: Sequence[str] = (),
    toggles: Sequence[str] = (),
    duration_s: float | None = None,
    tape: Tape | None = None,
) -> Tape:
    """Make a tape of made-up courses, for signals of a design.

    sets: `rpm=6200`, a value that stays. sweeps: `rpm=0:8000:6s`, up in this time, down again, and
    so on. steps: `gear=1,2,3:2s`, each for this time, again and again. toggles: `left=0.4s`, off
    and on, each for this time. Words of a choice are allowed. duration_s: length of the tape; by
    default twice the longest course, and at least 5 s. tape: gives the other signals; the courses
    start with it and last as long.

    Raises SignalError for another form, and for a name that the design does not take.
    """
    courses, longest_s = written(design, sets=sets, sweeps=sweeps, steps=steps, toggles=toggles)
    if tape is None:
        duration_s = duration_s or 2 * longest_s
        times = np.arange(int(duration_s * design.rate + 1e-6) + 1) / design.rate
        return Tape(times, {name: course(times) for name, course in courses.items()}, "made up")
    rows = np.arange(tape.start_s, tape.end_s + 1e-9, 1 / design.rate)
    times = np.union1d(tape.times, rows.round(6))
    signals = {
        name: _spread(tape.times, values, times)
        for name, values in tape.signals.items()
        if name not in courses
    }
    signals |= {name: course(times - times[0]) for name, course in courses.items()}
    return Tape(times, signals, tape.name)


def written(
    design: Design, *, sets: Sequence[str] = (), sweeps: Sequence[str] = (),
    steps: Sequence[str] = (), toggles: Sequence[str] = (),
) -> tuple[dict[str, Course], float]:  # fmt: skip
    """Courses by signal, as `made_up` takes them, and how long the longest is, 2.5 s at least.

    Raises SignalError.
    """
    courses: dict[str, Course] = {}
    longest_s = 2.5
    for texts, read in ((sets, _set), (sweeps, _sweep), (steps, _steps), (toggles, _toggle)):
        for text in texts:
            name, sign, rest = text.partition("=")
            name = name.strip()
            if not sign:
                raise SignalError(f"'{text}' has no =; write it as in rpm=6200")
            number = partial(_number, _signal_of(design, name), text)
            course, length_s = read(rest.strip(), number, text)
            courses[name], longest_s = course, max(longest_s, length_s)
    return courses, longest_s


def typed(design: Design, text: str) -> tuple[str, Course]:
    """A signal and its course, as the user types it during a run: `rpm=6200`, `rpm=0:8000:6s` or
    `mode=calm,wild:3s`. Raises SignalError.
    """
    name, _, rest = text.partition("=")
    colons = rest.count(":")
    kind = "sweeps" if colons == 2 else "steps" if colons == 1 and "," in rest else "sets"
    courses, _ = written(design, **{kind: [text]})
    return name.strip(), courses[name.strip()]


def _spread(before: Floats, values: Floats, times: Floats) -> Floats:
    """Values at their own times among others; no news at the others."""
    spread = np.full(len(times), np.nan)
    spread[np.searchsorted(times, before)] = values
    return spread


def _signal_of(design: Design, name: str) -> Signal:
    known = fed(design)
    signal = design.signals.get(known.get(name, name))
    if signal is None or name not in known:
        if signal is not None:
            raise SignalError(f"signal '{name}' is computed by the design, so it cannot be made up")
        raise SignalError(
            f"the design has no signal '{name}'. {did_you_mean(name, known, 'signals')}"
        )
    return signal


def _number(signal: Signal, whole: str, text: str) -> float:
    """The number for a text, for a signal. whole: the text that it is a part of."""
    text, words = text.strip(), signal.numbers
    if kind_of(signal).wants_colour:
        return packed(whole.partition("=")[0].strip(), text)
    if text in words:
        return float(words[text])
    truth = truth_of(text)
    if truth is not None:
        return float(truth)
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        ways = "Write a number, or on or off."
        if words:
            ways = f"Its words are {', '.join(words)}."
        raise SignalError(f"'{whole}': '{text}' is not a number. {ways}")
    return value


def _seconds(text: str, whole: str) -> float:
    found = _SECONDS.fullmatch(text.strip())
    if found is None or float(found[1]) <= 0:
        raise SignalError(f"'{whole}': '{text}' is not a time; write it as in 6s")
    return float(found[1])


def _set(text: str, number: Number, whole: str) -> tuple[Course, float]:  # noqa: ARG001
    value = number(text)
    return lambda times: np.full(len(times), value), 0.0


def _sweep(text: str, number: Number, whole: str) -> tuple[Course, float]:
    parts = text.split(":")
    if len(parts) != 3:
        raise SignalError(f"'{whole}': write a sweep as in rpm=0:8000:6s")
    low, high = (number(part) for part in parts[:2])
    length_s = _seconds(parts[2], whole)

    def course(times: Floats) -> Floats:
        return np.asarray(low + (high - low) * (1 - np.abs((times / length_s) % 2 - 1)))

    return course, length_s


def _steps(text: str, number: Number, whole: str) -> tuple[Course, float]:
    listed, sign, length = text.rpartition(":")
    if not sign:
        raise SignalError(f"'{whole}': write steps as in gear=1,2,3:2s")
    values = np.array([number(item) for item in listed.split(",")])
    length_s = _seconds(length, whole)

    def course(times: Floats) -> Floats:
        return np.asarray(values[((times + 1e-9) / length_s).astype(int) % len(values)])

    return course, length_s * len(values) / 2


def _toggle(text: str, number: Number, whole: str) -> tuple[Course, float]:
    del number
    length_s = _seconds(text, whole)

    def course(times: Floats) -> Floats:
        return np.asarray((((times + 1e-9) / length_s).astype(int) % 2) * 1.0)

    return course, length_s
