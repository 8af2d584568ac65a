"""An unknown name in an expression: the problem and the cure."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable

from fendra.core.language.reader import names_in
from fendra.core.language.vocabulary import FUNCTIONS
from fendra.core.light.colours import is_colour
from fendra.core.names import TRUTHS, did_you_mean, nearest

ALIKE = 0.75
"""How much of a signal's name must be the same, so that another one is meant."""


def unknown_name(
    name: str, text: str, *, names: Iterable[str], texts: Collection[str], of_leds: Collection[str],
    has_signals: bool, is_colour_wanted: bool,
) -> tuple[str, str]:  # fmt: skip
    """The problem of a name in an expression, and the cure.

    names: the known names. texts: names that contain a text. of_leds: names with a value for each
    LED, where one value for all is needed. has_signals: whether signals are allowed.

    >>> here = dict(names=["brake"], texts=[], of_leds=["x"], is_colour_wanted=False)
    >>> unknown_name("right", "right", has_signals=True, **here)
    ("there is no signal 'right'.", 'Declare it: [signals.right].')
    """
    known = sorted(names)
    if name in texts:
        return f"'{name}' contains a text", f"Compare it with one, as in: {name} == '...'."
    if is_colour_wanted and is_colour(name):
        bare = {each for each in names_in(text) if is_colour(each) and each not in known}
        return "in an expression, colours need quotes.", f"Write: {_quoted(text, bare)}"
    if name.casefold() in TRUTHS:
        return f"'{name}' is not a word of expressions.", (
            f"Write {TRUTHS[name.casefold()]}; a switch is a condition by itself: left, not left."
        )
    if name in of_leds:
        example = f"signals, such as {known[0]}" if known else "signals"
        return (
            f"each LED has its own {name}, but one value for all LEDs is needed.",
            f"Use {example}; choose LEDs with `on`.",
        )
    if name in FUNCTIONS:
        return f"'{name}' is a function.", f"Call it, as in: {name}(...)."
    if not has_signals:
        return f"there is no column '{name}'.", did_you_mean(name, known, "columns")
    near = nearest(name, known, alike=ALIKE)
    if near is not None:
        return f"there is no signal '{name}'.", f"Did you mean '{near}'?"
    return f"there is no signal '{name}'.", f"Declare it: [signals.{name}]."


def _quoted(text: str, words: Collection[str]) -> str:
    """A text with some of its words in quotes."""
    return re.sub(
        r"'[^']*'|\"[^\"]*\"|\w+",
        lambda found: f"'{found[0]}'" if found[0] in words else found[0],
        text.strip(),
    )
