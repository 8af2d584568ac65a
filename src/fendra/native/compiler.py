"""The machine's own C compiler: finding it, and making a library of a text."""

from __future__ import annotations

import os
import platform
import shlex
import shutil
import signal
import subprocess
from collections.abc import Sequence
from contextlib import suppress
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from fendra.core.errors import EngineError
from fendra.core.names import in_words
from fendra.core.quoting import visible

FLAGS = (
    "-std=c99", "-O3", "-ffp-contract=off", "-fno-math-errno", "-fno-trapping-math",
    "-fPIC", "-shared", "-w",
)  # fmt: skip
"""They vectorise and change no result."""

LONGEST_S = 120.0
"""How long a compiler may take; one that hangs is ended."""


@dataclass(frozen=True)
class Compiler:
    """A C compiler as it is called, and the file that is called."""

    command: tuple[str, ...]
    path: Path

    @property
    def flags(self) -> tuple[str, ...]:
        """All flags, with those for this machine's own instructions."""
        return (*FLAGS, *own_instructions())

    @property
    def identity(self) -> str:
        """A text that differs between compilers and machines."""
        about = self.path.stat()
        return "\n".join(
            [*self.command, str(self.path), str(about.st_size), str(about.st_mtime_ns),
             *self.flags, processor()]
        )  # fmt: skip

    def make_library(self, source: str, target: Path) -> None:
        """Compile a text into a shared library. Raises EngineError with the compiler's words."""
        done = self._run(source, target, self.flags)
        if done.returncode != 0:  # perhaps it does not know this machine's instructions
            done = self._run(source, target, FLAGS)
        if done.returncode != 0:
            raise self._failure(done)
        if not target.is_file() or target.stat().st_size == 0:
            raise EngineError(f"the C compiler '{self.command[0]}' ended well and wrote nothing.")

    def make_program(self, sources: Sequence[Path], target: Path, flags: Sequence[str]) -> None:
        """Compile files into a program. Raises EngineError with the compiler's words."""
        done = self._call([*flags, *map(str, sources), "-o", str(target), "-lm"])
        if done.returncode != 0:
            raise self._failure(done)

    def _run(
        self, source: str, target: Path, flags: tuple[str, ...]
    ) -> subprocess.CompletedProcess[str]:
        return self._call([*flags, "-x", "c", "-", "-o", str(target), "-lm"], source)

    def _failure(self, done: subprocess.CompletedProcess[str]) -> EngineError:
        said = next((line for line in done.stderr.splitlines() if "error" in line), "")
        said = said or done.stderr.strip().partition("\n")[0] or f"exit {done.returncode}"
        said = visible(said.strip())[:200].rstrip(".")
        return EngineError(f"the C compiler '{self.command[0]}' failed: {said}.")

    def _call(self, words: Sequence[str], source: str = "") -> subprocess.CompletedProcess[str]:
        name = self.command[0]
        try:
            process = subprocess.Popen(
                [*self.command, *words], stdin=subprocess.PIPE, stdout=subprocess.PIPE,
                stderr=subprocess.PIPE, encoding="utf-8", errors="replace", start_new_session=True,
            )  # fmt: skip
        except (OSError, ValueError) as exc:
            reason = getattr(exc, "strerror", None) or exc
            raise EngineError(f"the C compiler '{name}' does not run: {reason}.") from exc
        try:
            out, err = process.communicate(source, LONGEST_S)
        except subprocess.TimeoutExpired as exc:
            raise EngineError(
                f"the C compiler '{name}' was ended: it took more than {LONGEST_S:g} s."
            ) from exc
        finally:
            _end(process)
        return subprocess.CompletedProcess(process.args, process.returncode, out, err)


def find_compiler() -> Compiler:
    """The compiler that `CC` names, else `cc`. Raises EngineError if there is none."""
    named = os.environ.get("CC", "").strip()
    try:
        command = tuple(shlex.split(named)) or ("cc",)
    except ValueError as exc:
        raise EngineError(f"no C compiler: in CC, {in_words(named)}, a quote is missing.") from exc
    found = shutil.which(command[0])
    if found is None:
        where = f"'{command[0]}', which CC names, does not exist." if named else "there is no 'cc'."
        raise EngineError(
            f"no C compiler: {where} Install one (on Debian: apt install gcc libc6-dev)."
        )
    return Compiler(command, Path(found).resolve())


def _end(process: subprocess.Popen[str]) -> None:
    """End a compiler that still runs, with the programs that it has started."""
    if process.poll() is not None:
        return
    if hasattr(os, "killpg"):
        with suppress(ProcessLookupError):
            os.killpg(process.pid, signal.SIGKILL)
    process.kill()
    process.communicate()


def own_instructions() -> tuple[str, ...]:
    """The flags that let a compiler use all that this machine's processor can."""
    machine = platform.machine().lower()
    if machine in ("x86_64", "amd64", "i686", "i386"):
        return ("-march=native", "-mprefer-vector-width=512")
    return ("-mcpu=native",) if machine.startswith(("aarch64", "arm")) else ()


@cache
def processor() -> str:
    """This machine's processor and its features, so that no other machine takes its code."""
    found = [platform.machine(), platform.processor()]
    try:
        with Path("/proc/cpuinfo").open(encoding="utf-8") as lines:
            for line in lines:
                if line.partition(":")[0].strip() in (
                    "model name",
                    "flags",
                    "Features",
                    "CPU part",
                ):
                    found.append(line.strip())
                if not line.strip():
                    break
    except OSError:
        found.append(platform.node())
    return "\n".join(found)
