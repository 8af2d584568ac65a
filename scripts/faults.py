"""Faults that are put into the code one after the other: which of them do the tests find?

    make faults                                        # those of scripts/faults.toml
    .venv-dev/bin/python scripts/faults.py graph       # of this room
    .venv-dev/bin/python scripts/faults.py --made 10   # ten of each room, by cosmic-ray, by chance

A fault is put into a copy of the project, and the tests run there that go through its lines, the
quickest first. Which those are is measured before, once: `--map FILE` keeps it.
"""

from __future__ import annotations

import argparse
import ast
import os
import random
import shutil
import subprocess
import sys
import tempfile
import tomllib
import xml.etree.ElementTree as ET
from collections import defaultdict
from collections.abc import Iterable, Iterator
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from itertools import accumulate
from pathlib import Path
from queue import SimpleQueue

from coverage import CoverageData

HERE = Path(__file__).parents[1]
PACKAGE = Path("src/fendra")
LEAVES = (
    "arrays", "errors", "findings", "mending", "names", "registry", "shown", "units", "values",
    "version",
)  # fmt: skip
"""Modules of the core that are no folder and no program."""
UNFIT = ("Variable", "Decorator", "Exception", "Shift", "Bit", "Pow", "Is")
KEPT = ("BitAnd_BitOr", "BitOr_BitAnd")
"""Operators that change what tests can hardly miss, as `+` to `<<`, and those of them that stay."""
FIRST, MOST_S, PATIENCE = 40, 60.0, 6
"""So many of the quickest tests run first; all together those that take so many seconds at most.
A fault with which they take so much longer is found as well."""


@dataclass(frozen=True)
class Fault:
    """A piece of a file, and what stands there instead. path: from src/fendra."""

    path: str
    was: str
    now: str

    @property
    def room(self) -> str:
        """The room of the core that it is in; of other code its folder."""
        first, *rest = Path(self.path).parts
        if first != "core":
            return first
        if len(rest) > 1:
            return rest[0]
        return "leaves" if Path(rest[0]).stem in LEAVES else "program"

    def lines(self, text: str) -> range:
        """The lines of the file, from 1, that the piece stands in."""
        first = text[: text.index(self.was)].count("\n") + 1
        return range(first, first + self.was.rstrip("\n").count("\n") + 1)

    def __str__(self) -> str:
        was, now = (" ".join(text.split()) for text in (self.was, self.now))
        return f"{self.path}: {was:.90} -> {now:.90}"


@dataclass
class Tests:
    """Which tests go through which lines of a file, and how long each takes, s."""

    through: dict[str, dict[int, set[str]]] = field(default_factory=dict)
    seconds: dict[str, float] = field(default_factory=dict)

    def of(self, fault: Fault, text: str) -> list[str]:
        """Those that go through a fault's lines, the quickest first, as many as `MOST_S` allows;
        where a line runs as its module is imported, those that go through any line of the file.
        """
        lines = self.through.get(f"{PACKAGE}/{fault.path}", {})
        found = set().union(*(lines.get(number, set()) for number in fault.lines(text)))
        ordered = sorted(found or set().union(*lines.values()), key=self.time_of)
        ends = accumulate(map(self.time_of, ordered))
        return [test for test, end_s in zip(ordered, ends, strict=True) if end_s <= MOST_S]

    def time_of(self, test: str) -> float:
        """How long a test takes, with what stands round it, s."""
        return self.seconds.get(test, 0.0) + 0.01


def by_hand(path: Path) -> list[Fault]:
    """The faults of a file; raises SystemExit where one fits nowhere, or at several places."""
    rooms = tomllib.loads(path.read_text(encoding="utf-8"))
    found = [Fault(row["path"], row["was"], row["now"]) for rows in rooms.values() for row in rows]
    texts = {each.path: (HERE / PACKAGE / each.path).read_text(encoding="utf-8") for each in found}
    wrong = [fault for fault in found if texts[fault.path].count(fault.was) != 1]
    if wrong:
        listed = "\n".join(f"  {fault}" for fault in wrong)
        raise SystemExit(f"these fit nowhere, or at several places; write them anew:\n{listed}")
    return found


