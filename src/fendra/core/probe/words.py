"""Cures in words: which line of the file to change, and what to write."""

from __future__ import annotations

from collections.abc import Mapping
from typing import TypeAlias

from fendra.core.document.design import Design
from fendra.core.findings import KeyPath, line_of
from fendra.core.probe.answers import COUNTED, PIN
from fendra.core.probe.cures import MEASURED, Change, Cure, Exchange
from fendra.core.toml_text import value_text

Lines: TypeAlias = Mapping[KeyPath, int]


def cure_in_words(cure: Cure, file: str, design: Design, lines: Lines) -> str:
    """A cure with the line of the file that it is about.

    lines: of the file, by the path of each key.
    """

    def where(path: KeyPath) -> str:
        place = line_of(path, lines)
        return f"{file}:{place}" if place else file

    def what(path: KeyPath) -> str:
        line = design.line[int(path[1])]
        if len(path) == 2:
            return f"[[line]] '{line.name}'"
        return f"[[line.part]] '{line.part[int(path[3])].name}'"

    if isinstance(cure, Exchange):
        return (
            f"{where(cure.path)}: swap {what(cure.path)} and {what(cure.other)} "
            f"({where(cure.other)}) in the file"
        )
    if not isinstance(cure, Change):
        side = "before" if cure.is_before else "after"
        return (
            f"{where(cure.path)}: move {what(cure.path)} {side} {what(cure.other)} "
            f"({where(cure.other)})"
        )
    place = where((*cure.path, cure.key))
    if cure.value is None:
        return f"{place}: remove {cure.key}"
    if cure.value in (MEASURED, PIN, COUNTED):
        return f"{place}: write {cure.key} = {cure.value}"
    value = list(cure.value) if isinstance(cure.value, tuple) else cure.value
    return f"{place}: write {cure.key} = {value_text(value)}"
