"""The live loop: frames at an even rate, handed to outputs that may be slow.

The loop never waits for a source or an output: each has its own thread and mailbox. If frames are
late, it skips them and continues with the newest.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from hashlib import sha256
from threading import Event
from typing import Annotated, Any

import numpy as np
from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fendra.core.errors import OutputError, internal_error
from fendra.core.film import Frame
from fendra.core.graph.ops import UINT_MASK, Kind
from fendra.core.program import Program
from fendra.live.inbox import Inbox
from fendra.live.sender import Sender
from fendra.live.stats import RunReport, Stats
from fendra.live.trouble import log
from fendra.outputs import Output
from fendra.sources import Polled

STANDBY_S = 10.0
"""How long after power-up the look of standby is taken: fades are over then."""
MOST = float(np.finfo(np.float32).max)
"""The largest number that a memory cell holds."""
LATEST_S = 3.0
"""Another node's memory that is older than this is not used, nor what is so far ahead."""
STEPPED_S = 1.0
"""A clock that is off by more was set, and did not drift."""
SLEW_S = 0.0005
"""How much a frame comes earlier or later at most, to keep a clock that drifts."""
LEAVE_S = 3.0
"""How long the outputs have at most to show how the run ends."""


class Loop:
    """Makes the frames of a program, one after the other, until it is stopped.

    inbox: the values from sources. polled: sources that the loop asks. senders: send the frames.
    start_at_s: the program's clock at the beginning. hear: called with each frame's time and new
    values. for_s: when it ends. leaves: at the end the outputs show how the design leaves them.
    in_phase: the program's clock is the time of day. tell: reports failures. stats: how even it
    runs. watchers: each is called with a frame and its new values; none may wait. followers: each
    is called before a frame with its time and all new values. cpu_s: how long its thread has
    worked.
    """

    def __init__(
        self, program: Program, *, inbox: Inbox | None = None, polled: Sequence[Polled] = (),
        senders: Sequence[Sender] = (), clock: Callable[[], float] = time.perf_counter,
        sleep: Callable[[float], None] | None = None, start_at_s: float = 0.0,
        hear: Callable[[float, Mapping[str, Any]], None] | None = None,
        for_s: float | None = None, leaves: bool = True, in_phase: bool = False,
        progress: Callable[[float], None] | None = None,
        tell: Callable[[str], object] = lambda _: None,
    ) -> None:  # fmt: skip
        self.program = program
        self._tell = tell
        self.inbox = Inbox(program.design, clock=clock) if inbox is None else inbox
        self.polled, self.senders = list(polled), list(senders)
        self.stats = Stats(program.design.rate)
        self.known: dict[str, float] = {}
        self._clock, self._hear, self._progress = clock, hear, progress
        self._stop_now = Event()
        self._sleep = sleep or self._wait
        self._start_at_s, self._leaves, self._in_phase = start_at_s, leaves, in_phase
        self._for_s = for_s
        self._recalled: Memory | None = None
        self.watchers: list[Callable[[Frame, Mapping[str, Any]], object]] = []
        self.followers: list[Callable[[float, Mapping[str, Any]], object]] = []
        self.cpu_s = self._cpu_begun_s = 0.0
        self.memory: dict[str, Any] = {}
        self._wants_memory = Event()
        self._has_memory = Event()
        self._next: Program | None = None
        self.frame: Frame | None = None

    def stop(self) -> None:
        """End after this frame; safe from any thread and signal handler."""
        self._stop_now.set()

    @property
    def is_stopped(self) -> bool:
        return self._stop_now.is_set()

    def use(self, program: Program) -> None:
        """Go on with another program from the next frame on; safe from any thread, in which what
        both remember is found.
        """
        program.match(self.program)
        self._next = program

    def fresh_memory(self, wait_s: float) -> dict[str, Any]:
        """The program's memory after the next frame, for other nodes that show the same
        design; from any thread. Empty if no frame comes in time.
        """
        self._has_memory.clear()
        self._wants_memory.set()
        return self.memory if self._has_memory.wait(wait_s) else {}

    def recall(self, memory: Mapping[str, Any]) -> None:
        """Go on with what another node remembers, if it shows the same design, from the first
        frame on that is not before it: the other node may be a frame ahead. From any thread.
        """
        self._recalled = told_by(memory)

    def run(self) -> RunReport:
        """Run until `stop`, until every source that can end has, or no output can ever work; a
        KeyboardInterrupt ends it likewise. The outputs then show how the design leaves them.
        """
        self.program.reset()
        self._cpu_begun_s = time.thread_time()
        for sender in self.senders:
            sender.start()
        if self._in_phase:
            self._start_at_s, wait_s = phase_start(time.time(), self.program.design.rate)
            self._sleep(wait_s)
        start_s = self._clock()
        try:
            self._run(start_s)
        except KeyboardInterrupt:
            pass  # the usual way to end a run
        finally:
            self._leave()
        return self.stats.report(self.senders, self._clock() - start_s)

    def _is_vain(self) -> bool:
        """Whether no output could ever show a frame, and no page looks at them."""
        is_seen = bool(self.watchers) or not self.senders
        return not is_seen and all(sender.can_never for sender in self.senders)

    def _run(self, start_s: float) -> None:
        """Frame after frame. start_s: when it began, by the clock. The frame at a place is due so
        many periods after `base_s`, which moves only when the rate changes.
        """
        place, base_s = 0, 0.0
        rate = self.program.design.rate
        while not self._stop_now.is_set():
            due_s = base_s + place / rate
            if self._next is not None:
                self._change()
                if self.program.design.rate != rate:
                    rate, base_s, place = self.program.design.rate, due_s, 0
            if self._is_vain():
                return
            at_s = self._start_at_s + due_s
            if self._for_s is not None and due_s >= self._for_s:
                return
            ending = [source for source in self.polled if source.can_end]
            if ending and all(source.has_ended(due_s) for source in ending):
                return
            late_s = self._clock() - start_s - due_s
            if self._in_phase:
                jump_s, slip_s = self._kept_in_phase(at_s + late_s - time.time())
                at_s, start_s = at_s + jump_s, start_s + slip_s
            self._make(at_s, due_s, late_s)
            now_s = self._clock() - start_s
            behind = max(int((now_s - base_s) * rate) - (place + 1), 0)
            self.stats.late += behind
            place += 1 + behind
            self._sleep(max(base_s + place / rate - now_s, 0.0))

    def _kept_in_phase(self, ahead_s: float) -> tuple[float, float]:
        """How the clock that all nodes share is kept: by how much the program's clock jumps, since
        the time of day was set, and by how much frames come later, since it drifts; in seconds.
        """
        if abs(ahead_s) <= STEPPED_S:
            return 0.0, min(max(ahead_s, -SLEW_S), SLEW_S)
        rate = self.program.design.rate
        jump_s = round(-ahead_s * rate) / rate
        self._start_at_s += jump_s
        self.program.move_clock(self.program.at_s + jump_s)
        log.warning("the system clock jumped by %.1f s", jump_s)
        return jump_s, 0.0

    def _make(self, at_s: float, since_s: float, late_s: float) -> None:
        """Make one frame and hand it over."""
        begun_s = self._clock()
        program, fed = self.program, self.program.takes
        told = self._recalled
        if told is not None and not 0 < told.ahead_ms(at_s) <= LATEST_S * 1000:
            recall(program, told, at_s)
            self._recalled = None
        for source in [*self.polled]:
            for name, value in self._news_of(source, since_s).items():
                self.inbox.put_number(str(source), name, value)
        taken = self.inbox.take()
        for follow in self.followers:
            follow(at_s, taken)
        news = {name: value for name, value in taken.items() if name in fed}
        frame = program.frame(news, at=at_s)
        for sender in self.senders:
            if sender.output.hears_news:
                sender.output.hear(news)
            sender.mailbox.put(frame)
        self.frame = frame
        if self._wants_memory.is_set():
            self._wants_memory.clear()
            self.memory = memory_of(program)
            self._has_memory.set()
        if news:
            self.known |= {name: v for name, v in news.items() if isinstance(v, (int, float))}
        for watch in self.watchers:
            watch(frame, news)
        self.stats.note(late_s, self._clock() - begun_s, frame)
        self.cpu_s = time.thread_time() - self._cpu_begun_s
        if self._hear is not None:
            self._hear(since_s, news)
        if self._progress is not None:
            self._progress(since_s)

    def _news_of(self, source: Polled, since_s: float) -> Mapping[str, float]:
        """The new values of a polled source; a source that fails has ended."""
        try:
            return source.news(since_s)
        except Exception as exc:
            error = internal_error(exc, f"in {source}")
            log.error("%s", error)
            self._tell(error)
            self.polled.remove(source)
            if source.can_end and not any(other.can_end for other in self.polled):
                self.stop()
            return {}

    def _change(self) -> None:
        after, self._next = self._next, None
        assert after is not None
        after.adopt(self.program, self.known)
        self.program = after
        self.stats.rate_hz = after.design.rate
        self.inbox.use(after.design)

    def _leave(self) -> None:
        """Show how the design leaves its outputs, and close them."""
        at_s = self.program.at_s + 1 / self.program.design.rate
        frame = leaving_frame(self.program, at_s) if self._leaves else None
        for sender in self.senders:
            if frame is not None:
                sender.mailbox.put(frame)
            sender.end()
        until_s = time.perf_counter() + LEAVE_S
        for sender in self.senders:
            sender.join(max(until_s - time.perf_counter(), 0.0))

    def _wait(self, duration_s: float) -> None:
        self._stop_now.wait(duration_s)


