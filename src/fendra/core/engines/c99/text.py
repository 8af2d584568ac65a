"""Pieces of C: literals, expressions with just the parentheses they need, wrapped lists."""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from textwrap import wrap

import numpy as np

from fendra.core.graph.ops import OPS, Binds, Kind
from fendra.core.quoting import c_comment

C_TYPES = {Kind.FLOAT: "float", Kind.UINT: "uint32_t", Kind.TRUTH: "bool"}

WIDTH = 96


@dataclass(frozen=True)
class Piece:
    """A piece of an expression, and how tightly it binds. op: its operation, if it is one."""

    text: str
    binds: Binds
    op: str = ""


_PLAIN = 1e-4, 1e16
"""Numbers from here to there are written without an exponent."""


def float_literal(value: float) -> str:
    """The shortest decimal text that a C compiler reads as this float32.

    The same with every version of NumPy, whose own texts have changed: a design's hash is made of
    it, and what is compiled is kept by it.

    >>> float_literal(0.1), float_literal(-3), float_literal(1e9), float_literal(1e-9)
    ('0.1f', '-3.0f', '1000000000.0f', '1e-09f')
    """
    number = np.float32(value)
    if np.isnan(number):
        return "NAN"
    if np.isinf(number):
        return "INFINITY" if number > 0 else "-INFINITY"
    if number == 0 or _PLAIN[0] <= abs(number) < _PLAIN[1]:
        return f"{np.format_float_positional(number, trim='0')}f"
    return f"{np.format_float_scientific(number, trim='-', exp_digits=2)}f"


def literal(kind: Kind, value: float | int | bool) -> Piece:
    """A constant."""
    if kind is Kind.TRUTH:
        return Piece("true" if value else "false", Binds.ATOM)
    if kind is Kind.UINT:
        return Piece(f"{int(value)}u", Binds.ATOM)
    text = float_literal(value)
    return Piece(text, Binds.UNARY if text.startswith("-") else Binds.ATOM)


def operation(name: str, args: Sequence[Piece]) -> Piece:
    """An operation of the table on pieces."""
    op = OPS[name]
    is_call = op.binds is Binds.ATOM
    texts = [
        piece.text
        if is_call or not _needs_parentheses(op.binds, place, piece)
        else f"({piece.text})"
        for place, piece in enumerate(args)
    ]
    if name == "uint_select" and all(text.rstrip("u").isdigit() for text in texts[1:]):
        texts[1] = f"(uint32_t){texts[1]}"  # where an int has 16 bits, small literals have as well
    return Piece(op.c.format(*texts), op.binds, name)


def _needs_parentheses(outer: Binds, place: int, piece: Piece) -> bool:
    """Whether to add parentheses: C does not need these, but compilers and people ask for them."""
    match outer:
        case Binds.UNARY | Binds.SHIFT | Binds.BITS:
            return piece.binds < Binds.ATOM
        case Binds.EITHER:
            return piece.binds in (Binds.BOTH, Binds.CHOICE)
        case Binds.BOTH | Binds.CHOICE:
            return piece.binds < outer or piece.binds is Binds.CHOICE
    return piece.binds < outer or (place > 0 and piece.binds == outer)


def parenthesised(text: str) -> str:
    """In parentheses, unless it is one word."""
    return text if text.isidentifier() else f"({text})"


def wrapped(items: Iterable[str], indent: str = "    ") -> list[str]:
    """Items with commas, in lines."""
    return wrap(", ".join(items), WIDTH, initial_indent=indent, subsequent_indent=indent)


def comment(text: str, indent: str = "") -> list[str]:
    """A comment, in as many lines as it needs."""
    lines = wrap(c_comment(text), WIDTH - len(indent) - 6) or [""]
    if len(lines) == 1:
        return [f"{indent}/* {lines[0]} */"]
    return [f"{indent}/* {lines[0]}", *(f"{indent}   {line}" for line in lines[1:-1]),
            f"{indent}   {lines[-1]} */"]  # fmt: skip


def remark(text: str) -> str:
    """A comment behind something, in one line."""
    return f"/* {c_comment(text)} */"


def statement(text: str, indent: str) -> list[str]:
    """A statement; if it is too long for a line, it is broken before an operator."""
    lines = []
    while len(indent) + len(text) > WIDTH and (cut := _best_break(text, WIDTH - len(indent))):
        lines.append(indent + text[:cut])
        text = text[cut + 1 :]
        indent = indent if len(lines) > 1 else indent + "    "
    return [*lines, indent + text]


_BREAKS = re.compile(r" (?=(?:[?:+*/-]|&&|\|\||[<>=]=?) )|(?<=,) ")


def _best_break(text: str, room: int) -> int:
    """The place of a blank: before the operator inside the fewest parentheses, the last one.

    Before operators in parentheses goes the blank behind the sign of an assignment.
    """
    start = text.find(" = ") + 2
    found = {
        match.start(): 0.0 for match in _BREAKS.finditer(text) if start < match.start() <= room
    }
    for place in found:
        found[place] = text.count("(", start, place) - text.count(")", start, place)
    if 2 <= start <= room:
        found[start] = 0.5
    return max(found, key=lambda place: (-found[place], place), default=0)


def without_comments(text: str) -> str:
    """A piece of code without its comments."""
    return re.sub(r"/\*.*?\*/", "", text, flags=re.DOTALL)


def words(text: str) -> set[str]:
    """The names that stand in a piece of code."""
    return set(re.findall(r"\w+", text))
