"""Design text that people continue to edit: add lines and parts, and keep everything else."""

from __future__ import annotations

import tomllib
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

import tomlkit
from tomlkit.items import AoT, Table, Whitespace

from fendra.core.errors import LayoutError
from fendra.core.toml_text import value_text

HEAD = """#:schema ./fendra.schema.json
fendra = 1
name = {name}

"""


@dataclass(frozen=True)
class NewLine:
    """A line to add; if the design has a line of its name, parts are added to that."""

    name: str
    parts: Sequence[dict[str, Any]]
    keys: dict[str, Any] = field(default_factory=dict)


def add_lines(text: str, lines: Sequence[NewLine]) -> str:
    """A design's text with more parts and lines; comments and order stay.

    Raises LayoutError if a part's name is taken, and ValueError if the text is not TOML.
    """
    before = tomllib.loads(text)
    document = tomlkit.parse(text)
    if "line" not in document:
        document["line"] = tomlkit.aot()
    every = document["line"]
    if not isinstance(every, AoT):
        raise LayoutError("`line` is not a list of tables; write [[line]].")
    _tell_if_taken(before, lines)
    for new in lines:
        known = next((line for line in every if line.get("name") == new.name), None)
        is_new = known is None
        if known is None:
            tail = _take_tail(every[-1]) if len(every) else []
            known = _table({"name": new.name, **new.keys})
            known.add(tomlkit.nl())
            known["part"] = tomlkit.aot()
            _start(every[-1] if len(every) else None)
            every.append(known)
        else:
            tail = _take_tail(known)
        parts = known["part"]
        if not isinstance(parts, AoT):
            raise LayoutError(f"the parts of line '{new.name}' are not a list of [[line.part]].")
        for part in new.parts:
            if not is_new:  # between tables that are new tomlkit leaves an empty line by itself
                _start(parts[-1])
            parts.append(_table(part))
        if tail:
            _start(parts[-1])
        for item in tail[1:]:
            parts[-1].add(item)
    return _checked(tomlkit.dumps(document), before, lines)


def _tell_if_taken(values: dict[str, Any], lines: Sequence[NewLine]) -> None:
    taken = {part.get("name") for line in values.get("line", []) for part in line.get("part", [])}
    for line in lines:
        for part in line.parts:
            if part["name"] in taken:
                raise LayoutError(
                    f"there is already a part '{part['name']}'. Give the new one another name."
                )


def _checked(text: str, before: dict[str, Any], lines: Sequence[NewLine]) -> str:
    """The new text, if it holds the old design and the addition, and nothing else."""
    expected = dict(before)
    expected["line"] = [dict(line) for line in before.get("line", [])]
    for new in lines:
        for line in expected["line"]:
            if line.get("name") == new.name:
                line["part"] = [*line["part"], *new.parts]
                break
        else:
            expected["line"].append({"name": new.name, **new.keys, "part": [*new.parts]})
    if tomllib.loads(text) != expected:
        raise LayoutError("Fendra cannot add to this file as it is written; add the part by hand.")
    return text


def _table(values: dict[str, Any]) -> Table:
    table = tomlkit.table()
    for key, value in values.items():
        table[key] = tomlkit.value(value_text(value))
    return table


def _start(before: Any) -> None:
    """An empty line below a table, to separate it from the next one."""
    last = _last_table(before)
    if last is not None and not (
        last.value.body and isinstance(last.value.body[-1][1], Whitespace)
    ):
        last.add(tomlkit.nl())


def _last_table(table: Any) -> Any:
    """The table in which a line's text ends: its last part's."""
    if table is None:
        return None
    parts = table.get("part")
    return parts[-1] if isinstance(parts, AoT) and len(parts) else table


def _take_tail(line: Any) -> list[Any]:
    """Comments below a line's last part and an empty line: they are about what follows."""
    body = _last_table(line).value.body
    start = len(body)
    while start and body[start - 1][0] is None:
        start -= 1
    while start < len(body) and not isinstance(body[start][1], Whitespace):
        start += 1
    tail = [item for _, item in body[start:]]
    del body[start:]
    return tail
