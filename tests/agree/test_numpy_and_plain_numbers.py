"""The NumPy engine gives the bits of a slow reading of the same graph, one number at a time.

The reading here knows nothing of buffers, broadcasting, skipped layers or shortcuts: it takes
each node's plain form from the operation table, spot by spot and channel by channel.
"""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import assume, given, settings

import fendra as fd
from fendra.core.composition.plan import Finish, Mix, Paint
from fendra.core.graph.node import NEWS, VALUE
from fendra.core.graph.ops import CHANNELS, OPS, Kind, Lookup
from strategies import designs, news


class Plain:
    """Runs a plan number by number."""

    def __init__(self, plan):
        self.plan = plan
        self.graph = plan.graph
        self.state = dict(self.graph.start)
        self.inputs = {}
        self.over_beneath = set()
        for place, node in enumerate(self.graph.nodes):
            if node.op == "beneath" or not self.over_beneath.isdisjoint(node.args):
                self.over_beneath.add(place)

    def frame(self, now_ms, dt_ms, first, news):
        self.inputs |= {"now_ms": now_ms, "dt_ms": dt_ms, "first": first}
        self.inputs |= {f"{VALUE}{name}": np.float32(value) for name, value in news.items()}
        self.news = news
        self.memo = {}
        canvas = self.painted()
        master = self.value(self.graph.roots["master"], 0, 0)
        self.state = {
            name: self.value(self.graph.roots[f"state:{name}"], 0, 0) for name in self.state
        }
        return canvas, master

    def painted(self):
        """Every layer in its order; those of scenes once for each scene that is there."""
        dark = np.zeros((3, self.plan.spot_count), np.float32)
        canvas = dark.copy()
        for step in self.plan.steps:
            if isinstance(step, (Paint, Finish)):
                canvas = self.paint([step], canvas, None)
            elif isinstance(step, Mix):
                shares = [self.value(place, 0, 0) for place in step.shares]
                there = [(scene, share) for scene, share in enumerate(shares) if share > 0]
                images = [self.paint(step.paints, canvas.copy(), scene) for scene, _ in there]
                if len(there) == 1:
                    (canvas,) = images
                elif there:
                    canvas = dark.copy()
                    for (_, share), image in zip(there, images, strict=True):
                        canvas = canvas + image * share
        return canvas

    def paint(self, paints, canvas, scene):
        for paint in paints:
            if not self.value(paint.on, 0, 0) or (
                paint.scenes is not None and scene not in paint.scenes
            ):
                continue
            for i, spot in enumerate(self.plan.spots[paint.space]):
                self.beneath = canvas[:, spot].copy()
                canvas[:, spot] = [self.value(paint.light, i, channel) for channel in range(3)]
        return canvas

    def value(self, place, i, channel):
        node = self.graph.nodes[place]
        key = (place, i, channel if node.width == 3 else 0)
        if place in self.over_beneath:  # another light for every layer and scene
            return self.plain(node, self.compute(node, i, channel))
        if key not in self.memo:
            self.memo[key] = self.plain(node, self.compute(node, i, channel))
        return self.memo[key]

    def compute(self, node, i, channel):
        match node.op:
            case "const":
                return node.payload[channel if node.width == 3 else 0]
            case "column":
                return self.plan.columns[node.space, node.payload][i]
            case "state":
                return self.state[node.payload]
            case "input" if node.payload.startswith(NEWS):
                return node.payload.removeprefix(NEWS) in self.news
            case "beneath":
                return self.beneath[channel]
            case "input":
                return self.inputs.get(node.payload, 0)
        if node.op in CHANNELS:
            return self.value(node.args[0], i, CHANNELS.index(node.op))
        if isinstance(node.payload, Lookup):
            return node.payload.values[self.value(node.args[0], i, channel)]
        return OPS[node.op].scalar(*(self.value(arg, i, channel) for arg in node.args))

    def plain(self, node, value):
        return np.float32(value) if node.kind is Kind.FLOAT else node.kind.dtype(value).item()


def assert_same_bits(design, frames):
    """frames: (ms to the frame, news) each."""
    program = design.compile()
    plain, engine = Plain(program.plan), program.engine
    now_ms = 0
    with np.errstate(all="ignore"):
        for number, (step_ms, given) in enumerate(frames):
            now_ms += step_ms
            dt_ms = step_ms if number else 0
            light, master = engine.light(now_ms, given)
            canvas, expected = plain.frame(now_ms, dt_ms, number == 0, given)
            assert light.tobytes() == canvas.tobytes()
            assert np.float32(master).tobytes() == np.float32(expected).tobytes()


@settings(max_examples=40)
@given(designs(), news)
def test_every_bit_of_any_design_is_the_same(plain, frames):
    design = fd.Design.from_values(plain)
    assume(not any(finding.severity == "error" for finding in design.check()))
    assert_same_bits(
        design, [(step_ms, {"s": s, "on": float(on)}) for step_ms, s, on in frames[:4]]
    )


@pytest.mark.parametrize("moment_s", [2.0, 20.6, 40.2, 48.5, 65.0])
def test_every_bit_of_the_ride_is_the_same(moment_s):
    """Some frames from each part of the ride, each from power-up on."""
    ride = fd.read_tape(fd.demo_file("ride.csv"))
    rows = [row for row in ride.news() if moment_s <= row[0] < moment_s + 0.3]
    assert_same_bits(fd.load(fd.demo_file("heron.toml")), [(50, given) for _, given in rows])
