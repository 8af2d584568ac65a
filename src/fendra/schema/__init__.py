"""The JSON Schema of a design: each key with its meaning, for editors."""

from __future__ import annotations

import inspect
import json
import re
from collections.abc import Iterator, Mapping
from typing import Any

from pydantic import BaseModel

from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.core.catalogue.leds import LED_TYPES
from fendra.core.composition.blends import BLENDS
from fendra.core.document.design import Design
from fendra.core.effects import EFFECTS
from fendra.core.effects.parameters import Parameter
from fendra.core.signals.kinds import KINDS
from fendra.drivers import Drivers
from fendra.outputs import DRIVERS as OUTPUTS
from fendra.schema.unions import Schema, as_one, types_of
from fendra.sources import DRIVERS as SOURCES

_ATTRIBUTES = "\n\nAttributes:\n"
_TEXT: Schema = {"type": "string"}

BOUND: Schema = {
    "type": ["string", "object"],
    "properties": {"by": {"type": "string", "description": "a choice or a number"}, "else": True},
    "additionalProperties": True,
    "required": ["by"],
}
"""An expression in quotes, or a table that looks a value up: { by = "gear", else = "red" }."""


def schema_text() -> str:
    """The JSON Schema (draft 2020-12) of a design, as text."""
    return f"{_written(design_schema(), 0)}\n"


def _written(value: Any, depth: int) -> str:
    """A value as JSON: in one line where that is short."""
    if isinstance(value, dict):
        start, end = "{}"
        rows = [f"{json.dumps(key)}: {_written(each, depth + 1)}" for key, each in value.items()]
    elif isinstance(value, list):
        start, end = "[]"
        rows = [_written(each, depth + 1) for each in value]
    else:
        return json.dumps(value, ensure_ascii=False)
    line = f"{start}{', '.join(rows)}{end}"
    if depth + len(line) <= 100:
        return line
    break_ = "\n" + " " * (depth + 1)
    return f"{start}{break_}{f',{break_}'.join(rows)}\n{' ' * depth}{end}"


def design_schema() -> Schema:
    """The JSON Schema of a design.

    Every key has a description. Effects, LED types, controllers, sources and outputs are
    enumerated; each effect and each driver brings the keys that go with it.

    >>> layer = design_schema()["$defs"]["Layer"]
    >>> layer["properties"]["fade_in"]["description"]
    'time to fade in, s'
    """
    made: Schema = Design.model_json_schema()
    tables = made["$defs"]
    for name, model in _models():
        if name in tables:
            _describe(tables[name], model)
    _describe(made, Design)
    tables["Signal"]["properties"]["kind"]["enum"] = [*KINDS]
    leds = {name: led.about for name, led in LED_TYPES.items()}
    types = {name: known.about for name, known in CONTROLLERS.items()}
    _choose(tables["Line"]["properties"]["led"], leds, is_open=True)
    _choose(tables["LedFigures"]["properties"]["like"], leds, is_open=True)
    _choose(tables["Controller"]["properties"]["type"], types)
    layer = tables["Layer"]
    layer["properties"]["blend"]["enum"] = [*BLENDS]
    for table in (layer, tables["Preset"]):
        _add_effects(table)
    for key, drivers in (("sources", SOURCES), ("outputs", OUTPUTS)):
        made["properties"][key]["additionalProperties"] = _connection(tables["Connection"], drivers)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **as_one(made, tables)}


def described(model: type[BaseModel]) -> dict[str, str]:
    """The text of each key in a model's docstring, its bases' keys included."""
    found: dict[str, str] = {}
    for base in reversed(model.__mro__):
        _, _, listed = inspect.cleandoc(base.__doc__ or "").partition(_ATTRIBUTES)
        rows = re.split(r"^    (?=\w+: )", listed.partition("\n\n")[0], flags=re.M)
        for row in filter(None, rows):
            key, _, text = row.partition(": ")
            found[key] = " ".join(text.split())
    return found


def summary(model: type[BaseModel]) -> str:
    """The text of a model's docstring before its keys."""
    text = inspect.cleandoc(model.__doc__ or "").partition(_ATTRIBUTES)[0]
    return text.partition("\n\n>>>")[0]


def _models() -> Iterator[tuple[str, type[BaseModel]]]:
    """Every table of the core, by its name."""
    waiting: list[type[BaseModel]] = [BaseModel]
    while waiting:
        for model in waiting.pop().__subclasses__():
            waiting.append(model)
            if model.__module__.startswith("fendra.core."):
                yield model.__name__, model


def _describe(table: Schema, model: type[BaseModel]) -> None:
    """Give a table and its keys their descriptions."""
    table["description"] = summary(model)
    texts = described(model)
    by_alias = {field.alias or name: name for name, field in model.model_fields.items()}
    for key, kind in table.get("properties", {}).items():
        kind.pop("title", None)
        if text := texts.get(by_alias[key]):
            kind["description"] = text


def _choose(kind: Schema, words: Mapping[str, str], *, is_open: bool = False) -> None:
    """Make a key a choice of words, each with its text. is_open: any other text is allowed too.

    Some editors show the texts of words from the description of the key, others from `x-taplo`.
    """
    rows = [f"- `{word}`: {text}" for word, text in words.items()]
    choice = {"enum": [*words], "x-taplo": {"docs": {"enumValues": [*words.values()]}}}
    kind["description"] = "\n".join([kind["description"], "", *rows])
    kind |= {"type": "string", "anyOf": [choice, True]} if is_open else choice


