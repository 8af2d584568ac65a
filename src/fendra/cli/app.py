"""`fendra`: the commands, and how every error becomes one line and an exit code."""

from __future__ import annotations

import functools
import gc
import io
import sys
import warnings
from collections.abc import Callable
from inspect import signature
from typing import Any

import typer

from fendra import __version__
from fendra.cli.check import check
from fendra.cli.compare import compare
from fendra.cli.demo import demo
from fendra.cli.devices import devices
from fendra.cli.effects import effects
from fendra.cli.emit import emit
from fendra.cli.explain import explain
from fendra.cli.film import film
from fendra.cli.import_ import import_
from fendra.cli.layout import layout
from fendra.cli.listen import listen
from fendra.cli.map import map_
from fendra.cli.new import new
from fendra.cli.page import page
from fendra.cli.presets import presets
from fendra.cli.probe import probe
from fendra.cli.run import run
from fendra.cli.schema import schema
from fendra.cli.served import with_page_address
from fendra.cli.sheet import sheet
from fendra.cli.simulate import simulate
from fendra.cli.trust import asking, trust
from fendra.core.errors import (
    ClockError,
    FendraError,
    FileError,
    LayoutError,
    SignalError,
    TapeError,
    TrustWarning,
    internal_error,
)
from fendra.core.quoting import in_lines
from fendra.system.process import A_PORT
from fendra.system.terminal import make_ready

FINDINGS, USAGE, INTERNAL = 1, 2, 3
"""Exit codes: see `EXITS`."""
EXITS = (
    "Begin with: fendra demo\n\nExit codes: 0 if all went well; 1 if the design has errors, "
    "or cannot be run or delivered as it is;\n2 for a wrong option, name or file; 3 for a "
    "fault in Fendra."
)
BY_NAME = (FileError, LayoutError, SignalError, TapeError, ClockError)
"""Errors about what the user named: a file, a part, a signal, a tape, a moment."""


DESK = frozenset({"jinja2", "matplotlib", "pandas", "scipy", "svgelements"})
"""Packages of the extra `desk`, which a computer that only runs a design does without."""

DRAWING = frozenset({"sheet", "map_", "film", "compare"})
"""Commands that draw with Matplotlib."""


class Commands(typer.core.TyperGroup):
    """The commands; `--page` works without an address, and all errors have our wording."""

    def parse_args(self, ctx: Any, args: list[str]) -> list[str]:
        return super().parse_args(ctx, with_page_address(args))

    def invoke(self, ctx: Any) -> Any:
        try:
            return super().invoke(ctx)
        except typer.BadParameter as exc:
            exc.message = exc.message.removeprefix("Value error, ")
            raise


app = typer.Typer(
    cls=Commands,
    name="fendra",
    help="Light built into things: map LEDs, bind effects to live state, look, then put it on.",
    epilog=EXITS,
    no_args_is_help=True,
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
        False, "--version", help="Print the version.", callback=_show_version, is_eager=True
    ),
) -> None:
    pass


def _safe(command: Callable[..., None]) -> Callable[..., None]:
    """A command whose usage errors show texts of a design or a source without obeying them."""

    @functools.wraps(command)
    def run_safely(*args: Any, **options: Any) -> None:
        if command.__name__ in DRAWING:
            from fendra.draw.lean import lean_import

            lean_import()
        try:
            command(*args, **options)
        except typer.BadParameter as exc:
            exc.message = in_lines(exc.message)
            raise

    return run_safely


