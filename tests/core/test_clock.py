"""What a clock remembers: turns, peaks, counts, the newest moments."""

from __future__ import annotations

import numpy as np
import pytest

from fendra.core.engines.numpy.numbers import Numbers
from fendra.core.graph.clock import Clock
from fendra.core.graph.node import VALUE
from fendra.core.graph.ops import Kind
from fendra.core.graph.passes import simplify
from fendra.core.graph.trace import Tracer


def run(build, steps_ms, xs=None, start_ms=0):
    """What `build(clock, x)` gives frame by frame, each result a list. xs: the input x."""
    tracer = Tracer()
    clock = Clock(tracer)
    results = build(clock, tracer.input(f"{VALUE}x", Kind.FLOAT))
    for i, value in enumerate(results):
        tracer.roots[f"r{i}"] = value.place
    graph = simplify(tracer.graph())
    numbers = Numbers(graph)
    rows, now_ms = [], start_ms
    for i, step_ms in enumerate(steps_ms):
        now_ms = (now_ms + step_ms) % 2**32
        news = {"x": 0.0 if xs is None else float(xs[i])}
        registers = numbers.run(now_ms, step_ms if i else 0, i == 0, news)
        rows.append(
            [registers[numbers.register(graph.roots[f"r{j}"])] for j in range(len(results))]
        )
    return [*zip(*rows, strict=True)]


def test_turns_are_counted_with_the_phase_whether_the_rate_moves_or_not():
    """2.5 Hz over 4 s, in frames of 20 ms."""
    steps = [0] + [20] * 200
    for rate in (2.5, "bound"):
        count, phase = run(
            lambda clock, x, rate=rate: clock.turns(2.5 if rate == 2.5 else x), steps, [2.5] * 201
        )
        total = np.array(count) + np.array(phase, float)
        assert total == pytest.approx(np.arange(201) * 0.05, abs=1e-4)


def test_turns_of_a_fast_bound_rate_are_not_lost_in_a_long_frame():
    count, _ = run(lambda clock, x: clock.turns(x), [0, 10_000, 10], [0, 400, 400])
    assert count[1:] == (4000, 4004)


def test_two_clocks_of_one_time_agree_whenever_they_began():
    late = run(lambda clock, x: clock.turns(1.7), [500_000, 20, 20])  # noqa: ARG005
    early = run(lambda clock, x: clock.turns(1.7), [0] + [20] * 25_002)  # noqa: ARG005
    for one, other in zip(late, early, strict=True):
        assert one == other[-3:]


def test_a_constant_phase_is_never_late_at_a_whole_millisecond():
    (phase,) = run(lambda clock, x: [clock.cycle(1.0)], [0] + [20] * 50_000)  # noqa: ARG005
    for second in (1, 7, 100, 999):
        assert float(phase[second * 50]) < 0.001
        assert float(phase[second * 50 + 25]) >= 0.5
        assert float(phase[second * 50 + 24]) < 0.5


def test_a_peak_stays_and_falls_and_a_higher_value_lifts_it():
    xs = [0.2, 0.8, *[0.1] * 10, 0.9]
    (peak,) = run(lambda clock, x: [clock.peak(x, 0.3, 1.0)], [0] + [100] * 12, xs)
    expected = [0.2, 0.8, 0.8, 0.8, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1, 0.9]
    assert [float(p) for p in peak] == pytest.approx(expected, abs=1e-5)


def test_a_count_goes_round_and_leaves_out_what_was_so_at_the_start():
    xs = [1, 1, 0, 1, 0, 1, 1, 0, 1, 0]
    (count,) = run(lambda clock, x: [clock.count(x > 0.5, 3)], [20] * 10, xs)
    assert count == (0, 0, 0, 1, 1, 2, 2, 2, 0, 0)


def test_at_least_holds_what_is_short_and_leaves_what_is_long():
    xs = [0, 1, 0, 0, 0, 0, 1, 1, 1, 1, 1, 0, 0]
    (on,) = run(lambda clock, x: [clock.at_least(x > 0.5, 0.3)], [100] * 13, xs)
    assert [int(v) for v in on] == [0, 1, 1, 1, 0, 0, 1, 1, 1, 1, 1, 0, 0]


def test_the_newest_moments_are_kept_with_their_values_the_oldest_give_way():
    xs = [0, 5, 0, 6, 0, 7, 0]
    rows = run(
        lambda clock, x: [
            value
            for age, (caught,) in clock.recent(x > 0.5, [x], 2)
            for value in (age, caught)
        ],
        [100] * 7, xs,
    )  # fmt: skip
    last = [float(row[-1]) for row in rows]
    assert sorted(zip(last[::2], last[1::2], strict=True)) == [(100, 7), (300, 6)]


