"""The store of compiled libraries: one private folder a user.

A file's name comes from its source and its contents. So a library that was cut short or changed is
never loaded, which could end the process; it is removed and made again. If somebody else could
write to the folder, or to one above it, each library is made in a private folder and not kept.
"""

from __future__ import annotations

import os
import shutil
import stat
import tempfile
from collections.abc import Callable
from contextlib import suppress
from hashlib import sha256
from pathlib import Path

from platformdirs import user_cache_path

MOST_FILES = 100
"""Libraries kept; those not used for the longest time go first."""
_SHOWN = 40
"""Digits of a digest that stand in a name."""


def folder() -> Path:
    """The user's folder of compiled libraries."""
    return user_cache_path("fendra", appauthor=False) / "native"


def find_or_make(made_from: str, make: Callable[[Path], None]) -> tuple[Path, bool]:
    """Find the library made from a text, or make it: `make` writes it to a path.

    Returns the path, and whether it stays; give one that does not stay to `forget` once it is
    loaded. Several processes may ask at once: each file appears whole, or not at all. Raises
    OSError if there is no place at all.
    """
    key = sha256(made_from.encode()).hexdigest()[:_SHOWN]
    try:
        place = folder()
        place.mkdir(mode=0o700, parents=True, exist_ok=True)
        if not is_private(place):
            return _made_apart(make), False
        found = _find(place, key)
        if found is not None:
            return found, True
        made = _make(make, place, key)
        _prune(place)
    except OSError:  # no home, or none that can be written to
        return _made_apart(make), False
    return made, True


def forget(path: Path) -> None:
    """Remove a library that cannot be loaded or is not kept, with a folder made for it alone."""
    path.unlink(missing_ok=True)
    if path.parent != folder():
        shutil.rmtree(path.parent, ignore_errors=True)


def is_private(place: Path) -> bool:
    """Whether only its owner and the system's administrator can change the contents of a folder.

    That holds if neither it nor any folder above it belongs to somebody else or can be written by
    others, except folders like /tmp, in which each user may change only his own files.
    """
    if not hasattr(os, "getuid"):
        return True  # on Windows a user's folders are his own unless he says otherwise
    real = place.resolve()
    return all(map(_is_safe, {place, *place.absolute().parents, real, *real.parents}))


def _is_safe(item: Path) -> bool:
    about = item.stat()
    is_own = about.st_uid in (0, os.getuid())
    is_shared = bool(about.st_mode & 0o022)
    return is_own and (not is_shared or bool(about.st_mode & stat.S_ISVTX))


def _is_own(path: Path) -> bool:
    """Whether a file is ours and only we may write to it."""
    about = path.lstat()
    if not stat.S_ISREG(about.st_mode) or not hasattr(os, "getuid"):
        return stat.S_ISREG(about.st_mode)
    return about.st_uid == os.getuid() and not about.st_mode & 0o022


def _find(place: Path, key: str) -> Path | None:
    """The library of a key that is as it was made; others of that key are removed."""
    for path in place.glob(f"{key}-*.so"):
        with suppress(FileNotFoundError):
            if _is_own(path) and path.stem.partition("-")[2] == _digest(path):
                path.touch()
                return path
        path.unlink(missing_ok=True)
    return None


def _digest(path: Path) -> str:
    return sha256(path.read_bytes()).hexdigest()[:_SHOWN]


def _made_apart(make: Callable[[Path], None]) -> Path:
    """A library in its own folder, which no other user can read."""
    place = Path(tempfile.mkdtemp(prefix="fendra-"))
    try:
        if not is_private(place):
            raise PermissionError(1, f"others can write to {place.parent}")
        make(place / "made.so")
    except BaseException:
        shutil.rmtree(place, ignore_errors=True)
        raise
    return place / "made.so"


def _make(make: Callable[[Path], None], place: Path, key: str) -> Path:
    handle, name = tempfile.mkstemp(dir=place, suffix=".part")
    os.close(handle)
    part = Path(name)
    try:
        make(part)
        part.chmod(0o700)
        target = place / f"{key}-{_digest(part)}.so"
        part.replace(target)
    finally:
        part.unlink(missing_ok=True)
    return target


def _prune(place: Path) -> None:
    """Delete the oldest libraries; another process may be doing the same."""
    ages = []
    for path in place.glob("*.so"):
        with suppress(FileNotFoundError):
            ages.append((path.stat().st_mtime, path))
    for _, path in sorted(ages, reverse=True)[MOST_FILES:]:
        path.unlink(missing_ok=True)
