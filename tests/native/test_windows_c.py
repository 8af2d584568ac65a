"""The C for Windows: compiled for it by zig, run there by wine, held to the film's bytes."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
from importlib.util import find_spec
from pathlib import Path

import pytest

import fendra as fd
from fendra.core.engines.c99 import emit
from fendra.firmware.project import make_project
from fendra.native.compiler import FLAGS
from fendra.native.engine import library_text
from fendra.system.process import LIBRARY_FLAGS

pytestmark = [pytest.mark.slow, pytest.mark.posix]  # it runs wine
ZIG = [sys.executable, "-m", "ziglang", "cc", "-target", "x86_64-windows-gnu"]
WINDOWS_FLAGS = [flag for flag in FLAGS if flag not in LIBRARY_FLAGS]
"""Those of unix.py and windows.py differ in the flags of libraries alone."""
NAMES = ("size", "init", "film", "light", "cells", "pictures", "show", "memory", "recall")
LOADER = """
#include <stdio.h>
#include <windows.h>
int main(int count, char **words)
{
    const HMODULE library = LoadLibraryA("light.dll");
    if (library == NULL) { puts("not loaded"); return 1; }
    for (int i = 1; i < count; i++) {
        if (GetProcAddress(library, words[i]) == NULL) { puts(words[i]); return 1; }
    }
    unsigned long (*const size)(void) = (unsigned long (*)(void))GetProcAddress(library, "fendra_size");
    printf("%lu\\n", size());
    return 0;
}
"""


@pytest.fixture(scope="module")
def windows(need, tmp_path_factory):
    """Compiles C for Windows, and runs it in a folder: its exit code, output and errors."""
    need([] if shutil.which("wine") else ["wine"], "wine64 wine")
    need([] if find_spec("ziglang") else ["ziglang"], "python3-pip; then pip install ziglang")
    prefix = tmp_path_factory.mktemp("wine")

    def build(words, folder):
        subprocess.run([*ZIG, *WINDOWS_FLAGS, *words], cwd=folder, check=True, timeout=900)

    def run(words, folder, data=b""):
        return subprocess.run(
            ["wine", *words], cwd=folder, input=data, capture_output=True, timeout=300, check=False,
            env={**os.environ, "WINEPREFIX": str(prefix), "WINEDEBUG": "-all"},
        )  # fmt: skip

    return build, run


def written(project, folder):
    for path, text in project.files.items():
        target = folder / path
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_text(text, encoding="utf-8")


@pytest.mark.timeout(1200)
def test_windows_shows_the_film_byte_for_byte(windows, tmp_path):
    build, run = windows
    design = fd.load(fd.demo_file("heron.toml"))
    tape = fd.read_tape(fd.demo_file("ride.csv"), design).until(6.0)
    project = make_project(design.examined.subject, "generic", tape=tape)
    written(project, tmp_path)
    name = project.name
    build(["-I.", "-o", "try.exe", "host/main.c", f"{name}.c"], tmp_path)
    done = run(["try.exe", "--check", "host/tape.txt"], tmp_path)
    assert done.returncode == 0, done.stderr
    assert b"identical to the film, byte for byte" in done.stderr


@pytest.mark.timeout(1200)
def test_a_library_of_windows_hands_out_its_functions(windows, tmp_path):
    build, run = windows
    program = fd.load(fd.demo_file("heron.toml")).compile()
    (tmp_path / "light.c").write_text(library_text(emit(program.plan)), encoding="utf-8")
    (tmp_path / "loader.c").write_text(LOADER, encoding="utf-8")
    build(["-shared", "-o", "light.dll", "light.c"], tmp_path)
    build(["-o", "loader.exe", "loader.c"], tmp_path)
    done = run(["loader.exe", *(f"fendra_{name}" for name in NAMES)], tmp_path)
    assert done.returncode == 0, done.stdout
    assert int(done.stdout) > 100


@pytest.mark.timeout(1200)
def test_a_receiver_of_windows_takes_what_is_sent(windows, tmp_path):
    """Over its standard input, as the demo sends it there."""
    from fendra.outputs.packets import frame_to_packets

    build, run = windows
    design = fd.load(fd.demo_file("bare.toml"))
    project = make_project(design.examined.subject, "generic", is_receiver=True)
    written(project, tmp_path)
    name = project.name
    sources = ["main.c", f"{name}.c", f"{name}_receiver.c", "host/board.c"]
    build(["-I.", "-o", "receiver.exe", *sources], tmp_path)
    program = design.compile()
    frames = [program.frame(at=step / 50) for step in range(10)]
    sent = b"".join(frame_to_packets(n, frame.line_bytes()) for n, frame in enumerate(frames))
    done = run([str(Path("receiver.exe"))], tmp_path, b"\0" + sent)
    assert b'"frames": 10, "lost": 0, "incomplete": 0, "damaged": 0' in done.stderr, done
    assert frames[-1].line_bytes()[0].hex().encode() in done.stderr
