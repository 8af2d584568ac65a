"""Programs: a design compiled. State in, frame out."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from typing import Any, TypeVar

import numpy as np

from fendra.core.checks.examine import Examined
from fendra.core.composition.carry_over import same_cells
from fendra.core.composition.plan import Plan
from fendra.core.document.signal import Signal
from fendra.core.electric.limiter import FULL
from fendra.core.engines.engine import Engine
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.errors import ClockError, SignalError, TapeError
from fendra.core.film import Film, Frame, quick_frame
from fendra.core.graph.node import STATE
from fendra.core.graph.ops import LARGEST, UINT_MASK
from fendra.core.names import counted, did_you_mean
from fendra.core.shown import as_table, brief, few
from fendra.core.signals.inputs import fed, moments, words
from fendra.core.signals.kinds import kind_of
from fendra.core.signals.playing import clock_of, frame_count, frame_times, heard_by
from fendra.core.signals.tape import Tape, needs_tape
from fendra.core.signals.values import to_numbers

LARGEST_FILM = 2_000_000_000
"""Bytes of a film at most."""
PROGRESS_STEPS = 200
"""How often a film reports its progress."""

_PLAIN = (float, int)
_PART = Signal()


class Program:
    """A design that runs. It remembers from frame to frame: time only goes forward.

    Attributes:
        fed: the signals that it takes; the others are computed from them
        engine: what runs it; `engine.name` is its name
    """

    def __init__(self, plan: Plan, engine: Engine) -> None:
        self.design, self.layout = plan.design, plan.layout
        self.plan = plan
        self.engine = engine
        self._last_ms: int | None = None
        self._matched: tuple[Program, dict[str, str]] | None = None
        self.fed = plan.fed
        self._known = self.takes = frozenset(self.fed)
        self._is_plain = frozenset(
            part
            for part, name in fed(self.design).items()
            if not kind_of(self.design.signals[name]).is_picture
        )
        graph = plan.graph
        following = {
            place: name.removeprefix(STATE)
            for name, place in graph.roots.items()
            if name.startswith(STATE)
        }
        self._scene_cells = [following.get(place, "") for place in plan.shares]
        self._limited = tuple(limit.supply for limit in plan.limits)
        self._shape = (len(self.layout), 3)

    def __repr__(self) -> str:
        at = "" if self._last_ms is None else f"last frame at {self.at_s:g} s"
        takes = f"takes {few(self.fed)}" if self.fed else "takes no signals"
        leds = counted(len(self.layout), "LED")
        return brief("Program", self.design.name, leds, f"on {self.engine.name}", takes, at)

    def _repr_markdown_(self) -> str:
        """The signals that it takes, in a notebook."""
        signals, belongs = self.design.signals, fed(self.design)
        rows = []
        for part in self.fed:
            signal = signals[belongs[part]]
            span = "" if signal.range is None else f"{signal.range[0]:g} to {signal.range[1]:g}"
            rows.append((part, signal.kind, span, signal.unit, signal.about))
        title = f"{self.design.name}: {counted(len(self.layout), 'LED')} on {self.engine.name}"
        return as_table(title, ("takes", "kind", "range", "unit", "about"), rows)

    def reset(self) -> None:
        """Forget everything, as after power-up."""
        self.engine.reset()
        self._last_ms = None

    def match(self, before: Program) -> dict[str, str]:
        """The memory cells that mean the same as in another program, and those, by name.

        It is computed once; a caller that cannot wait lets another thread compute it before
        `adopt`.
        """
        if self._matched is None or self._matched[0] is not before:
            pairs = same_cells(before.plan, self.plan)
            self._matched = before, pairs
        return self._matched[1]

    def adopt(self, before: Program, known: Mapping[str, float]) -> None:
        """Continue where another program is, with the memory that both share.

        known: the known values of the signals: parts that start again start with those.
        """
        if before._last_ms is None:
            return
        self.reset()
        lasting = self._known - moments(self.design)
        fed = {name: value for name, value in known.items() if name in lasting}
        self.frame(fed, at=before._last_ms / 1000)
        held = before.engine.memory()
        pairs = self.match(before)
        memory = {name: held[other] for name, other in pairs.items() if other in held}
        self._matched = None
        self.engine.recall(memory, before._last_ms & UINT_MASK)

    def move_clock(self, at_s: float) -> None:
        """Go on from another time, as if the last frame had been then: after a clock was set."""
        self._last_ms = round(at_s * 1000)
        self.engine.recall({}, self._last_ms & UINT_MASK)

    @property
    def at_s(self) -> float:
        """The time of the last frame, on the program's own clock; 0 before the first."""
        return 0.0 if self._last_ms is None else self._last_ms / 1000

    def recall(self, cells: Mapping[str, float], at_s: float) -> None:
        """Go on as if that had been remembered at a time."""
        self._last_ms = round(at_s * 1000)
        self.engine.recall(cells, self._last_ms & UINT_MASK)

    @property
    def scene(self) -> str:
        """The scene that is on now; empty if there is none."""
        if not self._scene_cells:
            return ""
        memory = self.engine.memory()
        there = [memory.get(cell, 0.0) for cell in self._scene_cells]
        place = int(np.argmax(there))
        return self.design.scene[place].name if place < len(self.design.scene) else ""

    def frame(
        self,
        news: Mapping[str, float] | None = None,
        /,
        *,
        at: float | None = None,
        **signals: float,
    ) -> Frame:
        """Make the frame at a time.

        Args:
            news: new values by name; a signal that is missing keeps its value until it is lost. NaN
                and None mean no news. A picture takes its linear light, 0 to 1, (all LEDs, 3).
            at: seconds on the program's own clock; by default one frame period after the last
                frame
            signals: the same as `news`, as keywords

        Raises:
            SignalError: the design does not take a signal of that name, or a value is not a finite
                number
            ClockError: `at` is before the last frame
        """
        checked = self._check({**news, **signals} if news and signals else news or signals)
        last_ms = self._last_ms
        if at is None:
            now_ms = 0 if last_ms is None else last_ms + round(1000 / self.design.rate)
        else:
            try:
                now_ms = round(at * 1000)
            except (TypeError, ValueError, OverflowError) as exc:
                raise ClockError(f"at = {at!r} is not a time") from exc
        if last_ms is not None and now_ms < last_ms:
            raise ClockError(
                f"at = {now_ms / 1000:g} s is before the last frame, "
                f"{last_ms / 1000:g} s; call program.reset() to start again"
            )
        out = np.empty(self._shape, np.uint8)
        self.engine.frame(now_ms & UINT_MASK, checked, out)
        self._last_ms = now_ms
        shares = {}
        if self._limited:
            gains = self.engine.gains()
            shares = {name: gain / FULL for name, gain in zip(self._limited, gains, strict=True)}
        return quick_frame(now_ms / 1000, out, self.layout, self.design, shares)

    def film(
        self,
        tape: Tape,
        *,
        rate: float | None = None,
        clock_s: float = 0.0,
        progress: Callable[[int, int], None] | None = None,
    ) -> Film:
        """Make every frame of a tape, from power-up on. The same tape gives the same film.

        Args:
            tape: signals over time; columns that the design does not know are left out
            rate: frames a second; the design's by default
            clock_s: the program's clock at the start of the tape
            progress: called with the frames done, and all frames

        Raises:
            SignalError: the tape has none of the design's signals
            TapeError: the film would not fit into memory
            ClockError: the rate is not above 0
        """
        tape = needs_tape(tape).in_words_of(words(self.design))
        rate = self.design.rate if rate is None else rate
        if not (math.isfinite(rate) and rate > 0):
            raise ClockError(f"rate = {rate} is not a number of frames a second")
        count = frame_count(tape, rate)
        if count * len(self.layout) * 3 > LARGEST_FILM:
            raise TapeError(
                f"the tape lasts {tape.duration_s:,.0f} s, which makes {count:,} "
                f"frames of {len(self.layout)} LEDs and more than "
                f"{LARGEST_FILM / 1000000000.0:g} GB. Is its time in seconds? If it "
                "is, cut the tape, or lower the rate."
            )
        times = frame_times(tape, rate)
        clock_ms = clock_of(tape, times, clock_s)
        held, is_new = heard_by(tape, self.fed, times)
        rgb = np.empty((count, len(self.layout), 3), np.uint8)
        times_ms = (clock_ms & UINT_MASK).astype(np.uint32)
        limits = self.plan.limits
        gains = np.empty((count, len(limits)), np.uint32)
        self.reset()
        step = count if progress is None else max(count // PROGRESS_STEPS, 1)
        for start in range(0, count, step):
            rows = slice(start, min(start + step, count))
            self.engine.film(times_ms[rows], held[rows], is_new[rows], rgb[rows], gains[rows])
            if progress is not None:
                progress(rows.stop, count)
        self._last_ms = int(clock_ms[-1])
        let_through = {limit.supply: gains[:, i] / FULL for i, limit in enumerate(limits)}
        return Film(times, rgb, self.layout, self.design, tape, let_through)

    def _check(self, given: Mapping[str, float]) -> Mapping[str, float]:
        """The given values as the engine takes them: known signals, numbers within +-1e9."""
        if not given.keys() <= self._is_plain:
            return self._mend(given)
        for value in given.values():
            if type(value) not in _PLAIN or not -LARGEST <= value <= LARGEST:
                return self._mend(given)
        return given

    def _mend(self, given: Mapping[str, float]) -> dict[str, float]:
        checked: dict[str, float] = {}
        for name, value in given.items():
            signal = self.design.signals.get(name)
            if signal is not None and signal.of is None:
                checked |= self._numbers_of(name, signal, value)
                continue
            if name not in self._known:
                if name in self.design.signals:
                    raise SignalError(f"signal '{name}' is computed by the design, so leave it out")
                remedy = did_you_mean(name, self.fed, "signals")
                raise SignalError(f"the design has no signal '{name}'. {remedy}")
            checked |= to_numbers(name, _PART, value)
        return checked

    def _numbers_of(self, name: str, signal: Signal, value: Any) -> dict[str, float]:
        """The numbers that feed a signal; a picture's light goes to the engine."""
        if kind_of(signal).is_picture and value is not None:
            light = np.asarray(value, np.float32)
            if light.shape != self._shape:
                raise SignalError(
                    f"picture '{name}' has shape {light.shape}; it must be {self._shape}, linear"
                )
            self.engine.picture(name, light)
        return to_numbers(name, signal, value)


P = TypeVar("P", bound=Program)


def compile_design(
    examined: Examined,
    kind: type[P] = Program,  # type: ignore[assignment]
    engine: Callable[[Plan], Engine] = NumpyEngine,
) -> P:
    """A program that runs, of a kind that adds to `Program` if wanted.

    engine: makes what runs the plan. Raises DesignError with every finding of severity error.
    """
    plan = examined.sound.plan
    return kind(plan, engine(plan))
