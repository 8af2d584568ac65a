"""How objects show themselves: in a line at the prompt, and as a table in a notebook."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from fendra.core.quoting import markdown, visible

LONGEST = 160
"""Characters of an object at the prompt."""


def brief(kind: str, name: str, *facts: str) -> str:
    """An object in one line: its kind, its name, and a few facts.

    >>> brief("Tape", "ride", "90 s", "12 signals")
    "<Tape 'ride': 90 s, 12 signals>"
    """
    named = f"{kind} {name!r}" if name else kind
    text = visible(": ".join(filter(None, (named, ", ".join(filter(None, facts))))))
    return f"<{text if len(text) <= LONGEST else text[: LONGEST - 3] + '...'}>"


def few(names: Iterable[str], most: int = 4) -> str:
    """The first few names.

    >>> few(["a", "b", "c", "d", "e"])
    'a, b, c, d, ...'
    """
    every = [*names]
    return ", ".join([*every[:most], *(["..."] if len(every) > most else [])])


def in_digits(number: float) -> str:
    """A number in four digits, and as a whole number from 10,000 up to ten millions.

    >>> in_digits(180.8123), in_digits(70_000.4), in_digits(0.00012), in_digits(3e9)
    ('180.8', '70000', '0.00012', '3e+09')
    """
    text = f"{number:.4g}"
    return f"{number:.0f}" if "e+" in text and abs(number) < 1e7 else text


def as_table(title: str, heads: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table in Markdown, for a notebook.

    >>> print(as_table("Heron", ("part", "LEDs"), [("bar", 8)]))
    **Heron**
    <BLANKLINE>
    | part | LEDs |
    | --- | --- |
    | bar | 8 |
    """
    lines = [heads, ["---"] * len(heads), *rows]
    texts = [[cell if cell == "---" else markdown(str(cell)) for cell in line] for line in lines]
    table = "\n".join(f"| {' | '.join(line)} |" for line in texts)
    return f"**{markdown(title)}**\n\n{table}"
