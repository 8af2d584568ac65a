"""Arguments and options that several commands have."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, TypeAlias

import typer

DesignFile: TypeAlias = Annotated[
    Path, typer.Argument(metavar="DESIGN", help="The design, a TOML file.", show_default=False)
]
TapeFile: TypeAlias = Annotated[
    Path,
    typer.Option(
        "--tape",
        metavar="TAPE",
        help="Signals over time: a CSV file with a column `time` in seconds.",
        show_default=False,
    ),
]
