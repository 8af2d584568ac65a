"""The receiver on this computer: the very C that goes onto a controller, at a pseudo-terminal."""

from __future__ import annotations

import json
import os
import subprocess
import tempfile
import tty
from pathlib import Path
from typing import TYPE_CHECKING, Any

from fendra.core.errors import OutputError
from fendra.firmware.project import Project, make_project
from fendra.native.compiler import find_compiler

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
            ours, self._theirs = os.openpty()
            tty.setraw(self._theirs)
            self.port = os.ttyname(self._theirs)
            self._process = subprocess.Popen(
                [program], stdin=ours, stdout=ours, stderr=subprocess.PIPE, text=True
            )
            os.close(ours)
        except BaseException:
            self._folder.cleanup()
            raise

    def __enter__(self) -> CompiledReceiver:
        return self

    def __exit__(self, *_: object) -> None:
        self._hang_up()
        self._process.terminate()
        self._process.wait()
        if self._process.stderr is not None:
            self._process.stderr.close()
        self._folder.cleanup()

    def report(self) -> dict[str, Any]:
        """Its counts: frames, lost, incomplete, damaged, and each line's bytes as text.

        Raises OutputError if it has ended early.
        """
        self._hang_up()
        try:
            _, said = self._process.communicate(timeout=LONGEST_S)
        except subprocess.TimeoutExpired as exc:
            raise OutputError("the receiver does not see that the sender has left") from exc
        if not said.strip():
            raise OutputError("the receiver has ended early; it needs a pseudo-terminal")
        found: dict[str, Any] = json.loads(said)
        return found

    def _hang_up(self) -> None:
        """Leave the port to its sender: when that has left as well, the receiver sees it."""
        if self._theirs >= 0:
            os.close(self._theirs)
            self._theirs = -1
