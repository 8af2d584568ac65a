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

from fendra.system.files import is_others, is_private, remove_loaded
from fendra.system.process import LIBRARY_ENDING

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
    """Remove a library that cannot be loaded or is not kept, with a folder made for it alone; as
    far as the system allows.
    """
    with suppress(OSError):
        remove_loaded(path)
    if path.parent != folder():
        shutil.rmtree(path.parent, ignore_errors=True)


def _is_own(path: Path) -> bool:
    """Whether a file is ours and only we may write to it."""
    about = path.lstat()
    return stat.S_ISREG(about.st_mode) and not is_others(about)


def _find(place: Path, key: str) -> Path | None:
    """The library of a key that is as it was made; others of that key are removed."""
    for path in place.glob(f"{key}-*{LIBRARY_ENDING}"):
        with suppress(FileNotFoundError):
            if _is_own(path) and path.stem.partition("-")[2] == _digest(path):
                path.touch()
                return path
        with suppress(PermissionError):  # another process has it loaded
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
        make(place / f"made{LIBRARY_ENDING}")
    except BaseException:
        shutil.rmtree(place, ignore_errors=True)
        raise
    return place / f"made{LIBRARY_ENDING}"


def _make(make: Callable[[Path], None], place: Path, key: str) -> Path:
    handle, name = tempfile.mkstemp(dir=place, suffix=".part")
    os.close(handle)
    part = Path(name)
    try:
        make(part)
        part.chmod(0o700)
        target = place / f"{key}-{_digest(part)}{LIBRARY_ENDING}"
        part.replace(target)
    finally:
        for left in place.glob(f"{part.stem}.*"):  # some compilers write files beside it
            left.unlink(missing_ok=True)
    return target


def _prune(place: Path) -> None:
    """Delete the oldest libraries; another process may be doing the same."""
    for path in place.glob("*.old"):
        with suppress(OSError):
            path.unlink()
    ages = []
    for path in place.glob(f"*{LIBRARY_ENDING}"):
        with suppress(FileNotFoundError):
            ages.append((path.stat().st_mtime, path))
    for _, path in sorted(ages, reverse=True)[MOST_FILES:]:
        with suppress(PermissionError):  # another process has it loaded
            path.unlink(missing_ok=True)
