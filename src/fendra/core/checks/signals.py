"""Signals: are their keys possible, and does anything read them?"""

from __future__ import annotations

import math

import numpy as np

from fendra.core.checks import Subject, check
from fendra.core.document.design import Design
from fendra.core.document.signal import COMMON, Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.names import listed
from fendra.core.signals.inputs import read_by
from fendra.core.signals.kinds import KINDS, kind_of


@check
def signal_settings(subject: Subject, report: Report) -> None:
    """Ranges upside down, and keys that do nothing for this kind of signal."""
    for name, signal in subject.design.signals.items():
        path: KeyPath = ("signals", name)
        if signal.range is not None and signal.range[0] >= signal.range[1]:
            low, high = signal.range
            message = f"the range goes from {low:g} to {high:g}."
            report.error((*path, "range"), "range", message, "Write the lower value first.")
        if signal.kind in KINDS:
            _useless(signal, path, report)
            kind_of(signal).check(signal, path, report)
        if signal.range is not None and isinstance(signal.fallback, float):
            low, high = signal.range
            if not low <= signal.fallback <= high and low < high:
                message = f"the fallback {signal.fallback:g} is outside the range."
                report.warning(
                    (*path, "fallback"), "range", message, "It is held within the range."
                )


def _useless(signal: Signal, path: KeyPath, report: Report) -> None:
    """Keys that do nothing for this kind of signal."""
    kind = kind_of(signal)
    for key in sorted(signal.model_fields_set - COMMON - kind.keys):
        kinds = " or ".join(f"'{name}'" for name, other in KINDS.items() if key in other.keys)
        message = f"this is a {signal.kind}; `{key}` has no effect."
        report.warning((*path, key), "no-effect", message, f"Remove it, or use kind = {kinds}.")
    for key in ("lost_after", "fallback", "source", "cells"):
        if signal.of is not None and getattr(signal, key):
            message = f"this signal is computed; `{key}` has no effect."
            report.warning(
                (*path, key), "no-effect", message, "Set it on the signals that it reads."
            )
    if kind.is_moment and signal.fallback is not None:
        message = f"a {signal.kind} lasts one frame; `fallback` has no effect."
        report.warning((*path, "fallback"), "no-effect", message, "Remove it.")
    if signal.calibrate is not None and signal.curve:
        message = "`calibrate` wins; `curve` has no effect."
        report.warning((*path, "curve"), "no-effect", message, "Remove one of them.")


SATURATED = 0.05
"""The share of a tape's values from which on it is spoken of that they leave their range."""


@check(stops=False)
def saturated_signals(subject: Subject, report: Report) -> None:
    """Columns of a tape that leave the range of their signal, and are held at its end."""
    if subject.film is None:
        return
    for name, signal in subject.design.signals.items():
        values = subject.film.tape.signals.get(name)
        ends = signal.calibrate or signal.range
        if values is None or signal.kind != "number" or ends is None or signal.curve:
            continue
        if signal.of is not None or signal.cells is not None:
            continue
        heard = values[~np.isnan(values)]
        low, high = min(ends), max(ends)
        slack = (high - low) * 0.001
        outside = np.count_nonzero((heard < low - slack) | (heard > high + slack))
        if outside == 0 or outside < SATURATED * len(heard):
            continue
        key = "calibrate" if signal.calibrate else "range"
        seen = [min(low, _round(heard.min())), max(high, _round(heard.max()))]
        written = ", ".join(f"{end:.10g}" for end in seen)
        message = (
            f"{outside / len(heard):.0%} of the tape's values are outside [{low:g}, "
            f"{high:g}] and are held at its ends; they go from {heard.min():g} to "
            f"{heard.max():g}."
        )
        remedy = f"Write {key} = [{written}]"
        if key == "range":
            remedy += f", or calibrate = [{written}] to map these onto the range"
        report.warning(("signals", name, key), "saturated", message, f"{remedy}.")


def _round(value: float) -> float:
    """A value rounded up, away from 0, to two digits."""
    if value == 0:
        return 0.0
    step = 10.0 ** (math.floor(math.log10(abs(value))) - 1)
    return math.copysign(math.ceil(abs(value) / step - 1e-9) * step, value)


@check
def computed_signals(subject: Subject, report: Report) -> None:
    """Signals of a kind that cannot be computed."""
    for name, signal in subject.design.signals.items():
        path: KeyPath = ("signals", name)
        kind = kind_of(signal)
        if signal.of is not None and not kind.is_computed:
            message = f"a {signal.kind} cannot be computed."
            able = [f"{other.name}s" for other in KINDS.values() if other.is_computed]
            remedy = f"{listed(able).capitalize()} can."
            report.error((*path, "of"), "wrong-value", message, remedy)


@check(stops=False)
def unread_signals(subject: Subject, report: Report) -> None:
    """Signals that no layer reads, neither itself nor through others."""
    read = read_by(subject.plan.graph, subject.design) | _followed(subject.design)
    for name, signal in subject.design.signals.items():
        if signal.of is None and signal.kind in KINDS and name not in read:
            message = f"no layer reads signal '{name}'."
            report.note(("signals", name), "unread", message, "Use it in a layer, or remove it.")


def _followed(design: Design) -> frozenset[str]:
    """The signals that options of sources name."""
    given = [value for source in design.sources.values() for value in source.values.values()]
    return frozenset(value for value in given if isinstance(value, str) and value in design.signals)
