"""Reloading: a run takes a design that is saved while it runs; if the file has errors, it reports
them.
"""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from threading import Event, Thread

from fendra.core.checks.examine import Examined
from fendra.core.composition.plan import Plan
from fendra.core.document.design import Design
from fendra.core.engines.engine import Engine
from fendra.core.errors import FendraError, internal_error
from fendra.core.findings import errors_of
from fendra.core.program import Program, compile_design
from fendra.core.quoting import shell_word
from fendra.files.design_file import check_file
from fendra.whole import stamp

LOOK_S = 0.25
"""How often the file is checked."""
PATIENCE_S = 10.0
"""How long a run that ends waits for a design that is being read."""


class Reloader(Thread):
    """Watches a design's file, and the files beside it that it names; gives each new program.

    examined: the design that is running now. use: takes the new program. tell: takes messages.
    prepare: turns the design as read into the one to run. running: the subject of the newest good
    design. reloads: how often it was reloaded; refusals: how often it had errors.
    """

    def __init__(
        self, path: Path, examined: Examined, use: Callable[[Program], object],
        tell: Callable[[str], object], *, engine: Callable[[Plan], Engine],
        model: type[Design] = Design, prepare: Callable[[Examined], Examined] = lambda read: read,
    ) -> None:  # fmt: skip
        super().__init__(name=f"watches {path}", daemon=True)
        self._path, self._use, self._tell = path, use, tell
        self.running = examined.subject
        self._engine, self._model, self._prepare = engine, model, prepare
        self._stop_now = Event()
        self._seen = self._signature()
        self.reloads = self.refusals = 0

    def stop(self) -> None:
        """Stop, and wait for a design that is being read: Python must not end in the middle of the
        C++ of a library that it calls, which would abort the process.
        """
        self._stop_now.set()
        if self.is_alive():
            self.join(PATIENCE_S)

    def run(self) -> None:
        while not self._stop_now.wait(LOOK_S):
            seen = self._signature()
            if seen == self._seen or not seen[0]:
                continue
            if self._stop_now.wait(0.05) or self._signature() != seen:
                continue  # it is being written
            self._seen = seen
            try:
                self.take()
            except Exception as exc:  # a fault of ours: the old design keeps running
                self.refusals += 1
                self._tell(
                    f"The old design keeps running. {internal_error(exc, f'in {self._path.name}')}"
                )

    def take(self) -> None:
        """Read the file again, and hand over its program."""
        try:
            checked = check_file(self._path, self._model)
            errors = errors_of(checked.findings)
            if errors or checked.design is None:
                self.refusals += 1
                count = f"{len(errors)} errors; the first: " if len(errors) > 1 else ""
                self._tell(f"The old design keeps running. {count}{errors[0]}")
                return
            design, examined = checked.design, checked.examined
            assert examined is not None
            program: Program = compile_design(self._prepare(examined), engine=self._engine)
        except FendraError as exc:
            self.refusals += 1
            self._tell(f"The old design keeps running. {exc}")
            return
        if self._stop_now.is_set():
            return  # the run has ended meanwhile
        before = self.running.design
        if (design.sources, design.outputs) != (before.sources, before.outputs):
            self._tell("Sources and outputs changed; the next start will use them.")
        for path in examined.subject.media.held.values():
            cure = f"Read it, then allow it: fendra trust {shell_word(path)}"
            self._tell(f"{path} may not run, so layers that need it are left out. {cure}")
        self.running = examined.subject
        self.reloads += 1
        self._use(program)
        self._tell(f"{self._path.name} reloaded.")

    def _signature(self) -> tuple[str, ...]:
        """A value that changes whenever one of the files does; the design's own first."""
        folder = self._path.parent
        running = self.running
        named = [*running.design.effects, *running.media.pictures]
        return tuple(stamp(path) for path in (self._path, *(folder / name for name in named)))
