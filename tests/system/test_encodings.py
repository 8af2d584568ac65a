"""Texts name their encoding everywhere: Windows has another by default."""

from __future__ import annotations

import ast
from pathlib import Path

import fendra as fd

HERE = Path(fd.__file__).parent


def unnamed(path: Path) -> list[int]:
    """The lines that read or write a text, or take a program's, and name no encoding."""
    found = []
    for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
        if not isinstance(node, ast.Call):
            continue
        called = getattr(node.func, "attr", getattr(node.func, "id", ""))
        keys = {key.arg for key in node.keywords}
        words = {word.value for word in node.args if isinstance(word, ast.Constant)}
        is_text = called in ("run", "Popen", "check_output") and "text" in keys
        if called in ("read_text", "write_text") and isinstance(node.func, ast.Attribute):
            is_text = words.isdisjoint({"utf-8"})
        if called in ("open", "fdopen") and words & {"r", "w", "a", "x", "rt", "wt"}:
            is_text = True
        if is_text and "encoding" not in keys:
            found.append(node.lineno)
    return found


def test_each_text_names_its_encoding():
    places = {path: unnamed(path) for path in HERE.rglob("*.py") if "files" not in path.parts}
    assert {str(path): lines for path, lines in places.items() if lines} == {}
