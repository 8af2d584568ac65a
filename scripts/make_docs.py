"""Make the pages that follow from the code: `make docs`. A test holds both together."""

from __future__ import annotations

from pathlib import Path

import fendra as fd
from fendra.core.effects import EFFECTS, Parameter
from fendra.core.graph.ops import OPS

DOCS = Path(__file__).parents[1] / "docs"

EFFECTS_HEAD = """# Effects

What each effect looks like, and its parameters. Every parameter may be a literal or an
expression in quotes (see [design-file.md](design-file.md)); a value outside the range is held
within it. Made from the code by `make docs`.
"""

OPERATIONS_HEAD = """# Operations

All that effects, expressions and signals are made of: each row of the operation table
(`core/graph/ops.py`) with what it takes and gives, what it means, and its text in C. Every row
rounds exactly as IEEE 754 says or is integer arithmetic, so NumPy and C give the same bits; a test
tries each row on edge values and others. `smaller(a, b)` is `a < b ? a : b`, `larger(a, b)` is
`a > b ? a : b`. Made from the code by `make docs`.

| operation | takes | gives | meaning | in C |
| --- | --- | --- | --- | --- |
"""


def pages() -> dict[Path, str]:
    """Every page that is made, and its text."""
    emitted = fd.load(fd.demo_file("heron.toml")).emit()
    return {
        DOCS / "effects.md": "\n".join([EFFECTS_HEAD, *(section(name) for name in EFFECTS)]),
        DOCS / "operations.md": OPERATIONS_HEAD + "".join(operation(name) for name in OPS),
        DOCS / "emitted" / "heron.h": emitted.header,
        DOCS / "emitted" / "heron.c": emitted.source,
    }


def section(name: str) -> str:
    """One effect."""
    effect = EFFECTS[name]
    rows = [row(key, item) for key, item in effect.parameters.items()]
    table = ["| parameter | | default | unit | range |", "| --- | --- | --- | --- | --- |", *rows]
    return "\n".join([f"## {name}", "", effect.about, "", *table, ""])


def row(key: str, item: Parameter) -> str:
    """One parameter."""
    if item.kind == "number":
        cells = [f"{item.default:g}", item.unit, f"{item.low:g} to {item.high:g}"]
    elif item.kind == "truth":
        cells = [str(item.default).lower(), "", "true or false"]
    else:
        cells = [f'`"{item.default}"`', "", "a colour"]
    return f"| `{key}` | {item.about} | {' | '.join(cells)} |"


def operation(name: str) -> str:
    """One row of the operation table."""
    op = OPS[name]
    text = op.c.format(*"abc").replace("|", "\\|")
    return f"| `{name}` | {', '.join(op.takes)} | {op.gives} | {op.about} | `{text}` |\n"


if __name__ == "__main__":
    for path, text in pages().items():
        path.parent.mkdir(exist_ok=True)
        path.write_text(text, encoding="utf-8")
