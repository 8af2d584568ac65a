"""The files to try Fendra with: designs, tapes and drawings, and stand-ins for hardware."""

from __future__ import annotations

import shutil
from pathlib import Path

FILES = Path(__file__).parent / "files"

ABOUT = {
    "heron.toml": "Heron, an electric cargo trike: the main example",
    "ride.csv": "its ride, 90 s",
    "heron.dbc": "the messages on its CAN bus",
    "rally.toml": "the binary packets of a made-up rally simulator",
    "drone.toml": "Kestrel, a fixed-wing drone",
    "flight.csv": "its flight, 30 s",
    "pad.toml": "Otter, a macro pad with a knob ring",
    "typing.csv": "someone types on it, 24 s",
    "cabinet.toml": "Palace, an arcade cabinet",
    "game.csv": "a game on it, 30 s",
    "desk.toml": "the desk beside it: a computer and a keyboard, a look for each program",
    "desk.csv": "an evening at it, 52 s",
    "swift.toml": "Swift, a small drone whose 8-bit controller runs the light",
    "glide.csv": "its flight, 20 s",
    "wing.toml": "Gannet, a drone with a controller in each wing",
    "bare.toml": "a strip of 30 LEDs",
    "lever.csv": "a lever moves, 10 s",
    "lamp.toml": "a lamp post with an effect of its own",
    "stripes.py": "that effect, in Python",
    "board.csv": "a circuit board's placement list, to import",
    "arm.svg": "a drawing with a path, to import",
    "heart.png": "a picture for the effect `image`",
    "wink.gif": "an animation for the effect `image`",
}
"""Each shipped file, and what it is."""


def demo_file(name: str) -> Path:
    """The path of a shipped file, as `heron.toml` or `ride.csv`; `fendra demo --files` copies all.

    Raises FileNotFoundError for an unknown name.

    >>> demo_file("heron.toml").name
    'heron.toml'
    """
    if name not in ABOUT:
        raise FileNotFoundError(f"there is no demo file '{name}'; there are {', '.join(ABOUT)}")
    return FILES / name


def copy_files(folder: Path) -> dict[Path, bool]:
    """Copy all shipped files into a folder; a file that exists there stays as it is.

    What it returns: each path, and whether the file is new.
    """
    folder.mkdir(parents=True, exist_ok=True)
    copied = {}
    for name in ABOUT:
        target = folder / name
        copied[target] = not target.exists()
        if copied[target]:
            shutil.copyfile(FILES / name, target)
    return copied
