"""Text as news: one JSON object, or `name=value` pairs. It knows no port."""

from __future__ import annotations

import json
import re
from typing import Any

_PAIR = re.compile(r"([^\s=,;:]+)\s*[=:]\s*([^\s,;]+(?:,[\d.]+(?!\s*[\w.]*\s*[=:]))*)")
LONGEST = 65_536


def parse_text(text: str, columns: tuple[str, ...] = ()) -> dict[str, Any]:
    """What a line of text says: names and raw values. Raises ValueError where it says nothing.

    columns: names of the values of a line that holds values alone, separated by commas, semicolons
    or spaces.

    >>> parse_text('{"speed": 12.5, "wheel": {"left": true}}')
    {'speed': 12.5, 'wheel': {'left': True}}
    >>> parse_text("speed=12.5 left:on")
    {'speed': '12.5', 'left': 'on'}
    >>> parse_text("glow=255,138,0, left=on")
    {'glow': '255,138,0', 'left': 'on'}
    >>> parse_text("12.5, 3", ("speed", "gear"))
    {'speed': '12.5', 'gear': '3'}
    """
    text = text.strip()
    if not text:
        raise ValueError("an empty text")
    if text.startswith("{"):
        try:
            found = json.loads(text)
        except (ValueError, RecursionError) as exc:
            raise ValueError(f"this is no JSON: {exc}") from exc
        if isinstance(found, dict):
            return found
    if columns:
        values = re.split(r"[,;\s]+", text)
        if len(values) != len(columns):
            raise ValueError(f"{len(values)} values, and there are {len(columns)} columns")
        return dict(zip(columns, values, strict=True))
    pairs = dict(_PAIR.findall(text[:LONGEST]))
    if not pairs:
        raise ValueError(f"neither JSON nor name=value: {text!r:.60}")
    return pairs
