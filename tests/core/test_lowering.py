"""Lowering changes no bit, and bounds hold: tried on graphs of every kind, without a compiler."""

from __future__ import annotations

from itertools import product

import numpy as np
import pytest
from hypothesis import given

from fendra.core.engines.lower import lower
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.graph.bounds import Bounds, bounds_of
from fendra.core.graph.narrow import Narrower
from fendra.core.graph.node import NEWS, STATE, VALUE, Node
from fendra.core.graph.ops import CHANNELS, LARGEST, OPS, UINT_MASK, Kind, op_of
from helpers import design, layer
from strategies import examples, news, plans


class Lowest:
    """Runs what was lowered node by node, each for all spots at once."""

    def __init__(self, plan):
        self.plan, self.lowered = plan, lower(plan)
        self.cells = dict(self.lowered.graph.start)
        self.values = dict.fromkeys(plan.fed, 0.0)
        self.last_ms = None

    def light(self, now_ms, news):
        self.values |= news
        dt_ms = 0 if self.last_ms is None else now_ms - self.last_ms
        inputs = {"now_ms": now_ms, "dt_ms": dt_ms, "first": self.last_ms is None}
        inputs |= {f"{VALUE}{name}": value for name, value in self.values.items()}
        inputs |= {f"{NEWS}{name}": name in news for name in self.values}
        self.last_ms = now_ms
        graph, canvas = self.lowered.graph, np.zeros((3, self.plan.spot_count), np.float32)
        self.seen = {}

        def of(place):
            if place not in self.seen:
                node = graph.nodes[place]
                self.seen[place] = np.asarray(compute(node), node.kind.dtype)
            return self.seen[place]

        def compute(node):
            match node.op:
                case "const":
                    return node.payload[0]
                case "input":
                    return inputs[node.payload]
                case "state":
                    return self.cells[node.payload]
                case "column":
                    return self.plan.columns[node.space, node.payload]
                case "beneath":
                    return canvas[CHANNELS.index(node.payload[1]), self.plan.spots[node.space]]
            args = [of(arg) for arg in node.args]
            out = np.empty(np.broadcast_shapes(*(arg.shape for arg in args)), node.kind.dtype)
            op_of(node.op, node.payload).array(*args, out)
            return out

        with np.errstate(all="ignore"):
            for paint in self.lowered.painted:
                if of(paint.on):
                    after = {name: of(place) for name, place in paint.results.items()}
                    for name, light in after.items():
                        spots = self.plan.spots[paint.space]
                        canvas[CHANNELS.index(name), spots] = light
            self.cells = {name: of(graph.roots[f"{STATE}{name}"]) for name in self.cells}
            return canvas, of(self.lowered.master)


@examples(150)
@given(plans(), news)
def test_lowering_keeps_every_bit(plan, frames):
    lowest, engine = Lowest(plan), NumpyEngine(plan)
    now_ms = 0
    for step_ms, s, on in [(0, 0.5, True), *frames]:
        now_ms += step_ms
        heard = {"s": s, "on": float(on)}
        (light, master), (other, other_master) = (e.light(now_ms, heard) for e in (lowest, engine))
        assert light.tobytes() == other.tobytes()
        assert np.float32(master).tobytes() == np.float32(other_master).tobytes()
        bytes_of = lowest.lowered.bytes
        if bytes_of is not None:
            full = light * (np.float32(master) * np.float32(255))
            assert full.min() >= bytes_of.low
            assert full.max() <= bytes_of.high * (1 + 1e-6)


@examples(150)
@given(plans(), news)
def test_no_value_is_ever_outside_its_bounds(plan, frames):
    lowest = Lowest(plan)
    nodes = lowest.lowered.graph.nodes
    bounds = []
    for node in nodes:
        bounds.append(
            Bounds(-LARGEST, LARGEST) if str(node.payload).startswith(VALUE)
            else None if not node.args and node.op != "const"
            else bounds_of(node, [bounds[arg] for arg in node.args])
        )  # fmt: skip
    for i, (_, s, on) in enumerate([(0, 0.5, True), *frames]):
        lowest.light(i * 20, {"s": s, "on": float(on)})
        for place, value in lowest.seen.items():
            known = bounds[place]
            if known is not None and value.size:
                assert not np.isnan(value).any()
                assert value.min() >= known.low or (value.min() == 0 and known.low == 0)
                assert value.max() <= known.high
                if known.is_positive and nodes[place].kind is Kind.FLOAT:
                    assert not np.signbit(value).any()


