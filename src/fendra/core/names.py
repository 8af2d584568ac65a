"""Words: allowed names, the nearest known one to a wrong one, and values as people say them."""

from __future__ import annotations

import difflib
import re
from collections.abc import Iterable, Sequence
from typing import Literal, TypeAlias

NAME = re.compile(r"\w[\w .-]*")
"""Parts, groups, trails and lines: letters, digits, _ and, but for the first, spaces, . and -."""

SIGNAL_NAME = re.compile(r"[A-Za-z][A-Za-z0-9_]*")
"""Signals stand in expressions, so they have no spaces and no hyphens."""


TRUTHS = {
    "on": True, "true": True, "yes": True, "high": True,
    "off": False, "false": False, "no": False, "low": False,
}  # fmt: skip
"""Words for truth: on tapes, live and on the command line."""

ViewName: TypeAlias = Literal["top", "bottom", "front", "back", "left", "right"]
"""The sides that a thing can be seen from."""


def truth_of(text: str) -> bool | None:
    """What a word for truth says; None where it is none.

    >>> truth_of(" Yes "), truth_of("off"), truth_of("7")
    (True, False, None)
    """
    return TRUTHS.get(text.strip().casefold())


def counted(number: int, what: str) -> str:
    """A number of things in words.

    >>> counted(1, "LED"), counted(24, "LED"), counted(3, "address")
    ('1 LED', '24 LEDs', '3 addresses')
    """
    ending = "" if number == 1 else "es" if what.endswith("s") else "s"
    return f"{number} {what}{ending}"


def listed(words: Sequence[str], joint: str = "and") -> str:
    """Words in a row, with `and` or another joint before the last.

    >>> listed(["a"]), listed(["a", "b"]), listed(["a", "b", "c"], "or")
    ('a', 'a and b', 'a, b or c')
    """
    *first, last = words
    return f"{', '.join(first)} {joint} {last}" if first else last


LONGEST_WORD = 100
"""A longer one is like no name, and comparing it takes long."""


def nearest(name: str, known: Iterable[str]) -> str | None:
    """The known name most like `name`, or None when nothing is near.

    >>> nearest("brak", ["brake", "speed"])
    'brake'
    """
    if len(name) > LONGEST_WORD:
        return None
    by_folded = {candidate.casefold(): candidate for candidate in known}
    found = difflib.get_close_matches(name.casefold(), by_folded, n=1, cutoff=0.6)
    return by_folded[found[0]] if found else None


def did_you_mean(name: str, known: Iterable[str], what: str = "known names") -> str:
    """The remedy for an unknown name: the nearest one, else the whole list.

    >>> did_you_mean("sweeep", ["blink", "sweep"])
    "Did you mean 'sweep'?"
    >>> did_you_mean("zzz", ["blink", "sweep"], "effects")
    'The effects are: blink, sweep.'
    """
    names = sorted(known)
    near = nearest(name, names)
    if near is not None:
        return f"Did you mean '{near}'?"
    if not names:
        return f"There are no {what} yet."
    shown = ", ".join(names[:20]) + (", ..." if len(names) > 20 else "")
    return f"The {what} are: {shown}."


def in_words(value: object) -> str:
    """A value of a file as a message says it.

    >>> in_words("eight"), in_words(8.5), in_words(True), in_words([1, 2])
    ("the text 'eight'", 'the number 8.5', 'true', 'a list of 2')
    """
    match value:
        case bool():
            return str(value).lower()
        case str():
            return f"the text {value!r:.60}"
        case int() | float():
            return f"the number {value:g}"
        case list():
            return f"a list of {len(value)}"
        case dict():
            return "a table"
    return f"{value!r:.60}"


def cannot_stand(given: object, known: Iterable[str]) -> tuple[str, str]:
    """The message and the remedy for what is none of the known values.

    >>> cannot_stand("ovr", ["add", "over"])
    ("the text 'ovr' cannot stand here.", "Did you mean 'over'?")
    """
    return f"{in_words(given)} cannot stand here.", did_you_mean(str(given), known, "values")