def _add_effects(table: Schema) -> None:
    """Let a table complete its effect, and the parameters of the effect that it has."""
    about = {name: effect.about.splitlines()[0] for name, effect in EFFECTS.items()}
    _choose(table["properties"]["effect"], about, is_open=True)
    _add_cases(table, "effect", {
        name: {key: _parameter(item) for key, item in effect.parameters.items()}
        for name, effect in EFFECTS.items()
    })  # fmt: skip


def _add_cases(table: Schema, key: str, cases: Mapping[str, Mapping[str, Schema]]) -> None:
    """For each value of a key, the keys that go with it; no others are allowed then.

    The cases are a chain of if, then and else, because many editors ignore conditions, and some
    offer no keys at all beside a list of them. For those the table itself has all keys of all
    cases, each with what it is in which case.
    """
    own = [*table["properties"]]
    users: dict[str, dict[str, Schema]] = {}
    for value, keys in cases.items():
        for name, kind in keys.items():
            users.setdefault(name, {})[value] = kind
    for name, kinds in users.items():
        table["properties"].setdefault(name, _in_any_case(kinds))
    # Some editors refuse keys that are not named, unless this allows them.
    others = {"additionalProperties": True}
    chain: Schema = {}
    for value, keys in reversed([*cases.items()]):
        names = {"enum": [*own, *keys]}
        case = {
            "if": {"properties": {key: {"const": value}}, "required": [key], **others},
            "then": {"properties": dict(keys), "propertyNames": names, **others},
        }
        chain = case | ({"else": others | chain} if chain else {})
    table |= chain


def _in_any_case(kinds: Mapping[str, Schema]) -> Schema:
    """A key of several cases: its description in each, and the default if they agree."""
    texts: dict[str, list[str]] = {}
    for value, kind in kinds.items():
        texts.setdefault(kind["description"], []).append(value)
    rows = [f"{', '.join(values)}: {text}" for text, values in texts.items()]
    defaults = [kind.get("default") for kind in kinds.values()]
    agreed = defaults[0] if all(each == defaults[0] for each in defaults) else None
    known = {} if agreed is None else {"default": agreed}
    # Without a type editors insert a table.
    types = dict.fromkeys(type_ for kind in kinds.values() for type_ in types_of(kind))
    anything = {"type": [*types], "additionalProperties": True}
    return {"description": "\n\n".join(rows), **anything, **known}


def _parameter(item: Parameter) -> Schema:
    """One parameter: its description, unit, range and default."""
    default = f"{item.default_text} by default" if item.default_text else ""
    ranged = item.range_text if item.kind in {"number", "numbers", "word"} else ""
    facts = ", ".join(filter(None, (item.unit, ranged, default)))
    made: Schema = {"description": f"{item.about}. {facts}" if facts else item.about}
    if item.default is not None:
        made["default"] = [*item.default] if isinstance(item.default, tuple) else item.default
    return made | _kind_of(item)


def _kind_of(item: Parameter) -> Schema:
    """The values that a parameter may have."""
    match item.kind:
        case "number":
            plain = {"type": "number", "minimum": item.low, "maximum": item.high}
        case "truth":
            plain = {"type": "boolean"}
        case "word":
            plain = {"type": "string", "enum": [*item.words]}
        case "colour":
            return BOUND
        case "colours":
            return {"type": ["array", "string"], "items": _TEXT}
        case "numbers":
            return {"type": ["array", "number", "string"], "items": {"type": ["number", "string"]}}
        case _:
            return _TEXT
    return dict(as_one({"anyOf": [plain, BOUND]}, {}))


def _connection(plain: Schema, drivers: Drivers[Any]) -> Schema:
    """A source or an output: its driver, and the driver's keys."""
    made: Schema = json.loads(json.dumps(plain))
    kinds = {name: drivers.kind(name) for name in drivers.names()}
    about = {name: inspect.cleandoc(inspect.getmodule(kind).__doc__ or "").partition("\n")[0]
             for name, kind in kinds.items()}  # fmt: skip
    _choose(made["properties"]["type"], about, is_open=True)
    _add_cases(made, "type", {name: _options(kind.Options) for name, kind in kinds.items()})
    return made


def _options(model: type[BaseModel]) -> dict[str, Schema]:
    """The keys of a driver: each with its description, type, range and default."""
    texts = described(model)
    return {
        key: _option(texts.get(key, ""), kind)
        for key, kind in model.model_json_schema()["properties"].items()
    }


def _option(text: str, kind: Schema) -> Schema:
    """One key of a driver. Pydantic's titles and references say nothing to a maker."""
    made = {key: value for key, value in kind.items() if key not in ("title", "default")}
    if "$ref" in json.dumps(made):  # tables, which the driver checks
        table: Schema = {"type": "object", "additionalProperties": True}
        made = {"type": "array", "items": table} if made.get("type") == "array" else table
    made = as_one(made, {})
    default = kind.get("default")
    if default is not None:
        made["default"] = default
    if text and "by default" not in text and default not in (None, "", [], {}):
        shown = f"{default:g}" if isinstance(default, float) else json.dumps(default)
        text = f"{text}. {shown} by default"
    return {"description": text, **made}
