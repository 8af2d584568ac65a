"""Make the pages that follow from the code: `make docs`. A test holds both together."""

from __future__ import annotations

import re
import tomllib
from pathlib import Path

import numpy as np

import fendra as fd
from fendra.cli.effect_examples import example_text
from fendra.core.checks import Subject
from fendra.core.effects import EFFECTS, FAMILIES, Parameter
from fendra.core.film import Film
from fendra.core.findings import path_to_text
from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.core.graph.ops import OPS
from fendra.core.program import Program
from fendra.core.tape import Tape
from fendra.files.design_file import check_text

DOCS = Path(__file__).parents[1] / "docs"

EFFECTS_HEAD = """# Effects

What each effect looks like, its parameters, and an example. Every number, colour and condition may
be an expression in quotes, and may be looked up by a mode (see [design-file.md](design-file.md)); a
value outside the range is held within it. Made from the code by `make docs`; `fendra effects NAME`
shows the same, and [own-effects.md](own-effects.md) how to write one.

![Film strips of every effect on a ring, a strip and a grid](screenshots/effects.png)

| for | effects |
| --- | --- |
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


FINDINGS_HEAD = """# Findings

What `fendra check` may say, by code, each with an example and what it gets as an answer. An error
stops the design: something will not work, or gets too hot. A warning does not: something is out of
what data sheets say, or does nothing. A note informs. `--json` gives code, severity, message,
remedy, place and line of each. Made from `scripts/findings.toml` by `make docs`.
"""

DEFAULT_LINE = """
[[line]]
name = "bar"
pin = "D6"
supply = "SUPPLY"
part = [{ name = "strip", shape = "strip", start = [0, 0], end = [590, 0], count = 60 }]
"""
DEFAULT_LAYER = """
[[layer]]
name = "glow"
on = "all"
effect = "solid"
"""


def pages() -> dict[Path, str]:
    """Every page that is made, and its text."""
    emitted = fd.load(fd.demo_file("heron.toml")).emit()
    return {
        DOCS / "effects.md": effects_page(),
        DOCS / "operations.md": OPERATIONS_HEAD + "".join(operation(name) for name in OPS),
        DOCS / "findings.md": findings_page(),
        DOCS / "emitted" / "heron.h": emitted.header,
        DOCS / "emitted" / "heron.c": emitted.source,
    }


def findings_page() -> str:
    """Every code, with what its examples get as an answer."""
    file = Path(__file__).with_name("findings.toml")
    text = FINDINGS_HEAD
    for title, examples in tomllib.loads(file.read_text(encoding="utf-8")).items():
        text += f"\n## {title}\n"
        for name, excerpts in examples.items():
            on_tape = name.endswith(ON_TAPE)
            code = name.removesuffix(ON_TAPE)
            text += f"\n### `{code}`\n"
            for excerpt in excerpts:
                said = answers(excerpt, code, on_tape=on_tape)
                if not said:
                    raise SystemExit(f"the example of {name} gives no such finding:\n{excerpt}")
                text += f"\n```{'text' if code == 'syntax' else 'toml'}{excerpt}```\n\n"
                text += "".join(f"> {words}\n" for words in said)
    return text


ON_TAPE = "-on-the-tape"


def answers(excerpt: str, code: str, *, on_tape: bool) -> list[str]:
    """What an example gets as an answer, of one code."""
    text = excerpt
    supply = re.search(r"\[supplies\.(\w+)\]", excerpt)
    feeds = supply is not None and "spare" not in excerpt
    if "[[line]]" not in excerpt:
        text += DEFAULT_LINE.replace("SUPPLY", supply[1] if supply and feeds else "")
    if "[[layer]]" not in excerpt:
        text += DEFAULT_LAYER

    def render(subject: Subject) -> Film:
        engine = NumpyEngine(subject.recording)
        times = np.arange(0, 2.05, 0.05)
        rising = Tape(times, {"s": times / 2})
        return Program(subject.design, subject.layout, subject.recording, engine).film(rising)

    checked = check_text(text, "design.toml", folder=Path(), render=render if on_tape else None)
    found = [finding for finding in checked.findings if finding.code == code]
    return [
        f"**{finding.severity}**: {path_to_text(finding.path)}{finding.message} {finding.remedy}"
        for finding in found[:2]
    ]


def effects_page() -> str:
    """Every effect, family by family."""
    families = {
        family: [name for name in EFFECTS if EFFECTS[name].family == family] for family in FAMILIES
    }
    found = {family: names for family, names in families.items() if names}
    index = [
        f"| {family} | {', '.join(f'[{name}](#{name})' for name in names)} |"
        for family, names in found.items()
    ]
    sections = [section(name) for names in found.values() for name in names]
    return EFFECTS_HEAD + "\n".join([*index, "", *sections])


def section(name: str) -> str:
    """One effect."""
    effect = EFFECTS[name]
    rows = [row(key, item) for key, item in effect.parameters.items()]
    table = ["| parameter | | default | unit | range |", "| --- | --- | --- | --- | --- |", *rows]
    example = ["```toml", example_text(name, "tail-bar"), "```"]
    return "\n".join([f"## {name}", "", effect.about, "", *table, "", *example, ""])


def row(key: str, item: Parameter) -> str:
    """One parameter."""
    default = f"`{item.default_text}`" if item.default_text else ""
    return f"| `{key}` | {item.about} | {default} | {item.unit} | {item.range_text} |"


def operation(name: str) -> str:
    """One row of the operation table."""
    op = OPS[name]
    text = op.c.format(*"abc").replace("|", "\\|")
    return f"| `{name}` | {', '.join(op.takes)} | {op.gives} | {op.about} | `{text}` |\n"


if __name__ == "__main__":
    for path, text in pages().items():
        path.parent.mkdir(exist_ok=True)
        path.write_text(text, encoding="utf-8")
