"""From the plain values of a file to a design: every wrong key, type and range is a finding.

Wrong values are left out, or replaced if a value is needed, and the rest is read again, so that one
mistake does not hide the next.
"""

from __future__ import annotations

import copy
import re
from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Any

from pydantic import BaseModel, ValidationError

from fendra.core.document.design import Design
from fendra.core.document.layer import Layer, Preset
from fendra.core.document.slips import straighten
from fendra.core.document.wording import to_findings
from fendra.core.findings import Finding, KeyPath, Severity
from fendra.core.names import NAME
from fendra.core.shapes import SHAPES

_PATCH = "wrong-"
"""The start of names that replace parts and lines that could not be read."""
MOST_FINDINGS = 100
"""How many wrong keys and values are reported at a time."""


@dataclass(frozen=True)
class _Origins:
    """Where things are in the file that moved since: tables of lists by identity, renamed keys."""

    places: dict[int, int]
    names: dict[KeyPath, str]


@dataclass(frozen=True)
class Document:
    """The contents of a file.

    design: what could be read, or None. dropped: names of wrong things that were left out.
    is_patched: parts or lines that could not be read were replaced, so names may be missing.
    """

    design: Design | None
    findings: tuple[Finding, ...]
    dropped: frozenset[str]
    is_patched: bool
    _values: dict[str, Any]
    _origins: _Origins

    def in_file(self, findings: Iterable[Finding]) -> list[Finding]:
        """Findings about the design with the paths that the file has: nothing left out there."""
        return [
            replace(finding, path=_original(finding.path, self._values, self._origins))
            for finding in findings
        ]


def read_document(raw: dict[str, Any], model: type[Design] = Design) -> Document:
    """Read plain values, as TOML gives them, into a design."""
    values = copy.deepcopy(raw)
    straight = straighten(values)
    origins = _Origins(_places(values), straight.names)
    findings = [
        replace(each, path=_original(each.path, values, origins)) for each in straight.findings
    ]
    design: Design | None = None
    while design is None:
        try:
            design = model.model_validate(values)
        except ValidationError as exc:
            by_path: dict[KeyPath, list[Any]] = {}
            for error in exc.errors():
                path = _design_path(error["loc"], values, error["type"] == "missing")
                by_path.setdefault(path, []).append(error)
            for path, errors in by_path.items():
                if len(findings) >= MOST_FINDINGS:
                    break
                for finding in to_findings(errors, path, values):
                    placed = replace(finding, path=_original(path, values, origins))
                    if placed not in findings and not _follows(placed, findings):
                        findings.append(placed)
            if len(findings) >= MOST_FINDINGS:
                findings.append(_and_more(len(by_path)))
                break
            if not _mend(values, by_path):
                break
    names = _names(values)
    is_patched = any(name.startswith(_PATCH) for name in names)
    return Document(design, tuple(findings), _names(raw) - names, is_patched, values, origins)


def _and_more(count: int) -> Finding:
    message = f"there are {count:,} wrong keys and values in all; these are the first."
    return Finding("limit", Severity.ERROR, message, "Correct them to see the rest.")


def _follows(finding: Finding, earlier: Iterable[Finding]) -> bool:
    """Whether a key is missing only since it was wrong and left out, or was written otherwise."""
    is_missing = finding.code == "missing-key"
    if is_missing and any(finding.path == other.path for other in earlier):
        return True
    depth = len(finding.path)  # a table is wrong that lacks a key that was wrong
    if finding.code == "wrong-value" and any(
        len(other.path) > depth and other.path[:depth] == finding.path for other in earlier
    ):
        return True
    table = finding.path[:-1] if is_missing else finding.path
    said = f"`{finding.path[-1]}`" if is_missing else finding.message
    for other in earlier:
        if other.code == "unknown-key" and other.path[:-1] == table:
            near = re.search(r"Did you mean '(.+)'", other.remedy)
            if near is None or f"`{near[1]}`" in said:
                return True
    return False


def _places(values: Any) -> dict[int, int]:
    """Of every table in a list, by identity, its place in the file's list."""
    found: dict[int, int] = {}
    if isinstance(values, list):
        found.update((id(item), i) for i, item in enumerate(values) if isinstance(item, dict))
    children = values.values() if isinstance(values, dict) else values
    if isinstance(values, (dict, list)):
        for child in children:
            found.update(_places(child))
    return found


def _original(path: KeyPath, values: Any, origins: _Origins) -> KeyPath:
    steps: list[str | int] = []
    keys: KeyPath = ()
    for step in path:
        try:
            values = values[step]
        except (KeyError, IndexError, TypeError):
            values = None
        if isinstance(step, int):
            steps.append(origins.places.get(id(values), step))
        else:
            keys = (*keys, step)
            steps.append(origins.names.get(keys, step))
    return tuple(steps)


