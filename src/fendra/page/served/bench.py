"""The bench on a page: patterns on the real lines, buttons for answers, and the cure."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from contextlib import suppress
from pathlib import Path
from threading import Condition, Event, RLock, Thread

import numpy as np

from fendra.core.arrays import Bytes
from fendra.core.checks.examine import Examined
from fendra.core.document.design import Design
from fendra.core.errors import LayoutError
from fendra.core.film import Frame
from fendra.core.findings import errors_of
from fendra.core.light.colours import linear_to_srgb
from fendra.core.names import did_you_mean
from fendra.core.probe.answers import Verdict, judge
from fendra.core.probe.bench import Bench, make_bench, on_lines
from fendra.core.probe.cures import Change, Way
from fendra.core.probe.patterns import LINE_COLOURS, PATTERNS
from fendra.core.probe.words import cure_in_words
from fendra.files.design_file import check_file
from fendra.files.edit import read_exact, with_cures, write_exact
from fendra.live.loop import LEAVE_S
from fendra.live.play import DARK, KEEP_S
from fendra.live.sender import Sender
from fendra.outputs import Output
from fendra.page import data

SPEED = 2.0
"""Steps a second, for patterns that do not wait: slow enough for a phone in the hand."""
_CORNERS = [
    "front-left",
    "front",
    "front-right",
    "left",
    "right",
    "back-left",
    "back",
    "back-right",
]
_WAYS = ["left", "right", "front", "back", "clockwise", "counter-clockwise"]
_COLOURS = ["red", "green", "blue", "white", "dark"]


class LiveBench(Thread):
    """Plays a pattern on outputs until it is stopped; takes the user's answers.

    path: the design's file. model: reads it. tell: reports failures. told: called with each sent
    frame. changed: called when there is something new to see.
    """

    def __init__(
        self, path: Path, examined: Examined, outputs: Sequence[Output],
        tell: Callable[[str], object], *, model: type[Design] = Design,
    ) -> None:  # fmt: skip
        super().__init__(name="bench", daemon=True)
        self.path, self._model, self._outputs = path, model, [*outputs]
        self.examined = examined
        self.told: list[Callable[[Frame], object]] = []
        self.changed: list[Callable[[], object]] = []
        self.frame: Frame | None = None
        self._lock, self._wake = RLock(), Condition()
        self._stop_now = Event()
        self.show("lines")
        addresses = self._bench.addresses
        self._senders = [
            Sender(str(output), output, self.design, tell, layout=addresses)
            for output in self._outputs
        ]

    @property
    def design(self) -> Design:
        return self.examined.subject.design

    def show(self, pattern: str, line: str | None = None, part: str | None = None) -> None:
        """Show another pattern. Raises LayoutError for unknown names."""
        if pattern not in PATTERNS:
            remedy = did_you_mean(pattern, [*PATTERNS], "patterns")
            raise LayoutError(f"there is no pattern '{pattern:.40}'. {remedy}")
        subject = self.examined.subject
        bench = make_bench(subject.design, subject.layout, line=line, part=part)
        bench = on_lines(bench, {n for each in self._outputs for n in each.lines_of(self.design)})
        steps = PATTERNS[pattern].steps(bench, SPEED)
        with self._lock:
            self._bench: Bench = bench
            self._steps, self._step, self._is_new = steps, 0, True
            self._level = PATTERNS[pattern].level(bench, steps)
            self._amps = np.max([bench.draw_a(step, self._level) for step in steps], axis=0)
            self.pattern, self.line, self.part = pattern, line, part
            self._verdict: Verdict | None = None
        self._poke()

    def next(self, by: int = 1) -> None:
        """Go on by a step, or back."""
        with self._lock:
            self._step = (self._step + by) % len(self._steps)
            self._is_new = True
        self._poke()

    def saw(self, text: str) -> None:
        """Take the user's answers, as `fendra probe --saw` does. Raises LayoutError."""
        if len(text) > 400:
            raise LayoutError("that answer is too long")
        with self._lock:
            self._verdict = judge(self._bench, self.line, self.part, text, [self.pattern])
        self._say()

    def apply(self, way: int) -> None:
        """Write one of the cures into the design's file, and show the pattern again with it.

        Raises FendraError if there is no such cure, or it cannot be written.
        """
        with self._lock:
            ways = self._verdict.ways if self._verdict is not None else ()
            if not 0 <= way < len(ways):
                raise LayoutError("there is no such cure")
            if not can_apply(ways[way]):
                raise LayoutError("this cure needs a number that only you can measure")
            text = with_cures(read_exact(self.path), ways[way])
            write_exact(self.path, text)
            checked = check_file(self.path, self._model)
            if errors_of(checked.findings) or checked.examined is None:
                raise LayoutError(f"it was written, but the design is wrong: {checked.findings[0]}")
            self.examined = checked.examined
            pattern, line, part = self.pattern, self.line, self.part
        with suppress(LayoutError):
            self.show(pattern, line, part)
        done = f"written into {self.path.name}; the new map sends the pattern again"
        with self._lock:
            self._verdict = Verdict(True, done)
        self._say()

    def stop(self) -> None:
        self._stop_now.set()
        self._poke()

    def shown(self, frame: Frame) -> Bytes:
        """A frame on the LEDs of the design: (n, 3) uint8, a row a spot."""
        layout = self.examined.subject.layout
        start = np.array(frame.layout.line_starts)
        rows = start[layout.line] + layout.address
        return np.asarray(frame.rgb[np.minimum(rows, len(frame.rgb) - 1)])

    def state(self) -> data.Bench:
        """The visible side of it."""
        with self._lock:
            step, verdict = self._steps[self._step], self._verdict
            layout = self.examined.subject.layout
            words = next((s.words for s in self._steps[self._step :: -1] if s.words), "")
            troubles = [sender.trouble for sender in self._senders]
            problems = [trouble.problem for trouble in troubles if trouble.problem]
            return data.Bench(
                patterns=[*PATTERNS],
                pattern=self.pattern,
                line=self.line,
                part=self.part,
                lines=[*layout.line_names],
                parts=[row.name for row in layout.parts if row.kind == "lit"],
                words=step.words or words,
                step=self._step + 1,
                steps=len(self._steps),
                level=round(float(linear_to_srgb(np.float64(self._level))), 3),
                amps=[
                    f"{amps:.2f} A of {feed}"
                    for amps, feed in zip(self._amps, self._bench.feeds, strict=True)
                ],
                asks=asks_of(self.pattern, self._bench, self.part),
                verdict="" if verdict is None else verdict.words,
                is_explained=None if verdict is None else verdict.is_explained,
                ways=[] if verdict is None else [self._in_words(way) for way in verdict.ways],
                hint="" if verdict is None else verdict.hint,
                problem=problems[0] if problems else "",
            )

    def _in_words(self, way: Way) -> list[str]:
        lines = self.examined.subject.recorded.origin.lines
        said = [cure_in_words(cure, self.path.name, self.design, lines) for cure in way]
        return said if can_apply(way) else [*said, ""]

    def run(self) -> None:
        for sender in self._senders:
            sender.start()
        try:
            while not self._stop_now.is_set():
                frame, wait_s = self._now()
                self._send(frame)
                with self._wake:
                    self._wake.wait(wait_s)
                self._go_on()
        finally:
            self._send(self._bench.frame(DARK, 0.0))
            for sender in self._senders:
                sender.end()
            for sender in self._senders:
                sender.join(LEAVE_S)

    def _send(self, frame: Frame) -> None:
        for sender in self._senders:
            sender.mailbox.put(frame)
        self.frame = frame
        for tell in self.told:
            tell(frame)

    def _now(self) -> tuple[Frame, float]:
        """The frame of this step, and how long it stays until it is sent again or is over."""
        with self._lock:
            step = self._steps[self._step]
            if self._is_new:
                self._is_new = False
                self._until_s = time.perf_counter() + step.seconds
                self._say()
            left_s = KEEP_S if step.waits else min(self._until_s - time.perf_counter(), KEEP_S)
            return self._bench.frame(step, self._level, time.perf_counter()), max(left_s, 0.005)

    def _go_on(self) -> None:
        with self._lock:
            step = self._steps[self._step]
            if not self._is_new and not step.waits and time.perf_counter() >= self._until_s:
                self._step, self._is_new = (self._step + 1) % len(self._steps), True

    def _poke(self) -> None:
        with self._wake:
            self._wake.notify_all()

    def _say(self) -> None:
        for tell in self.changed:
            tell()


