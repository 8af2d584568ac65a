"""Files that are read whole, and written whole or not at all."""

from __future__ import annotations

import os
import stat
from collections.abc import Callable
from pathlib import Path
from secrets import token_hex

from fendra.core.errors import FileError, reason
from fendra.core.limits import Limit
from fendra.system.files import keep_owner, replace


def read_text(path: Path, limit: Limit | None = None) -> str:
    """A file's text. Raises FileError, also if it has more bytes than the limit."""
    text = decoded(path, read_bytes(path, limit)).removeprefix("\ufeff")
    return text.replace("\r\n", "\n").replace("\r", "\n")


def decoded(path: Path, data: bytes) -> str:
    """The bytes of a file as text. Raises FileError."""
    try:
        return data.decode("utf-8")
    except UnicodeDecodeError as exc:
        raise FileError(
            f"'{path}' is not a text in UTF-8 (byte {exc.start}).", remedy="Save it as UTF-8."
        ) from exc


def read_bytes(path: Path, limit: Limit | None = None, *, is_plain: bool = False) -> bytes:
    """Read a file's contents. Raises FileError.

    limit: the most bytes; more are not read. is_plain: for files that a design names. A pipe or a
    device is then refused, since it may never end.
    """
    try:
        if is_plain and path.exists() and not path.is_file():
            raise FileError(f"'{path}' is {_sort(path)}; name a plain file")
        with path.open("rb") as file:
            data = file.read() if limit is None else file.read(limit.most + 1)
    except FileError:
        raise
    except FileNotFoundError as exc:
        raise FileError(f"there is no file '{path}'", code="no-file") from exc
    except IsADirectoryError as exc:
        raise FileError(f"'{path}' is a folder; name a file in it") from exc
    except (OSError, ValueError) as exc:
        raise FileError(f"'{path}' cannot be read: {reason(exc)}") from exc
    if limit is not None and len(data) > limit.most:
        raise FileError(f"'{path}' is too large: the limit is {limit.in_words}", code="limit")
    return data


def stamp(path: Path) -> str:
    """A text that changes whenever a file does; empty if there is no file."""
    try:
        state = path.stat()
    except OSError:
        return ""
    return f"{state.st_mtime_ns:x}-{state.st_size:x}"


def write_text(path: str | Path, text: str) -> Path:
    """Write a text in UTF-8, whole or not at all. Raises FileError."""
    return write_whole(path, lambda beside: beside.write_text(text, encoding="utf-8"))


def write_whole(path: str | Path, write: Callable[[Path], object]) -> Path:
    """Let `write` fill a new file beside `path`, then put it in its place.

    If `write` fails, the file at `path` stays unchanged. A link stays a link: the file that it
    leads to is replaced. A file keeps its mode, and its owner if possible. Pipes, devices and
    folders are refused. Raises FileError.
    """
    path = Path(path)
    beside: Path | None = None
    try:
        target = Path(os.path.realpath(path))
        before = target.stat() if target.exists() else None
        if before is not None and not stat.S_ISREG(before.st_mode):
            raise FileError(f"'{path}' is {_sort(target)}; name a plain file")
        target.parent.mkdir(parents=True, exist_ok=True)
        beside = new_beside(target)
        write(beside)
        _put_in_place(beside, target, before)
    except FileError:
        raise
    except (FileExistsError, NotADirectoryError) as exc:
        raise FileError(f"'{path}' cannot be written: '{path.parent}' is not a folder") from exc
    except (OSError, ValueError) as exc:
        raise FileError(f"'{path}' cannot be written: {reason(exc)}") from exc
    finally:
        if beside is not None:
            beside.unlink(missing_ok=True)
    return path


def new_beside(target: Path) -> Path:
    """A new, empty file in the folder of another, with its ending. Raises OSError."""
    path = target.with_name(f".{target.stem[:100]}-{token_hex(4)}{target.suffix}")
    os.close(os.open(path, os.O_CREAT | os.O_EXCL | os.O_WRONLY, 0o666))
    return path


def _put_in_place(beside: Path, target: Path, before: os.stat_result | None) -> None:
    """Replace a file by a new one, with the old one's owner and mode."""
    if before is not None:
        keep_owner(beside, before)
        beside.chmod(stat.S_IMODE(before.st_mode))
    with beside.open("rb+") as file:
        os.fsync(file.fileno())  # else a power cut may leave an empty file
    replace(beside, target)


def _sort(path: Path) -> str:
    """The word for a path that is no plain file."""
    mode = path.stat().st_mode
    if stat.S_ISDIR(mode):
        return "a folder"
    return "a pipe" if stat.S_ISFIFO(mode) or stat.S_ISSOCK(mode) else "a device"
