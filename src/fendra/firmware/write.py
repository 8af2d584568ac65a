"""Writing a project: files that the user changed stay."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path

from fendra.whole import read_text, write_text

MANIFEST = "made-by-fendra.txt"
_HEAD = "# What Fendra wrote here, to know later what somebody changed by hand: that stays.\n"


@dataclass(frozen=True)
class Written:
    """The files that were written and kept.

    written: files. kept: those that somebody changed, with the new text beside.
    """

    folder: Path
    written: tuple[str, ...]
    kept: tuple[str, ...]


def write_project(files: Mapping[str, str], folder: str | Path) -> Written:
    """Write text files into a folder.

    A file that is not as it was written here the last time is kept, and the new text is put beside
    it, with `.new` at the end of its name. Raises FileError.
    """
    folder = Path(folder)
    before = _read_manifest(folder / MANIFEST)
    written, kept = [], []
    for path, text in files.items():
        target = folder / path
        is_changed = (
            target.exists()
            and (there := read_text(target)) != text
            and before.get(path) != _digest(there)
        )
        if is_changed:
            write_text(folder / f"{path}.new", text)
            kept.append(path)
        else:
            write_text(target, text)
            written.append(path)
            (folder / f"{path}.new").unlink(missing_ok=True)
    rows = {**before, **{path: _digest(files[path]) for path in written}}
    lines = (f"{digest} {path}\n" for path, digest in sorted(rows.items()))
    write_text(folder / MANIFEST, _HEAD + "".join(lines))
    return Written(folder, tuple(written), tuple(kept))


def _read_manifest(path: Path) -> dict[str, str]:
    if not path.exists():
        return {}
    rows = (line.split(" ", 1) for line in read_text(path).splitlines() if line[:1] != "#")
    return {row[1]: row[0] for row in rows if len(row) == 2}


def _digest(text: str) -> str:
    return sha256(text.encode()).hexdigest()[:16]
