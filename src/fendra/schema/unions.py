"""Unions of a JSON Schema as one schema each, with a list of types.

Some editors offer a key once for each member of a union, and its text with none of them.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from copy import deepcopy
from typing import Any, TypeAlias

Schema: TypeAlias = dict[str, Any]

_OF_NUMBERS = {"minimum", "maximum", "exclusiveMinimum", "exclusiveMaximum", "multipleOf"}
_OF_ARRAYS = {"items", "prefixItems", "minItems", "maxItems", "uniqueItems"}
_KEYWORDS = {
    "number": _OF_NUMBERS,
    "integer": _OF_NUMBERS,
    "string": {"minLength", "maxLength", "pattern"},
    "array": _OF_ARRAYS,
    "object": {"properties", "additionalProperties", "required", "propertyNames"},
    "boolean": set[str](),
}
"""The keywords of each type that say nothing of the other types."""


def as_one(schema: Any, tables: Mapping[str, Schema]) -> Any:
    """A schema in which each union of different types is one schema.

    tables: what `$ref` refers to. Arrays of a union become one that may hold any item of any of
    them, and TOML has no null.

    >>> as_one({"anyOf": [{"type": "number", "minimum": 0}, {"type": "null"}]}, {})
    {'type': 'number', 'minimum': 0}
    >>> as_one({"anyOf": [{"type": "number", "minimum": 0}, {"type": "string"}]}, {})
    {'type': ['number', 'string'], 'minimum': 0}
    >>> as_one({"oneOf": [{"enum": ["up"]}, {"type": "array"}]}, {})
    {'type': ['string', 'array'], 'pattern': '^(up)$', 'anyOf': [{'enum': ['up']}, True]}
    """
    if isinstance(schema, list):
        return [as_one(each, tables) for each in schema]
    if not isinstance(schema, dict):
        return schema
    made = {key: as_one(value, tables) for key, value in schema.items() if value is not None}
    for word in ("anyOf", "oneOf"):
        members = made.get(word)
        if isinstance(members, list) and True not in members:
            joined = _joined([_alone(each, tables) for each in members])
            if joined is not None:
                del made[word]
                made = joined | made
    if "description" in made and True in made.get("anyOf", ()):
        made["anyOf"][0]["description"] = made["description"]
    return made


def _alone(member: Schema, tables: Mapping[str, Schema]) -> Schema:
    """A member without the texts that are for the key."""
    if "$ref" in member:
        member = as_one(tables[member["$ref"].rpartition("/")[2]], tables)
    texts = ("title", "description", "default")
    return deepcopy({key: value for key, value in member.items() if key not in texts})


def _joined(members: Iterable[Schema]) -> Schema | None:
    """The members of a union as one schema; None if that would say something else."""
    found = [each for each in members if each != {"type": "null"}]
    if len(found) == 1:
        return found[0]
    made: Schema = {"type": []}
    words: Schema = {}
    is_open = False
    for each in found:
        if "const" in each:
            each["enum"] = [each.pop("const")]
        types = types_of(each)
        each.pop("type", None)
        if "enum" in each:
            words = {"enum": [*words.get("enum", ()), *each.pop("enum")]}
        elif True in each.get("anyOf", ()):
            words = each.pop("anyOf")[0]
            is_open |= each.pop("pattern", None) is None
        else:
            is_open |= "string" in types
        if "array" in types and "array" in made["type"]:
            each["items"] = _either(made.get("items", {}), each.get("items", {}))
            for key in _OF_ARRAYS - {"items"}:
                each.pop(key, None)
                made.pop(key, None)
        shared = {*_plain(types)} & {*_plain(made["type"])} - {"array"}
        known = {key for one in types for key in _KEYWORDS.get(one, ())}
        if not types or shared - ({"string"} if words else set()) or not {*each} <= known:
            return None
        types = [*made["type"], *(one for one in types if one not in made["type"])]
        made |= {**each, "type": types}
    if words:
        strict = {} if is_open else {"pattern": f"^({'|'.join(map(re.escape, words['enum']))})$"}
        made |= {**strict, "anyOf": [words, True]}
    return made


def types_of(schema: Schema) -> list[str]:
    """The types that a schema names; that of words for an `enum` without one."""
    found = schema.get("type", ["string"] if "enum" in schema else [])
    return list(found) if isinstance(found, list) else [found]


def _plain(types: Iterable[str]) -> Iterable[str]:
    """Types, an integer as the number that it is."""
    return ("number" if one == "integer" else one for one in types)


def _either(first: Schema, second: Schema) -> Schema:
    """Items of two arrays."""
    return _joined(deepcopy([first, second])) or {"anyOf": [first, second]}
