"""Parts whose places are in another file, beside the design."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path
from typing import Any

from fendra.core.errors import FendraError
from fendra.core.findings import Finding, KeyPath, Severity
from fendra.files.csv_places import read_places

_PLACES = {"keys": "keys", "points": "points"}
"""Shape, and its key for what a file holds."""


def fill_in(values: dict[str, Any], folder: Path) -> list[Finding]:
    """Put the contents of the parts' files into a design's plain values; return the findings.

    A part whose file cannot be read is replaced, so that the rest can be checked.
    """
    findings = []
    for path, part in _parts_with_files(values):
        key = _PLACES[part["shape"]]
        if part.get(key):
            problem = f"the places are in `{key}` and in a file."
            findings.append(_finding(path, problem, "Keep one of them."))
            continue
        part[key] = [["", 0, 0]] if key == "keys" else [[0, 0]]
        if Path(part["file"]).suffix != ".csv":
            problem = f"'{part['file']}' is not a .csv."
            findings.append(_finding(path, problem, "`fendra import` reads other files."))
            continue
        try:
            places, names = read_places(folder / part["file"], key == "keys")
        except FendraError as exc:
            problem, remedy = f"{part['file']}: {exc.problem}", exc.remedy
            if exc.code == "no-file":
                problem = f"there is no file '{part['file']}' beside the design"
                remedy = "Write the path of a CSV file, starting in the design's folder."
            findings.append(_finding(path, f"{problem.rstrip('.')}.", remedy))
            continue
        if key == "keys":
            part[key] = [[name, x, y] for (x, y, _), name in zip(places, names, strict=True)]
        else:
            part[key] = [list(place) for place in places]
            if any(names):
                part.setdefault("names", names)
    return findings


def _finding(path: KeyPath, problem: str, remedy: str) -> Finding:
    return Finding("file", Severity.ERROR, problem, remedy, (*path, "file"))


def _parts_with_files(values: dict[str, Any]) -> Iterator[tuple[KeyPath, dict[str, Any]]]:
    """Every part that names a file, and its path in the design; other mistakes are ignored here."""
    assemblies = values.get("assemblies")
    holders: list[tuple[KeyPath, Any]] = []
    if isinstance(assemblies, dict):
        holders += [(("assemblies", name), item) for name, item in assemblies.items()]
    if isinstance(values.get("line"), list):
        holders += [(("line", i), item) for i, item in enumerate(values["line"])]
    for path, holder in holders:
        parts = holder.get("part") if isinstance(holder, dict) else None
        for j, part in enumerate(parts if isinstance(parts, list) else []):
            # Among a list, since a shape that is wrong may have no hash.
            is_one = isinstance(part, dict) and part.get("shape") in [*_PLACES]
            if is_one and isinstance(part.get("file"), str) and part["file"]:
                yield (*path, "part", j), part