def made(count: int, seed: int) -> list[Fault]:
    """So many faults of each room, by chance, of all that cosmic-ray's operators make of it."""
    from cosmic_ray.mutating import mutate_code
    from cosmic_ray.plugins import get_operator

    by_room = defaultdict(list)
    for path in sorted((HERE / PACKAGE / "core").rglob("*.py")):
        name = path.relative_to(HERE / PACKAGE).as_posix()
        text = path.read_text(encoding="utf-8")
        by_room[Fault(name, "", "").room] += [(name, text, *each) for each in _changes(text)]
    found = []
    for room, every in sorted(by_room.items()):
        random.Random(f"{room} {seed}").shuffle(every)
        mine: dict[str, Fault] = {}
        while len(mine) < count and every:
            name, text, operator, number = every.pop()
            changed = mutate_code(text, get_operator(operator)(), number)
            if changed is not None and _meaning(changed) not in (_meaning(text), ""):
                fault = Fault(name, *_piece(text, changed))
                mine[str(fault)] = fault
        found += mine.values()
    return found


def _changes(text: str) -> list[tuple[str, int]]:
    """What cosmic-ray can change in a text: the operator, and at which of its places."""
    from cosmic_ray.ast import ast_nodes, get_ast
    from cosmic_ray.plugins import get_operator, operator_names

    nodes, found = [*ast_nodes(get_ast(text))], []
    for name in operator_names():
        if not any(word in name for word in UNFIT) or name.endswith(KEPT):
            operator = get_operator(name)()
            places = sum(len([*operator.mutation_positions(node)]) for node in nodes)
            found += [(name, place) for place in range(places)]
    return found


def _meaning(text: str) -> str:
    """A module without its annotations, which no test can tell apart; empty for what is none."""
    try:
        tree = ast.parse(text)
    except SyntaxError:
        return ""
    for node in ast.walk(tree):
        if isinstance(node, ast.FunctionDef):
            node.returns = None
            for arg in [*node.args.args, *node.args.kwonlyargs]:
                arg.annotation = None
        if isinstance(node, ast.AnnAssign):
            node.annotation = ast.Name("x")
    return ast.dump(tree)


def _piece(before: str, after: str) -> tuple[str, str]:
    """The lines in which two texts differ, widened until they stand at one place alone."""
    old, new = before.splitlines(keepends=True), after.splitlines(keepends=True)
    first = next(i for i, (a, b) in enumerate(zip(old, new, strict=False)) if a != b)
    last = next(i for i, (a, b) in enumerate(zip(old[::-1], new[::-1], strict=False)) if a != b)
    while before.count("".join(old[first : len(old) - last])) != 1:
        first, last = max(first - 1, 0), max(last - 1, 0)
    return "".join(old[first : len(old) - last]), "".join(new[first : len(new) - last])


def copied(folder: Path) -> Path:
    """A copy of what git knows of, in a folder."""
    listed = subprocess.run(
        ["git", "ls-files", "-co", "--exclude-standard"],
        cwd=HERE, capture_output=True, text=True, check=True,
    ).stdout.splitlines()  # fmt: skip
    for name in listed:
        if (HERE / name).is_file():
            (folder / name).parent.mkdir(parents=True, exist_ok=True)
            shutil.copy2(HERE / name, folder / name)
    return folder


def environment(folder: Path, **more: str) -> dict[str, str]:
    """That of a program that runs the copy, and leaves no compiled files in it."""
    return {**os.environ, "PYTHONDONTWRITEBYTECODE": "1", "PYTHONPATH": str(folder / "src"), **more}


def measured(folder: Path, kept: Path, jobs: int) -> Tests:
    """Which tests go through which lines: from files, or by running all of them once."""
    data, times = kept.with_suffix(".coverage"), kept.with_suffix(".xml")
    if not (data.exists() and times.exists()):
        print("running all tests once, to see which lines each goes through", flush=True)
        subprocess.run(
            [sys.executable, "-m", "pytest", "-q", f"-n{jobs}", f"--cov={folder / PACKAGE}",
             "--cov-context=test", "--cov-report=", f"--junitxml={times}",
             "-o", "junit_family=xunit1"],
            cwd=folder, check=False, env=environment(folder, COVERAGE_FILE=str(data)),
        )  # fmt: skip
    return read_map(data, times)


