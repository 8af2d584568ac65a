"""Make the pages that follow from the code: `make docs`. A test holds both together."""

from __future__ import annotations

import inspect
import json
import os
import re
import shlex
import subprocess
import sys
import tomllib
from collections.abc import Collection
from pathlib import Path

import numpy as np
import typer
from pydantic import BaseModel
from pydantic.fields import FieldInfo
from typer.core import TyperGroup

import boards
import cheat_sheet
import fendra as fd
import gallery
import rooms
from fendra.cli.app import app
from fendra.cli.effect_examples import example_text
from fendra.core.catalogue.leds import LedFigures
from fendra.core.checks import Subject
from fendra.core.document.design import Design
from fendra.core.document.layer import Layer, Rhythm, Scene
from fendra.core.document.signal import Signal
from fendra.core.effects import EFFECTS, FAMILIES
from fendra.core.effects.parameters import Parameter
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.film import Film
from fendra.core.findings import path_to_text
from fendra.core.graph.ops import OPS
from fendra.core.limits import LIMITS
from fendra.core.program import Program
from fendra.core.shapes import Part
from fendra.core.signals.tape import Tape
from fendra.drivers import Options
from fendra.files.design_file import check_text
from fendra.outputs import DRIVERS as OUTPUTS
from fendra.page.data import schema
from fendra.page.served.access import Right
from fendra.page.served.calls import CALLS, EVENTS, Call
from fendra.schema import described
from fendra.sources import DRIVERS as SOURCES

DOCS = Path(__file__).parents[1] / "docs"

EFFECTS_HEAD = """# Effects

What each effect looks like, its parameters, and an example to paste into a design. Every number,
colour and condition may be an expression in quotes, or a table that [looks it up by a
mode](design-file.md#layer-what-to-paint-later-layers-over-earlier-ones). Values of an expression are held
within the range. `fendra effects NAME` shows the same. [Effects of your own](own-effects.md) explains how
to write one. Made from the code by `make docs`.

![Film strips of every effect on a ring, a strip and a grid](screenshots/effects.png)

| for | effects |
| --- | --- |
"""

OPERATIONS_HEAD = """# Operations

Effects, expressions and signals consist of these operations. Each row of the operation table
(`core/graph/ops.py`) has the types that it takes and gives, its meaning, its text in C, and its
WebAssembly for one LED and for four. ({0} is the first argument, [1] a second one that is one number
for all four. An empty cell means that the four go one by one.) Every row rounds exactly as IEEE 754
says, or is integer arithmetic, so all engines give the same bits. A test tries each row on edge values
and others. `smaller(a, b)` is `a < b ? a : b`, `larger(a, b)` is `a > b ? a : b`. Made from the code by
`make docs`.

| operation | takes | gives | meaning | in C | in WebAssembly | of four |
| --- | --- | --- | --- | --- | --- | --- |
"""


CONNECTIONS_HEAD = """# Sources and outputs

Write a source or an output into a design as `[sources.NAME]` or `[outputs.NAME]` with its `type`, or on
the command line as `--from TYPE:ADDRESS,key=value` and `--to TYPE:ADDRESS,key=value`. `--from
desk=screen:1` replaces the design's source `desk`. Without a name, an option replaces the design's only
source of that type. [Live](live.md) shows how they work together. "Names" are what a signal's `source` has
after the colon. If a source needs a package that is not installed, the message names the extra that brings
it, such as `pip install 'fendra[mqtt]'`. Made from the code by `make docs`.

A tape is a source too: `type = "tape"` with `address`, and `loop`, `speed` and `start` (s).
"""

FINDINGS_HEAD = """# Findings

Everything that `fendra check` can report, by code, each with an example and the answer. An error stops
the design: something will not work, or gets too hot. A warning does not: something is outside a data
sheet, or has no effect. A note informs. `--json` gives code, severity, message, remedy, place and line
of each. Made from `scripts/findings.toml` by `make docs`.
"""

