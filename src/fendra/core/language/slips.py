"""Slips in expressions: forms of other languages, and how to write them here."""

from __future__ import annotations

import ast
import re
from collections.abc import Callable

from fendra.core.mending import first_right


def _words(pattern: str, by: str | Callable[[re.Match[str]], str]) -> Callable[[str], str]:
    """Replaces text outside quotes."""
    searched = re.compile(rf"('[^']*'|\"[^\"]*\")|{pattern}")

    def replace(found: re.Match[str]) -> str:
        if found[1] is not None:
            return found[0]
        return by if isinstance(by, str) else by(found)

    return lambda text: searched.sub(replace, text)


def _ternary(text: str) -> str:
    """`c ? a : b`, or `if c then a else b`."""
    found = re.fullmatch(r"([^?]+)\?([^:?]+):([^:?]+)|if\b(.+)\bthen\b(.+)\belse\b(.+)", text)
    if found is None:
        return text
    condition, then, other = (each.strip() for each in found.groups() if each is not None)
    return f"{then} if {condition} else {other}"


_NO_WORD = r"(?!(?:and|or|not|if|else|in|is)\b)"
_SLIPS: dict[str, Callable[[str], str]] = {
    "expressions have other quotes": lambda text: text.translate(
        str.maketrans("“”„‘’", "'''''")
    ),
    "the size of a number is abs(...)": _words(
        r"((?:^|[-+*/%(<>=,]|\b(?:and|or|not|if|else)\b)\s*)\|\s*([\w.]+)\s*\|",
        lambda found: f"{found[2]}abs({found[3]})",
    ),
    "write the word `and`, not &&": _words(r"\s*&&?\s*", " and "),
    "write the word `or`, not ||": _words(r"\s*\|\|?\s*", " or "),
    "write the word `not`, not !": _words(r"!(?!=)\s*", "not "),
    "write `and`, `or` and `not` in small letters": _words(
        r"\b(?:AND|OR|NOT|And|Or|Not)\b", lambda found: found[0].lower()
    ),
    "write >= instead of =>": _words(r"=>", ">="),
    "write <= instead of =<": _words(r"=<", "<="),
    "compare two values with ==, not with =": _words(r"\s*(?<![<>=!])=(?!=)\s*", " == "),
    "write != instead of <>": _words(r"<>", "!="),
    "nothing may follow an expression": _words(r"\s*;\s*$", ""),
    "numbers have a point, not a comma": _words(r"\b(\d+),(\d+)\b", lambda m: f"{m[2]}.{m[3]}"),
    "write a choice between two values as `a if condition else b`": _ternary,
    "a function needs its value in brackets": _words(
        rf"\b(lost|abs)\s+{_NO_WORD}([A-Za-z_]\w*)\b(?!\()",
        lambda found: f"{found[2]}({found[3]})",
    ),
    "numbers have no unit": _words(
        r"\b(\d+(?:\.\d+)?)\s*(km/h|m/s|mph|°C|°|deg\b|ms\b|sec\b|s\b|Hz\b|m?V\b|m?A\b|[mc]?m\b)",
        lambda found: f"{float(found[2]) * (0.001 if found[3] == 'ms' else 1):g}",
    ),
    "multiply a number and a name with *": _words(
        rf"\b(\d+(?:\.\d+)?)\s*{_NO_WORD}([A-Za-z_]\w*)\b(?!\()", lambda m: f"{m[2]} * {m[3]}"
    ),
    "a share is a number from 0 to 1, without %": _words(
        r"\b(\d+(?:\.\d+)?)\s*%", lambda found: f"{float(found[2]) / 100:g}"
    ),
}  # fmt: skip
"""Problems, and the corrected text for each, in the order in which they are tried."""


def slip_in(text: str) -> tuple[str, str] | None:
    """The problem of an expression that does not parse, and the corrected text.

    >>> slip_in("left && brake = 1")
    ('write the word `and`, not &&', 'left and brake == 1')
    """
    return first_right(text.strip(), _SLIPS, _parses)


def commas_in(text: str) -> str | None:
    """An expression with commas in its numbers, with points instead; None if it has none.

    >>> commas_in("0,3 + 0,7 * brake")
    '0.3 + 0.7 * brake'
    """
    mended = _SLIPS["numbers have a point, not a comma"](text)
    return mended if mended != text and _parses(mended) else None


def _parses(text: str) -> bool:
    try:
        tree = ast.parse(text, mode="eval").body
    except (SyntaxError, ValueError, RecursionError, MemoryError):
        return False
    return not isinstance(tree, ast.Tuple)
