"""A first look at plain values, before anything is made of them: is there too much, or a character
that hides text?

It walks through the values once without recursion, so no document is too deep for it.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from fendra.core.findings import Finding, KeyPath, Severity
from fendra.core.limits import DEPTH, DESIGN_KEYS, LAYERS, LINES, PARTS, SIGNALS, TEXT, Limit
from fendra.core.quoting import in_lines, visible

_COUNTED: tuple[tuple[str, Limit], ...] = (
    ("line", LINES), ("layer", LAYERS), ("scene", LAYERS), ("signals", SIGNALS),
    ("groups", PARTS), ("trails", PARTS), ("presets", LAYERS), ("rhythms", LAYERS),
    ("assemblies", PARTS), ("canvases", PARTS), ("controllers", LINES), ("supplies", LINES),
    ("leds", LINES), ("sources", LINES), ("outputs", LINES), ("effects", LINES),
)  # fmt: skip


def too_much(raw: Mapping[str, Any]) -> list[Finding]:
    """Findings about a document that is too large or hides something; it is not read any further.

    >>> [finding.message for finding in too_much({"name": "x" * 20_000})]
    ['this text has 20,000 characters.']
    """
    found: list[Finding] = []
    waiting: list[tuple[Any, KeyPath, int]] = [(raw, (), 0)]
    keys = 0
    while waiting and not found:
        value, path, depth = waiting.pop()
        if isinstance(value, str):
            if len(value) > TEXT.most:
                found.append(_finding(path, f"this text has {len(value):,} characters.", TEXT))
            elif in_lines(value) != value:
                found.append(_hidden(path, value))
        if not isinstance(value, dict | list):
            continue
        keys += len(value)
        if depth > DEPTH.most:
            found.append(_finding(path[:2], "this is nested too deeply.", DEPTH))
        elif keys > DESIGN_KEYS.most:
            found.append(_finding((), "there are too many keys and values.", DESIGN_KEYS))
        items = value.items() if isinstance(value, dict) else enumerate(value)
        for key, inner in items:
            if isinstance(key, str) and len(key) > TEXT.most:
                found.append(_finding(path[:2], f"a key has {len(key):,} characters.", TEXT))
            elif isinstance(key, str) and visible(key) != key:
                found.append(_hidden(path, key))
            waiting.append((inner, (*path, key) if len(path) < 4 else path, depth + 1))
    for name, limit in _COUNTED:
        given = raw.get(name)
        if isinstance(given, dict | list) and len(given) > limit.most:
            found.append(_finding((name,), f"there are {len(given):,} here.", limit))
    return found


def _hidden(path: KeyPath, text: str) -> Finding:
    message = f"a character here is invisible: '{in_lines(text)[:80]}'."
    remedy = "Texts have letters, line ends and tabs; remove the character."
    return Finding("hidden-character", Severity.ERROR, message, remedy, path)


def _finding(path: KeyPath, problem: str, limit: Limit) -> Finding:
    return Finding("limit", Severity.ERROR, problem, f"The limit is {limit.in_words}.", path)
