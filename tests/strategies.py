"""What Hypothesis makes designs and news from."""

from __future__ import annotations

from hypothesis import strategies as st

from fendra.core.effects import EFFECTS
from fendra.core.electric.leds import LED_TYPES
from fendra.core.layout.shapes import FACINGS

coordinate = st.integers(-2000, 2000).map(float)
point = st.tuples(coordinate, coordinate, coordinate).map(list)
NUMBERS = ["s", "t", "s * t - 3", "s / t", "lag(s, 0.3)", "cycle(s)", "max(s, min(t, 1))", "x / 100",
           "along * s", "s if on else t", "sqrt(s) % 0.3", "ramp(s, t, 1)", "s * s * s * s * s * s"]  # fmt: skip
TRUTHS = ["on", "s > t", "not on or lost(s)", "hold(on, 0.2)", "s < t <= 1", "1 > 0"]
COLOURS = ["red", "#08f", "mix('red', '#123456', s)", "'gold' if on else 'navy'"]


@st.composite
def parts(draw, name):
    common = {"name": name, "facing": draw(st.sampled_from(sorted(FACINGS)))}
    if draw(st.booleans()):
        return common | {
            "shape": "ring", "centre": draw(point), "radius": float(draw(st.integers(1, 500))),
            "count": draw(st.integers(1, 40)), "start_angle": float(draw(st.integers(-360, 360))),
            "direction": draw(st.sampled_from(["clockwise", "counter-clockwise"])),
        }  # fmt: skip
    return common | {
        "shape": "strip", "start": draw(point), "end": draw(point),
        **draw(st.sampled_from([{"count": 1}, {"count": 17}, {"pitch": 100.0}, {"pitch": 16.6}])),
    }  # fmt: skip


@st.composite
def layers(draw, names):
    name = draw(st.sampled_from(sorted(EFFECTS)))
    keys = {}
    for key, item in EFFECTS[name].parameters.items():
        if not draw(st.booleans()):
            continue
        if item.kind == "colour":
            keys[key] = draw(st.sampled_from(COLOURS))
        elif item.kind == "truth":
            keys[key] = draw(st.one_of(st.booleans(), st.sampled_from(TRUTHS)))
        else:
            per_frame = [
                text
                for text in NUMBERS
                if "x" not in text.replace("max", "") and "along" not in text
            ]
            literal = st.floats(item.low, item.high)
            keys[key] = draw(st.one_of(literal, st.sampled_from(per_frame)))
    seconds = st.sampled_from([0.0, 0.05, 1.5])
    return {
        "name": name, "on": draw(st.sampled_from(names)), "effect": name,
        "when": draw(st.one_of(st.booleans(), st.sampled_from(TRUTHS))),
        "blend": draw(st.sampled_from(["over", "add", "max"])),
        "level": draw(st.one_of(st.floats(0, 1), st.sampled_from(NUMBERS))),
        "fade_in": draw(seconds), "fade_out": draw(seconds), **keys,
    }  # fmt: skip


@st.composite
def designs(draw):
    lines, names = [], ["all"]
    for i in range(draw(st.integers(1, 3))):
        part_names = [f"part-{i}-{j}" for j in range(draw(st.integers(1, 3)))]
        names += part_names
        lines.append(
            {"name": f"line-{i}", "led": draw(st.sampled_from(sorted(LED_TYPES))),
             "part": [draw(parts(name)) for name in part_names]}
        )  # fmt: skip
    groups = {
        "some": draw(
            st.sampled_from(["x > 0", "index % 3 == 1", "part == 'part-0-0'", "z < -5000"])
        )
    }
    by = draw(st.sampled_from(["x", "-y", "abs(x) + z", "sqrt(x * x + y * y)", "1"]))
    names += ["some", "way"]
    made = draw(st.lists(layers(names), max_size=5))
    return {
        "line": lines, "groups": groups, "trails": {"way": {"of": "some", "by": by}},
        "level": draw(st.sampled_from([1.0, 0.3, "s"])),
        "signals": {
            "s": {"smooth": draw(st.sampled_from([0.0, 0.2])), "lost_after": draw(st.sampled_from([None, 0.1]))},
            "t": {"of": "s * 0.5 + 0.1", "range": [0.0, 1.0]},
            "on": {"kind": "switch", "hold": draw(st.sampled_from([0.0, 0.3]))},
        },
        "layer": [{**layer, "name": f"{i}"} for i, layer in enumerate(made)],
    }  # fmt: skip


news = st.lists(st.tuples(st.integers(0, 400), st.floats(-1e9, 1e9), st.booleans()), max_size=8)
"""Milliseconds to the next frame, and what comes with it of the signals `s` and `on`."""
