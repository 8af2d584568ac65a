"""A model's complaint about a value, in our words and with a remedy."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import Any, get_args

from pydantic import BaseModel

from fendra.core.catalogue.leds import LedFigures
from fendra.core.catalogue.supplies import Supply
from fendra.core.document.choice import GroupTable, OnCanvas, Trail
from fendra.core.document.design import Design
from fendra.core.document.layer import Layer, Rhythm, Scene
from fendra.core.document.line import Assembly, Controller, Line
from fendra.core.document.panel import PageKeys, PanelRow
from fendra.core.document.signal import Signal
from fendra.core.findings import Finding, KeyPath, Severity
from fendra.core.names import cannot_stand, did_you_mean, in_words, listed, must_be, truth_of
from fendra.core.shapes import SHAPES
from fendra.core.shapes.keys import Column
from fendra.core.shapes.path import Bend
from fendra.core.toml_text import key_text, number_text, value_text
from fendra.core.units import number_for, unit_of

_WANTED = {
    "bool_type": "true or false",
    "int_type": "a whole number",
    "int_from_float": "a whole number",
    "float_type": "a number",
    "int_parsing": "a whole number",
    "float_parsing": "a number",
    "bool_parsing": "true or false",
    "finite_number": "a finite number",
    "string_type": "a text",
    "tuple_type": "a list of numbers",
    "list_type": "a list",
    "dict_type": "a table",
    "model_type": "a table",
    "model_attributes_type": "a table",
}

_BOUNDS = {
    "greater_than_equal": "at least",
    "greater_than": "more than",
    "less_than_equal": "at most",
    "less_than": "less than",
}


def to_findings(errors: Sequence[Any], path: KeyPath, values: dict[str, Any]) -> list[Finding]:
    """Pydantic's errors about one place as findings.

    Where a value may be one of several kinds there is an error for each: they become one.
    values: the whole document, in which `path` leads to the place.
    """
    kinds = [error["type"] for error in errors]
    if all(kind in _WANTED for kind in kinds):
        wanted = listed([words for kind, words in _WANTED.items() if kind in kinds], "or")
        given = errors[0]["input"]
        unit = unit_of(_key_of(path)) if wanted == "a number" else ""
        wanted = f"{wanted}, in {unit}" if unit else wanted
        message, remedy = must_be(wanted, given), _plain(given, [*kinds], path)
        if isinstance(given, float) and given.is_integer():  # written with a point
            message = f"this must be {wanted}; you wrote {given!r}."
        return [Finding("wrong-type", Severity.ERROR, message, remedy, path)]
    found = []
    for error in errors:
        code, message, remedy = _wording(error, path, values)
        found.append(Finding(code, Severity.ERROR, message, remedy, path))
    return found


def _key_of(path: KeyPath) -> str:
    return next((str(step) for step in reversed(path) if isinstance(step, str)), "")


def _plain(given: Any, kinds: Sequence[str], path: KeyPath) -> str:
    """The text to write instead of a value of another kind, if that is clear."""
    key = _key_of(path)
    is_item = bool(path) and isinstance(path[-1], int)
    named = "" if is_item else f"{key_text(key)} = "
    if any(kind.startswith(("int", "float", "finite")) for kind in kinds):
        if isinstance(given, float) and given.is_integer():
            return f"Write: {named}{given:.0f}"
        if not isinstance(given, str):
            return ""
        if re.fullmatch(r"\s*0x[0-9a-fA-F]{1,8}\s*", given) and "int" in kinds[0]:
            return f"Write: {named}{given.strip()}"
        number = number_for(key, given)
        if number is None and re.fullmatch(r"[+-]?\d*[.,]?\d+", given.strip()):
            number = float(given.replace(",", "."))
        return "" if number is None else f"Write: {named}{number_text(number)}"
    if "bool_type" in kinds and isinstance(given, str) and truth_of(given) is not None:
        return f"Write: {named}{value_text(truth_of(given))}"
    if "string_type" in kinds and isinstance(given, (int, float)):
        if key == "pin":
            return "Write its name in quotes, as printed on the board."
        return f"Write: {named}{value_text(str(given))}"
    if {"tuple_type", "list_type"} & {*kinds} and isinstance(given, str):
        numbers = re.findall(
            r"-?\d+(?:\.\d+)?", re.sub(r"(?<=\d)\s*(?:-|to|\.\.)\s*(?=\d)", " ", given)
        )
        if len(numbers) > 1:
            return f"Write: {named}[{', '.join(numbers)}]"
        return f"Write: {named}[{value_text(given)}]" if "list_type" in kinds else ""
    return ""


def _wording(error: Any, path: KeyPath, values: dict[str, Any]) -> tuple[str, str, str]:
    """Code, message and remedy for one error."""
    kind, context, given = error["type"], error.get("ctx") or {}, error.get("input")
    key = str(path[-1]) if path else ""
    match kind:
        case "extra_forbidden":
            remedy = did_you_mean(key, _known_keys(path, values), "keys")
            return "unknown-key", f"there is no key '{key}' here.", remedy
        case "literal_error" if path == ("fendra",):
            return "version", *_version(given)
        case "missing" | "too_short" if key in ("line", "part"):
            table = f"[[{'.'.join(str(s) for s in path if isinstance(s, str))}]]"
            return "no-leds", f"there is no {key} here.", f"Add a {table}."
        case "missing" if _is_there(path, values):
            return "wrong-type", "there are too few values here.", _example(key, "Write them")
        case "missing":
            return "missing-key", f"'{key}' is missing.", _example(key) or f"Add {key} = ..."
        case "string_too_short":
            return "missing-key", "this is empty.", ""
        case "too_short":
            least, here = context["min_length"], context["actual_length"]
            return "wrong-type", f"there are {here} values; at least {least} are needed.", ""
        case "too_long":
            most, here = context["max_length"], context["actual_length"]
            return "wrong-type", f"there are {here} values; at most {most} are allowed.", ""
        case "union_tag_invalid":
            tag = str(context["tag"])
            remedy = did_you_mean(tag, SHAPES, "shapes")
            return "unknown-shape", f"there is no shape '{tag}'.", remedy
        case "union_tag_not_found":
            return "missing-key", "'shape' is missing.", f"The shapes are: {', '.join(SHAPES)}."
        case "literal_error":
            expected = str(context["expected"]).replace(" or ", ", ").split(",")
            return "wrong-value", *cannot_stand(given, [name.strip(" '") for name in expected])
        case "greater_than_equal" if key == "count" and given == 0:
            return "no-leds", "this part has no LEDs.", "Give it a count of 1 or more."
        case "greater_than_equal" | "greater_than" | "less_than_equal" | "less_than":
            bound = next(iter(context.values()))
            given = f"{given:g}" if isinstance(given, (int, float)) else given
            return (
                "out-of-range",
                f"{given} is out of range.",
                f"Write a number of {_BOUNDS[kind]} {bound:g}.",
            )
        case "value_error":
            problem = str(context["error"])
            return "wrong-value", _sentence(problem), ""
    return "wrong-value", f"{error['msg'][:1].lower()}{error['msg'][1:]}.", ""


def _sentence(text: str) -> str:
    ends = text.endswith((".", "?")) or ": " in text.rpartition(". ")[2]
    return text if ends else f"{text}."


def _version(given: object) -> tuple[str, str]:
    """The problem with the format's number."""
    if isinstance(given, int) and given > 1:
        return (
            (f"this design has format {given}, for a newer Fendra; this one reads format 1."),
            "Install a newer Fendra.",
        )
    return f"the format must be 1; you wrote {in_words(given)}.", "Write: fendra = 1"


