"""Plain values as TOML, for messages and for files that Fendra writes."""

from __future__ import annotations

import json
import re
from collections.abc import Sequence
from typing import Any

_WIDTH = 96
_BARE = re.compile(r"[A-Za-z0-9_-]+")


def value_text(value: Any) -> str:
    """A plain value as TOML; long lists go over several lines.

    >>> value_text([[1, 2.5], [3.0, 4]]), value_text("a"), value_text(True)
    ('[[1, 2.5], [3, 4]]', '"a"', 'true')
    >>> value_text({"name": "A0", "stick-*": 1})
    '{ name = "A0", "stick-*" = 1 }'
    """
    match value:
        case bool():
            return str(value).lower()
        case str():
            return json.dumps(value, ensure_ascii=False)
        case int() | float():
            return number_text(value)
        case dict():
            items = [f"{key_text(key)} = {value_text(item)}" for key, item in value.items()]
            return f"{{ {', '.join(items)} }}"
        case list() | tuple():
            items = [value_text(item) for item in value]
            flat = f"[{', '.join(items)}]"
            return flat if len(flat) <= _WIDTH - 20 else _wrapped(items)
    raise TypeError(f"{value!r} is no value of a design")


def key_text(key: str) -> str:
    """A key, in quotes if it needs them."""
    return key if _BARE.fullmatch(key) else json.dumps(key, ensure_ascii=False)


def number_text(value: float) -> str:
    """A number without a needless fraction."""
    return str(int(value)) if float(value).is_integer() and abs(value) < 1e15 else repr(value)


def _wrapped(items: Sequence[str]) -> str:
    lines, line = ["["], " "
    for item in items:
        if len(line) + len(item) + 2 > _WIDTH and line.strip():
            lines.append(line)
            line = " "
        line += f" {item},"
    return "\n".join([*lines, line, "]"])
