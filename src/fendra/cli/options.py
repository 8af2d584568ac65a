"""Arguments and options that several commands have."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, TypeAlias

import typer

from fendra.native.names import EngineName

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
Engine: TypeAlias = Annotated[
    EngineName,
    typer.Option(
        help=(
            "What runs the design: numpy; native, code from this machine's C compiler; "
            "wasm, which needs fendra[wasm] and no compiler; or auto, the quickest for its "
            "size. All give the same light."
        )
    ),
]
AsJson: TypeAlias = Annotated[bool, typer.Option("--json", help="Write one JSON object.")]
