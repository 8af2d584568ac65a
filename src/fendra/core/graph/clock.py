"""Time and memory in a graph: cycles, lags, holds.

No effect sees the time itself. Milliseconds are counted in unsigned integers that wrap,
and a phase is an unsigned fraction of a turn, so that motion is as smooth after a month
as in the first minute.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from fendra.core.errors import GraphError
from fendra.core.graph.functions import (
    clamp,
    floor,
    maximum,
    minimum,
    phase_to_float,
    reached,
    select,
    settle_share,
    to_uint,
)
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import Kind
from fendra.core.graph.trace import Operand, Tracer, Value

TURN_PER_MS = 2**32 / 1000
"""Steps of an unsigned phase in a millisecond at one turn a second."""

MOST_HZ = 500.0
FOREVER_MS = 0x7FFF_FFFF
"""Where counts of time since something stop: 24.8 days."""


LONGEST_PERIOD_MS = 10_000
"""A slower rate than one in so long is none."""
PIECES = 8
"""Of the window of a moving average."""


LONGEST_S = 86_400.0
"""The longest time that is kept: a day."""


def _ms(time_s: float) -> int:
    """A time in whole milliseconds. Raises GraphError for one that none can be."""
    if not 0 <= time_s <= LONGEST_S:  # NaN is not within anything
        raise GraphError(f"a time is from 0 to {LONGEST_S:g} seconds, and this is {time_s:g}")
    return round(time_s * 1000)


class Clock:
    """A tracer's time: the frame's clock and its step, and memory over frames."""

    def __init__(self, tracer: Tracer) -> None:
        self.tracer = tracer
        self.now_ms = tracer.input("now_ms", Kind.UINT)
        self.dt_ms = tracer.input("dt_ms", Kind.UINT)
        self.first = tracer.input("first", Kind.TRUTH)
        self.dt_s = self._named("dt_s", tracer.apply("to_float", self.dt_ms) * 0.001)
        self._turns: dict[tuple[int, int | None], tuple[Value, Value]] = {}

    def cycle(self, rate: Operand, start: Value | None = None) -> Value:
        """A phase from 0 up to 1, at `rate` turns a second.

        With a constant rate it follows the clock, so that two machines with the same clock agree.
        If the rate changes, the phase accumulates and never jumps. A constant step is rounded up,
        so that a step due at a whole millisecond comes at it and not one later. start: while this
        is true the phase is 0. Two calls with the same rate and start share one phase.
        """
        return self.turns(rate, start)[1]

    def turns(self, rate: Operand, start: Value | None = None) -> tuple[Value, Value]:
        """How many whole turns have passed, an unsigned integer that wraps, and the phase.

        As `cycle`: what follows from a constant rate is the same on two machines with one clock.
        """
        rate = self._frame_number(rate, "a rate")
        key = rate.place, None if start is None else start.place
        if key not in self._turns:
            self._turns[key] = self._new_turns(rate, start)
        return self._turns[key]

    def _new_turns(self, rate: Value, start: Value | None) -> tuple[Value, Value]:
        if rate.number is not None:
            step = math.ceil(min(max(rate.number, 0.0), MOST_HZ) * TURN_PER_MS)
            clock = self.now_ms if start is None else self._ticks(start)
            count = self._uint("uint_mul_high", clock, step)
            return count, phase_to_float(self._uint("uint_mul", clock, step))
        step_per_ms = self._named("step", to_uint(clamp(rate, 0.0, MOST_HZ) * TURN_PER_MS))
        before = self.tracer.state(self.tracer.fresh_name("phase"), 0, Kind.UINT)
        count = self.tracer.state(self.tracer.fresh_name("turns"), 0, Kind.UINT)
        moved = self._uint("uint_add", before, self._uint("uint_mul", step_per_ms, self.dt_ms))
        passed = self._uint("uint_mul_high", step_per_ms, self.dt_ms)
        carry = self._uint("uint_select", self._uint("uint_less", moved, before), 1, 0)
        turned = self._uint("uint_add", count, self._uint("uint_add", passed, carry))
        if start is not None:
            moved = self._uint("uint_select", start, 0, moved)
            turned = self._uint("uint_select", start, 0, turned)
        self.tracer.remember(before, moved)
        self.tracer.remember(count, turned)
        return turned, phase_to_float(moved)

    def _ticks(self, start: Value) -> Value:
        """Milliseconds since `start` was last true; they wrap as the clock's do."""
        before = self.tracer.state(self.tracer.fresh_name("ticks"), 0, Kind.UINT)
        now = self._uint("uint_select", start, 0, self._uint("uint_add", before, self.dt_ms))
        self.tracer.remember(before, now)
        return now

    def steps(self, step_ms: Operand, start: Value, most: int) -> Value:
        """How many steps have passed since `start` was last true: a whole number up to `most`.

        A constant step follows the clock. If the step changes, passed steps stay passed, and so
        does the share of the next one. It is `most` before `start` was ever true.
        """
        step_ms = maximum(self._frame_number(step_ms, "a step"), 1e-3)
        if step_ms.number is not None:
            since = self.tracer.apply("to_float", self.since_ms(start, FOREVER_MS))
            return minimum(floor(since / step_ms), float(most))
        whole = self.tracer.state(self.tracer.fresh_name("steps"), most, Kind.UINT)
        part = self.tracer.state(self.tracer.fresh_name("part"), 0.0, Kind.FLOAT)
        come = part + self.tracer.apply("to_float", self.dt_ms) / step_ms
        passed = minimum(maximum(reached(come), 0.0), float(most))
        now = self._uint_min(self._uint("uint_add", whole, self._uint("to_uint", passed)), most)
        self.tracer.remember(part, select(start, 0.0, clamp(come - passed, -1.0)))
        now = self._uint("uint_select", start, 0, now)
        self.tracer.remember(whole, now)
        return self.tracer.apply("to_float", now)

    def seconds_since(self, event: Value, start_s: float | None = None) -> Value:
        """Seconds since `event` was last true, to the millisecond for 4.6 hours.

        start_s: the value before it ever was; a long time if not given.
        """
        start = FOREVER_MS if start_s is None else round(start_s * 1000)
        return self.tracer.apply("to_float", self.since_ms(event, start)) * 0.001

    def count(self, event: Value, most: int) -> Value:
        """How often `event` became true, from 0, beginning again at `most`; unsigned.

        If it is true in the very first frame, that does not count.
        """
        before = self.tracer.state(self.tracer.fresh_name("count"), 0, Kind.UINT)
        next_one = self._uint("uint_mod", self._uint("uint_add", before, 1), max(most, 1))
        has_come = self.rises(event) & ~self.first
        now = self._uint("uint_select", has_come, next_one, before)
        self.tracer.remember(before, now)
        return now

    def latest(self, events: Sequence[Value]) -> Value:
        """Which of several became true last, from 1 on, as a number; 0 before any did.

        Of those that become true together it is the first. What is true in the very first frame
        was so before, and does not count.
        """
        now = before = self.tracer.state(self.tracer.fresh_name("latest"), 0.0, Kind.FLOAT)
        for number, event in reversed([*enumerate(events, start=1)]):
            now = select(self.rises(event) & ~self.first, float(number), now)
        self.tracer.remember(before, now)
        return now

    def stopwatch(self, runs: Value, reset: Value) -> Value:
        """Seconds for which `runs` was true since `reset` last was; it pauses while `runs` is
        false.

        It counts whole milliseconds, and stops after 4.6 hours.
        """
        before = self.tracer.state(self.tracer.fresh_name("counted"), 0, Kind.UINT)
        dt_ms = self._uint_min(self.dt_ms, FOREVER_MS)
        grown = self._uint_min(self._uint("uint_add", before, dt_ms), FOREVER_MS)
        counted = self._uint("uint_select", runs, grown, before)
        now = self._uint("uint_select", reset, 0, counted)
        self.tracer.remember(before, now)
        return self.tracer.apply("to_float", now) * 0.001

    def caught(self, event: Value, value: Value) -> Value:
        """`value` at the moment when `event` was last true; 0 before that. A constant is itself."""
        if self.tracer.lift(value, Kind.FLOAT).number is not None:
            return value
        before = self.tracer.state(self.tracer.fresh_name("caught"), 0.0, Kind.FLOAT)
        now = select(event, self._frame_number(value, "what is caught"), before)
        self.tracer.remember(before, now)
        return now

    def recent(
        self, event: Value, values: Sequence[Value], slots: int
    ) -> list[tuple[Value, list[Value]]]:
        """The newest `slots` moments in which `event` became true.

        Gives for each the milliseconds since, unsigned, and the values at that moment.
        """
        rises = self.rises(event)
        place = self.count(rises, slots)
        found = []
        for number in range(slots):
            is_mine = rises & self._uint("uint_equal", place, number)
            age_ms = self.since_ms(is_mine, FOREVER_MS)
            found.append((age_ms, [self.caught(is_mine, value) for value in values]))
        return found

    def peak(self, value: Value, hold_s: float, fall: Operand) -> Value:
        """The highest that `value` was: it stays for `hold_s`, then falls by `fall` a second."""
        value = self._frame_number(value, "what has a peak")
        before = self.tracer.state(self.tracer.fresh_name("peak"), 0.0, Kind.FLOAT)
        is_new = value >= before
        age_ms = self.since_ms(is_new)
        is_held = self._uint("uint_less", age_ms, _ms(hold_s) + 1)
        fallen = before - self.dt_s * self._frame_number(fall, "how fast a peak falls")
        now = select(is_new | self.first, value, select(is_held, before, maximum(fallen, value)))
        self.tracer.remember(before, now)
        return now

    def at_least(self, on: Value, duration_s: float) -> Value:
        """`on`, but once it is true it stays so for `duration_s` seconds."""
        before = self.tracer.state(self.tracer.fresh_name("stays"), False, Kind.TRUTH)
        age_ms = self.since_ms(on & ~before, FOREVER_MS)
        is_young = self._uint("uint_less", age_ms, _ms(duration_s))
        now = on | is_young
        self.tracer.remember(before, now)
        return now

    def elapsed_ms(self, period_ms: Operand, start: Value, lead_ms: float = 0.0) -> Value:
        """Milliseconds since `start` was true, from 0 again after each period.

        Exact if the period is constant; if it changes, each period keeps the length it had at its
        start. lead_ms: it starts this far below 0, if the period is constant.
        """
        period = self._frame_number(period_ms, "a period")
        if period.number is None:
            before, length = (
                self.tracer.state(self.tracer.fresh_name(name), 0.0, Kind.FLOAT)
                for name in ("elapsed", "length")
            )
            come = before + self.tracer.apply("to_float", self.dt_ms)
            begins = start | (come >= length)
            now = select(begins, select(start, 0.0, minimum(come - length, period)), come)
            self.tracer.remember(before, now)
            self.tracer.remember(length, select(begins, period, length))
            return now
        whole_ms = min(max(round(period.number), 1), FOREVER_MS)
        elapsed = self.tracer.state(self.tracer.fresh_name("elapsed"), 0, Kind.UINT)
        moved = self._uint("uint_add", elapsed, self.dt_ms)
        lead = min(round(lead_ms), FOREVER_MS)
        again = self._uint("uint_mod", self._uint("uint_sub", moved, lead), whole_ms)
        if lead:
            is_first = self._uint("uint_less", moved, lead)
            again = self._uint("uint_select", is_first, moved, self._uint("uint_add", again, lead))
        now = self._uint("uint_select", start, 0, again)
        self.tracer.remember(elapsed, now)
        return self.tracer.apply("to_float", now) - float(lead)

    def since_ms(self, event: Value, start: int = 0) -> Value:
        """Milliseconds since `event` was last true, 0 while it is; it stops at `FOREVER_MS`."""
        before = self.tracer.state(self.tracer.fresh_name("since"), start, Kind.UINT)
        dt_ms = self._uint_min(self.dt_ms, FOREVER_MS)
        self._named("passed_ms", dt_ms)
        grown = self._named("age", self._uint("uint_add", before, dt_ms))
        grown = self._uint_min(grown, FOREVER_MS)
        now = self._uint("uint_select", event, 0, grown)
        self.tracer.remember(before, now)
        return now

    def earlier(self, value: Value) -> Value:
        """A number's value in the frame before; 0 in the first."""
        before = self.tracer.state(self.tracer.fresh_name("earlier"), 0.0, Kind.FLOAT)
        self.tracer.remember(before, self._frame_number(value, "what is remembered"))
        return before

    def ever(self, event: Value) -> Value:
        """True from the first frame in which `event` is true on."""
        before = self.tracer.state(self.tracer.fresh_name("ever"), False, Kind.TRUTH)
        now = event | before
        self.tracer.remember(before, now)
        return now

    def before(self, on: Value) -> Value:
        """Whether `on` was true in the frame before."""
        before = self.tracer.state(self.tracer.fresh_name("was"), False, Kind.TRUTH)
        self.tracer.remember(before, on)
        return before

    def rises(self, on: Value) -> Value:
        """True in the one frame in which `on` becomes true."""
        return on & ~self.before(on)

    def hold(self, on: Value, duration_s: float) -> Value:
        """True while `on` is, and for `duration_s` seconds after."""
        since = self.since_ms(on, start=FOREVER_MS)
        return on | self._uint("uint_less", since, _ms(duration_s))

    def lag(self, x: Value, time_constant_s: Operand, jump: Value | None = None) -> Value:
        """`x`, followed with a time constant; it begins at the first value of `x`.

        jump: where this is true, the lag is at `x` at once.
        """
        x = self._frame_number(x, "what is smoothed")
        before = self.tracer.state(self.tracer.fresh_name("lag"), 0.0, Kind.FLOAT)
        share = self._named("share", settle_share(self.dt_s, time_constant_s))
        at_once = self.first if jump is None else self.first | jump
        now = select(at_once, x, before + (x - before) * share)
        self.tracer.remember(before, now)
        return now

    def follow(self, x: Value, rise_s: float, fall_s: float) -> Value:
        """`x`, followed with one time constant upward and another downward; 0 is at once."""
        if rise_s == fall_s:
            return self.lag(x, max(rise_s, 0.001))
        x = self._frame_number(x, "what is smoothed")
        before = self.tracer.state(self.tracer.fresh_name("lag"), 0.0, Kind.FLOAT)
        up, down = (settle_share(self.dt_s, max(time_s, 0.001)) for time_s in (rise_s, fall_s))
        share = self._named("share", select(x > before, up, down))
        now = select(self.first, x, before + (x - before) * share)
        self.tracer.remember(before, now)
        return now

    def slew(self, x: Value, up: Operand, down: Operand) -> Value:
        """`x`, followed by at most `up` a second upward and `down` a second downward."""
        x = self._frame_number(x, "what is followed")
        before = self.tracer.state(self.tracer.fresh_name("slewed"), 0.0, Kind.FLOAT)
        high = before + self.dt_s * self._frame_number(up, "how fast it rises")
        low = before - self.dt_s * self._frame_number(down, "how fast it falls")
        now = select(self.first, x, minimum(maximum(x, low), high))
        self.tracer.remember(before, now)
        return now

    def slope(self, x: Value, time_constant_s: Operand) -> Value:
        """How fast `x` changes, a second, smoothed with a time constant; 0 at the beginning."""
        smoothed = self.lag(x, time_constant_s)
        return (x - smoothed) / time_constant_s

    def average(self, x: Value, window_s: float) -> Value:
        """The mean of `x` over the last `window_s` seconds; it begins at the first value of `x`.

        The window is kept in `PIECES` pieces of whole frames, and one that fills. What is older
        than the window goes out evenly, whatever the frames' length.
        """
        x = self._frame_number(x, "what is averaged")
        tracer, piece_s = self.tracer, window_s / PIECES

        def cells(name: str, count: int = PIECES) -> list[Value]:
            return [tracer.state(tracer.fresh_name(name), 0.0, Kind.FLOAT) for _ in range(count)]

        values, lengths, (sum_, time) = cells("piece"), cells("length"), cells("filling", 2)
        added, passed = sum_ + x * self.dt_s, time + self.dt_s
        is_full = self._named("is_full", passed >= piece_s)
        newest = self._named("newest", select(is_full, added / passed, x))

        def moved_on(first: Operand, new: Value, old: list[Value]) -> list[Value]:
            moved = zip([new, *old], old, strict=False)
            return [
                select(self.first, first, select(is_full, before, cell)) for before, cell in moved
            ]

        now_values, now_lengths = moved_on(x, newest, values), moved_on(piece_s, passed, lengths)
        kept = select(is_full, 0.0, added)
        left = self._named("left", select(is_full, 0.0, passed))
        total, rest_s = kept, window_s - left
        for value, length in zip(now_values, now_lengths, strict=True):
            total = total + value * minimum(maximum(rest_s, 0.0), length)
            rest_s = rest_s - length
        after = [*now_values, *now_lengths, kept, left]
        for cell, value in zip([*values, *lengths, sum_, time], after, strict=True):
            tracer.remember(cell, value)
        return total * (1.0 / window_s)

    def threshold(self, x: Value, on_at: float, off_at: float) -> Value:
        """True from when `x` is above `on_at` until it is below `off_at`. If `on_at` is the lower
        one: from when `x` is below `on_at` until it is above `off_at`.
        """
        x = self._frame_number(x, "what is compared")
        if on_at == off_at:
            return x > on_at
        before = self.tracer.state(self.tracer.fresh_name("is_on"), False, Kind.TRUTH)
        goes_on = x > on_at if on_at > off_at else x < on_at
        stays = x >= off_at if on_at > off_at else x <= off_at
        now = goes_on | (before & stays)
        self.tracer.remember(before, now)
        return now

    def debounce(self, on: Value, time_s: float) -> Value:
        """`on`, but a change counts after it has lasted this long."""
        was, before = (
            self.tracer.state(self.tracer.fresh_name(name), False, Kind.TRUTH)
            for name in ("raw", "settled")
        )
        changed = (on & ~was) | (~on & was)
        is_young = self._uint("uint_less", self.since_ms(changed), _ms(time_s))
        now = select(self.first | ~is_young, on, before)
        self.tracer.remember(was, on)
        self.tracer.remember(before, now)
        return now

    def dwell(self, on: Value, time_s: float) -> Value:
        """`on`, with a minimum time on and off."""
        before = self.tracer.state(self.tracer.fresh_name("dwells"), False, Kind.TRUTH)
        age = self.tracer.state(self.tracer.fresh_name("dwelt"), FOREVER_MS, Kind.UINT)
        grown = self._uint("uint_add", age, self._uint_min(self.dt_ms, FOREVER_MS))
        grown = self._uint_min(grown, FOREVER_MS)
        is_young = self._uint("uint_less", grown, _ms(time_s))
        now = select(self.first | ~is_young, on, before)
        changed = ((now & ~before) | (~now & before)) & ~self.first
        self.tracer.remember(before, now)
        self.tracer.remember(age, self._uint("uint_select", changed, 0, grown))
        return now

    def pulse(self, on: Value, time_s: float) -> Value:
        """True for `time_s` seconds from where `on` becomes true, however long it stays so."""
        starts = self.rises(on) & ~self.first
        since = self.since_ms(starts, start=FOREVER_MS)
        return self._uint("uint_less", since, _ms(time_s))

    def rate_of(self, on: Value) -> Value:
        """How often a second `on` becomes true: by the time between the last two times.

        0 until it did so twice, and again when it stays away for twice that time.
        """
        age, period = (
            self.tracer.state(self.tracer.fresh_name(name), start, Kind.UINT)
            for name, start in (("age", FOREVER_MS), ("period", 0))
        )
        rises = self.rises(on) & ~self.first
        dt_ms = self._uint_min(self.dt_ms, FOREVER_MS)
        grown = self._uint_min(self._uint("uint_add", age, dt_ms), FOREVER_MS)
        is_known = self._uint("uint_less", grown, LONGEST_PERIOD_MS)
        found = self._uint("uint_select", is_known, grown, 0)
        now = self._uint("uint_select", rises, found, period)
        since = self._uint("uint_select", rises, 0, grown)
        self.tracer.remember(age, since)
        self.tracer.remember(period, now)
        is_going = self._uint("uint_less", since, self._uint("uint_mul", now, 2))
        return select(is_going, 1000.0 / self.tracer.apply("to_float", now), 0.0)

    def presence(self, on: Value, fade_in_s: float, fade_out_s: float) -> Value:
        """How much of a layer is there, 0 to 1: it grows while `on` and then shrinks, evenly.

        A fade of 0 s is a step.
        """
        before = self.tracer.state(self.tracer.fresh_name("presence"), 0.0, Kind.FLOAT)
        grown = clamp(before + self.dt_s / fade_in_s) if fade_in_s > 0 else 1.0
        shrunk = clamp(before - self.dt_s / fade_out_s) if fade_out_s > 0 else 0.0
        for value, name in ((grown, "grown"), (shrunk, "shrunk")):
            if isinstance(value, Value):
                self._named(name, value)
        now = select(on, grown, shrunk)
        self.tracer.remember(before, now)
        return now

    def _uint_min(self, a: Operand, b: Operand) -> Value:
        return self._uint("uint_select", self._uint("uint_less", a, b), a, b)

    def _named(self, name: str, value: Value) -> Value:
        """The value, under this name in emitted code."""
        self.tracer.label(value, name)
        return value

    def _uint(self, name: str, *args: Operand) -> Value:
        return self.tracer.apply(name, *args)

    def _frame_number(self, x: Operand, what: str) -> Value:
        value = self.tracer.lift(x, Kind.FLOAT)
        if value.rate & Rate.SPOT:
            raise GraphError(
                f"{what} is one number for all, and this differs from LED to LED; "
                "use signals here, and no columns"
            )
        return value
