"""How long the everyday commands take on the demo's trike, and how much of it their imports are.

    .venv-dev/bin/python benchmarks/commands.py
    git worktree add /tmp/before COMMIT
    .venv-dev/bin/python benchmarks/commands.py /tmp/before    # this version against another

Every run is a process of its own. Versions take turns, after one run that is not counted, so that
all see the same machine. Imports: what the modules that a command had loaded in the end take in a
process that does nothing else, with what Python itself takes to start.
"""

from __future__ import annotations

import os
import subprocess
import sys
import tempfile
from pathlib import Path
from statistics import median
from time import perf_counter

HERE = Path(__file__).parents[1]
TURNS = 7
COMMANDS = {
    "help": ["--help"],
    "check": ["check", "heron.toml"],
    "check with a tape": ["check", "heron.toml", "--tape", "ride.csv"],
    "film": ["film", "heron.toml", "--tape", "ride.csv"],
    "map": ["map", "heron.toml"],
    "effects": ["effects"],
    "explain": ["explain", "heron.toml", "--tape", "ride.csv", "--spot", "tail-bar:4", "--at", "8"],
}
RUN = """
import sys
from fendra.cli.app import main
try:
    main()
except SystemExit:
    pass
if LOADED:
    names = [name for name in sys.modules if name.split(".")[0] not in ("__main__", "__mp_main__")]
    open(LOADED, "w").write("\\n".join(names))
"""
IMPORT = """
import importlib, sys
for name in open(sys.argv[1]).read().split("\\n"):
    try:
        importlib.import_module(name)
    except Exception:
        pass
"""


def seconds(version: Path, folder: Path, *words: str, loaded: Path | None = None) -> float:
    """Of one run of a command. loaded: where the names of its modules are written."""
    code = RUN.replace("LOADED", repr(str(loaded) if loaded else ""))
    return _timed(version, folder, ["-c", code, *words])


def imports(version: Path, folder: Path, loaded: Path) -> float:
    """Seconds that the same modules take alone."""
    return _timed(version, folder, ["-c", IMPORT, str(loaded)])


def _timed(version: Path, folder: Path, words: list[str]) -> float:
    environment = {**os.environ, "PYTHONPATH": str(version / "src"), "PYTHONSAFEPATH": "1"}
    start = perf_counter()
    done = subprocess.run(
        [sys.executable, *words], cwd=folder, env=environment, capture_output=True, check=False
    )
    taken = perf_counter() - start
    if done.returncode not in (0, 1):
        sys.exit(done.stderr.decode())
    return taken


def main() -> None:
    versions = [*(Path(word).resolve() for word in sys.argv[1:]), HERE]
    for name, words in COMMANDS.items():
        with tempfile.TemporaryDirectory() as made:
            folder = Path(made)
            for each in ("heron.toml", "ride.csv"):
                data = HERE / "src" / "fendra" / "demo" / each
                (folder / each).write_bytes(data.read_bytes())
            loaded = folder / "loaded"
            took: list[list[float]] = [[] for _ in versions]
            alone: list[float] = []
            for version in versions:
                seconds(version, folder, *words, loaded=loaded)
            for _ in range(TURNS):
                for version, times in zip(versions, took, strict=True):
                    times.append(seconds(version, folder, *words))
                alone.append(imports(HERE, folder, loaded))
        whole = [f"{min(times):.2f} to {max(times):.2f} s" for times in took]
        against = [
            f"{median(now / was for was, now in zip(times, took[-1], strict=True)):.2f}"
            for times in took[:-1]
        ]
        share = median(each / all_of_it for each, all_of_it in zip(alone, took[-1], strict=True))
        print(" | ".join(["", name, *whole, *against, f"{share:.0%}", ""]).strip(), flush=True)


if __name__ == "__main__":
    main()