INTERVALS = [(0, 0), (0, 1), (0, np.inf), (-1, 1), (-1, 0), (-np.inf, 2), (1, 1), (2, 9), (-9, -2)]
POOL = np.array([-np.inf, -3e38, -9, -2, -1, -0.3, -1e-45, -0.0, 0.0, 1e-45, 0.3, 0.9999999, 1, 2, 2.5,
                 3, 9, 3e38, np.inf], np.float32)  # fmt: skip
NAMES = [name for name, op in OPS.items() if {*op.takes, op.gives} <= {Kind.FLOAT, Kind.TRUTH}
         and Kind.FLOAT in op.takes and name != "select"]  # fmt: skip


def members(low, high):
    """Values in an interval; minus zero only where the lower end is below 0."""
    inside = (low <= POOL) & (high >= POOL)
    return POOL[inside & ~((POOL == 0) & np.signbit(POOL) & (low >= 0))]


@pytest.mark.parametrize("name", NAMES)
def test_a_row_stays_within_its_bounds_and_keeps_its_bits_when_it_is_narrowed(name):
    """Every row on every pair of intervals: ends, zeros of both signs, and values between."""
    op, tried = OPS[name], 0
    for intervals in product(INTERVALS, repeat=len(op.takes)):
        leaves = [leaf(f"x{i}", *ends) for i, ends in enumerate(intervals)]
        narrower = Narrower(dict(leaves).get)
        root = narrower.apply(name, *(narrower.add(node) for node, _ in leaves))
        args = [grid.ravel() for grid in np.meshgrid(*(members(*ends) for ends in intervals))]
        is_allowed = np.broadcast_to(op.where(*args), args[0].shape)
        args = [arg[is_allowed] for arg in args]
        expected = np.empty(len(args[0]), op.gives.dtype)
        with np.errstate(all="ignore"):
            op.array(*args, expected)
        node, bounds = narrower.nodes[root], narrower.bounds[root]
        if bounds is not None and len(expected):
            assert not np.isnan(expected).any()
            assert bounds.low <= expected.min()
            assert expected.max() <= bounds.high
            assert not (bounds.is_positive and np.signbit(expected).any())
        if node.op != name:  # it became something simpler
            values = {f"x{i}": arg for i, arg in enumerate(args)}
            given = node.payload[0] if node.op == "const" else values[node.payload]
            got = np.broadcast_to(np.asarray(given, op.gives.dtype), expected.shape)
            assert got.tobytes() == expected.tobytes()
            tried += 1
    assert tried or name in ("sub", "div", "neg", "floor", "sqrt", "less_equal")


def test_what_smooth_gives_for_0_to_1_is_within_0_and_1():
    """The last million floats below 1, where it could be rounded above it, and as many others."""
    last = np.arange(2**20, dtype=np.uint32)
    for bits in (np.float32(1).view(np.uint32) - last, last * np.uint32(1015)):
        x = bits.view(np.float32)
        smooth = x * x * (np.float32(3) - np.float32(2) * x)
        assert smooth.min() >= 0
        assert smooth.max() <= 1


def leaf(name, low, high):
    """An input within bounds; a constant where they are one value."""
    if low == high:
        return const(float(low)), Bounds(low, high)
    return Node("input", (), Kind.FLOAT, 1, name), Bounds(low, high)


