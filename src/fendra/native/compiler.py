"""The machine's own C compiler: finding it, and making a library of a text."""

from __future__ import annotations

import os
import platform
import shlex
import shutil
import subprocess
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from importlib.util import find_spec
from pathlib import Path

from fendra.core.errors import EngineError, reason
from fendra.core.names import in_words, listed
from fendra.core.quoting import visible
from fendra.system.process import (
    COMPILER_CURE,
    COMPILERS,
    LIBRARIES,
    LIBRARY_FLAGS,
    NAME,
    end_group,
)

FLAGS = (
    "-std=c99", "-O3", "-ffp-contract=off", "-fno-math-errno", "-fno-trapping-math",
    *LIBRARY_FLAGS, "-w",
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
        done = self._call([*flags, *map(str, sources), "-o", str(target), *LIBRARIES])
        if done.returncode != 0:
            raise self._failure(done)

    def _run(
        self, source: str, target: Path, flags: tuple[str, ...]
    ) -> subprocess.CompletedProcess[str]:
        return self._call([*flags, "-x", "c", "-", "-o", str(target), *LIBRARIES], source)

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
            raise EngineError(f"the C compiler '{name}' does not run: {reason(exc)}.") from exc
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
    """The compiler that `CC` names, else the first of this system's own, clang, gcc and zig.

    Raises EngineError if there is none.
    """
    named = os.environ.get("CC", "").strip()
    if named:
        try:
            command = tuple(shlex.split(named, posix=NAME != "windows"))
        except ValueError as exc:
            raise EngineError(
                f"no C compiler: in CC, {in_words(named)}, a quote is missing."
            ) from exc
        first = command[0].strip('"') if command else ""
        found = _found((first, *command[1:]))
        if found is None:
            raise EngineError(
                f"no C compiler: '{first}', which CC names, does not exist. {COMPILER_CURE}"
            )
        return found
    for command in (*COMPILERS, *_zig()):
        found = _found(command)
        if found is not None:
            return found
    known = listed([f"'{command[0]}'" for command in COMPILERS], "or")
    raise EngineError(f"no C compiler: there is no {known}. {COMPILER_CURE}")


def _found(command: tuple[str, ...]) -> Compiler | None:
    path = shutil.which(command[0])
    return None if path is None else Compiler(command, Path(path).resolve())


def _zig() -> Iterator[tuple[str, ...]]:
    """The compiler of the package ziglang, if that is installed."""
    about = find_spec("ziglang")
    for folder in () if about is None else about.submodule_search_locations or ():
        path = shutil.which("zig", path=folder)  # on Windows it ends in .exe
        if path is not None:
            yield (path, "cc")


def _end(process: subprocess.Popen[str]) -> None:
    """End a compiler that still runs, with the programs that it has started."""
    if process.poll() is not None:
        return
    end_group(process)
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
