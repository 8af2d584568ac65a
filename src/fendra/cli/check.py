"""`fendra check`: everything there is to say about a design."""

from __future__ import annotations

import json
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.options import DesignFile
from fendra.cli.screen import count_findings, say, say_findings
from fendra.core.names import counted

if TYPE_CHECKING:
    from fendra.core.design import Design
    from fendra.files.design_file import Checked


def check(
    design: DesignFile,
    as_json: Annotated[bool, typer.Option("--json", help="Write one JSON object.")] = False,
) -> None:
    """Check a design: every finding with its place and what to do.

    Ends with 0 when there is no error, 1 when there is one, 2 when the file cannot be read.
    """
    from fendra.files.design_file import check_file

    checked = check_file(design)
    if as_json:
        typer.echo(json.dumps(to_plain(design, checked), indent=2, ensure_ascii=False))
    else:
        say_findings(checked.findings)
        if checked.design is not None and not checked.has_errors:
            say(in_one_line(checked.design))
        say(f"{design}: {count_findings(checked.findings)}")
    raise typer.Exit(1 if checked.has_errors else 0)


def in_one_line(design: Design) -> str:
    """A design in one line."""
    from fendra.core.layout import place

    leds = len(place(design).leds)
    about = f" ({design.about})" if design.about else ""
    counts = [
        counted(leds, "LED"),
        counted(len(design.line), "line"),
        counted(len(design.signals), "signal"),
        counted(len(design.layer), "layer"),
    ]
    return f"{design.name}{about}: {', '.join(counts)}, {design.rate:g} frames a second"


def to_plain(path: Path, checked: Checked) -> dict[str, Any]:
    """What `--json` writes."""
    return {
        "file": str(path),
        "design": checked.design.name if checked.design is not None else None,
        "ok": not checked.has_errors,
        "findings": [finding.to_dict() for finding in checked.findings],
    }
