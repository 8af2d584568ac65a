"""`fendra schema`: the keys of a design, for editors."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from fendra.cli.screen import say

SCHEMA_FILE = "fendra.schema.json"


def schema(
    out: Annotated[
        Path | None,
        typer.Option(metavar="FILE", help="Write it into this file.", show_default=False),
    ] = None,
) -> None:
    """Write the JSON Schema of the design file: editors use it to complete and check keys.

    A design names it in its first line: #:schema ./fendra.schema.json
    """
    from fendra.schema import schema_text
    from fendra.whole import write_text

    if out is None:
        typer.echo(schema_text(), nl=False)
    else:
        say(f"schema: {write_text(out, schema_text())}")
