"""`fendra new`: a design to begin with."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Annotated, Literal

import typer

from fendra.cli.demo import activation
from fendra.cli.schema import SCHEMA_FILE
from fendra.cli.screen import say

Kind = Literal["trike", "drone", "pad", "cabinet", "bare"]

_FILES = {
    "trike": ("heron.toml", "ride.csv"),
    "drone": ("drone.toml", "flight.csv"),
    "pad": ("pad.toml", "typing.csv"),
    "cabinet": ("cabinet.toml", "game.csv"),
    "bare": ("bare.toml", "lever.csv"),
}
"""Kind to the design that it begins with, and the tape to try it with."""


def new(
    name: Annotated[
        str, typer.Argument(metavar="NAME", help="The name of the thing.", show_default=False)
    ],
    like: Annotated[Kind, typer.Option(help="The example to begin with.")] = "bare",
    into: Annotated[
        Path, typer.Option(metavar="FOLDER", help="The folder to write into.")
    ] = Path(),
) -> None:
    """Write a commented design NAME.toml, a tape to try it with, and the schema for editors.

    A design that exists already stays as it is.
    """
    from fendra.core.errors import FileError
    from fendra.core.toml_text import value_text
    from fendra.demo import demo_file
    from fendra.schema import schema_text
    from fendra.whole import write_text

    title = name.strip()
    if not title or not title.isprintable() or len(title) > 80:
        raise typer.BadParameter("a name is a text of 1 to 80 characters", param_hint="NAME")
    stem = re.sub(r"[^\w-]+", "-", title).strip("-").casefold()
    path = into / f"{stem or 'design'}.toml"
    if path.exists():
        raise FileError(f"'{path}' exists already and stays as it is; choose another name")
    shipped, tape = _FILES[like]
    text = demo_file(shipped).read_text(encoding="utf-8")
    text = re.sub(
        r"^name = .*$", lambda _: f"name = {value_text(title)}", text, count=1, flags=re.M
    )
    text = f"#:schema ./{SCHEMA_FILE}\n\n{text.replace(shipped, path.name)}"
    write_text(path, text)
    schema_path, tape_path = into / SCHEMA_FILE, into / tape
    write_text(schema_path, schema_text())
    if not tape_path.exists():
        write_text(tape_path, demo_file(tape).read_text(encoding="utf-8"))
    say(f"{path}: a design like {f'the {like}' if like != 'bare' else 'a strip of 30 LEDs'}")
    say(f"{tape_path}: signals over time, to try it with")
    say(f"{schema_path}: the keys of a design, for editors that complete and check them")
    say("Next:", style="bold")
    for what, then in (
        *((each, "makes the command `fendra` known in this terminal") for each in activation()),
        (f"edit {path}", "write down your lines and parts, in the order of the wire"),
        (f"fendra check {path}", "lists what is wrong, and what it draws"),
        (f"fendra map {path}", "draws where every LED is"),
        (f"fendra film {path} --tape {tape_path}", "plays the tape and draws pictures"),
        (f"fendra sheet {path}", "writes the build sheet for the workbench"),
        (f"fendra probe {path} --to serial:PORT", "tests the map on the real LEDs"),
    ):
        say(f"  {what:<48} {then}")
