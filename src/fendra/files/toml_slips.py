"""Text that is not TOML: what was meant, as a line that can be pasted in its place.

Each slip is a small function from a line to a better one, with what was wrong. They are tried in
turn until the line is TOML.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Callable
from dataclasses import dataclass
from typing import TypeAlias

from fendra.core.findings import Finding, Severity, below
from fendra.core.mending import first_right
from fendra.core.names import truth_of
from fendra.core.quoting import shell_word
from fendra.core.toml_text import number_text, value_text
from fendra.core.units import number_for

Slip: TypeAlias = Callable[[str], str]

_QUOTES = str.maketrans({"“": '"', "”": '"', "„": '"', "«": '"', "»": '"', "‘": "'", "’": "'"})
_BLANKS = re.compile(r"[\u00a0\u2000-\u200b\u202f\u3000\ufeff]")
_PAIR = re.compile(r"""^(\s*)((?:"[^"]*"|'[^']*'|[\w.-]+)+?)(\s*)([=:])(\s*)(.*?)(\s*)$""")
_TEXTS = re.compile(r'"(?:\\.|[^"\\])*"|\'[^\']*\'')
_LISTS = re.compile(
    r"\s*\[\s*((?:line|layer|scene|panel)(?:\.part)?|assemblies\.[^.\]]+\.part)\s*\]"
)
_HEADER = re.compile(r"\s*\[")


def syntax_finding(exc: tomllib.TOMLDecodeError, text: str, file: str) -> Finding:
    """Why a text is not TOML, at which line, and the text to write there."""
    problem, _, place = str(exc).partition(" (at ")
    words = place.rstrip(")").replace(",", "").split()
    lines = text.split("\n")
    number = int(words[1]) if len(words) > 1 and words[1].isdigit() else len(lines)
    number = min(number, len(lines))
    said = _a_tape(lines, file) or _twice(problem, lines, number) or _slip_near(lines, number)
    if said is None:
        wrong = f"this is not TOML: {problem[:1].lower()}{problem[1:]}."
        said = _Said(number, wrong, "Write key = value; texts and expressions need quotes.")
    excerpt = below(lines[said.line - 1])
    return Finding(
        "syntax", Severity.ERROR, said.problem, said.remedy, (), file, said.line, excerpt
    )


@dataclass(frozen=True)
class _Said:
    line: int
    problem: str
    remedy: str


def _a_tape(lines: list[str], file: str) -> _Said | None:
    """A tape where a design belongs."""
    if not file.lower().endswith(".csv") or "," not in lines[0]:
        return None
    remedy = f"Write the design first, as in: fendra check heron.toml --tape {shell_word(file)}"
    return _Said(1, "this is a tape, not a design.", remedy)


def _twice(problem: str, lines: list[str], number: int) -> _Said | None:
    """A key or table that appears twice; a table in single brackets that may appear often."""
    if not re.search(r"overwrite|twice|mutate|redefine|immutable", problem, re.IGNORECASE):
        return None
    for i, line in enumerate(lines, start=1):
        header = _LISTS.match(line)
        if header is not None:
            name = header[1]
            said = f"[{name}] is one table, but a design has a list of them."
            return _Said(i, said, f"Write [[{name}]].")
    line = lines[number - 1]
    if _HEADER.match(line):
        first = _line_of(line.split("#")[0].strip(), lines[: number - 1])
        name = line.split("#")[0].strip()
        where = f" at line {first}" if first else ""
        return _Said(
            number, f"{name} appears twice{where}.",
            "Put the keys into one table, or give this one another name.",
        )  # fmt: skip
    pair = _PAIR.match(line)
    if pair is None:
        return None
    for i in range(number - 1, 0, -1):
        if _HEADER.match(lines[i - 1]):
            break
        earlier = _PAIR.match(lines[i - 1])
        if earlier is not None and earlier[2] == pair[2]:
            said = f"`{pair[2]}` is already on line {i}."
            return _Said(number, said, "Remove one of the two.")
    return _Said(number, f"`{pair[2]}` appears twice.", "Remove one of the two.")


def _line_of(text: str, lines: list[str]) -> int:
    return next((i for i, line in enumerate(lines, start=1) if line.strip() == text), 0)


