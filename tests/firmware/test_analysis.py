"""Static analysers over all that is emitted: cppcheck, and the one of gcc."""

from __future__ import annotations

import subprocess

import pytest

from fendra.firmware.write import write_project
from targets import missing, project_of

PROJECTS = [("heron", "generic", True), ("swift", "avr", True), ("drone", "arm", True),
            ("pad", "arm", False)]  # fmt: skip
NEEDED = ["--enable=warning,style,performance,portability", "--error-exitcode=1", "--quiet",
          "--std=c99", "--inline-suppr", "--suppress=missingIncludeSystem",
          "--suppress=preprocessorErrorDirective", "-DF_CPU=16000000UL"]  # fmt: skip
"""The one thing that is left out: a board that is to be filled in says so by an error."""


@pytest.fixture(scope="module", params=PROJECTS, ids=lambda each: "-".join(map(str, each)))
def folder(request, tmp_path_factory):
    name, target, receiver = request.param
    path = tmp_path_factory.mktemp(name)
    write_project(project_of(name, target, receiver=receiver).files, path)
    return path


def test_cppcheck_finds_nothing(need, folder):
    need(missing("cppcheck"), "cppcheck")
    sources = [*folder.glob("*.c"), *folder.glob("host/*.c")]
    done = subprocess.run(
        ["cppcheck", *NEEDED, f"-I{folder}", *map(str, sources)],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr


def test_the_analyser_of_gcc_finds_nothing(need, compiler, folder):
    command = [*compiler.command, "--version"]
    said = subprocess.run(command, capture_output=True, text=True, check=False).stdout
    need([] if "Free Software Foundation" in said else ["gcc"], "gcc")
    boards = {"board.c", "startup.c"}
    for source in [*folder.glob("*.c"), *folder.glob("host/*.c")]:
        if source.name in boards and source.parent == folder:
            continue  # of another processor
        done = subprocess.run(
            [*compiler.command, "-std=c99", "-fanalyzer", "-O1", "-ffp-contract=off", "-Wall",
             "-Wextra", "-Werror", f"-I{folder}", "-c", source, "-o", folder / "object.o"],
            capture_output=True, text=True, check=False,
        )  # fmt: skip
        assert done.returncode == 0, done.stderr[:2000]