def read_map(data: Path, times: Path) -> Tests:
    """What was measured, from its files."""
    found, known = Tests(), CoverageData(str(data))
    known.read()
    for path in known.measured_files():
        name = path[path.rindex(f"{PACKAGE}/") :]
        found.through[name] = {
            number: {context.rpartition("|")[0] for context in contexts if context}
            for number, contexts in known.contexts_by_lineno(path).items()
        }
    for case in ET.parse(times).iter("testcase"):
        test = f"{case.get('file')}::{case.get('name')}"
        found.seconds[test] = float(case.get("time") or 0.0)
    return found


def fails(folder: Path, tests: list[str], timeout_s: float) -> bool:
    """Whether one of the tests fails in a copy, or all of them take too long."""
    listed = folder / "tests-to-run.txt"
    listed.write_text("\n".join(tests), encoding="utf-8")
    command = [sys.executable, "-m", "pytest", "-x", "-q", "-n0", "-p", "no:cacheprovider"]
    try:
        done = subprocess.run(
            [*command, f"@{listed}"], cwd=folder, capture_output=True, check=False,
            timeout=timeout_s, env=environment(folder),
        )  # fmt: skip
    except subprocess.TimeoutExpired:
        return True
    return done.returncode != 0


def is_found(fault: Fault, folder: Path, tests: Tests) -> bool:
    """Whether tests fail once a fault is in a copy; the copy is as before afterwards."""
    path = folder / PACKAGE / fault.path
    text = path.read_text(encoding="utf-8")
    chosen = tests.of(fault, text)
    path.write_text(text.replace(fault.was, fault.now), encoding="utf-8")
    try:
        return any(
            fails(folder, piece, 60 + PATIENCE * sum(map(tests.time_of, piece)))
            for piece in (chosen[:FIRST], chosen[FIRST:])
            if piece
        )
    finally:
        path.write_text(text, encoding="utf-8")


def each(faults: list[Fault], folders: list[Path], tests: Tests) -> Iterator[tuple[Fault, bool]]:
    """Every fault, and whether it is found; as many at a time as there are copies."""
    free: SimpleQueue[Path] = SimpleQueue()
    for folder in folders:
        free.put(folder)

    def look(fault: Fault) -> tuple[Fault, bool]:
        folder = free.get()
        try:
            return fault, is_found(fault, folder, tests)
        finally:
            free.put(folder)

    with ThreadPoolExecutor(len(folders)) as pool:
        yield from pool.map(look, faults)


def table(seen: Iterable[tuple[Fault, bool]]) -> str:
    """Found, of so many, by room."""
    by_room: dict[str, list[bool]] = defaultdict(list)
    for fault, found in seen:
        by_room[fault.room].append(found)
    by_room["all"] = [found for rows in by_room.values() for found in rows]
    return "\n".join(
        f"| {room} | {sum(rows)} of {len(rows)} | {sum(rows) / max(len(rows), 1):.0%} |"
        for room, rows in by_room.items()
    )


def main() -> None:
    parser = argparse.ArgumentParser(
        description=__doc__, formatter_class=argparse.RawTextHelpFormatter
    )
    parser.add_argument("rooms", nargs="*", help="rooms, as `graph`; all, if none is named")
    parser.add_argument(
        "--made", type=int, metavar="N", help="N of each room of the core, by chance"
    )
    parser.add_argument("--seed", type=int, default=1, help="other seeds make others")
    parser.add_argument("--from", dest="file", type=Path, default=HERE / "scripts/faults.toml")
    parser.add_argument("--map", type=Path, help="where to keep which tests go through which lines")
    parser.add_argument("--jobs", type=int, default=2)
    given = parser.parse_args()
    faults = by_hand(given.file) if given.made is None else made(given.made, given.seed)
    faults = [fault for fault in faults if not given.rooms or fault.room in given.rooms]
    with tempfile.TemporaryDirectory(prefix="faults-") as name:
        folders = [copied(Path(name) / str(number)) for number in range(given.jobs)]
        tests = measured(folders[0], given.map or Path(name) / "map", given.jobs)
        seen = []
        for fault, found in each(faults, folders, tests):
            seen.append((fault, found))
            print("found    " if found else "NOT FOUND", fault, flush=True)
    print(table(seen))


if __name__ == "__main__":
    main()
