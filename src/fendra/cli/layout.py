"""`fendra layout`: every part in wire order, as text or JSON; every LED into a file."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from fendra.cli.options import DesignFile
from fendra.cli.screen import say, say_columns
from fendra.core.quoting import json_text

if TYPE_CHECKING:
    from fendra.core.layout.listing import Listed

_HEADS = ("line", "address", "part", "shape", "from x, y, z", "to x, y, z", "runs", "faces")


def layout(
    design: DesignFile,
    as_json: Annotated[bool, typer.Option("--json", help="Write the rows as JSON.")] = False,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="FILE", help="Write every LED into this .csv or .json.", show_default=False
        ),
    ] = None,
) -> None:
    """List the parts in wire order: line, addresses, where each begins and ends, how it runs.

    Places are in the design's own unit. With --out the file has a row for each LED, in mm; `fendra
    import` reads it.
    """
    from fendra.core.layout.listing import list_parts
    from fendra.files.layout_file import write_layout
    from fendra.front import load

    loaded = load(design)
    placed = loaded.layout()
    rows = list_parts(placed)
    if out is not None:
        say(f"{len(placed.leds)} LEDs: {write_layout(out, loaded, placed)}")
    elif as_json:
        plain = {
            "file": str(design),
            "design": loaded.name,
            "unit": loaded.units,
            "lines": dict(zip(placed.line_names, placed.line_sizes, strict=True)),
            "parts": [row.to_dict() for row in rows],
        }
        typer.echo(json_text(plain))
    else:
        say_columns(_HEADS, [_cells(row) for row in rows], right=("address",))
        sizes = zip(placed.line_names, placed.line_sizes, strict=True)
        total = ", ".join(f"{name} {size}" for name, size in sizes)
        say(f"\n{len(placed.leds)} LEDs. Addresses: {total}. Unit: {loaded.units}.")


def _cells(listed: Listed) -> tuple[str, ...]:
    row = listed.row
    addresses = f"{row.first}" if row.count == 1 else f"{row.first}-{row.last}"
    notes = {"copy": "parallel", "hidden": "hidden"}
    skipped = f", {len(row.skipped)} skipped" if row.skipped else ""
    return (
        listed.line,
        addresses,
        row.name,
        notes.get(row.kind, row.shape) + skipped,
        _point(listed.start),
        _point(listed.end),
        listed.direction,
        listed.facing,
    )


def _point(place: tuple[float, ...] | None) -> str:
    return "" if place is None else ", ".join(f"{round(value, 1):g}" for value in place)
