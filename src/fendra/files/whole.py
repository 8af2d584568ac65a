"""Files that are read whole, and written whole or not at all."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from pathlib import Path

from fendra.core.errors import FileError


def read_text(path: Path) -> str:
    """A file's text. Raises FileError."""
    try:
        return path.read_text(encoding="utf-8")
    except FileNotFoundError as exc:
        raise FileError(f"there is no file '{path}'", code="no-file") from exc
    except IsADirectoryError as exc:
        raise FileError(f"'{path}' is a folder; name a file in it") from exc
    except UnicodeDecodeError as exc:
        raise FileError(f"'{path}' is not a text in UTF-8 (byte {exc.start})") from exc
    except (OSError, ValueError) as exc:
        raise FileError(f"'{path}' cannot be read: {getattr(exc, 'strerror', exc)}") from exc


def write_text(path: str | Path, text: str) -> Path:
    """Write a text in UTF-8, whole or not at all. Raises FileError."""
    return write_whole(path, lambda beside: beside.write_text(text, encoding="utf-8"))


def write_whole(path: str | Path, write: Callable[[Path], object]) -> Path:
    """Let `write` fill a new file beside `path`, then put it in its place.

    What stood at `path` stays as it was when `write` fails. Raises FileError.
    """
    path = Path(path)
    handle = -1
    beside: Path | None = None
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, name = tempfile.mkstemp(
            suffix=path.suffix, prefix=f".{path.stem}-", dir=path.parent
        )
        os.close(handle)
        beside = Path(name)
        write(beside)
        beside.chmod(0o644)
        beside.replace(path)
    except (FileExistsError, NotADirectoryError) as exc:
        raise FileError(f"'{path}' cannot be written: '{path.parent}' is no folder") from exc
    except OSError as exc:
        raise FileError(f"'{path}' cannot be written: {exc.strerror or exc}") from exc
    finally:
        if beside is not None:
            beside.unlink(missing_ok=True)
    return path
