"""The one reader of expressions: from a text to a tree, with errors and their places.

The grammar is Python's, read with `ast`. Nothing is ever evaluated as Python; `expression` decides
which parts of the grammar the language has.
"""

from __future__ import annotations

import ast
import warnings
from collections.abc import Mapping
from typing import Any

from fendra.core.errors import ExpressionError
from fendra.core.language.slips import slip_in

LONGEST = 1000
"""Characters of an expression."""
MOST = 10**300
"""Of a whole number."""


def read(text: str) -> ast.expr:
    """The tree of an expression; its columns count from the first character that is no blank.

    Raises ExpressionError with the place and a remedy.

    >>> type(read(" brake > 0.1 ")).__name__
    'Compare'
    """
    if not text.strip():
        raise ExpressionError("the expression is empty", remedy="Write one, or leave it out.")
    if len(text) > LONGEST:
        raise ExpressionError(
            f"the expression has {len(text)} characters, more than {LONGEST}",
            remedy="Split it into signals with `of`.",
        )
    lead, stripped = len(text) - len(text.lstrip()), text.strip()
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")  # Python's own about odd literals and escapes
            tree = ast.parse(stripped, mode="eval").body
    except SyntaxError as exc:
        slip = slip_in(stripped)
        if slip is not None:
            raise ExpressionError(
                f"this does not parse: {slip[0]}.",
                remedy=f"Write: {slip[1]}",
                code="syntax",
                text=text,
                column=lead + max((exc.offset or 1) - 1, 0),
            ) from exc
        ends_early = not exc.offset or exc.offset > len(stripped)
        problem = "it ends too early" if ends_early else exc.msg
        raise ExpressionError(
            f"this does not parse: {problem}",
            remedy=_as_in(problem),
            code="syntax",
            text=text,
            column=lead + (len(stripped) if ends_early else (exc.offset or 1) - 1),
        ) from exc
    except (ValueError, RecursionError, MemoryError) as exc:
        raise too_deep() from exc
    for node in ast.walk(tree):
        # Such a number is too large for a float, which code that reads the tree expects.
        if isinstance(node, ast.Constant) and isinstance(node.value, int) and node.value > MOST:
            raise ExpressionError(
                f"{stripped[node.col_offset :][:20]}... is not a usable number",
                text=text,
                column=lead + node.col_offset,
            )
    return tree


def _as_in(problem: str) -> str:
    """The text to write for an expression whose meaning is unclear."""
    if "ends too early" in problem:
        return "Add what is missing at its end, as in: brake > 0.1."
    if "never closed" in problem:
        return "Close it: each ( needs its )."
    if "unmatched" in problem:
        return "Remove it, or add the ( that it closes."
    return "An expression looks like: brake > 0.1 and not parked."


def too_deep() -> ExpressionError:
    """The error for an expression that is nested too deeply."""
    return ExpressionError(
        "it is nested too deeply, or has characters that expressions do not have",
        remedy="Split it into signals with `of`.",
    )


def names_in(setting: Any) -> list[str]:
    """The names in a parameter: in an expression, a list or a table of them.

    >>> names_in(["speed / 25", "red"]), names_in(0.5)
    (['speed', 'red'], [])
    """
    if isinstance(setting, Mapping):
        return [name for item in setting.values() for name in names_in(item)]
    if isinstance(setting, (list, tuple)):
        return [name for item in setting for name in names_in(item)]
    if not isinstance(setting, str):
        return []
    try:
        tree = read(setting)
    except ExpressionError:
        return []
    return [node.id for node in ast.walk(tree) if isinstance(node, ast.Name)]
