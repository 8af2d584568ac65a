"""Tables to look up in: a value for each word of a choice, or for each whole number."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping

from fendra.core.findings import KeyPath, Report
from fendra.core.graph.functions import nearest, select
from fendra.core.graph.trace import Value
from fendra.core.names import did_you_mean, listed

BY, ELSE = "by", "else"
"""The keys of a table for the name that looks it up, and for the value where nothing fits."""


def entries(
    table: Mapping[str, object], words: Mapping[str, int] | None, path: KeyPath, report: Report
) -> dict[str, float] | None:
    """The number of each key of a table, but for `by` and `else`. Mistakes are reported.

    words: of the choice that it is looked up by; None if that is a number. Gives None if
    `by` is missing, or `else` where not every word has its own entry.
    """
    by = table.get(BY)
    if not isinstance(by, str):
        message = f"a lookup table needs `{BY}`: a number or a choice."
        report.error((*path, BY), "missing-key", message, 'Add by = "...".')
        return None
    found: dict[str, float] = {}
    for key in table:
        if key in (BY, ELSE):
            continue
        number = words.get(key) if words is not None else as_number(key)
        if number is None:
            what = f"choices of {by}" if words is not None else "numbers"
            remedy = did_you_mean(key, words, what) if words else "Write a whole number."
            report.error((*path, key), "unknown-name", f"'{key}' is not one of the {what}.", remedy)
        else:
            found[key] = float(number)
    if ELSE not in table:
        missing = [word for word in words or () if word not in table]
        if words is None or missing:
            which = f"for {listed(missing)}" if missing else "for every other number"
            message = f"a lookup table needs `{ELSE}` {which}."
            report.error((*path, ELSE), "missing-key", message, "Add else = ...")
            return None
    return found


def looked_up(place: Value, items: Iterable[tuple[float, Value]], rest: Value | None) -> Value:
    """The value whose number is nearest to a place; without a match the rest, or the first value if
    there is no rest.
    """
    whole, found = nearest(place), rest
    for number, value in items:
        found = value if found is None else select(whole == number, value, found)
    assert found is not None
    return found


def as_number(key: str) -> int | None:
    """A key that is a whole number; None for any other."""
    return int(key) if re.fullmatch(r"-?\d{1,7}", key) else None
