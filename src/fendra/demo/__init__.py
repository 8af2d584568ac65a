"""What ships to try Fendra with: the cargo trike Heron, a ride, and a stand-in controller."""

from __future__ import annotations

from pathlib import Path

FOLDER = Path(__file__).parent


def demo_file(name: str) -> Path:
    """The path of a shipped file: `heron.toml` or `ride.csv`.

    Raises FileNotFoundError for others.
    """
    path = FOLDER / name
    if not path.is_file():
        shipped = sorted(p.name for p in FOLDER.iterdir() if p.suffix in (".toml", ".csv", ".dbc"))
        raise FileNotFoundError(f"there is no demo file '{name}'; there are {', '.join(shipped)}")
    return path
