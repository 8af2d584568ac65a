"""A run: sources, a program and outputs together, from the first frame to the last."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from contextlib import AbstractContextManager, ExitStack
from pathlib import Path
from threading import Event, Thread
from typing import Any

from fendra.core.composition.record import Recorded
from fendra.core.errors import internal_error
from fendra.core.program import Program
from fendra.core.shown import as_table, brief, few
from fendra.live.connect import Connected
from fendra.live.feeder import Feeder
from fendra.live.inbox import Inbox
from fendra.live.loop import Loop
from fendra.live.notify import notify
from fendra.live.recorder import Recorder
from fendra.live.sender import Sender
from fendra.live.settings import Settings
from fendra.live.stats import RunReport
from fendra.sources import Polled

MEMORY = "memory"
"""The name under which a leading node sends its memory to the others."""
MEMORY_S = 1.0
SAID_S = 0.5
"""How often a run sends its status to its sources, such as a broker."""


class Session:
    """All threads of a run. `run` ends when the loop does.

    connected: its sources and outputs. polled: more sources that the loop asks. in_phase: the
    program's clock is the time of day, so that nodes with one clock show one picture. leads: it
    sends its memory to the others, so that motion with a changing rate is the same too.

    recorded: the design's graph, from which sources that follow signals get their values.
    beside: context managers to enter while it runs, such as the page's server. addresses: of that
    page.
    """

    def __init__(
        self, program: Program, connected: Connected, *, polled: Sequence[Polled] = (),
        tell: Callable[[str], object] = lambda _: None, record: Path | None = None,
        in_phase: bool = False, leads: bool = False, for_s: float | None = None,
        progress: Callable[[float], None] | None = None, recorded: Recorded | None = None,
    ) -> None:  # fmt: skip
        self.inbox = Inbox(program.design)
        self.senders = [
            Sender(name, output, program.design, tell) for name, output in connected.outputs.items()
        ]
        self.feeders = [
            Feeder(
                name,
                source,
                self.inbox,
                program.design,
                program.layout,
                tell,
                self._remembered if in_phase and not leads else None,
            )
            for name, source in connected.sources.items()
        ]
        self.recorder = None if record is None else Recorder(record, program.design, tell)
        self._in_phase, self._leads = in_phase, leads
        self._tell, self._deaf = tell, set[str]()
        self.loop = Loop(
            program, inbox=self.inbox, polled=[*connected.polled.values(), *polled],
            senders=self.senders, progress=progress, in_phase=in_phase, for_s=for_s,
            hear=None if self.recorder is None else self.recorder.hear, tell=tell,
        )  # fmt: skip
        self._settings: Settings | None = None
        if recorded is not None:
            self._settings = Settings(recorded, connected.sources.values())
            self.loop.followers.append(self._settings.step)
        self.beside: list[AbstractContextManager[object]] = []
        self.addresses: tuple[str, ...] = ()
        self._is_over = Event()

    def __repr__(self) -> str:
        sources = [*(feeder.source for feeder in self.feeders), *self.loop.polled]
        outputs = [sender.output for sender in self.senders]
        return brief(
            "Session", self.loop.program.design.name, f"from {few(map(str, sources)) or 'nothing'}",
            f"to {few(map(str, outputs)) or 'nothing'}",
        )  # fmt: skip

    def _repr_markdown_(self) -> str:
        """Its sources and outputs, in a notebook."""
        rows = [("source", feeder.source_name, feeder.source) for feeder in self.feeders]
        rows += [("output", sender.output_name, sender.output) for sender in self.senders]  # type: ignore[misc]
        return as_table(self.loop.program.design.name, ("", "name", "what"), rows)

    def run(self) -> RunReport:
        """Run until the loop is stopped, or every source that can end has ended.

        It changes nothing in the process: signal handlers and settings of the interpreter belong to
        its owner; see `fendra.live.process`. A KeyboardInterrupt ends the run cleanly.
        """
        for thread in (*self.feeders, *filter(None, [self.recorder])):
            thread.start()
        telling = [
            Thread(target=work, name=work.__name__, daemon=True)
            for work in (self._keep, *([self._lead] if self._leads else []))
        ]
        for thread in telling:
            thread.start()
        try:
            with ExitStack() as stack:
                for each in self.beside:
                    stack.enter_context(each)
                return self.loop.run()
        finally:
            notify(stopping=1)
            self._is_over.set()
            for feeder in self.feeders:
                feeder.stop()
            for thread in (*self.feeders, *telling):
                thread.join(2)
            if self.recorder is not None:
                self.recorder.end()

    def _keep(self) -> None:
        """Again and again: tell the service manager and the sources how it goes, the first that it
        lives only while frames come; and end once every source has.
        """
        rendered, is_ready = 0, False
        while not self._is_over.wait(SAID_S):
            before, rendered = rendered, self.loop.stats.rendered
            if rendered > before:
                notify(**({} if is_ready else {"ready": 1}), watchdog=1, status=self._in_short())
                is_ready = True
            self._say("scene", self.loop.program.scene)
            self._say("lost", ",".join(self.inbox.lost()))
            is_over = all(feeder.has_ended or feeder.can_never for feeder in self.feeders)
            if self.feeders and is_over and not self.loop.polled and not self.beside:
                self.loop.stop()

    def use(self, program: Program, recorded: Recorded) -> None:
        """Run another program from the next frame on. recorded: its design's graph."""
        self.loop.use(program)
        if self._settings is not None:
            self._settings.use(recorded)

    @property
    def can_never(self) -> bool:
        """Whether no source could ever say anything, and there is nothing else that could."""
        has_others = bool(self.loop.polled or self.beside or not self.feeders)
        return not has_others and all(feeder.can_never for feeder in self.feeders)

    def _in_short(self) -> str:
        rate_hz, _, _ = self.loop.stats.lately()
        return f"{rate_hz:.1f} frames/s"

    def _lead(self) -> None:
        """Again and again: tell other nodes what this one remembers, while it is fresh."""
        while not self._is_over.wait(MEMORY_S):
            memory = self.loop.fresh_memory(MEMORY_S)
            if memory:
                self._say(MEMORY, json.dumps(memory))

    def _say(self, name: str, value: Any) -> None:
        for feeder in self.feeders:
            try:
                feeder.source.say(name, value)
            except Exception as exc:  # a driver of somebody's own may do anything
                if feeder.source_name not in self._deaf:
                    self._deaf.add(feeder.source_name)
                    self._tell(internal_error(exc, f"playing {feeder.source}"))

    def _remembered(self, raw: Any) -> None:
        """Take over the memory of a leading node."""
        if isinstance(raw, Mapping):
            self.loop.recall(raw)
