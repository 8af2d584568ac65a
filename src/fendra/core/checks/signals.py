"""Signals: can they be what they are said to be, and does anything read them?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.design import Signal
from fendra.core.findings import Path, Report
from fendra.core.graph.node import VALUE
from fendra.core.names import did_you_mean


@check
def signal_settings(subject: Subject, report: Report) -> None:
    """Ranges upside down, and keys that do nothing for this kind of signal."""
    for name, signal in subject.design.signals.items():
        path: Path = ("signals", name)
        if signal.range is not None and signal.range[0] >= signal.range[1]:
            low, high = signal.range
            message = f"the range goes from {low:g} to {high:g}."
            report.error((*path, "range"), "range", message, "Write the lower value first.")
        _useless(signal, path, report)
        _choices(signal, path, report)
        if signal.range is not None and isinstance(signal.fallback, float):
            low, high = signal.range
            if not low <= signal.fallback <= high and low < high:
                message = f"the fallback {signal.fallback:g} is outside the range."
                report.warning(
                    (*path, "fallback"), "range", message, "It is held within the range."
                )


def _choices(signal: Signal, path: Path, report: Report) -> None:
    if signal.kind != "choice":
        if signal.choices:
            message = "only a choice has words; `choices` does nothing."
            report.warning((*path, "choices"), "no-effect", message, "Remove it, or use a choice.")
        if isinstance(signal.fallback, str):
            message = f"'{signal.fallback}' is a word, and this is no choice."
            report.error((*path, "fallback"), "wrong-type", message, "Write a number.")
        return
    numbers = signal.numbers
    if not numbers:
        message = "a choice needs its words."
        report.error(path, "missing-key", message, 'Add choices = ["calm", "wild"].')
    if len({*numbers.values()}) < len(numbers) or len(numbers) < len([*signal.choices]):
        message = "two words of this choice are one number."
        report.error((*path, "choices"), "duplicate-name", message, "Give each its own.")
    if isinstance(signal.fallback, str) and signal.fallback not in numbers:
        remedy = did_you_mean(signal.fallback, numbers, "choices")
        message = f"there is no choice '{signal.fallback}'."
        report.error((*path, "fallback"), "unknown-name", message, remedy)


def _useless(signal: Signal, path: Path, report: Report) -> None:
    if signal.kind != "switch" and signal.hold > 0:
        message = f"a {signal.kind} is not held; `hold` is for switches."
        report.warning((*path, "hold"), "no-effect", message, "Remove it, or use kind = 'switch'.")
    if signal.kind != "number" and (signal.smooth > 0 or signal.range is not None):
        key = "smooth" if signal.smooth > 0 else "range"
        kind = "a switch is on or off" if signal.kind == "switch" else "a choice has words"
        message = f"{kind}; `{key}` does nothing."
        report.warning((*path, key), "no-effect", message, "Remove it.")
    if signal.of is not None and (signal.lost_after is not None or signal.fallback is not None):
        key = "lost_after" if signal.lost_after is not None else "fallback"
        message = f"this signal is computed; `{key}` does nothing."
        report.warning((*path, key), "no-effect", message, "Set it on the signals that it reads.")


@check
def unread_signals(subject: Subject, report: Report) -> None:
    """Signals that no layer reads, neither itself nor through others."""
    graph = subject.recording.graph
    read = {
        str(node.payload).removeprefix(VALUE)
        for node in graph.nodes
        if node.op == "input" and str(node.payload).startswith(VALUE)
    }
    for name, signal in subject.design.signals.items():
        if signal.of is None and name not in read:
            message = f"no layer reads signal '{name}'."
            report.note(("signals", name), "unread", message, "Bind it to something, or remove it.")
