"""Recording, passes, rates of change, memory."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

import fendra as fd
from fendra.core.composition.plan import Master, Paint, Plan
from fendra.core.engines.numpy.buffers import steps_of
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.graph.clock import TURN_PER_MS, Clock
from fendra.core.graph.functions import clamp, minimum, ramp, select, settle_share
from fendra.core.graph.node import Rate
from fendra.core.graph.ops import OPS, Kind, anything
from fendra.core.graph.passes import simplify
from fendra.core.graph.schedule import schedule
from fendra.core.graph.trace import Tracer
from helpers import design, layer
from strategies import GUARDS


def test_a_traced_value_cannot_be_asked_for_its_truth():
    value = Tracer().input("brake", Kind.FLOAT)
    with pytest.raises(fd.GraphError, match=r"Write select\(condition"):
        bool(value > 0)


def test_kinds_are_not_mixed_up():
    tracer = Tracer()
    truth = tracer.input("left", Kind.TRUTH)
    with pytest.raises(fd.GraphError, match="a number is needed here, and this is a condition"):
        _ = truth + 1


def test_rates_of_change_are_those_of_what_is_read():
    tracer = Tracer()
    column, number = tracer.column("x", "all"), tracer.input("brake", Kind.FLOAT)
    assert (tracer.const(2.0) * 3).rate is Rate.NEVER
    assert (column * 3).rate is Rate.SPOT
    assert (number * 3).rate is Rate.FRAME
    assert (number * column).rate is Rate.SPOT_AND_FRAME


def test_a_ramp_needs_two_ends():
    tracer = Tracer()
    x = tracer.input("x", Kind.FLOAT)
    with pytest.raises(fd.GraphError, match="must differ"):
        ramp(x, 2.0, 2.0)


def test_memory_keeps_one_number_and_not_one_a_led():
    tracer = Tracer()
    cell = tracer.state("cell", 0.0, Kind.FLOAT)
    with pytest.raises(fd.GraphError, match="differs from LED to LED"):
        tracer.remember(cell, tracer.column("x", "all"))


def test_passes_fold_share_and_drop():
    tracer = Tracer()
    x = tracer.input("x", Kind.FLOAT)
    twice = (x + 1) * (x + 1) * (tracer.const(2.0) - 1)
    _ = x * 17  # nobody reads it
    tracer.roots["result"] = select(tracer.const(True), twice, x).place
    ops = [node.op for node in simplify(tracer.graph()).nodes]
    assert ops == ["input", "const", "add", "mul"]


def test_minus_zero_is_not_zero():
    tracer = Tracer()
    tracer.roots["a"] = tracer.const(0.0).place
    tracer.roots["b"] = tracer.const(-0.0).place
    assert len(simplify(tracer.graph()).nodes) == 2


def run(build, steps_ms, inputs=None):
    """Run a graph of numbers frame by frame; gives what `build` traces, per frame."""
    from fendra.core.engines.numpy.numbers import Numbers

    tracer = Tracer()
    tracer.roots["result"] = build(tracer, Clock(tracer)).place
    graph = simplify(tracer.graph())
    numbers = Numbers(graph)
    now_ms, results = 0, []
    for i, step_ms in enumerate(steps_ms):
        now_ms = (now_ms + step_ms) & 0xFFFFFFFF
        news = {"x": inputs[i]} if inputs else {}
        registers = numbers.run(now_ms, step_ms, i == 0, news)
        results.append(registers[numbers.register(graph.roots["result"])])
    return results


def test_a_constant_cycle_is_the_clock_and_goes_on_when_the_clock_wraps():
    """4 Hz: a quarter turn each 62.5 ms; across 2**32 ms nothing jumps."""
    phases = run(lambda _, clock: clock.cycle(4.0), [0, 62, 1, 187, 2**32 - 250, 50])
    step = math.ceil(4 * TURN_PER_MS)
    assert [float(p) for p in phases[:4]] == [
        ((ms * step) % 2**32 >> 8) / 2**24 for ms in (0, 62, 63, 250)
    ]
    assert phases[5] == pytest.approx(0.2, abs=1e-6)  # 50 ms at 4 Hz


def test_a_bound_cycle_accumulates_and_never_jumps():
    """From 1 Hz to 10 Hz: the phase goes on from where it was."""
    rates = [1.0] * 10 + [10.0] * 10
    phases = run(
        lambda tracer, clock: clock.cycle(tracer.input("value:x", Kind.FLOAT)), [10] * 20, rates
    )
    steps = np.diff([0.0, *map(float, phases)]) % 1
    assert steps == pytest.approx([0.01] * 10 + [0.1] * 10, abs=1e-5)


@pytest.mark.parametrize("step_ms", [1, 5, 20])
def test_a_lag_follows_with_its_time_constant(step_ms):
    """After one time constant it is 63.2 % there, as 1 - exp(-t / T) says, to 0.1 %."""
    values = [0.0] + [1.0] * (1000 // step_ms)
    lagged = run(
        lambda tracer, clock: clock.lag(tracer.input("value:x", Kind.FLOAT), 0.25),
        [step_ms] * len(values), values,
    )  # fmt: skip
    times = np.arange(len(values)) * step_ms / 1000
    assert np.array(lagged, float) == pytest.approx(1 - np.exp(-times / 0.25), abs=1e-3)


@given(st.floats(0, 1e6), st.floats(1e-3, 1e6))
def test_a_lag_never_overshoots(dt_s, time_constant_s):
    tracer = Tracer()
    share = settle_share(tracer.const(dt_s), time_constant_s).number
    assert share is not None
    assert 0 <= share <= 1


def test_a_clamp_gives_its_lower_bound_for_what_is_no_number():
    tracer = Tracer()
    assert clamp(tracer.const(float("nan")), 0.25, 1).number == 0.25


EDGES = {
    Kind.FLOAT: [0.0, -0.0, 1.0, -1.0, 0.5, 1e-40, -3.75, 1e9, 16777217.0, 3e38, 255.49998],
    Kind.UINT: [0, 1, 2, 7, 255, 2**31, 2**32 - 1, 65_521],
    Kind.TRUTH: [False, True],
}


def test_random_graphs_bring_arguments_to_where_each_row_may_be_asked_for():
    assert {*GUARDS} == {name for name, op in OPS.items() if op.where is not anything}


@pytest.mark.parametrize("name", OPS)
def test_both_forms_of_every_operation_give_the_same_bits(name):
    """The array form and the plain form of each row of the table, on edge and random values."""
    op = OPS[name]
    rng = np.random.default_rng(7)
    pools = {
        Kind.FLOAT: [*EDGES[Kind.FLOAT], *rng.normal(0, 100, 20)],
        Kind.UINT: [*EDGES[Kind.UINT], *rng.integers(0, 2**32, 20)],
        Kind.TRUTH: EDGES[Kind.TRUTH],
    }
    columns = [np.array(pools[kind], kind.dtype) for kind in op.takes]
    grids = [grid.ravel() for grid in np.meshgrid(*columns)]
    is_allowed = np.broadcast_to(op.where(*grids), grids[0].shape)
    grids = [grid[is_allowed] for grid in grids]
    out = np.empty(len(grids[0]), op.gives.dtype)
    with np.errstate(all="ignore"):
        op.array(*grids, out)
        plain = [
            op.scalar(*(v if kind is Kind.FLOAT else v.item() for v, kind in zip(row, op.takes, strict=True)))
            for row in zip(*grids, strict=True)
        ]  # fmt: skip
    assert np.array(plain, op.gives.dtype).tobytes() == out.tobytes()


def test_fast_minimum_and_maximum_equal_compare_and_select():
    """The engine's shortcuts, against constants and in place, give the bits of the table's rows."""
    values = np.array([*EDGES[Kind.FLOAT], np.nan, np.inf, -np.inf], np.float32)
    for name in ("min", "max"):
        for constant in (0.0, -0.0, 1.0, -1.0, 255.0):
            bound = np.array(constant, np.float32)
            fast, slow = np.empty_like(values), np.empty_like(values)
            for step in steps_of(OPS[name], [values, bound], fast, True):
                step()
            OPS[name].array(values, bound, slow)
            assert fast.tobytes() == slow.tobytes(), (name, constant)
        pairs = [array.ravel() for array in np.meshgrid(values, values)]
        slow, into = np.empty_like(pairs[0]), pairs[1].copy()
        OPS[name].array(*pairs, slow)
        for step in steps_of(OPS[name], [pairs[0], into], into, False):
            step()
        assert into.tobytes() == slow.tobytes(), name


def test_what_is_computed_in_place_is_not_overwritten_before_it_is_read():
    """A choice between two sums, LED by LED: neither may stand where the result is made."""
    tracer = Tracer()
    x, s = tracer.column("x", "all"), tracer.input("value:s", Kind.FLOAT)
    red, blue = (tracer.const(colour) for colour in ((0.5, 0.0, 0.0), (0.0, 0.0, 0.5)))
    is_right = x > s
    left = select(is_right, blue, minimum(blue * x + s, red * x + 0.25))
    tracer.roots |= {
        "light": select(is_right, red * x + s, left).place,
        "on": tracer.const(True).place, "master": tracer.const(1.0).place,
    }  # fmt: skip
    graph = simplify(tracer.graph())
    steps = (
        Paint(0, "all", graph.roots["on"], graph.roots["light"]),
        Master(graph.roots["master"]),
    )
    lamp, columns = design(layer(), count=3), {("all", "x"): np.array([0.25, 0.5, 1.0])}
    plan = Plan(lamp, lamp.layout(), graph, steps, columns, {"all": np.arange(3)}, 3, ("s",))
    light, _ = NumpyEngine(plan).light(0, {"s": 0.4})
    # Above 0.4: red * x + 0.4. Else the smaller of blue * x + 0.4 and red * x + 0.25.
    assert light.T.round(3).tolist() == [
        pytest.approx(row, abs=1e-3) for row in ([0.375, 0.25, 0.25], [0.65, 0.4, 0.4], [0.9, 0.4, 0.4])
    ]  # fmt: skip


def test_layers_on_parts_of_a_line_leave_the_rest_alone():
    """A layer on scattered spots: every second LED; the others keep what is beneath."""
    program = design(
        layer(colour="#fff", level=0.5), layer(colour="red", on="odd"),
        groups={"odd": "index % 2 == 1"},
    ).compile()  # fmt: skip
    rgb = program.frame(at=0).rgb
    assert rgb[1::2].tolist() == [[255, 0, 0]] * 4
    assert rgb[::2].tolist() == [[47, 47, 47]] * 4


def test_numbers_that_one_layer_alone_needs_are_apart_from_those_of_every_frame():
    """b is read by both layers, so it belongs to every frame, as does what a memory cell needs."""
    tracer = Tracer()
    x, on = tracer.input("x", Kind.FLOAT), tracer.input("on", Kind.TRUTH)
    a, b, c, kept = x * 2, x * 3, x * 5, x * 7
    cell = tracer.state("cell", 0.0, Kind.FLOAT)
    tracer.remember(cell, kept)
    layers = [[(a + b).place], [(b + c).place]]
    common, own = schedule(tracer.graph(), [on.place], layers)
    assert {on.place, x.place, b.place, kept.place} == common
    assert [a.place in places for places in own] == [True, False]
    assert [c.place in places for places in own] == [False, True]
    assert not own[0] & own[1]


def test_a_memory_cell_that_is_a_condition_holds_for_this_frame_what_the_last_one_gave():
    """Frames: the light is on in the frame after each in which the switch is, and only then."""
    tracer = Tracer()
    cell = tracer.state("was", False, Kind.TRUTH)
    tracer.remember(cell, tracer.input("value:on", Kind.FLOAT) > 0.5)
    tracer.roots |= {
        "on": cell.place, "light": tracer.const(1.0).place, "master": tracer.const(1.0).place,
    }  # fmt: skip
    graph = simplify(tracer.graph())
    steps = (
        Paint(0, "all", graph.roots["on"], graph.roots["light"]),
        Master(graph.roots["master"]),
    )
    lamp = design(layer(), count=2)
    plan = Plan(lamp, lamp.layout(), graph, steps, {}, {"all": np.arange(2)}, 2, ("on",))
    engine = NumpyEngine(plan)
    shown = [engine.light(i * 20, {"on": on})[0][0, 0] for i, on in enumerate([1.0, 0.0, 1.0, 1.0])]
    assert shown == [0, 1, 0, 1]
    engine.reset()
    assert engine.light(0, {"on": 1.0})[0][0, 0] == 0