ARCHITECTURE = """# How it is built

Each folder is a room. A room knows only the rooms below it. `make test` checks that
(`lint-imports`, the contracts in pyproject.toml), for imports that only types need as well, and
that no neighbours form a circle. Made from the code by `make docs`
([rooms.py](../scripts/rooms.py)).

![The rooms from the top down, with arrows to what each knows](architecture.svg)

An arrow means that one room imports another. Arrows that follow from others are left out, and so are
arrows to the rooms at the foot of the core, which many rooms know.

[One value](one-value.md) follows one value through all rooms, from a tape to a wire.

## The program

{program}
`core` has no interface and no input or output: values in, values out. `front.py` is what `import
fendra` gives.

## The core

{core}
- **A design is data.** `document` holds the text of a design, but not the contents of files beside it:
  pictures and your own effects are `Media`, which are passed to recording.
- **A design is examined once.** `core/checks/examine.py` places and records it; check, compile,
  budget, film, explain, emit and reload share the result.
- **Composition is one plan.** Steps (`Paint`, `Mix`, `Master`, `Limit`, `Wire`) over one graph.
  Engines and `explain` run them and know no effect, blend or scene by name. An engine that does not
  know a step raises an error.
- **Registries find things of one kind.** Effects, blends, shapes, signal kinds and checks are one file
  each, and packages can add theirs. [CONTRIBUTING.md](../CONTRIBUTING.md) says how.
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
        DOCS / "architecture.md": architecture_page(),
        DOCS / "architecture.svg": rooms.picture(),
        DOCS / "bench.md": filled(
            "bench.md", saw=printed("probe", "heron.toml", "--saw", "hub-left=blue")
        ),
        DOCS / "boards.md": filled("boards.md", chips=boards.chips(), strips=boards.strips()),
        DOCS / "cheat-sheet.html": cheat_sheet.page(),
        DOCS / "commands.md": commands_page(),
        DOCS / "connections.md": connections_page(),
        DOCS / "design-file.md": design_page(),
        DOCS / "effects.md": effects_page(),
        DOCS / "electric.md": electric_page(),
        DOCS.parent / "web" / "src" / "data.schema.json": json.dumps(schema(), indent=2) + "\n",
        DOCS / "operations.md": OPERATIONS_HEAD + "".join(operation(name) for name in OPS),
        DOCS / "findings.md": findings_page(),
        DOCS / "gallery.md": gallery.page(),
        DOCS / "http.md": http_page(),
        DOCS / "security.md": security_page(),
        DOCS / "emitted" / "heron.h": emitted.header,
        DOCS / "emitted" / "heron.c": emitted.source,
    }


def architecture_page() -> str:
    """The rooms, with what each is for and what it knows."""
    outer, core = (
        [name for layer in rooms.contracts(which) for name in layer]
        for which in ("layers", "rooms of the core")
    )
    return ARCHITECTURE.format(
        program=rooms.listing("fendra.", outer), core=rooms.listing("fendra.core.", core)
    )


def security_page() -> str:
    """The page as it is written, with the limits as they are."""
    rows = "".join(f"| {limit.most:,} | {limit.what} | {limit.why} |\n" for limit in LIMITS)
    head = "| at most | of what | it prevents |\n| ---: | --- | --- |\n"
    return filled("security.md", limits=head + rows)


def electric_page() -> str:
    """The page as it is written, with the keys of LED types and what check says of Heron today."""
    shown = printed("check", "heron.toml", "--tape", "ride.csv")
    return filled("electric.md", check=shown, leds=key_table(LedFigures, leave={"about"}))


def printed(*words: str) -> str:
    """A command in the folder of the demo's files, and what it prints, as a block."""
    done = subprocess.run(
        [sys.executable, "-m", "fendra", *words],
        cwd=fd.demo_file("heron.toml").parent, capture_output=True, text=True, check=True,
        env=os.environ | {"COLUMNS": "200"},
    )  # fmt: skip
    return f"```text\n$ fendra {shlex.join(words)}\n{done.stdout}```\n"