def _slip_near(lines: list[str], number: int) -> _Said | None:
    """The slip in a line; else in a line above it with an open bracket or quote."""
    line = lines[number - 1]
    said = _nothing_in(line, number) or _slip_in(line, number)
    if said is not None:
        return said
    for i in range(number - 1, max(number - 40, 0), -1):
        bare = _TEXTS.sub("", lines[i - 1].split("#")[0])
        if bare.count("[") > bare.count("]") and not _HEADER.match(bare):
            closed = f"{lines[i - 1].split('#')[0].rstrip()}]"
            remedy = f"Write: {closed.strip()}" if _is_toml(closed) else "Add ]."
            return _Said(i, "this list has no ] at its end.", remedy)
    return None


def _slip_in(line: str, number: int) -> _Said | None:
    found = first_right(line, _SLIPS, _is_toml)
    return found and _Said(number, f"{found[0]}.", f"Write: {found[1].strip()}")


def _nothing_in(line: str, number: int) -> _Said | None:
    """A key without a value, or with one that says that it has none, or a number in letters."""
    pair = _PAIR.match(line)
    value = "_" if pair is None else _parted(pair[6])[0]
    if pair is not None and not value:
        remedy = "Write one after the =, or remove the line."
        return _Said(number, f"`{pair[2]}` has no value.", remedy)
    if value.casefold() in ("null", "none", "nil", "undefined"):
        return _Said(number, f"TOML has no {value}.", "Remove the line to use the default.")
    if pair is not None and pair[2] in _COUNTS and value.isalpha() and truth_of(value) is None:
        remedy = f"Write one, as in: {pair[2]} = 30"
        return _Said(number, f"`{pair[2]}` must be a whole number, in digits.", remedy)
    return None


_COUNTS = ("count", "columns", "rows", "addresses", "cells", "baud", "awg")


def _is_toml(line: str) -> bool:
    """Whether a line is TOML, and says something."""
    try:
        return bool(tomllib.loads(line)) or line.lstrip().startswith("#")
    except (tomllib.TOMLDecodeError, RecursionError):
        return False


def _value(change: Callable[[str, str], str | None]) -> Slip:
    """A slip in the value of a key. `change` gets both, and gives None if there is no slip."""

    def slip(line: str) -> str:
        pair = _PAIR.match(line)
        if pair is None or pair[4] != "=":
            return line
        value, comment = _parted(pair[6])
        better = change(pair[2].strip("\"'").split(".")[-1], value) if value else None
        return line if better is None else f"{pair[1]}{pair[2]} = {better}{comment}"

    return slip


def _parted(value: str) -> tuple[str, str]:
    """A value, and the comment after it."""
    outside = _TEXTS.sub(lambda found: "_" * len(found[0]), value)
    at = outside.find("#")
    return (value, "") if at < 0 else (value[:at].rstrip(), f"  {value[at:]}")


def _comment(line: str) -> str:
    outside = _TEXTS.sub(lambda found: "_" * len(found[0]), line)
    found = re.search(r"(^\s*|\s)//", outside)
    if found is None or _EXPRESSION.search(outside[: found.start()]):
        return line
    return f"{line[: found.end() - 2]}#{line[found.end() :]}"


_EXPRESSION = re.compile(r"=.*[A-Za-z]")
"""The text before a // that divides."""


def _key_and_equals(line: str) -> str:
    pair = _PAIR.match(line)
    if pair is None or pair[4] != ":" or not pair[6]:
        return line
    key = pair[2].strip("\"'") if re.fullmatch(r"[\w-]+", pair[2].strip("\"'")) else pair[2]
    return f"{pair[1]}{key} = {pair[6]}"


def _no_equals(line: str) -> str:
    found = re.fullmatch(r"(\s*)([A-Za-z][\w-]*)\s+([^=\s:].*)", line)
    return line if found is None else f"{found[1]}{found[2]} = {found[3]}"


def _header(line: str) -> str:
    found = re.fullmatch(r"(\s*)(\[\[?)([^\[\]#]+?)(\]{0,2})(\s*(?:#.*)?)", line)
    if found is None:
        return line
    name = ".".join(_step(step, found[3]) for step in found[3].strip().split("."))
    return f"{found[1]}{found[2]}{name}{']' * len(found[2])}{found[5]}"


