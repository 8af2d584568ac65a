"""What holds two engines against each other, and designs that do so for every effect."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

import numpy as np

import fendra as fd
from fendra.core.composition.blends import BLENDS
from fendra.core.effects import EFFECTS
from fendra.core.engines.engine import Engine
from fendra.core.graph.ops import OPS, Kind
from helpers import strip

RING = {"name": "ring", "shape": "ring", "centre": [0.0, 90.0], "radius": 33.0, "count": 16}
BOUND = {
    "number": lambda item: f"mix({item.low:.6f}, {item.high:.6f}, s)",
    "numbers": lambda item: [f"mix({item.low:.6f}, {item.high:.6f}, s)", "1 - s", item.high],
    "truth": lambda _: "s > 0.5",
    "colour": lambda _: "mix('red', '#123456', s)",
    "colours": lambda _: ["navy", "mix('red', '#123456', s)", "lime"],
    "place": lambda _: "radius",
    "text": lambda _: "{s:5.1}N{10 * s:m:ss}",
}
"""What each kind of parameter is bound to."""

PLAIN = {("gradient", "at")}
"""Parameters that are left as they are: there is one place for each colour."""

CHOICES = ("one", "bar", "ring", "both", "odd", "out", "turned", "none", "all")


def all_of(effect, choices=CHOICES):
    """A design with the effect on each choice, plain and with everything bound to a signal."""
    bound = {
        key: BOUND[item.kind](item)
        for key, item in EFFECTS[effect].parameters.items()
        if item.kind in BOUND and (effect, key) not in PLAIN
    }
    blends, layers = sorted(BLENDS), []
    files = ({"file": "heart.png"}, {"file": "wink.gif"}) if effect == "picture" else ({}, {})
    for i, choice in enumerate(choices):
        for j, keys in enumerate(({}, bound)):
            layers.append(
                {"name": f"{choice} {j}", "on": choice, "effect": effect,
                 "scene": [[], "calm", "wild"][(i + j) % 3],
                 "blend": blends[(i + j) % len(blends)], "when": "s > 0.2" if j else True,
                 "fade_out": 0.1 * j, "level": "0.2 + 0.9 * s" if i % 2 else 0.8, **files[j], **keys}
            )  # fmt: skip
    return fd.Design.from_values(
        {
            "name": effect,
            "line": [{"name": "a", "part": [strip("one", 1), strip("bar", 30), RING]},
                     {"name": "b", "part": [strip("far", 7)]}],
            "groups": {"both": "part == 'bar' or part == 'far'", "odd": "index % 2 == 1",
                       "none": "x < -1e6"},
            "trails": {"out": {"of": "part == 'ring' or part == 'bar'", "by": "abs(x - 40)"},
                       "turned": {"of": "bar", "by": "-x"}},
            "signals": {"s": {"smooth": 0.05}},
            "scene": [{"name": "calm", "when": "s < 0.4", "fade": 0.2},
                      {"name": "wild", "when": "s > 0.7", "fade": 0.3}],
            "layer": layers,
        },
        folder=fd.demo_file("heart.png").parent,
    )  # fmt: skip


def assert_same_light(
    first: Engine,
    second: Engine,
    frames: Iterable[tuple[int, Mapping[str, float]]],
    start_ms: int = 0,
    *,
    has_bytes: bool = True,
) -> None:
    """Both give the same float bits before quantising, frame by frame, and the same bytes, as
    far as the limiter lets them.

    frames: (ms to the frame, news) each. start_ms: what the clock shows before the first.
    has_bytes: whether the bytes are compared, too.
    """
    frames = list(frames)
    shape = (first.plan.spot_count, 3)
    for engine in (first, second):
        engine.reset()
    now_ms = start_ms
    for number, (step_ms, news) in enumerate(frames):
        now_ms = (now_ms + step_ms) & 0xFFFFFFFF
        (light, master), (other, other_master) = (e.light(now_ms, news) for e in (first, second))
        assert light.tobytes() == other.tobytes(), f"frame {number}: {_differences(light, other)}"
        assert np.float32(master).tobytes() == np.float32(other_master).tobytes()
    if not has_bytes:
        return
    for engine in (first, second):
        engine.reset()
    now_ms = start_ms
    for step_ms, news in frames:
        now_ms = (now_ms + step_ms) & 0xFFFFFFFF
        bytes_of = [np.empty(shape, np.uint8) for _ in range(2)]
        for engine, out in zip((first, second), bytes_of, strict=True):
            engine.frame(now_ms, news, out)
        assert bytes_of[0].tobytes() == bytes_of[1].tobytes()
        assert first.gains() == second.gains()


def _differences(light: np.ndarray, other: np.ndarray) -> str:
    places = np.argwhere(light.view(np.uint32) != other.view(np.uint32))[:5]
    return "; ".join(
        f"{tuple(p.tolist())}: {light[tuple(p)]!r} {other[tuple(p)]!r}" for p in places
    )


EDGES = {
    Kind.FLOAT: [0.0, -0.0, 1.0, -1.0, 0.5, 0.49999997, 1e-40, -1e-40, -3.75, 1e9, -1e9, 16777217.0,
                 3e38, -3e38, 255.49998, 4294967040.0, np.inf, -np.inf, np.nan],
    Kind.UINT: [0, 1, 2, 7, 31, 255, 2**24 + 1, 2**31, 2**32 - 1, 65_521],
    Kind.TRUTH: [False, True],
}  # fmt: skip


def grids(name):
    """All pairs and triples of edge values and seeded ones that the row may be asked for."""
    op = OPS[name]
    rng = np.random.default_rng(11)
    pools = {
        Kind.FLOAT: [*EDGES[Kind.FLOAT], *rng.normal(0, 100, 30), *rng.random(30)],
        Kind.UINT: [*EDGES[Kind.UINT], *rng.integers(0, 2**32, 50)],
        Kind.TRUTH: EDGES[Kind.TRUTH],
    }
    columns = [np.array(pools[kind], np.float64).astype(kind.dtype) for kind in op.takes]
    flat = [grid.ravel() for grid in np.meshgrid(*columns)]
    is_allowed = np.broadcast_to(op.where(*flat), flat[0].shape)
    return [np.ascontiguousarray(grid[is_allowed]) for grid in flat]