def filled(page: str, **texts: str) -> str:
    """A page as it is written, with texts that the code gives: each between `<!-- its name -->`
    and `<!-- end -->`.
    """
    whole = (DOCS / page).read_text(encoding="utf-8")
    for name, text in texts.items():
        before, rest = whole.split(f"<!-- {name} -->\n")
        _, after = rest.split("<!-- end -->", 1)
        whole = f"{before}<!-- {name} -->\n{text}<!-- end -->{after}"
    return whole


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
                text += f"\n```{'text' if code == 'syntax' else 'toml'}\n{excerpt}```\n\n"
                text += "".join(f"> {words}\n" for words in said)
    return text


def http_page() -> str:
    """Every call of a served page, with an example."""
    bench = [call for call in CALLS if call.path.startswith("/api/bench")]
    rights = {
        Right.LOOK: "For everybody who may look", Right.STEER: "For everybody who may steer",
        Right.OWN: "For a browser or program on the design's own computer",
    }  # fmt: skip
    text = HTTP_HEAD
    for right, title in rights.items():
        calls = [call for call in CALLS if call.needs is right and call not in bench]
        text += f"\n## {title}\n" + "".join(map(one_call, calls))
    stream = f"{EVENTS} Each event is `change`, with JSON."
    text += f"\n## Changes\n\n### `GET /api/events`\n\n{stream}\n"
    return text + BENCH_HEAD + "".join(map(one_call, bench))


def one_call(call: Call) -> str:
    """One call, with what it takes and an example."""
    path = call.path.replace(":path", "")
    text = f"\n### `{call.method} {path}`\n\n{call.about}\n"
    if call.body is not None:
        text += f"\nBody: {inspect.cleandoc(call.body.__doc__ or '')}\n"
    if call.method != "GET" and (call.body is None or call.example is not None):
        named = path.replace("{name}", NAMED.get(path.split("/")[2], "NAME"))
        given = "" if call.example is None else f" -d '{json.dumps(call.example)}'"
        text += f"\n```sh\ncurl -X {call.method} {SERVED}{named}{given}\n```\n"
    return text


SERVED = "http://127.0.0.1:8480"
NAMED = {"signals": "speed", "cues": "evening", "layers": "turn%20left,%20front"}
HTTP_HEAD = """# A run by HTTP

Other programs can do everything that the [page of a run](live-page.md) does. Start a run that serves it:

```sh
fendra run heron.toml --tape ride.csv --loop --to null: --page
```

Requests and answers are JSON. An answer is what you asked for, or `{"done": true}`, or `{"problem":
"..."}` with a status of 400 and above. From other computers each call needs a token: `-H
'Authorization: Bearer TOKEN'`. A run describes its calls, as OpenAPI, at `/api/openapi.json`. Made from
the code by `make docs`.
"""

BENCH_HEAD = """
## The bench

The bench answers these calls. Start it, then send:

```sh
fendra probe heron.toml --page
```
"""

ON_TAPE = "-on-the-tape"


def design_of(excerpt: str) -> str:
    """An example as a whole design: with a line and a layer, where it has none."""
    text = excerpt
    supply = re.search(r"\[supplies\.(\w+)\]", excerpt)
    feeds = supply is not None and "spare" not in excerpt
    if "[[line]]" not in excerpt:
        text += DEFAULT_LINE.replace("SUPPLY", supply[1] if supply and feeds else "")
    if "[[layer]]" not in excerpt:
        text += DEFAULT_LAYER
    return text


def answers(excerpt: str, code: str, *, on_tape: bool) -> list[str]:
    """What an example gets as an answer, of one code."""

    def render(subject: Subject) -> Film:
        engine = NumpyEngine(subject.plan)
        times = np.arange(0, 2.05, 0.05)
        rising = Tape(times, {"s": times / 2})
        return Program(subject.plan, engine).film(rising)

    checked = check_text(
        design_of(excerpt), "design.toml", folder=Path(), render=render if on_tape else None
    )
    found = [finding for finding in checked.findings if finding.code == code]
    return [
        f"**{finding.severity}**: {path_to_text(finding.path)}{finding.message} {finding.remedy}"
        for finding in found[:2]
    ]