@pytest.mark.parametrize(
    ("low", "high", "build", "left"),
    [
        (0.0, 1.0, lambda n, x: n.apply("max", x, n.add(const(0.0))), ["input"]),
        (0.0, 1.0, lambda n, x: n.apply("min", x, n.add(const(1.0))), ["input"]),
        (-1.0, 1.0, lambda n, x: n.apply("max", x, n.add(const(0.0))), ["input", "const", "max"]),
        (0.0, 1.0, lambda n, x: n.apply("mul", n.add(const(0.0)), x), ["const"]),
        (-1.0, 1.0, lambda n, x: n.apply("mul", n.add(const(0.0)), x), ["input", "const", "mul"]),
        (0.0, np.inf, lambda n, x: n.apply("mul", n.add(const(0.0)), x), ["input", "const", "mul"]),
        (0.0, 9.0, lambda n, x: n.apply("add", x, n.add(const(0.0))), ["input"]),
        (-1.0, 9.0, lambda n, x: n.apply("add", x, n.add(const(0.0))), ["input", "const", "add"]),
        (-1.0, 0.0, lambda n, x: n.apply("min", x, n.add(const(0.0))), ["input", "const", "min"]),
        (0.0, 1.0, lambda n, x: n.apply("max", x, n.add(const(-0.0))), ["input", "const", "max"]),
        (0.0, 9.0, lambda n, x: n.apply("abs", x), ["input"]),
        (2.0, 9.0, lambda n, x: n.apply("equal", x, n.add(const(0.0))), ["const"]),
        (2.0, 9.0, lambda n, x: n.apply("less", x, n.add(const(2.0))), ["const"]),
        (2.0, 9.0, lambda n, x: n.apply("less", x, n.add(const(2.5))), ["input", "const", "less"]),
    ],
)  # fmt: skip
def test_what_the_bounds_make_needless_is_dropped_and_nothing_else(low, high, build, left):
    node, bounds = leaf("x", low, high)
    narrower = Narrower(lambda other: bounds if other == node else None)
    root = build(narrower, narrower.add(node))
    assert needed(narrower, root) == left


@pytest.mark.parametrize(("high", "left"), [(1.0, []), (1.6, ["max"])])  # beyond 1.5 it is negative
def test_a_smooth_step_is_within_0_and_1_only_where_what_it_is_of_is(high, left):
    node, bounds = leaf("x", 0.0, high)
    narrower = Narrower(lambda other: bounds if other == node else None)
    x, three = narrower.add(node), narrower.add(const(3.0))
    twice = narrower.apply("mul", narrower.add(const(2.0)), x)
    square, slope = narrower.apply("mul", x, x), narrower.apply("sub", three, twice)
    root = narrower.apply("max", narrower.apply("mul", square, slope), narrower.add(const(0.0)))
    assert [op for op in needed(narrower, root) if op in ("max", "min")] == left


@pytest.mark.parametrize("first", ["white", "#800000"])
def test_light_of_mixed_scenes_is_as_much_as_the_brighter_of_them(first):
    """A scene's layer covers all, and only while its scene is there. Shares of scenes may be 1e-5
    more than 1 together, with all rounding."""
    second = "#800000" if first == "white" else "white"
    layers = layer(scene="a", colour=first), layer(scene="b", colour=second)
    scenes = [{"name": "a", "when": "s > 0.5"}, {"name": "b"}]
    made = design(*layers, scene=scenes, signals={"s": {"range": [0, 1]}})
    known = lower(made.compile(engine="numpy").plan).bytes
    assert (known.low, known.high) == (0, pytest.approx(255 * (1 + 1e-5), rel=1e-9))


def test_light_of_one_layer_on_all_is_that_of_its_colour():
    """#800000 is 0.2158605 of red's light, and nothing of the others."""
    white, dark = (
        lower(design(layer(colour=colour)).compile(engine="numpy").plan).bytes
        for colour in ("white", "#800000")
    )
    assert white == Bounds(255, 255)
    assert (dark.low, dark.high) == (0, pytest.approx(255 * 0.2158605, rel=1e-6))


def test_the_bounds_of_whole_numbers_by_hand():
    """A rest of 7 is 6 at the most; 1000 shifted by 3 or more bits is 125 at the most."""

    def found(op, *args):
        return bounds_of(Node(op, (0, 1), Kind.UINT, 1), [Bounds(*each) for each in args])

    assert found("uint_mod", (3, 4e9), (7, 7)) == Bounds(0, 6)
    assert found("uint_mod", (3, 4e9), (0, 12)) == Bounds(0, 11)
    assert found("uint_shift", (9, 1000), (3, 5)) == Bounds(0, 125)
    assert found("uint_add", (9, 1000), (3, 5)) == Bounds(0, UINT_MASK)
    to_uint = Node("to_uint", (0,), Kind.UINT, 1)
    assert bounds_of(to_uint, [Bounds(0.5, 12)]) == Bounds(0, 12)
    assert bounds_of(to_uint, [Bounds(-1, 12)]) == Bounds(0, UINT_MASK)


def const(value):
    return Node("const", (), Kind.FLOAT, 1, (value,))


def needed(narrower, root):
    """The operations that a root needs, in order."""
    found, wanted = set(), [root]
    while wanted:
        place = wanted.pop()
        found.add(place)
        wanted.extend(narrower.nodes[place].args)
    return [narrower.nodes[place].op for place in sorted(found)]
