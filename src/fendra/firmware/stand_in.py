"""The receiver on this computer: the very C that goes onto a controller, at a port of its own."""

from __future__ import annotations

import json
import subprocess
import tempfile
from contextlib import suppress
from pathlib import Path
from threading import Thread
from typing import TYPE_CHECKING, Any

from fendra.core.errors import OutputError
from fendra.firmware.project import Project, make_project
from fendra.native.compiler import find_compiler
from fendra.system.ends import far_end

if TYPE_CHECKING:
    from fendra.core.checks import Subject

FLAGS = ("-std=c99", "-O2", "-ffp-contract=off", "-w")
LONGEST_S = 20.0
"""How long the receiver may take to end once the sender has left."""


def build_receiver(project: Project, folder: Path) -> Path:
    """Compile a receiver for this computer. Raises EngineError if that cannot be done."""
    compiler = find_compiler()
    for path, text in project.files.items():
        target = folder / path
        target.parent.mkdir(parents=True, exist_ok=True)
        target.write_text(text, encoding="utf-8")
    program = folder / "receiver"
    sources = ["main.c", f"{project.name}.c", f"{project.name}_receiver.c", "host/board.c"]
    paths = [folder / each for each in sources]
    compiler.make_program(paths, program, [*FLAGS, f"-I{folder}"])
    return program


class CompiledReceiver:
    """The receiver of a design, listening at a port of its own.

    port: its name. Use it as a context; `report` once the sender has left.
    """

    def __init__(self, subject: Subject) -> None:
        self._folder = tempfile.TemporaryDirectory(prefix="fendra-receiver-")
        try:
            project = make_project(subject, "generic", is_receiver=True)
            program = build_receiver(project, Path(self._folder.name))
            self._end = far_end()
            self.port = self._end.address
            self._process = subprocess.Popen(
                [program], bufsize=0,
                stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.PIPE,
            )  # fmt: skip
        except BaseException:
            self._folder.cleanup()
            raise
        self._threads = [
            Thread(target=work, name="receiver", daemon=True)
            for work in (self._pass, self._answer, self._listen)
        ]
        for thread in self._threads:
            thread.start()

    def _pass(self) -> None:
        """Pass on what the sender sends, until it leaves."""
        into = self._process.stdin
        assert into is not None
        with suppress(OSError, ValueError), into:
            while self._process.poll() is None and (data := self._end.take(0.2)) is not None:
                into.write(data)

    def _answer(self) -> None:
        """Pass on what the receiver answers."""
        told = self._process.stdout
        assert told is not None
        while data := told.read(4096):
            self._end.give(data)

    def _listen(self) -> None:
        """Take its report."""
        assert self._process.stderr is not None
        self._said = self._process.stderr.read()

    def __enter__(self) -> CompiledReceiver:
        return self

    def __exit__(self, *_: object) -> None:
        self._process.terminate()
        self._process.wait()
        for thread in self._threads:
            thread.join()
        for pipe in (self._process.stdout, self._process.stderr):
            if pipe is not None:
                pipe.close()
        self._end.close()
        self._folder.cleanup()

    def report(self) -> dict[str, Any]:
        """Its counts: frames, lost, incomplete, damaged, and each line's bytes as text.

        Raises OutputError if it has ended early.
        """
        self._end.hang_up()
        try:
            self._process.wait(timeout=LONGEST_S)
        except subprocess.TimeoutExpired as exc:
            raise OutputError("the receiver does not see that the sender has left") from exc
        for thread in self._threads:
            thread.join()
        if not self._said.strip():
            raise OutputError("the receiver has ended early")
        found: dict[str, Any] = json.loads(self._said)
        return found