def phase_start(now_s: float, rate_hz: float) -> tuple[float, float]:
    """When the next frame of a clock that all nodes share is due, and how long that is away, s.

    >>> phase_start(1000.013, 50.0)[0]
    1000.02
    """
    number = int(now_s * rate_hz) + 1
    return number / rate_hz, number / rate_hz - now_s


def identity(program: Program) -> str:
    """A digest that differs between programs whose memory differs."""
    graph = program.plan.graph
    told = repr((sorted(graph.start.items()), len(graph.nodes), program.design.name))
    return sha256(told.encode()).hexdigest()[:16]


def memory_of(program: Program) -> dict[str, Any]:
    """The memory of a program, and its time: for other nodes that show the same design."""
    return {
        "design": identity(program), "at_s": program.at_s, "cells": program.engine.memory(),
    }  # fmt: skip


class Memory(BaseModel):
    """The memory that another node sends. It comes over a network, from anybody."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    design: Annotated[str, Field(max_length=64)]
    at_s: Annotated[float, Field(ge=0, le=1e12)]
    cells: dict[str, Annotated[float, Field(ge=-MOST, le=MOST)]]

    def ahead_ms(self, at_s: float) -> int:
        """How far it is ahead of a frame's time, in the whole milliseconds that programs count."""
        return round(self.at_s * 1000) - round(at_s * 1000)


