"""Every effect gives the same bits natively as in NumPy, on every kind of choice of LEDs."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from agreement import assert_same_light
from fendra.core.effects import EFFECTS
from fendra.core.graph.numpy_engine import NumpyEngine
from fendra.native.engine import NativeEngine
from helpers import strip

RING = {"name": "ring", "shape": "ring", "centre": [0.0, 90.0], "radius": 33.0, "count": 16}
CHOICES = ("one", "bar", "ring", "both", "odd", "out", "turned", "none", "all")


def all_of(effect):
    """A design with the effect on each choice, plain and with everything bound to a signal."""
    bound = {
        key: f"mix({item.low:.6f}, {item.high:.6f}, s)" if item.kind == "number" else
        "s > 0.5" if item.kind == "truth" else "mix('red', '#123456', s)"
        for key, item in EFFECTS[effect].parameters.items()
    }  # fmt: skip
    blends, layers = ["over", "add", "max"], []
    for i, choice in enumerate(CHOICES):
        for j, keys in enumerate(({}, bound)):
            layers.append(
                {"name": f"{choice} {j}", "on": choice, "effect": effect,
                 "blend": blends[(i + j) % 3], "when": "s > 0.2" if j else True,
                 "fade_out": 0.1 * j, "level": "0.2 + 0.9 * s" if i % 2 else 0.8, **keys}
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
            "layer": layers,
        }
    )  # fmt: skip


@pytest.mark.parametrize("effect", EFFECTS)
def test_an_effect_gives_the_same_bits(compiler, effect):
    design = all_of(effect)
    recording = design.compile(engine="numpy").recording
    values = 0.5 + 0.6 * np.sin(np.arange(90) / 9)
    frames = [(17 + i % 5, {"s": value} if i % 4 else {}) for i, value in enumerate(values)]
    assert_same_light(NumpyEngine(recording), NativeEngine(design, recording), frames)
