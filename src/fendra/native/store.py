"""The store of compiled libraries: one folder a user, files named by what they were made from."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from hashlib import sha256
from pathlib import Path

from platformdirs import user_cache_path

MOST_FILES = 100
"""Libraries kept; those not used for the longest time go first."""


def folder() -> Path:
    """The user's folder of compiled libraries."""
    return user_cache_path("fendra", appauthor=False) / "native"


def find_or_make(made_from: str, make: Callable[[Path], None]) -> tuple[Path, bool]:
    """The library that was made from a text; `make` writes it to a path if there is none.

    Gives the path, and whether it stays; one that does not is to be deleted once it is loaded.
    Several processes may ask at once: each file appears whole, or not at all.
    """
    name = sha256(made_from.encode()).hexdigest()[:40] + ".so"
    try:
        place = folder()
        place.mkdir(mode=0o700, parents=True, exist_ok=True)
        target = place / name
        if is_ours(target):
            target.touch()
            return target, True
        _write(make, target)
        _prune(place)
    except OSError:  # no home, or none that can be written to
        return _made_apart(make), False
    return target, True


def is_ours(path: Path) -> bool:
    """Whether a file is there, is not empty, and nobody else could have written it."""
    try:
        about, above = path.stat(), path.parent.stat()
    except FileNotFoundError:
        return False
    if not hasattr(os, "getuid"):
        return about.st_size > 0
    is_private = all(
        item.st_uid == os.getuid() and not item.st_mode & 0o022 for item in (about, above)
    )
    return about.st_size > 0 and is_private


def _made_apart(make: Callable[[Path], None]) -> Path:
    handle, path = tempfile.mkstemp(suffix=".so", prefix="fendra-")
    os.close(handle)
    try:
        make(Path(path))
    except BaseException:
        Path(path).unlink(missing_ok=True)
        raise
    return Path(path)


def _write(make: Callable[[Path], None], target: Path) -> None:
    handle, path = tempfile.mkstemp(dir=target.parent, suffix=".part")
    os.close(handle)
    part = Path(path)
    try:
        make(part)
        part.chmod(0o700)
        part.replace(target)
    finally:
        part.unlink(missing_ok=True)


def _prune(place: Path) -> None:
    """Delete the oldest libraries; another process may be doing the same."""
    ages = []
    for path in place.glob("*.so"):
        try:
            ages.append((path.stat().st_mtime, path))
        except FileNotFoundError:
            continue
    for _, path in sorted(ages, reverse=True)[MOST_FILES:]:
        path.unlink(missing_ok=True)
