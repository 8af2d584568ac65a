"""Mending: a text in which something is written as elsewhere, put right step by step."""

from __future__ import annotations

from collections.abc import Callable, Mapping


def first_right(
    text: str, slips: Mapping[str, Callable[[str], str]], is_right: Callable[[str], bool]
) -> tuple[str, str] | None:
    """The first slip in a text, and the corrected text; None if no correction works.

    slips: the problem, and a function that corrects it, in the order in which to try them.

    >>> slips = {"it is small": str.upper, "it has blanks": lambda text: text.replace(" ", "")}
    >>> first_right("a b", slips, lambda text: text == "AB")
    ('it is small', 'AB')
    """
    problem = ""
    for wrong, mend in slips.items():
        mended = mend(text)
        if mended != text:
            text, problem = mended, problem or wrong
            if is_right(text):
                return problem, text
    return None