def test_seconds_since_are_exact_and_stop_far_away():
    xs = [1, 0, 0, 0]
    (since,) = run(lambda clock, x: [clock.seconds_since(x > 0.5)], [0, 20, 1980, 2**30], xs)
    assert [float(s) for s in since[:3]] == pytest.approx([0, 0.02, 2.0])
    (never,) = run(lambda clock, x: [clock.seconds_since(x > 0.5)], [0, 20], [0, 0])
    assert never[0] > 1e6


# ---- Uneven values -------------------------------------------------------------------------------


def test_a_bound_phase_counts_its_turns_over_the_wrap_of_its_fraction():
    """0.3 of a turn each second: turns 0 0 0 1 1 1 2, phases 0.3 0.6 0.9 0.2 0.5 0.8 0.1."""
    count, phase = run(lambda clock, x: clock.turns(x), [0] + [1000] * 7, [0.3] * 8)
    assert count == (0, 0, 0, 0, 1, 1, 1, 2)
    expected = [0, 0.3, 0.6, 0.9, 0.2, 0.5, 0.8, 0.1]
    assert [float(p) for p in phase] == pytest.approx(expected, abs=1e-4)


def test_what_stays_at_least_was_on_and_does_not_come_on_by_itself():
    """True for 0.3 s after it came; what comes within that time and goes does not begin it anew."""
    xs = [0, 1, 0, 1, 0, 0, 0, 0]
    (on,) = run(lambda clock, x: [clock.at_least(x > 0.5, 0.3)], [100] * 8, xs)
    assert [int(v) for v in on] == [0, 1, 1, 1, 0, 0, 0, 0]


def test_a_layer_s_presence_grows_and_shrinks_in_its_own_times():
    """In over 0.4 s, out over 0.2 s; at once where no time is said."""
    xs = [1, 1, 1, 0, 0, 1]
    (there,) = run(lambda clock, x: [clock.presence(x > 0.5, 0.4, 0.2)], [0] + [100] * 5, xs)
    assert [float(p) for p in there] == pytest.approx([0, 0.25, 0.5, 0, 0, 0.25], abs=1e-5)
    (there,) = run(lambda clock, x: [clock.presence(x > 0.5, 0, 0.4)], [0] + [100] * 5, xs)
    assert [float(p) for p in there] == pytest.approx([1, 1, 1, 0.75, 0.5, 1], abs=1e-5)
    (there,) = run(lambda clock, x: [clock.presence(x > 0.5, 0.4, 0)], [0] + [100] * 5, xs)
    assert [float(p) for p in there] == pytest.approx([0, 0.25, 0.5, 0, 0, 0.25], abs=1e-5)


def test_a_slope_is_above_0_where_it_rises():
    """3 a second, lagging 0.5 s behind: the lag is 1.5, so the slope 3."""
    xs = [0.03 * i for i in range(500)]
    (slope,) = run(lambda clock, x: [clock.slope(x, 0.5)], [0] + [10] * 499, xs)
    assert slope[0] == 0
    assert float(slope[-1]) == pytest.approx(3, rel=0.02)


def test_a_lag_by_the_hand_of_its_formula():
    """u = dt / time constant = 0.5: 1 - 1 / (1 + 0.5 + 0.125 + 0.125 / 6) of the way."""
    share = 1 - 1 / (1 + 0.5 + 0.125 + 0.125 / 6)
    (lag,) = run(lambda clock, x: [clock.lag(x, 0.2)], [0, 100, 100], [2, 6, 6])
    first = 2 + 4 * share
    assert [float(v) for v in lag] == pytest.approx([2, first, first + (6 - first) * share])


def test_elapsed_time_goes_round_and_begins_again_at_a_start():
    xs = [0, 0, 0, 1, 0, 0]
    (ms,) = run(lambda clock, x: [clock.elapsed_ms(250.0, x > 0.5)], [0] + [100] * 5, xs)
    assert [float(v) for v in ms] == [0, 100, 200, 0, 100, 200]
    (ms,) = run(lambda clock, x: [clock.elapsed_ms(250.0, x > 5)], [0] + [100] * 5, xs)
    assert [float(v) for v in ms] == [0, 100, 200, 50, 150, 0]


def test_cells_that_hold_each_other_change_places():
    """What each holds next is what the other held, not what it holds by then."""

    def swap(clock, x):
        a, b = (clock.tracer.state(n, v, Kind.FLOAT) for n, v in (("a", 1.0), ("b", 2.0)))
        clock.tracer.remember(a, b)
        clock.tracer.remember(b, a)
        return [a, b]

    assert run(swap, [20] * 3) == [(1, 2, 1), (2, 1, 2)]
