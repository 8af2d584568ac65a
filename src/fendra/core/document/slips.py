"""Tables under a wrong name, or with the wrong brackets: one finding each, and the rest is read.

A file with [line] for [[line]], or [[layers]] for [[layer]], is clear enough. It is read as the
right one, and nothing that only follows from the slip is reported.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, get_origin

from fendra.core.document.design import Design
from fendra.core.findings import Finding, KeyPath, Severity
from fendra.core.names import nearest
from fendra.core.toml_text import key_text, value_text

_KEYS = {each.alias or name: each.annotation for name, each in Design.model_fields.items()}
_LISTS = ("line", "layer", "scene", "panel")
"""Lists of tables: [[line]]."""
_NAMED = tuple(key for key, kind in _KEYS.items() if get_origin(kind) is dict)
"""Tables of named tables: [signals.brake]."""
ALIKE = 0.75
"""How much of a key must be the same."""


@dataclass
class Straight:
    """The result of correcting a document.

    findings: one a slip. names: keys of the file, by the path without numbers that they have now.
    """

    findings: list[Finding] = field(default_factory=list)
    names: dict[KeyPath, str] = field(default_factory=dict)

    def tell(self, path: KeyPath, problem: str, remedy: str) -> None:
        self.findings.append(Finding("wrong-table", Severity.ERROR, problem, remedy, path))


def straighten(values: dict[str, Any]) -> Straight:
    """Put the tables of a document where they belong, in place, and report the misplaced ones.

    >>> values = {"line": {"parts": []}, "signal": {"brake": {}}}
    >>> [finding.remedy for finding in straighten(values).findings]
    ['Write [signals.brake].', 'Write [[line]].', 'Write [[line.part]].']
    >>> values
    {'line': [{'part': []}], 'signals': {'brake': {}}}
    """
    done = Straight()
    for key in [key for key in values if key not in _KEYS]:
        if isinstance(values[key], (dict, list)):
            _rename(values, key, [*_LISTS, *_NAMED], (), done)
    for key in _LISTS:
        _listed(values, key, (), done)
    for key in _NAMED:
        if isinstance(values.get(key), list):
            problem = f"[[{key}]] is a list, but {key} are tables with a name each."
            done.tell((key,), problem, f"Write [{key}.NAME].")
            del values[key]
        for name, table in values[key].items() if isinstance(values.get(key), dict) else ():
            if isinstance(table, list) and len(table) == 1 and isinstance(table[0], dict):
                values[key][name] = table[0]
                header = f"{key}.{key_text(name)}"
                problem = f"[[{header}]] is a list, but this is one table."
                done.tell((key, name), problem, f"Write [{header}].")
            elif isinstance(table, dict) and key == "signals":
                _signal(table, (key, name), done)
    lines, assemblies = values.get("line"), values.get("assemblies")
    holders: list[tuple[KeyPath, Any]] = []
    if isinstance(lines, list):
        holders += [(("line", i), each) for i, each in enumerate(lines)]
    if isinstance(assemblies, dict):
        holders += [(("assemblies", name), each) for name, each in assemblies.items()]
    for path, holder in holders:
        if not isinstance(holder, dict):
            continue
        for key in [key for key in holder if key in ("parts", "Part", "Parts")]:
            _rename(holder, key, ["part"], path, done)
        _listed(holder, "part", path, done)
    return done


def _signal(table: dict[str, Any], path: KeyPath, done: Straight) -> None:
    """A signal whose kind is called its type, or that has two ends for its range."""
    if "type" in table and "kind" not in table and isinstance(table["type"], str):
        table["kind"] = table.pop("type")
        done.names[_names((*path, "kind"))] = "type"
        remedy = f"Write: kind = {value_text(table['kind'])}"
        done.tell((*path, "kind"), "`kind` says what a signal is.", remedy)
    if {"min", "max"} <= table.keys() and "range" not in table:
        table["range"] = [table.pop("min"), table.pop("max")]
        done.names[_names((*path, "range"))] = "min"
        remedy = f"Write: range = {value_text(table['range'])}"
        done.tell((*path, "range"), "a signal's lowest and highest value are one list.", remedy)


def _rename(
    holder: dict[str, Any], key: str, known: list[str], where: KeyPath, done: Straight
) -> None:
    """Give a table its right name, merged with a table that has it already."""
    near = nearest(key, known, alike=ALIKE)
    if near is None:
        return
    table = holder.pop(key)
    holder[near] = _joined(table, holder[near]) if near in holder else table
    written = _header((*where, key))
    shown = f"[[{written}]]" if isinstance(table, list) else f"[{written}]"
    name = _header((*where, near))
    header = f"[[{name}]]" if near in (*_LISTS, "part") else f"[{name}]"
    named = [*table] if isinstance(table, dict) else []
    if named and all(isinstance(table[each], dict) for each in named) and near in _NAMED:
        shown, header = (f"[{each}.{key_text(named[0])}]" for each in (written, name))
    done.names[_names((*where, near))] = key
    done.tell((*where, near), f"there is no table {shown}.", f"Write {header}.")


def _names(path: KeyPath) -> KeyPath:
    return tuple(step for step in path if isinstance(step, str))


def _header(path: KeyPath) -> str:
    return ".".join(key_text(step) for step in path if isinstance(step, str))


def _joined(table: Any, there: Any) -> Any:
    """A misnamed table merged with the table under the right name."""
    match table, there:
        case dict(), dict():
            return {**table, **there}
        case list(), list():
            return [*table, *there]
        case [*first, dict(last)], dict():  # [[lines]], and then [[line.part]]
            return [*first, {**last, **there}]
    return there


def _listed(holder: dict[str, Any], key: str, where: KeyPath, done: Straight) -> None:
    """Turn one table into a list of tables, where a list is needed."""
    table = holder.get(key)
    if not isinstance(table, dict):
        return
    holder[key] = [table]
    if _names((*where, key)) in done.names:
        return  # its name is wrong as well: one remedy says both
    header = _header((*where, key))
    problem = f"[{header}] is one table, but a design has a list of them."
    done.tell((*where, key), problem, f"Write [[{header}]].")
