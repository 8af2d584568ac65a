"""`fendra`: the commands, and how every error becomes one line and an exit code."""

from __future__ import annotations

import io
import sys

import typer

from fendra import __version__
from fendra.cli.check import check
from fendra.cli.demo import demo
from fendra.cli.film import film
from fendra.cli.import_ import import_
from fendra.cli.layout import layout
from fendra.cli.map import map_
from fendra.cli.new import new
from fendra.cli.probe import probe
from fendra.cli.run import run
from fendra.cli.schema import schema
from fendra.core.errors import FendraError, FileError

FINDINGS, USAGE = 1, 2
"""Exit codes: findings of severity error, or frames that could not be delivered; and usage."""

app = typer.Typer(
    name="fendra",
    help="Light built into things: map LEDs, bind effects to live state, look, then put it on.",
    epilog="Begin with: fendra demo",
    no_args_is_help=True,
    add_completion=False,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
    context_settings={"help_option_names": ["-h", "--help"], "max_content_width": 100},
)


def _show_version(wanted: bool) -> None:
    if wanted:
        typer.echo(f"fendra {__version__}")
        raise typer.Exit


@app.callback()
def _fendra(
    version: bool = typer.Option(
        False, "--version", help="Say the version.", callback=_show_version, is_eager=True
    ),
) -> None:
    pass


app.command(epilog="Example: fendra demo --into trying")(demo)
app.command(epilog="Example: fendra new glider --like drone")(new)
app.command(epilog="Example: fendra schema --out fendra.schema.json")(schema)
app.command(epilog="Example: fendra check heron.toml")(check)
app.command("map", epilog="Example: fendra map heron.toml --out heron-map.png")(map_)
app.command(epilog="Example: fendra layout heron.toml --out heron-leds.csv")(layout)
app.command(
    "import", epilog="Example: fendra import board.csv --only 'D*' --order name --into pad.toml"
)(import_)
app.command(epilog="Example: fendra probe heron.toml walk --line tail --to serial:/dev/ttyUSB0")(
    probe
)
app.command(epilog="Example: fendra film heron.toml --tape ride.csv --at 40.6")(film)
app.command(
    epilog="Example: fendra run heron.toml --tape ride.csv --to serial:/dev/ttyUSB0,baud=500000"
)(run)


def main() -> None:
    """Run the command line."""
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):  # a terminal without a letter shows its code
            stream.reconfigure(errors="backslashreplace")
    try:
        app()
    except FendraError as exc:
        print(str(exc), file=sys.stderr)
        sys.exit(USAGE if isinstance(exc, FileError) else FINDINGS)
