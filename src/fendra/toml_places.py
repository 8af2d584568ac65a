"""The line of each key of a TOML text, by its path."""

from __future__ import annotations

import re
import tomllib

from fendra.core.findings import KeyPath

_TEXT_OR_COMMENT = re.compile(
    r'"""(?:\\.|[^\\])*?"""|\'\'\'.*?\'\'\'|"(?:\\.|[^"\\\n])*"|\'[^\'\n]*\'|#[^\n]*', re.DOTALL
)


def key_lines(text: str) -> dict[KeyPath, int]:
    """The line, from 1, of every table and key of a valid TOML text.

    For keys inside inline tables and lists, it is the line of the whole value.

    >>> key_lines('name = "x"\\n[[line]]\\npin = "D1"')
    {('name',): 1, ('line',): 2, ('line', 0): 2, ('line', 0, 'pin'): 3}
    """
    lines: dict[KeyPath, int] = {}
    counts: dict[KeyPath, int] = {}
    table: KeyPath = ()
    depth = 0
    written = text.split("\n")
    for number, (line, bare) in enumerate(zip(written, _blanked(text), strict=True), start=1):
        if depth == 0 and bare.lstrip().startswith("["):
            table = _table(line, counts)
            for length in range(1, len(table) + 1):
                lines.setdefault(table[:length], number)
            continue
        if depth == 0 and "=" in bare:
            path = table + _steps(tomllib.loads(f"{line[: bare.index('=')]} = 0"))
            for length in range(len(table) + 1, len(path) + 1):
                lines.setdefault(path[:length], number)
        depth += sum(map(bare.count, "[{")) - sum(map(bare.count, "]}"))
    return lines


def _blanked(text: str) -> list[str]:
    """The lines with every text and comment as blanks; only structure is left."""

    def blank(match: re.Match[str]) -> str:
        return re.sub(r"[^\n]", " ", match[0])

    return _TEXT_OR_COMMENT.sub(blank, text).split("\n")


def _table(header: str, counts: dict[KeyPath, int]) -> KeyPath:
    """The path of a table's header; `counts` knows how often each [[table]] came."""
    is_list = header.lstrip().startswith("[[")
    names = _steps(tomllib.loads(header))
    names = tuple(step for step in names if isinstance(step, str))
    path: KeyPath = ()
    for depth, name in enumerate(names):
        path = (*path, name)
        is_last = depth == len(names) - 1
        if is_last and is_list:
            counts[path] = counts.get(path, -1) + 1
        if path in counts:
            path = (*path, counts[path])
    return path


def _steps(value: object) -> KeyPath:
    """The one path through nested tables that hold one key each."""
    steps: list[str | int] = []
    while isinstance(value, (dict, list)) and value:
        if isinstance(value, dict):
            name, value = next(iter(value.items()))
            steps.append(name)
        else:
            value = value[0]
    return tuple(steps)
