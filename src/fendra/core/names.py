"""Words: allowed names, the nearest known one to a wrong one, and values as people say them."""

from __future__ import annotations

import difflib
import json
import re
from collections.abc import Collection, Iterable, Sequence
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
    """The truth value of a word; None if it is not a word for one.

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


def nearest(name: str, known: Iterable[str], *, alike: float = 0.6) -> str | None:
    """The known name most like `name`, or None when nothing is near.

    alike: how much of both must be the same, 0 to 1; of one or two letters the first as well.

    >>> nearest("brak", ["brake", "speed"]), nearest("on", ["join", "of"])
    ('brake', None)
    """
    if len(name) > LONGEST_WORD:
        return None
    by_folded = {candidate.casefold(): candidate for candidate in known}
    if len(name) <= 2:
        by_folded = {key: each for key, each in by_folded.items() if key[:1] == name[:1].casefold()}
    found = difflib.get_close_matches(name.casefold(), by_folded, n=1, cutoff=alike)
    return by_folded[found[0]] if found else None


def same_number(name: str, known: Collection[str]) -> str | None:
    """The known part number that a wrong one means, or None: another digit is another chip.

    Capitals, hyphens, exchanged characters and a missing end do not count.

    >>> known = ["esp32", "esp32s3", "rp2040", "ws2811", "ws2812b"]
    >>> [same_number(name, known) for name in ("RP-2040", "rp2400", "ws2812", "esp32s2", "ws2813")]
    ['rp2040', 'rp2040', 'ws2812b', None, None]
    """
    bare = _bare(name)
    for candidate in known:
        other = _bare(candidate)
        if bare == other or (len(bare) > 4 and sorted(bare) == sorted(other)):
            return candidate
    longer = [candidate for candidate in known if _bare(candidate).startswith(bare)]
    return longer[0] if len(longer) == 1 and len(bare) > 4 else None


def number_meant(name: str, known: Collection[str], what: str, otherwise: str = "") -> str:
    """The remedy for an unknown part number: the known one that is probably meant, else the whole
    list.

    otherwise: text after the list.

    >>> number_meant("ws2812", ["ws2811", "ws2812b"], "types")
    "Did you mean 'ws2812b'?"
    >>> number_meant("ws2813", ["ws2811", "ws2812b"], "types", "Add another one in [leds].")
    'The types are: ws2811, ws2812b. Add another one in [leds].'
    """
    near = same_number(name, known)
    if near is not None:
        return f"Did you mean '{near}'?"
    return f"{the_known(known, what)} {otherwise}".strip()


def _bare(name: str) -> str:
    return re.sub(r"[\W_]", "", name.casefold())[:LONGEST_WORD]


def did_you_mean(name: str, known: Iterable[str], what: str = "known names") -> str:
    """The remedy for an unknown name: the nearest one, else the whole list.

    >>> did_you_mean("sweeep", ["blink", "sweep"])
    "Did you mean 'sweep'?"
    >>> did_you_mean("zzz", ["blink", "sweep"], "effects")
    'The effects are: blink, sweep.'
    """
    names = sorted({*known})
    near = nearest(name, names)
    return f"Did you mean '{near}'?" if near is not None else the_known(names, what)


def the_known(names: Iterable[str], what: str) -> str:
    """A list of the known names.

    >>> the_known(["blink", "sweep"], "effects"), the_known([], "scenes")
    ('The effects are: blink, sweep.', 'There are no scenes yet.')
    """
    names = sorted({*names})
    if not names:
        return f"There are no {what} yet."
    shown = ", ".join(names[:MOST_LISTED]) + (", ..." if len(names) > MOST_LISTED else "")
    return f"The {what} are: {shown}."


MOST_LISTED = 40
"""Names that a message lists."""


def in_words(value: object) -> str:
    """A value of a file as a message shows it: as it is written.

    >>> in_words("eight"), in_words(8.5), in_words(True), in_words([1, 2])
    ('"eight"', '8.5', 'true', 'a list of 2')
    """
    match value:
        case bool():
            return str(value).lower()
        case str():
            shown = value if len(value) <= 60 else f"{value[:57]}..."
            return json.dumps(shown, ensure_ascii=False)
        case int():
            return str(value)[:60]
        case float():
            return f"{value:g}"
        case list():
            return f"a list of {len(value)}"
        case dict():
            return "a table"
    return f"{value!r:.60}"


def must_be(wanted: str, given: object) -> str:
    """The problem of a value of another kind.

    >>> must_be("a number", "eight")
    'this must be a number; you wrote "eight".'
    """
    return f"this must be {wanted}; you wrote {in_words(given)}."


def cannot_stand(given: object, known: Iterable[str]) -> tuple[str, str]:
    """The message and the remedy for a value that is not one of the known ones.

    >>> cannot_stand("ovr", ["add", "over"])
    ('this must be add or over; you wrote "ovr".', "Did you mean 'over'?")
    >>> cannot_stand("rear", ["front", "back"])
    ('this must be back or front; you wrote "rear".', '')
    """
    names = sorted(known)
    near = nearest(str(given), names)
    return must_be(listed(names, "or"), given), f"Did you mean '{near}'?" if near else ""