def _example(key: str, do: str = "Add it") -> str:
    """The text to add for a missing key."""
    example = _EXAMPLES.get(key)
    return f"{do}, as in: {key} = {example}" if example else ""


_EXAMPLES = {
    "name": '"tail"', "on": '"all"', "effect": '"solid"', "count": "30", "radius": "40",
    "start": "[0, 0]", "end": "[300, 0]", "centre": "[0, 0]", "signal": '"speed"',
    "points": "[[0, 0], [300, 0]]", "keys": "12", "columns": "8", "rows": "8", "width": "300",
    "height": "200", "volts": "5", "of": '"all"',
}  # fmt: skip
"""Values for keys that must be there."""


def _is_there(path: KeyPath, values: Any) -> bool:
    for step in path:
        try:
            values = values[step]
        except (KeyError, IndexError, TypeError):
            return False
    return True


def _known_keys(path: KeyPath, values: dict[str, Any]) -> list[str]:
    """The keys of the table that holds the last step of a path."""
    match path[:-1]:
        case ("line", int(), *rest) if "part" not in rest:
            return [*_table_in(Line, rest).model_fields]
        case ("line" | "assemblies", _, "part", int(), *rest):
            here: Any = values
            for step in path[:4]:
                here = here[step]
            if not rest:
                return [*SHAPES[here["shape"]].model_fields]
            return [*(Bend if rest[0] == "points" else Column).model_fields]
        case ("layer", int(), *rest):
            return [*_table_in(Layer, rest).model_fields]
        case ("scene", int()):
            return [*Scene.model_fields]
        case ("panel", int()):
            return [*PanelRow.model_fields]
        case ("page",):
            return [*PageKeys.model_fields]
        case ("canvases", str(), str()):
            return [*OnCanvas.model_fields]
        case (str(table), str(), *rest) if table in _NAMED:
            return [*_table_in(_NAMED[table], rest).model_fields]
    return [field.alias or name for name, field in Design.model_fields.items()]


def _table_in(model: type[BaseModel], path: Sequence[str | int]) -> type[BaseModel]:
    """The table that a path leads to from another one, over keys and lists of tables."""
    for step in path:
        if isinstance(step, str):
            kind = model.model_fields[step].annotation
            for piece in (kind, *get_args(kind), *(p for k in get_args(kind) for p in get_args(k))):
                if isinstance(piece, type) and issubclass(piece, BaseModel):
                    model = piece
    return model


_NAMED: dict[str, type[BaseModel]] = {
    "groups": GroupTable,
    "trails": Trail,
    "signals": Signal,
    "controllers": Controller,
    "leds": LedFigures,
    "supplies": Supply,
    "assemblies": Assembly,
    "rhythms": Rhythm,
}
"""The tables of named things, and their contents."""