def told_by(memory: Mapping[str, Any]) -> Memory | None:
    """The memory that another node has sent; None if that is none."""
    try:
        return Memory.model_validate(dict(memory))
    except (ValidationError, OverflowError):
        return None


def recall(program: Program, told: Memory | None, at_s: float) -> bool:
    """Continue a program with another node's memory; False if it does not fit."""
    if told is None:
        return False
    is_fresh = -LATEST_S * 1000 <= told.ahead_ms(at_s) <= 0
    if told.design != identity(program) or not is_fresh or not _fits(program, told.cells):
        return False
    program.recall(told.cells, told.at_s)
    return True


def _fits(program: Program, cells: Mapping[str, float]) -> bool:
    """Whether each value fits the memory cell of its name."""
    kinds = {str(n.payload): n.kind for n in program.plan.graph.nodes if n.op == "state"}
    for name, value in cells.items():
        match kinds.get(name):
            case None:
                return False
            case Kind.UINT if not (0 <= value <= UINT_MASK and value == int(value)):
                return False
            case Kind.TRUTH if value not in (0, 1):
                return False
    return True


def leaving_frame(program: Program, at_s: float) -> Frame | None:
    """The frame that outputs show when a run has ended; None if they keep the last one.

    at_s: that moment, on the program's clock.
    """
    match program.design.leaving:
        case "keep":
            return None
        case "dark":
            dark = np.zeros((len(program.layout), 3), np.uint8)
            return Frame(at_s, dark, program.layout, program.design)
    program.reset()
    frame = program.frame(at=0.0)
    for step in range(1, 21):  # in steps, so that fades come to their end
        frame = program.frame(at=step * STANDBY_S / 20)
    return replace(frame, at_s=at_s, rgb=frame.rgb.copy())


def run_live(
    program: Program,
    source: Polled,
    output: Output,
    *,
    progress: Callable[[float], None] | None = None,
    clock: Callable[[], float] = time.perf_counter,
    sleep: Callable[[float], None] | None = None,
) -> RunReport:
    """Run a program on a source's values until the source ends; frames go to the output.

    Values of signals that the program does not take are left out.

    progress: called after each frame with the seconds since the beginning. clock, sleep: for tests.
    A KeyboardInterrupt ends the run as the end of the source does. Raises OutputError if the output
    cannot be opened or fails.
    """
    sender = Sender("output", output, program.design)

    def watch(since_s: float) -> None:
        if progress is not None:
            progress(since_s)
        if sender.trouble.problem:
            loop.stop()

    loop = Loop(
        program,
        polled=[source],
        senders=[sender],
        progress=watch,
        clock=clock,
        sleep=sleep,
        leaves=False,
    )
    report = loop.run()
    if sender.trouble.problem:
        raise OutputError(sender.trouble.problem)
    return report
