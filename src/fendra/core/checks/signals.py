"""Signals: can they be what they are said to be, and does anything read them?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
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
        message = f"this is a {signal.kind}; `{key}` does nothing."
        report.warning((*path, key), "no-effect", message, f"Remove it, or use kind = {kinds}.")
    for key in ("lost_after", "fallback", "source", "cells"):
        if signal.of is not None and getattr(signal, key):
            message = f"this signal is computed; `{key}` does nothing."
            report.warning(
                (*path, key), "no-effect", message, "Set it on the signals that it reads."
            )
    if kind.is_moment and signal.fallback is not None:
        message = f"a {signal.kind} is there in one frame alone; `fallback` does nothing."
        report.warning((*path, "fallback"), "no-effect", message, "Remove it.")
    if signal.calibrate is not None and signal.curve:
        message = "`calibrate` comes first; `curve` does nothing."
        report.warning((*path, "curve"), "no-effect", message, "Remove one of both.")


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
    read = read_by(subject.plan.graph, subject.design)
    for name, signal in subject.design.signals.items():
        if signal.of is None and signal.kind in KINDS and name not in read:
            message = f"no layer reads signal '{name}'."
            report.note(("signals", name), "unread", message, "Bind it to something, or remove it.")