def _design_path(loc: tuple[int | str, ...], raw: Any, is_missing: bool) -> KeyPath:
    """The place in the file: pydantic's, without the steps for kinds of values.

    is_missing: the last step is a missing key.
    """
    path: list[int | str] = []
    here = raw
    for i, step in enumerate(loc):
        if step == "[key]":
            continue
        is_there = (isinstance(here, dict) and step in here) or (
            isinstance(here, list) and isinstance(step, int) and step < len(here)
        )
        if is_there:
            here = here[step]
            path.append(step)
        elif isinstance(here, dict) and i == len(loc) - 1 and is_missing:
            path.append(step)
    return tuple(path)


def _mend(values: dict[str, Any], paths: Iterable[KeyPath]) -> bool:
    """Remove the values at the paths; False if nothing could be done.

    If a key is missing or cannot be removed, its holder is removed; but parts, lines and their
    names are needed, so they are replaced.
    """
    targets = [_target(values, path) for path in paths]
    for holder, item, stand_in in targets:
        if stand_in is not None:
            holder[item] = stand_in
        elif isinstance(holder, dict):
            holder.pop(item, None)
        elif isinstance(holder, list):
            holder[:] = [other for other in holder if other is not item]
    return any(holder is not None for holder, _, _ in targets)


def _target(values: dict[str, Any], path: KeyPath) -> tuple[Any, Any, Any]:
    """A correction: the holder of the value, its key there, and the replacement.

    Without a replacement it is to be removed; in a list the second is then the item itself.
    """
    if not path:
        return None, None, None
    holder: Any = values
    for step in path[:-1]:
        try:
            holder = holder[step]
        except (KeyError, IndexError, TypeError):
            return _target(values, path[:-1])
    last = path[-1]
    if not isinstance(holder, (dict, list)):
        return _target(values, path[:-1])
    stand_in = _stand_in(path, holder)
    if stand_in is not None:
        return holder, last, stand_in
    if isinstance(holder, dict) and last in holder and not _is_required(path):
        return holder, last, None
    if path[:-1] in (("layer",), ("scene",)) and isinstance(holder, list) and isinstance(last, int):
        return holder, holder[last], None
    return _target(values, path[:-1])


def _stand_in(path: KeyPath, holder: Any) -> Any:
    """Something valid for what must be there, so that the rest can be checked; else None."""
    match path:
        case ("line",):
            return [_stand_in(("line", 0), [None])]
        case ("line", int(i)) if isinstance(holder, list):
            return {"name": f"{_PATCH}line-{i}", "part": _stand_in(("line", i, "part"), None)}
        case ("line", int(i), "name"):
            return f"{_PATCH}line-{i}"
        case ("line", int(i), "part"):
            return [_stand_in(("line", i, "part", 0), [None])]
        case ("assemblies", str(i), "part"):
            return [_stand_in(("assemblies", i, "part", 0), [None])]
        case ("line" | "assemblies", i, "part", int(j)) if isinstance(holder, list):
            old = holder[j]
            name = old.get("name") if isinstance(old, dict) else None
            is_name = isinstance(name, str) and NAME.fullmatch(name)
            return {
                "name": name if is_name else f"{_PATCH}part-{i}-{j}",
                "shape": "strip",
                "start": [0, 0],
                "end": [0, 0],
                "count": 1,
            }
    return None


def _is_required(path: KeyPath) -> bool:
    models: list[type[BaseModel]]
    match path[:-1]:
        case ("line" | "assemblies", _, "part", int()):
            models = [*SHAPES.values()]
        case ("layer", int()):
            models = [Layer]
        case ("presets", str()):
            models = [Preset]
        case _:
            return False
    fields = [model.model_fields.get(str(path[-1])) for model in models]
    return any(field is not None and field.is_required() for field in fields)


def _names(raw: Any) -> frozenset[str]:
    """Every name that is given somewhere: of lines, parts, groups, trails, signals and others."""
    found: set[str] = set()
    assemblies = raw.get("assemblies")
    holders = [*assemblies.values()] if isinstance(assemblies, dict) else []
    for holder in [*_tables(raw.get("line")), *_tables(holders)]:
        found.add(str(holder.get("name")))
        found.update(str(part.get("name")) for part in _tables(holder.get("part")))
    for layer in _tables(raw.get("scene")):
        found.add(str(layer.get("name")))
    for table in (
        "groups",
        "trails",
        "signals",
        "controllers",
        "leds",
        "supplies",
        "assemblies",
        "canvases",
        "presets",
        "rhythms",
    ):
        if isinstance(raw.get(table), dict):
            found.update(map(str, raw[table]))
    return frozenset(found)


def _tables(value: Any) -> list[dict[str, Any]]:
    return [item for item in value if isinstance(item, dict)] if isinstance(value, list) else []
