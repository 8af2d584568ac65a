"""Small edits of a design's text: a value, a table, the order of tables; all else stays as it is.

Every edit is checked: the new text must hold the old values, with the change and nothing else.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import Any

import tomlkit

from fendra.core.errors import FileError
from fendra.core.findings import KeyPath
from fendra.core.limits import DESIGN_BYTES
from fendra.core.probe.cures import Change, Cure, cured, value_at
from fendra.core.toml_text import key_text, value_text
from fendra.whole import decoded, read_bytes, write_whole

_HEAD = re.compile(r"^[ \t]*\[\[?[^\]\n]+\]\]?[ \t]*(#.*)?\r?$", re.MULTILINE)


def read_exact(path: Path) -> str:
    """A design's text with its line ends as they are. Raises FileError."""
    return decoded(path, read_bytes(path, DESIGN_BYTES))


def write_exact(path: Path, text: str) -> None:
    """Write a design's text with its line ends as they are. Raises FileError."""
    write_whole(path, lambda beside: beside.write_bytes(text.encode("utf-8")))


def with_values(text: str, table: KeyPath, values: Mapping[str, Any]) -> str:
    """A design's text with some keys of one table set; a value of None takes the key out.

    table: the path of the table, as ("line", 0, "part", 2); () is the file itself. A list keeps the
    way it is laid out where it keeps its length. A place at height 0 is [x, y], unless its height
    is written already. Raises FileError if that cannot be done.

    >>> with_values("[a]\\nat = [1, 2]   # here\\nb = 3\\n", ("a",), {"at": [1, 5]})
    '[a]\\nat = [1, 5]   # here\\nb = 3\\n'
    """

    def edit(document: Any, plain: Any) -> None:
        there, here = value_at(document, table), value_at(plain, table)
        for key, wanted in values.items():
            value = _as_long(key, here.get(key), wanted)
            if value is None:
                there.pop(key, None)
                here.pop(key, None)
                continue
            if not _in_place(there, key, value):
                there[key] = tomlkit.value(value_text(value))
            here[key] = _plain(value)

    return _edited(text, edit)


def _as_long(key: str, known: Any, value: Any) -> Any:
    """A place, or places, without a height that is 0 and is not written."""
    if key not in PLACES or not isinstance(value, (list, tuple)):
        return value
    if value and isinstance(value[0], (list, tuple)):
        before = (
            known if isinstance(known, list) and len(known) == len(value) else [None] * len(value)
        )
        return [_as_long(key, old, new) for old, new in zip(before, value, strict=True)]
    has_height = isinstance(known, list) and len(known) == 3
    return [*value[:2]] if len(value) == 3 and value[2] == 0 and not has_height else [*value]


PLACES = frozenset({"at", "start", "end", "centre", "points"})
"""Keys of a part that hold a place, or places."""


def with_table(text: str, head: str, name: str, value: Any) -> str:
    """A design's text with a named thing more, or another value of one: a group, trail or preset.

    Raises FileError.
    """
    if head not in tomllib.loads(text):
        added = f"[{key_text(head)}]\n{key_text(name)} = {value_text(value)}\n"
        return _with_block(text, added, lambda plain: plain.update({head: {name: _plain(value)}}))

    def edit(document: Any, plain: Any) -> None:
        document[head][name] = tomlkit.value(value_text(value))
        plain[head][name] = _plain(value)

    return _edited(text, edit)


def with_layer(text: str, values: Mapping[str, Any]) -> str:
    """A design's text with one layer more, on top of all. Raises FileError."""
    rows = "".join(f"{key_text(key)} = {value_text(value)}\n" for key, value in values.items())
    return _with_block(
        text,
        f"[[layer]]\n{rows}",
        lambda plain: plain.setdefault("layer", []).append(_plain(values)),
    )


def with_cures(text: str, way: Sequence[Cure]) -> str:
    """A design's text after some cures of the bench. Raises FileError."""
    before = tomllib.loads(text)
    done = text
    for cure in way:
        if isinstance(cure, Change):
            done = with_values(done, cure.path, {cure.key: cure.value})
    for cure in way:
        if not isinstance(cure, Change):
            done = _reordered(done, cured(tomllib.loads(done), [cure]), cure)
    if tomllib.loads(done) != _plain(cured(before, way)):
        raise FileError("Fendra cannot change this file as it is written; change it by hand")
    return done


