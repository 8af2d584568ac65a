"""`fendra map`: a picture of where every LED is."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from fendra.cli.options import DesignFile
from fendra.cli.screen import say
from fendra.core.names import ViewName


def map_(
    design: DesignFile,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="FILE",
            help="Picture to write: .png, .svg or .pdf.  [default: NAME-map.png, here]",
            show_default=False,
        ),
    ] = None,
    view: Annotated[ViewName, typer.Option(help="The side that it shows.")] = "top",
    show: Annotated[
        list[str] | None,
        typer.Option(
            metavar="NAME",
            help=(
"Highlight a part, line, group or trail, or whatever a group can hold; "
"repeat it for several. A single trail is coloured from its start to its "
"end."
),
            show_default=False,
        ),
    ] = None,
    canvas: Annotated[
        str, typer.Option(metavar="NAME", help="Draw the LEDs where this canvas puts them.",
                          show_default=False),
    ] = "",
) -> None:  # fmt: skip
    """Draw where every LED is, in wire order, with arrows from data-in on."""
    from fendra.front import load

    path = out or Path(f"{design.stem}-map.png")
    say(f"map: {load(design).save_map(path, view=view, show=show, canvas=canvas)}")
