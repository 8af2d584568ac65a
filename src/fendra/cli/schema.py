"""`fendra schema`: the keys of a design for editors."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Annotated, Any

import typer

from fendra.cli.screen import say

SCHEMA_FILE = "fendra.schema.json"


def schema(
    out: Annotated[
        Path | None,
        typer.Option(metavar="FILE", help="Write it into this file instead.", show_default=False),
    ] = None,
) -> None:
    """Write the JSON Schema of the design file, with which editors complete and check keys.

    A design names it in its first line: #:schema ./fendra.schema.json
    """
    from fendra.whole import write_text

    if out is None:
        typer.echo(schema_text(), nl=False)
    else:
        say(f"schema: {write_text(out, schema_text())}")


def schema_text() -> str:
    """The JSON Schema (draft 2020-12) of a design, as text."""
    from fendra.core.composition.blends import BLENDS
    from fendra.core.document.design import Design
    from fendra.core.signals.kinds import KINDS

    made = _without_examples(Design.model_json_schema())
    tables = made["$defs"]
    tables["Layer"]["properties"]["blend"]["enum"] = [*BLENDS]
    tables["Signal"]["properties"]["kind"]["enum"] = [*KINDS]
    head = {"$schema": "https://json-schema.org/draft/2020-12/schema"}
    return json.dumps(head | made, indent=2, ensure_ascii=False) + "\n"


def _without_examples(schema: Any) -> Any:
    """A schema whose descriptions end where their Python begins."""
    if isinstance(schema, list):
        return [_without_examples(item) for item in schema]
    if not isinstance(schema, dict):
        return schema
    plain = {key: _without_examples(value) for key, value in schema.items()}
    if isinstance(plain.get("description"), str):
        words, _, _ = plain["description"].partition("\n\n>>>")
        plain["description"] = words
    return plain
