"""`fendra trust`, and `--trust`: which Python files of effects may run.

A design is data; Python that it names is not. Every command that takes a design says so when it
names some that the user has not allowed, and asks where somebody sits at the terminal.
"""

from __future__ import annotations

import functools
import inspect
import sys
import tomllib
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from fendra.cli.screen import say
from fendra.core.names import listed
from fendra.core.quoting import shell_word, visible

if TYPE_CHECKING:
    from fendra.files.trust import Code

TRUST = Annotated[
    bool,
    typer.Option(
        "--trust",
        help="Allow the Python files of effects that DESIGN names to run, now and later.",
    ),
]


def trust(
    files: Annotated[
        list[Path] | None,
        typer.Argument(metavar="[FILE]...", help="Python files of effects.", show_default=False),
    ] = None,
    host: Annotated[
        list[str] | None,
        typer.Option(
            metavar="HOST", help="A host outside your network that designs may connect to."
        ),
    ] = None,
    forget: Annotated[bool, typer.Option("--forget", help="Remove these from the list.")] = False,
) -> None:
    """Allow Python files of effects to run, as they are now. Without a file: list what is allowed.

    Read a file first: it can do all that you can. If it changes, allow it again. A file that is not
    beside a design or below it runs only if you allowed it here. --host allows designs to connect
    to a broker or receiver on the internet.
    """
    from fendra.files import trust as store

    for path in files or ():
        if forget:
            count = store.distrust(path)
            say(f"{path} may not run any more" if count else f"{path} was not allowed")
        else:
            store.trust(path)
            say(f"{path} may run until it changes")
    for name in host or ():
        if forget:
            count = store.distrust_host(name)
            say(
                f"designs may not connect to {name} any more"
                if count
                else f"{name} was not allowed"
            )
        else:
            store.trust_host(name)
            say(f"designs may connect to {name}")
    if not files and not host:
        rows = store.trusted()
        for digest, name in rows:
            say(f"{digest[:12]}  {name}")
        say(f"{len(rows)} allowed; the list is {store.store_path()}")


def asking(command: Callable[..., None]) -> Callable[..., None]:
    """A command with the option `--trust`, which asks before Python of its design runs.

    The design is the argument `design`, or `first` if that may be something else.
    """

    @functools.wraps(command)
    def asked(*args: Any, trust: bool = False, **options: Any) -> None:
        named = [options.get(key) for key in ("design", "first", "other")]
        for path in {Path(name) for name in named if name is not None}:
            if path.suffix == ".toml":
                held = allow(path, is_trusted=trust, is_live=command.__name__ == "run")
                if held and command.__name__ != "check":  # which finds it
                    _say_held(path, held)
        command(*args, **options)

    signature = inspect.signature(command, eval_str=True)
    option = inspect.Parameter(
        "trust", inspect.Parameter.KEYWORD_ONLY, default=False, annotation=TRUST
    )
    parameters = [*signature.parameters.values(), option]
    asked.__signature__ = signature.replace(parameters=parameters)  # type: ignore[attr-defined]
    asked.__annotations__ = {each.name: each.annotation for each in parameters}
    return asked


def allow(design: Path, *, is_trusted: bool, is_live: bool) -> list[Code]:
    """Allow the Python files that a design names, or some; gives those that may not run.

    is_trusted: the user said `--trust`. is_live: the files may change meanwhile, in the user's
    hands. What is wrong with the design is for others to say.
    """
    from fendra.files.trust import trust as keep
    from fendra.files.trust import trust_for_now

    held = _held(design, all_of_them=is_trusted and is_live)
    near = [code for code in held if code.is_near]
    if near and not is_trusted and sys.stdin.isatty() and sys.stderr.isatty():
        is_trusted = _agrees(design, near)
    if is_trusted:
        for code in near:
            keep(code.path)
            if is_live:
                trust_for_now(code.path)
        held = [code for code in held if not code.is_near]
    return held


def _held(design: Path, *, all_of_them: bool) -> list[Code]:
    """The Python files of a design that may not run, or all of them."""
    from fendra.core.errors import FileError
    from fendra.core.limits import DESIGN_BYTES
    from fendra.files.trust import read_code
    from fendra.whole import read_text

    try:
        text = read_text(design, DESIGN_BYTES) if design.is_file() else ""
        raw = tomllib.loads(text) if "effects" in text else {}
    except (FileError, tomllib.TOMLDecodeError, RecursionError):
        return []
    names = raw.get("effects")
    held = []
    for name in names if isinstance(names, list) else ():
        try:
            code = read_code(design.parent / str(name), design.parent)
        except FileError:
            continue
        if all_of_them or not code.may_run:
            held.append(code)
    return held


def _agrees(design: Path, held: Sequence[Code]) -> bool:
    """Ask whether Python may run. Anything but yes is no."""
    names = listed([f"{code.path.name} ({len(code.text.splitlines())} lines)" for code in held])
    print(
        visible(f"{design} brings Python: {names}. It can do all that you can. Read it first."),
        file=sys.stderr,
    )
    print("Run it, now and later, until it changes? [y/N]", end="", file=sys.stderr)
    sys.stderr.flush()
    return sys.stdin.readline().strip().lower() in ("y", "yes")


def _say_held(design: Path, held: Sequence[Code]) -> None:
    names = listed([code.path.name for code in held])
    files = " ".join(shell_word(_short(code.path)) for code in held)
    print(
        visible(f"note: {names} of {design} may not run, so layers that need it are left out.")
        + f" Read it, then allow it: fendra trust {files}",
        file=sys.stderr,
    )


def _short(path: Path) -> str:
    """A path from here, if it is below; else in full."""
    here = Path.cwd()
    return str(path.relative_to(here)) if path.is_relative_to(here) else str(path)
