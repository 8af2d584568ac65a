"""`fendra page`: a design that runs by itself in the browser, as one file."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from fendra.cli.film import say_if_unfed
from fendra.cli.made_up import AnyTape, Long, Sets, Steps, Sweeps, Toggles, tape_for
from fendra.cli.options import DesignFile
from fendra.cli.screen import progress, say


def page(
    design: DesignFile,
    other: Annotated[
        Path | None,
        typer.Argument(
            metavar="OTHER", help="Another design, shown beside it.", show_default=False
        ),
    ] = None,
    vary: Annotated[
        str | None,
        typer.Option(
            metavar="LAYER.KEY=A,B",
            help="Show the same design beside it, with another value of one parameter.",
            show_default=False,
        ),
    ] = None,
    tape: AnyTape = None,
    sets: Sets = None,
    sweeps: Sweeps = None,
    steps: Steps = None,
    toggles: Toggles = None,
    duration: Long = None,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="FILE", help="The file to write.  [default: NAME.html]",
            show_default=False,
        ),
    ] = None,
) -> None:  # fmt: skip
    """Write one HTML file that runs the design in any browser, from disk, without a network.

    Without a tape you set the signals by hand, on the page.
    """
    from fendra.cli.compare import side_by_side
    from fendra.front import load

    loaded = load(design)
    if other is not None and vary is not None:
        raise typer.BadParameter("give another design or --vary, not both")
    beside, labels = None, ("", "")
    if other is not None or vary is not None:
        designs, names = side_by_side(loaded, design, other, vary)
        if len(designs) != 2:
            raise typer.BadParameter("a page compares two values: --vary LAYER.KEY=A,B")
        (loaded, beside), labels = designs, (names[0], names[1])
    is_played = tape is not None or any((sets, sweeps, steps, toggles))
    played = tape_for(loaded, tape, sets, sweeps, steps, toggles, duration) if is_played else None
    if played is not None:
        say_if_unfed(loaded.examined.sound.plan.fed, played)
    target = out or Path(f"{design.stem}.html")
    with progress("writing the page"):
        made = loaded.page(target, played, other=beside, labels=labels)
    assert made.path is not None
    size = made.path.stat().st_size
    say(f"page: {made.path} ({size / 1e6:.2f} MB). Open it in a browser.")
