"""Everything that the docs, the help and the docstrings show: commands, designs, Python."""

from __future__ import annotations

import ast
import re
import shlex
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[1]
PAGES = sorted([*ROOT.glob("*.md"), *(ROOT / "docs").glob("*.md")])
BLOCK = re.compile(r"(?:<!-- try in ([\w.]+) -->\n)?^```(\w+)\n(.*?)^```", re.S | re.M)
INLINE = re.compile(r"`(fendra [a-z][^`\n]*)`")


@dataclass(frozen=True)
class Block:
    """One block of code on a page; `design` is the file that the page adds it to."""

    page: Path
    language: str
    text: str
    design: str

    def __str__(self) -> str:
        first = next(filter(None, self.text.splitlines()), "")
        return f"{self.page.name}: {first[:50]}"


def blocks(language: str = "", pages: list[Path] = PAGES) -> list[Block]:
    """All blocks in one language, or in all of them, in the order of the pages."""
    return [
        Block(page, found, text, design)
        for page in pages
        for design, found, text in BLOCK.findall(page.read_text(encoding="utf-8"))
        if found == language or not language
    ]


def commands(block: Block) -> list[list[str]]:
    """The commands of a block, as words."""
    rows = block.text.replace("\\\n", " ").splitlines()
    return [words for row in rows if (words := shlex.split(row, comments=True))]


def named_commands() -> list[tuple[str, str]]:
    """Every `fendra ...` in the pages and in the texts of the program, and where it stands."""
    found = {}
    for page in PAGES:
        for text in INLINE.findall(page.read_text(encoding="utf-8")):
            found.setdefault(text, page.name)
    for file in sorted((ROOT / "src").rglob("*.py")):
        for text in texts(ast.parse(file.read_text(encoding="utf-8"))):
            for named in INLINE.findall(text):
                found.setdefault(named, file.relative_to(ROOT / "src").as_posix())
    return list(found.items())


def texts(tree: ast.AST) -> list[str]:
    """All texts of a module; what is filled in stands as X."""
    found = []
    for node in ast.walk(tree):
        if isinstance(node, ast.JoinedStr):
            parts = [p.value if isinstance(p, ast.Constant) else "X" for p in node.values]
            found.append("".join(map(str, parts)))
        elif isinstance(node, ast.Constant) and isinstance(node.value, str):
            found.append(node.value)
    return found
