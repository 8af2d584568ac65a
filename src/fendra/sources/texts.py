"""Text as news: one JSON object, or `name=value` pairs. It knows no port."""

from __future__ import annotations

import json
import re
from typing import Any

from fendra.core.limits import PACKET_BYTES, PACKET_NAMES

_SIGN = re.compile(r"[=:]")
_NUMBER = re.compile(r"[\d.]+")


def parse_text(text: str, columns: tuple[str, ...] = ()) -> dict[str, Any]:
    """Read a line of text: names and raw values. Raises ValueError if it has none.

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
    if len(text) > PACKET_BYTES.most:
        raise ValueError(f"more than {PACKET_BYTES.most:,} bytes in one message")
    text = text.strip()
    if not text:
        raise ValueError("an empty text")
    if text.startswith("{"):
        try:
            found = json.loads(text)
        except (ValueError, RecursionError) as exc:
            raise ValueError(f"this is not JSON: {str(exc)[:100]}") from exc
        if isinstance(found, dict):
            check_size(found)
            return found
    if columns:
        values = re.split(r"[,;\s]+", text)
        if len(values) != len(columns):
            raise ValueError(f"{len(values)} values for {len(columns)} columns")
        return dict(zip(columns, values, strict=True))
    pairs = pairs_of(text)
    check_size(pairs)
    if not pairs:
        raise ValueError(f"neither JSON nor name=value: {text[:60]!r:.60}")
    return pairs


def pairs_of(text: str) -> dict[str, str]:
    """The `name=value` pairs of a text. It is read once, from left to right, whatever its form.

    A value continues over commas with numbers after them, as in a colour.

    >>> pairs_of("a = 1; b:2, glow=255,138,0 on")
    {'a': '1', 'b': '2', 'glow': '255,138,0'}
    """
    found: dict[str, list[str]] = {}
    name, awaits, is_open = "", False, False
    pieces = re.split(r"([\s,;]+)", text)
    for place in range(0, len(pieces), 2):
        piece = pieces[place]
        before = pieces[place - 1] if place else ""
        follows = pieces[place + 2][:1] if place + 2 < len(pieces) else ""
        is_split = "," in before or ";" in before  # a name and its sign have blanks between alone
        if not piece:
            continue
        if awaits and not is_split:
            found[name] = [piece]
            awaits, is_open = False, True
            continue
        signed = _SIGN.search(piece)
        sign = signed.start() if signed else -1
        if sign < 0:
            is_more = is_open and before == "," and _NUMBER.fullmatch(piece) is not None
            if is_more and not (follows and follows in "=:"):
                found[name].append(piece)
            else:
                name, awaits, is_open = piece, False, False
            continue
        if sign == 0 and (is_split or not name or is_open):
            name, awaits, is_open = "", False, False  # a sign with nothing before it
            continue
        name = piece[:sign] or name
        value = piece[sign + 1 :]
        awaits, is_open = not value, bool(value)
        if value:
            found[name] = [value]
    return {name: ",".join(values) for name, values in found.items()}


def check_size(values: Any) -> None:
    """Raises ValueError if a message holds more values than any thing can show.

    >>> check_size({"a": [0] * 3000})
    Traceback (most recent call last):
    ...
    ValueError: more than 2,000 values in one message
    """
    waiting, count = [values], 0
    while waiting:
        value = waiting.pop()
        inside = value.values() if isinstance(value, dict) else value
        if isinstance(inside, list | type({}.values())):
            count += len(inside)
            if count > PACKET_NAMES.most:
                raise ValueError(f"more than {PACKET_NAMES.most:,} values in one message")
            waiting += [each for each in inside if isinstance(each, dict | list)]
