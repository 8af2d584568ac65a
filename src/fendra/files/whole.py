"""Files that are written whole or not at all."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from pathlib import Path

from fendra.core.errors import FileError


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
