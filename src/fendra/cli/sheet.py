"""`fendra sheet`: the build sheet, for the workbench."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from fendra.cli.check import check_on
from fendra.cli.film import say_if_unfed
from fendra.cli.options import DesignFile
from fendra.cli.screen import count_findings, progress, say
from fendra.core.names import ViewName


def sheet(
    design: DesignFile,
    tape: Annotated[
        Path | None,
        typer.Option(
            metavar="TAPE",
            help="Signals over time, CSV: for the currents that the design really draws.",
            show_default=False,
        ),
    ] = None,
    out: Annotated[
        Path | None,
        typer.Option(
            metavar="FILE",
            help="The page to write.  [default: NAME-sheet.html]",
            show_default=False,
        ),
    ] = None,
    view: Annotated[
        ViewName | None,
        typer.Option(
            help="The side that the map shows.  [default: the one that shows most]",
            show_default=False,
        ),
    ] = None,
) -> None:
    """Write the build sheet: one HTML page that opens from disk and prints on A4.

    It has the map, the wiring diagram, supplies with fuses and leads, parts in wire order with
    their solder ends, current and voltage plots, materials, and the bench test with boxes to tick.
    """
    from fendra.core.errors import DesignError
    from fendra.core.findings import errors_of
    from fendra.sheet.page import make_page
    from fendra.whole import write_text

    path = out or Path(f"{design.stem}-sheet.html")
    checked, played = check_on(design, tape)
    if checked.has_errors or checked.subject is None:
        raise DesignError(errors_of(checked.findings))
    if played is not None:
        say_if_unfed(checked.subject.plan.fed, played)
    with progress("drawing"):
        page = make_page(checked.subject, checked.findings, view)
    say(f"sheet: {write_text(path, page)}")
    if checked.findings:
        say(f"{design}: {count_findings(checked.findings)}, at the top of the sheet")