for name, function, about, example in (
    ("demo", demo, "Try everything on a cargo trike with a recorded ride.", "demo --into trying"),
    ("new", new, "Write a design to begin with.", "new glider --like drone"),
    ("schema", schema, "Write the schema of designs, for editors.",
     "schema --out fendra.schema.json"),
    ("check", check, "Check a design: list what is wrong, with cures, and what it draws.",
     "check heron.toml --tape ride.csv"),
    ("sheet", sheet, "Write the build sheet: wiring, supplies, fuses, tests.",
     "sheet heron.toml --tape ride.csv"),
    ("map", map_, "Draw where every LED is.", "map heron.toml --out heron-map.png"),
    ("layout", layout, "List the parts, or write every LED into a file.",
     "layout heron.toml --out heron-leds.csv"),
    ("import", import_, "Make parts from a file of positions.",
     "import board.csv --only 'D*' --order name --into pad.toml"),
    ("probe", probe, "Test the map on the real LEDs.",
     f"probe heron.toml walk --line tail --to serial:{A_PORT}"),
    ("effects", effects, "List the effects, or show one in full.", "effects gauge"),
    ("presets", presets, "Keep an effect's settings under a name, for other designs.",
     "presets save heron.toml 'turn left, front' --as quick-turn"),
    ("film", film, "Draw a tape, or made-up values: film strip, still, animation.",
     "film heron.toml --sweep rpm=0:5200:6s --set lights=on --timeline"),
    ("page", page, "Write one HTML file that runs the design in a browser.",
     "page heron.toml --tape ride.csv --out heron.html"),
    ("compare", compare, "Compare two designs, or one key at several values, on one tape.",
     "compare heron.toml --vary rpm.threshold=4000,4700 --tape ride.csv"),
    ("explain", explain, "Say why an LED looks as it does at a moment.",
     "explain heron.toml --tape ride.csv --at 31.5 --spot tail-bar:4"),
    ("devices", devices, "List what is plugged in: ports, sound, screens, controllers, lamps.",
     "devices sound"),
    ("listen", listen, "Show every live signal; learn its range.",
     "listen heron.toml --from udp:9400 --learn"),
    ("simulate", simulate, "Play a tape as a game, a bus, an autopilot, a broker would send it.",
     "simulate game"),
    ("emit", emit, "Write firmware: the same light on a controller.",
     "emit heron.toml --target arm --tape ride.csv"),
    ("run", run, "Run a design live: from its sources to its outputs.",
     f"run heron.toml --tape ride.csv --to serial:{A_PORT},baud=500000"),
    ("trust", trust, "Allow Python files of effects to run, or list them.",
     "trust stripes.py"),
):  # fmt: skip
    takes_design = {"design", "first"} & {*signature(function).parameters}
    command = asking(function) if takes_design else function
    app.command(name, short_help=about, epilog=f"Example: fendra {example}")(_safe(command))


def main() -> None:
    """Run the command line."""
    # Imported objects stay: searching them for garbage takes a tenth.
    gc.set_threshold(100_000, 20, 20)
    make_ready()
    for stream in (sys.stdout, sys.stderr):
        if isinstance(stream, io.TextIOWrapper):  # a terminal without a letter shows its code
            stream.reconfigure(errors="backslashreplace")
    warnings.simplefilter("ignore", TrustWarning)  # each command says it in its own words
    try:
        app()
    except FendraError as exc:
        print(in_lines(str(exc)), file=sys.stderr)
        is_named = isinstance(exc, BY_NAME) or exc.code == "unknown-name"
        sys.exit(USAGE if is_named else FINDINGS)
    except ModuleNotFoundError as exc:
        name = (exc.name or "").partition(".")[0]
        if name not in DESK:
            raise
        said = f"this needs the package '{name}', which the small install does not have"
        print(f"{said}: pip install 'fendra[desk]'", file=sys.stderr)
        sys.exit(FINDINGS)
    except OSError as exc:  # a disk, a folder or a network failed
        print(in_lines(f"fendra {' '.join(sys.argv[1:2])}: {exc}"), file=sys.stderr)
        sys.exit(USAGE)
    except Exception as exc:  # not one of our errors: a fault in Fendra
        where = f"in fendra {' '.join(sys.argv[1:2])}"
        print(in_lines(internal_error(exc, where)), file=sys.stderr)
        sys.exit(INTERNAL)