def can_apply(way: Way) -> bool:
    """Whether a cure can be written as it is, without measuring or counting first."""
    return not any(
        isinstance(cure, Change) and isinstance(cure.value, str) and not _is_word(cure.value)
        for cure in way
    )


def _is_word(value: str) -> bool:
    from fendra.core.probe.answers import COUNTED, PIN
    from fendra.core.probe.cures import MEASURED

    return value not in (MEASURED, PIN, COUNTED)


def asks_of(pattern: str, bench: Bench, part: str | None) -> list[data.Ask]:
    """The questions of a pattern, and the answers that its buttons give."""
    names = [row.name for row in bench.layout.parts if row.kind == "lit"]
    lit = [data.Ask(key="lit", text="Which part was lit?", options=names)] if part else []
    match pattern:
        case "lines":
            return [
                data.Ask(key=name, text=f"Which colour had line {name}?", options=[*LINE_COLOURS])
                for name in bench.layout.line_names
            ]
        case "parts":
            colours = [*LINE_COLOURS]
            return [
                data.Ask(key=name, text=f"Which colour had {name}?", options=colours)
                for name in names
            ]
        case "colours":
            sent = ["red", "green", "blue"]
            has_white = any("W" in line.channels for line in bench.design.line)
            return [
                data.Ask(key="", text=f"What did you see when {colour} was sent?", options=_COLOURS)
                for colour in [*sent, *(["white"] if has_white else [])]
            ]
        case "corners":
            return [
                data.Ask(key="red", text="Where was red?", options=_CORNERS),
                data.Ask(key="green", text="Where was green?", options=_CORNERS),
                *lit,
            ]
        case "walk":
            return [
                data.Ask(key="start", text="Where did it begin?", options=_CORNERS),
                data.Ask(key="runs", text="Which way did it go?", options=_WAYS),
                *lit,
            ]
        case "count":
            return [data.Ask(key="count", text="How many LEDs has the chain?", options=[])]
        case "axes":
            return [data.Ask(key="at", text="Where on the thing was it lit?", options=_CORNERS)]
    return []