COMMANDS_HEAD = """# Commands

What `fendra COMMAND --help` says, for every command. Examples run in a folder with the demo's files: `fendra demo
--files` writes them. Exit codes: 0 if all went well; 1 if the design has errors, or cannot be run or delivered as it
is; 2 for a wrong option, name or file; 3 for a fault in Fendra. Made from the code by `make docs`.
"""


def commands_page() -> str:
    """The help of every command."""
    program = typer.main.get_command(app)
    assert isinstance(program, TyperGroup)
    text = COMMANDS_HEAD
    with typer.Context(program, info_name="fendra", terminal_width=80) as context:
        for name in program.list_commands(context):
            command = program.get_command(context, name)
            assert command is not None
            with typer.Context(command, info_name=name, parent=context, terminal_width=80) as own:
                text += f"\n## fendra {name}\n\n```text\n{command.get_help(own)}\n```\n"
    return text


def connections_page() -> str:
    """Every source and output, with what can be said to it."""
    text = CONNECTIONS_HEAD
    for title, drivers in (("Sources", SOURCES), ("Outputs", OUTPUTS)):
        text += f"\n## {title}\n"
        for name in drivers.names():
            kind = drivers.kind(name)
            module = sys.modules[kind.__module__]
            about = kind.__doc__ if name in SHARED else module.__doc__
            text += f"\n### {name}\n\n{inspect.cleandoc(about or '')}\n"
            if kind.example:
                text += f"\nIn a line: `{kind.example}`\n"
            text += "\n| key | | default |\n| --- | --- | --- |\n"
            text += "".join(option_rows(kind.Options))
    return text


SHARED = {"memory", "null", "gif"}
"""Drivers whose own docstring says more than their module's."""


def option_rows(options: type[Options]) -> list[str]:
    """A row for each key of a driver."""
    texts = described(options)
    if texts["address"] == described(Options)["address"]:
        texts["address"] = ""  # this driver has none
    return [
        f"| `{key}` | {texts.get(key, '')} | {default_text(field)} |\n"
        for key, field in options.model_fields.items()
        if texts.get(key) or default_text(field)
    ]


def key_table(model: type[BaseModel], *, leave: Collection[str] = ()) -> str:
    """A row for each key of a table of a design."""
    texts = described(model)
    rows = [
        f"| `{field.alias or name}` | {texts[name].replace('|', chr(92) + '|')} | {default_text(field)} |\n"
        for name, field in model.model_fields.items()
        if name not in leave
    ]
    return "| key | meaning | default |\n| --- | --- | --- |\n" + "".join(rows)


def default_text(field: FieldInfo) -> str:
    """A default as it would stand in a file; empty where there is none to show."""
    if field.is_required() or field.default in (None, "", (), {}, []):
        return ""
    if isinstance(field.default, bool):
        return str(field.default).lower()
    if isinstance(field.default, float):
        return f"{field.default:g}"
    if isinstance(field.default, tuple):
        return f"`[{', '.join(f'{each:g}' for each in field.default)}]`"
    return str(field.default) if isinstance(field.default, int | str) else ""


TABLES = {
    "controllers", "leds", "supplies", "assemblies", "line", "groups", "trails", "canvases",
    "sources", "outputs", "signals", "presets", "rhythms", "scene", "layer", "served", "panel",
}  # fmt: skip
"""Keys of a design that have a section of their own."""


def design_page() -> str:
    """The page of the design file, with the keys of its tables."""
    return filled(
        "design-file.md",
        top=key_table(Design, leave=TABLES),
        part=key_table(Part, leave={"name", "shape"}),
        layer=key_table(Layer),
        rhythm=key_table(Rhythm),
        scene=key_table(Scene),
        signal=key_table(Signal),
    )


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
    wide = f"`{op.lanes}`" if op.lanes else ""
    takes = ", ".join(op.takes)
    return f"| `{name}` | {takes} | {op.gives} | {op.about} | `{text}` | `{op.wasm}` | {wide} |\n"


if __name__ == "__main__":
    for path, text in pages().items():
        path.parent.mkdir(exist_ok=True)
        path.write_text(text, encoding="utf-8")