def _reordered(text: str, expected: dict[str, Any], cure: Any) -> str:
    """The text below each head of a list of tables, in another order."""
    rows = value_at(tomllib.loads(text), cure.path[:-1])
    order = [rows.index(row) for row in value_at(expected, cure.path[:-1])]
    blocks = _blocks(text, cure.path[:-1])
    if len(blocks) != len(rows):
        raise FileError("Fendra cannot change this file as it is written; change it by hand")
    end = "\r\n" if "\r\n" in text else "\n"
    pieces = [text[first:last].rstrip() + end for first, last in blocks]
    gaps = [text[first:last][len(text[first:last].rstrip()) :] for first, last in blocks]
    moved = [pieces[place].rstrip() + gap for place, gap in zip(order, gaps, strict=True)]
    return text[: blocks[0][0]] + "".join(moved) + text[blocks[-1][1] :]


def _blocks(text: str, path: KeyPath) -> list[tuple[int, int]]:
    """Where the tables of a list are in a text: from the comments above each to the next one."""
    names = [step for step in path if isinstance(step, str)]
    own = ".".join(names)
    heads = [(m.start(), m.group().strip()) for m in _HEAD.finditer(text)]
    line, starts = -1, []
    for place, head in heads:
        if head.startswith("[[line]]"):
            line += 1
        mine = head.startswith(f"[[{own}]]")
        if mine and (len(path) < 2 or own != "line.part" or line == path[1]):
            starts.append(place)
    found = []
    for start in starts:
        later = [p for p, head in heads if p > start and not head.strip("[").startswith(f"{own}.")]
        end = min(later, default=len(text))
        found.append((_above(text, start), end if end == len(text) else _above(text, end)))
    if found:
        start, end = found[-1]
        found[-1] = start, start + len(_without_tail(text[start:end]))
    return found


def _without_tail(block: str) -> str:
    """A block without the comments below its last key, which are about what follows."""
    lines = block.splitlines(keepends=True)
    while lines and (not lines[-1].strip() or lines[-1].lstrip().startswith("#")):
        lines.pop()
    return "".join(lines)


def _above(text: str, place: int) -> int:
    """Where the comments directly above a head begin."""
    while True:
        line = text.rfind("\n", 0, max(place - 1, 0)) + 1
        if place == 0 or not text[line:place].lstrip().startswith("#"):
            return place
        place = line


def _with_block(text: str, block: str, expect: Callable[[Any], Any]) -> str:
    """A text with some lines more at its end, an empty line before them."""
    end = "\r\n" if "\r\n" in text else "\n"
    lines = text.replace("\r", "").split("\n")
    is_apart = not text.strip() or lines[-2:] == ["", ""]
    gap = "" if is_apart else end if text.endswith("\n") else 2 * end
    done = f"{text}{gap}{block.replace(chr(10), end)}"
    expected = tomllib.loads(text)
    expect(expected)
    return _checked(done, expected)


def _edited(text: str, edit: Callable[[Any, Any], None]) -> str:
    """A text after an edit, which is made in the document and in what should be read back of it."""
    expected = tomllib.loads(text)
    document: Any = tomlkit.parse(text)
    try:
        edit(document, expected)
    except (KeyError, IndexError, TypeError, AttributeError) as exc:
        raise FileError("this file has no such table; it may have changed meanwhile") from exc
    return _checked(tomlkit.dumps(document), expected)


def _checked(text: str, expected: Any) -> str:
    try:
        found = tomllib.loads(text)
    except tomllib.TOMLDecodeError:
        found = None
    if found != expected:
        raise FileError("Fendra cannot change this file as it is written; change it by hand")
    return text


def _in_place(table: Any, key: str | int, value: Any) -> bool:
    """Whether a list of numbers was changed number by number, as it is laid out."""
    known = table[key] if isinstance(key, int) else table.get(key)
    if not isinstance(known, list) or not isinstance(value, (list, tuple)):
        return False
    if len(known) != len(value):
        return False
    for place, (old, new) in enumerate(zip(known, value, strict=True)):
        if isinstance(new, (list, tuple)):
            if not _in_place(known, place, new):
                known[place] = tomlkit.value(value_text(new))
        elif old != new:
            known[place] = tomlkit.value(value_text(new))
    return True


def _plain(value: Any) -> Any:
    """The value that is read back after writing."""
    if isinstance(value, Mapping):
        return {key: _plain(item) for key, item in value.items()}
    if isinstance(value, (list, tuple)):
        return [_plain(item) for item in value]
    return value
