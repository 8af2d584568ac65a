"""Which Python files of effects may run: those that the user has allowed.

A design is data, and may come from a stranger; Python that it names can do all that its user can.
So a file runs only if this user has allowed its exact contents (by SHA-256). A file that is not
beside the design or below it must have been allowed at its own path. `trusted.txt`, in the user's
folder of settings, has a line for each allowed file: digest and path.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path

from platformdirs import user_config_path

from fendra.core.errors import FileError
from fendra.core.limits import CODE_BYTES
from fendra.whole import read_bytes, read_text, write_text

_HEAD = "# What designs may use: Python files, each with its SHA-256, and hosts.\n"
_HOST = "host "
_live: set[Path] = set()


@dataclass(frozen=True)
class Code:
    """A Python file of effects.

    path: its real path. text: its contents. is_near: it is beside the design that names it, or
    below.
    """

    path: Path
    text: bytes
    is_near: bool

    @property
    def digest(self) -> str:
        return sha256(self.text).hexdigest()

    @property
    def may_run(self) -> bool:
        """Whether the user has allowed it."""
        if self.path in _live:
            return True
        kept = _kept()
        return (self.digest, str(self.path)) in kept or (
            self.is_near and any(digest == self.digest for digest, _ in kept)
        )


def read_code(path: Path, folder: Path) -> Code:
    """A Python file that a design names. folder: the design's. Raises FileError."""
    real = path.resolve()
    text = read_bytes(path, CODE_BYTES, is_plain=True)
    return Code(real, text, real.is_relative_to(folder.resolve()))


def trust(path: str | Path) -> None:
    """Allow a Python file of effects to run until it changes.

    Every design that names it may run it from now on, for this user. Read it first: it can do all
    that you can. Raises FileError.
    """
    code = read_code(Path(path), Path(path).parent)
    _keep({*_kept(), (code.digest, str(code.path))})


def trust_for_now(path: Path) -> None:
    """Allow a Python file in this process, whatever it will hold: the user is writing it."""
    _live.add(path.resolve())


def trust_host(host: str) -> None:
    """Allow designs to connect to a host outside the user's own network. Raises FileError."""
    _keep({*_kept(), _row_of(host)})


def is_trusted_host(host: str) -> bool:
    """Whether the user has allowed designs to connect to a host."""
    return _row_of(host) in _kept()


def distrust_host(host: str) -> int:
    """Allow a host no longer; gives how many entries went. Raises FileError."""
    before = _kept()
    after = before - {_row_of(host)}
    _keep(after)
    return len(before) - len(after)


def _row_of(host: str) -> tuple[str, str]:
    """The row for a host in the list: a digest and the host, as for a file."""
    what = f"{_HOST}{host.lower()}"
    return sha256(what.encode()).hexdigest(), what


def distrust(path: str | Path) -> int:
    """Allow a file no longer, nor others that hold the same; gives how many entries went.

    Raises FileError.
    """
    real = Path(path).resolve()
    digest = sha256(read_bytes(real)).hexdigest() if real.is_file() else ""
    before = _kept()
    after = {each for each in before if each[0] != digest and each[1] != str(real)}
    _live.discard(real)
    _keep(after)
    return len(before) - len(after)


def trusted() -> list[tuple[str, str]]:
    """The allowed files: digest and path of each, by path. Raises FileError."""
    return sorted(_kept(), key=lambda each: each[::-1])


def store_path() -> Path:
    """The path of the list of allowed files and hosts."""
    return user_config_path("fendra", appauthor=False) / "trusted.txt"


def _kept() -> set[tuple[str, str]]:
    try:
        text = read_text(store_path())
    except FileError as exc:
        if exc.code == "no-file":
            return set()
        raise
    rows = (line.split(" ", 1) for line in text.splitlines() if line[:1] != "#")
    return {(row[0], row[1]) for row in rows if len(row) == 2 and len(row[0]) == 64}


def _keep(rows: Iterable[tuple[str, str]]) -> None:
    lines = (f"{digest} {path}\n" for digest, path in sorted(rows) if "\n" not in path)
    write_text(store_path(), _HEAD + "".join(lines))
