"""Signals: can they be what they are said to be, and does anything read them?"""

from __future__ import annotations

from fendra.core.checks import Subject, check
from fendra.core.document.signal import COMMON, KEYS, Signal
from fendra.core.findings import KeyPath, Report
from fendra.core.graph.node import NEWS, VALUE
from fendra.core.light.colours import is_colour
from fendra.core.names import did_you_mean


@check
def signal_settings(subject: Subject, report: Report) -> None:
    """Ranges upside down, and keys that do nothing for this kind of signal."""
    for name, signal in subject.design.signals.items():
        path: KeyPath = ("signals", name)
        if signal.range is not None and signal.range[0] >= signal.range[1]:
            low, high = signal.range
            message = f"the range goes from {low:g} to {high:g}."
            report.error((*path, "range"), "range", message, "Write the lower value first.")
        _useless(signal, path, report)
        _words(signal, path, report)
        if signal.range is not None and isinstance(signal.fallback, float):
            low, high = signal.range
            if not low <= signal.fallback <= high and low < high:
                message = f"the fallback {signal.fallback:g} is outside the range."
                report.warning(
                    (*path, "fallback"), "range", message, "It is held within the range."
                )


def _words(signal: Signal, path: KeyPath, report: Report) -> None:
    """The words of choices and texts, and what a fallback may be."""
    numbers, fallback = signal.numbers, signal.fallback
    if signal.kind in ("choice", "text"):
        if not numbers:
            message = f"a {signal.kind} needs its words."
            report.error(path, "missing-key", message, 'Add choices = ["calm", "wild"].')
        if len({*numbers.values()}) < len(numbers) or len(numbers) < len([*signal.choices]):
            message = f"two words of this {signal.kind} are one number."
            report.error((*path, "choices"), "duplicate-name", message, "Give each its own.")
    if not isinstance(fallback, str):
        return
    if signal.kind in ("colour", "picture"):
        if not is_colour(fallback):
            message = f"there is no colour '{fallback}'."
            report.error((*path, "fallback"), "colour", message, "Write '#rrggbb' or a CSS name.")
    elif signal.kind not in ("choice", "text"):
        message = f"'{fallback}' is a word, and this is no choice."
        report.error((*path, "fallback"), "wrong-type", message, "Write a number.")
    elif fallback not in numbers:
        remedy = did_you_mean(fallback, numbers, "choices")
        message = f"there is no choice '{fallback}'."
        report.error((*path, "fallback"), "unknown-name", message, remedy)


def _useless(signal: Signal, path: KeyPath, report: Report) -> None:
    """Keys that do nothing for this kind of signal."""
    for key in sorted(signal.model_fields_set - COMMON - KEYS[signal.kind]):
        kinds = " or ".join(f"'{kind}'" for kind, keys in KEYS.items() if key in keys)
        message = f"this is a {signal.kind}; `{key}` does nothing."
        report.warning((*path, key), "no-effect", message, f"Remove it, or use kind = {kinds}.")
    for key in ("lost_after", "fallback", "source", "cells"):
        if signal.of is not None and getattr(signal, key):
            message = f"this signal is computed; `{key}` does nothing."
            report.warning(
                (*path, key), "no-effect", message, "Set it on the signals that it reads."
            )
    if signal.kind in ("text", "event") and signal.fallback is not None:
        message = f"a {signal.kind} is there in one frame alone; `fallback` does nothing."
        report.warning((*path, "fallback"), "no-effect", message, "Remove it.")
    if signal.calibrate is not None and signal.curve:
        message = "`calibrate` comes first; `curve` does nothing."
        report.warning((*path, "curve"), "no-effect", message, "Remove one of both.")


@check
def live_signals(subject: Subject, report: Report) -> None:
    """Kinds of signals that need something: a size, a part, a source's name."""
    for name, signal in subject.design.signals.items():
        path: KeyPath = ("signals", name)
        if signal.of is not None and signal.kind not in ("number", "switch", "colour"):
            message = f"a {signal.kind} cannot be computed."
            report.error(
                (*path, "of"), "wrong-value", message, "Numbers, switches and colours can."
            )
        for text in signal.sources:
            source, colon, _ = text.partition(":")
            if colon and source not in subject.design.sources:
                remedy = did_you_mean(source, subject.design.sources, "sources")
                message = f"there is no source '{source}'."
                report.error((*path, "source"), "unknown-name", message, remedy)
        if signal.kind == "vector" and signal.size is None:
            report.error(path, "missing-key", "a vector needs its size.", "Add size = 8.")
        if signal.kind == "picture" and signal.on not in subject.choices:
            remedy = did_you_mean(signal.on, subject.choices, "parts, groups and trails")
            message = f"there is no part, group or trail '{signal.on}'."
            report.error((*path, "on"), "unknown-name", message, remedy)


@check
def unread_signals(subject: Subject, report: Report) -> None:
    """Signals that no layer reads, neither itself nor through others."""
    graph = subject.plan.graph
    shown = {node.payload for node in graph.nodes if node.op == "pixels"}
    read = {
        str(node.payload).removeprefix(VALUE).removeprefix(NEWS)
        for node in graph.nodes
        if node.op == "input"
    }
    for name, signal in subject.design.signals.items():
        if signal.of is None and not read & {*signal.parts(name)} and name not in shown:
            message = f"no layer reads signal '{name}'."
            report.note(("signals", name), "unread", message, "Bind it to something, or remove it.")