def _step(step: str, header: str) -> str:
    """A step of a table's name; a signal's name is used in expressions, so it has no blanks."""
    step = step.strip()
    if re.fullmatch(r"""[\w-]+|"[^"]*"|'[^']*'""", step):
        return step
    if header.strip().startswith("signals."):
        return re.sub(r"\W+", "_", step)
    return value_text(step)


def _trailing(_key: str, value: str) -> str | None:
    return value[:-1].rstrip() if value[-1] in ",;" else None


def _truth(_key: str, value: str) -> str | None:
    truth = truth_of(value)
    return None if truth is None else value_text(truth)


def _comma(_key: str, value: str) -> str | None:
    return value.replace(",", ".") if re.fullmatch(r"[+-]?\d*,\d+", value) else None


def _bare_point(_key: str, value: str) -> str | None:
    if re.fullmatch(r"[+-]?(\.\d+|\d+\.)", value):
        return number_text(float(value))
    return None


def _unit(key: str, value: str) -> str | None:
    number = number_for(key, value)
    return None if number is None else number_text(number)


def _open_text(_key: str, value: str) -> str | None:
    """A text with a quote at one end only, or with another one there."""
    quote = value[0]
    if quote in "\"'" and value.count(quote) == 1:
        return f"{quote}{value[1:].rstrip(chr(34) + chr(39))}{quote}"
    if quote not in "\"'[{" and value[-1] in "\"'" and value.count(value[-1]) == 1:
        return f"{value[-1]}{value}"
    return None


def _inner_quotes(_key: str, value: str) -> str | None:
    is_text = len(value) > 2 and value[0] == value[-1] == '"' and "\\" not in value
    inside = value[1:-1]
    return f'"{inside.replace(chr(34), chr(39))}"' if is_text and '"' in inside else None


def _backslash(_key: str, value: str) -> str | None:
    is_text = value[0] == value[-1] == '"' and "\\" in value and "'" not in value
    return f"'{value[1:-1]}'" if is_text else None


def _open_list(_key: str, value: str) -> str | None:
    bare = _TEXTS.sub("", value)
    return f"{value}]" if value[0] == "[" and bare.count("[") == bare.count("]") + 1 else None


def _list(_key: str, value: str) -> str | None:
    """Several values without brackets, or words of a list without quotes."""
    inside = value[1:-1] if value[0] == "[" and value[-1] == "]" else value
    items = [item.strip() for item in inside.split(",")]
    if len(items) < 2 or not all(re.fullmatch(r"""[\w.#+-]+|"[^"]*"|'[^']*'""", x) for x in items):
        return None
    texts = [item if _is_toml(f"x = {item}") else value_text(item) for item in items]
    return f"[{', '.join(texts)}]"


def _unquoted(_key: str, value: str) -> str | None:
    if value[0] in "\"'[{" or not re.search(r"[A-Za-z(]", value):
        return None
    return value_text(value) if '"' not in value else f"'{value}'" if "'" not in value else None


_SLIPS: dict[str, Slip] = {
    "TOML has other quotes": lambda line: line.translate(_QUOTES),
    "there is a space here that TOML does not allow": lambda line: _BLANKS.sub(" ", line),
    "a comment begins with #, not with //": _comment,
    "a key and its value need = between them, not :": _key_and_equals,
    "this is not the header of a table": _header,
    "nothing may follow a value": _value(_trailing),
    "there is no = between key and value": _no_equals,
    "write true and false in small letters; there are no other words for them":
        _value(_truth),
    "numbers have a point, not a comma": _value(_comma),
    "numbers need digits before and after the point": _value(_bare_point),
    "numbers have no unit": _value(_unit),
    "this text has no quote at its end": _value(_open_text),
    "in a text in double quotes \\\\ has another meaning": _value(_backslash),
    "this list has no ] at its end": _value(_open_list),
    "several values need a list in brackets, with texts in quotes": _value(_list),
    "use single quotes inside a text in double quotes": _value(_inner_quotes),
    "texts and expressions need quotes": _value(_unquoted),
}  # fmt: skip
"""Problems, and the corrected line for each, in the order in which they are tried."""
