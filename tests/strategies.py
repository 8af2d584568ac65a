"""What Hypothesis makes designs and news from."""

from __future__ import annotations

import numpy as np
from hypothesis import settings
from hypothesis import strategies as st

import fendra as fd
from fendra.core.catalogue.leds import LED_TYPES
from fendra.core.composition.blends import BLENDS
from fendra.core.composition.plan import Master, Paint, Plan
from fendra.core.effects import EFFECTS
from fendra.core.graph.functions import maximum, minimum, select
from fendra.core.graph.node import NEWS, VALUE
from fendra.core.graph.ops import LARGEST_UINT_FLOAT, OPS, Kind, Lookup
from fendra.core.graph.passes import simplify
from fendra.core.graph.trace import Tracer
from fendra.core.language.vocabulary import tame
from fendra.core.shapes import FACINGS
from helpers import strip


def examples(count: int) -> settings:
    """So many random examples for a test; a share of them in `make test-quick`."""
    return settings(max_examples=count * settings.default.max_examples // 100)


coordinate = st.integers(-2000, 2000).map(float)
point = st.tuples(coordinate, coordinate, coordinate).map(list)
NUMBERS = ["s", "t", "s * t - 3", "s / t", "lag(s, 0.3)", "cycle(s)", "max(s, min(t, 1))", "x / 100",
           "along * s", "s if on else t", "sqrt(s) % 0.3", "ramp(s, t, 1)", "s * s * s * s * s * s",
           "distance(30, 40) * s", "facing_x - t", "s if facing_back else t"]  # fmt: skip
TRUTHS = ["on", "s > t", "not on or lost(s)", "hold(on, 0.2)", "s < t <= 1", "1 > 0"]
COLOURS = ["red", "#08f", "mix('red', '#123456', s)", "'gold' if on else 'navy'"]


@st.composite
def shapes(draw):
    """The keys of any shape that has LEDs, with few of them."""
    size = st.integers(1, 6)
    corner = st.sampled_from(["top-left", "top-right", "bottom-right", "bottom-left"])
    turning = st.sampled_from(["clockwise", "counter-clockwise"])
    length = st.integers(1, 500).map(float)
    fit = st.sampled_from([{"count": 1}, {"count": 17}, {"pitch": 100.0}, {"per_metre": 2.0}])
    match draw(
        st.sampled_from(["strip", "ring", "arc", "path", "grid", "frame", "keys", "points"])
    ):
        case "strip":
            return {"shape": "strip", "start": draw(point), "end": draw(point), **draw(fit)}
        case "ring":
            return {
                "shape": "ring", "centre": draw(point), "radius": draw(length),
                "count": draw(st.integers(1, 40)), "direction": draw(turning),
                "start_angle": float(draw(st.integers(-360, 360))),
            }  # fmt: skip
        case "arc":
            start = draw(st.integers(-180, 180))
            turn = draw(st.integers(1, 360)) * draw(st.sampled_from([1, -1]))
            return {
                "shape": "arc", "radius": draw(length), "count": draw(size),
                "start_angle": float(start), "end_angle": float(start + turn),
            }  # fmt: skip
        case "path":
            steps = draw(st.lists(length, min_size=1, max_size=4))
            corners = np.cumsum([[0, 0], *[[step, 2 * step] for step in steps]], axis=0)
            return {"shape": "path", "points": corners.tolist(), "count": draw(size)}
        case "grid":
            return {
                "shape": "grid", "columns": draw(size), "rows": draw(size), "pitch": draw(length),
                "first": draw(corner), "wiring": draw(st.sampled_from(["rows", "columns"])),
                "back_and_forth": draw(st.booleans()),
            }  # fmt: skip
        case "frame":
            sides = {side: draw(size) for side in ("top", "right", "bottom", "left")}
            return {
                "shape": "frame", "width": 90.0, "height": 50.0, **sides, "first": draw(corner),
                "direction": draw(turning), "gap": draw(st.sampled_from([0.0, 20.0])),
            }  # fmt: skip
        case "keys":
            columns = draw(st.lists(size, min_size=1, max_size=4))
            return {
                "shape": "keys", "back_and_forth": draw(st.booleans()),
                "columns": [{"keys": keys, "shift": keys / 8} for keys in columns],
            }  # fmt: skip
    return {"shape": "points", "points": draw(st.lists(point, min_size=1, max_size=9))}


placements = st.fixed_dictionaries(
    {},
    optional={
        "at": point,
        "turn": st.integers(-360, 360).map(float),
        "tilt": st.tuples(*2 * [st.integers(-180, 180).map(float)]).map(list),
        "mirror": st.sampled_from("xyz"),
        "reverse": st.booleans(),
        "leds_per_address": st.integers(1, 3),
    },
)
"""Keys that say where any part is, and how it is fed."""


@st.composite
def parts(draw, name):
    facing = draw(st.sampled_from([*sorted(FACINGS), "out", "in"]))
    return {"name": name, "facing": facing, **draw(shapes()), **draw(placements)}


PER_FRAME = [
    text for text in NUMBERS
    if not any(of in text.replace("max", "") for of in ("x", "along", "distance", "facing"))
]  # fmt: skip
PLACES = ["along", "x", "angle", "radius", "x + y", "up", "along * s", "distance(0, 90)", "0.5"]


def looked_up(values):
    """A table with a value for two words of the signal `mode`, and for the rest."""
    return st.fixed_dictionaries(
        {"by": st.just("mode"), "else": values}, optional={"calm": values, "wild": values}
    )


@st.composite
def layers(draw, names):
    name = draw(st.sampled_from(sorted(EFFECTS)))
    keys = {}
    for key, item in EFFECTS[name].parameters.items():
        if not draw(st.booleans()):
            continue
        literal = st.floats(item.low, item.high)
        match item.kind:
            case "colour":
                keys[key] = draw(
                    st.one_of(st.sampled_from(COLOURS), looked_up(st.sampled_from(COLOURS)))
                )
            case "truth":
                keys[key] = draw(st.one_of(st.booleans(), st.sampled_from(TRUTHS)))
            case "number":
                value = st.one_of(literal, st.sampled_from(PER_FRAME))
                keys[key] = draw(st.one_of(value, looked_up(value)))
            case "colours":
                keys[key] = draw(st.lists(st.sampled_from(COLOURS), min_size=1, max_size=4))
            case "numbers" if key != "at":
                value = st.one_of(literal, st.sampled_from(PER_FRAME))
                keys[key] = draw(st.lists(value, min_size=1, max_size=3))
            case "place":
                keys[key] = draw(st.sampled_from(PLACES))
            case "text":
                keys[key] = draw(st.sampled_from(["A {s:4.1}!", "{t:m:ss}", "x", ""]))
            case "word":
                keys[key] = draw(st.sampled_from(item.words))
    seconds = st.sampled_from([0.0, 0.05, 1.5])
    return {
        "name": name, "on": draw(st.sampled_from(names)), "effect": name,
        "when": draw(st.one_of(st.booleans(), st.sampled_from(TRUTHS))),
        "blend": draw(st.sampled_from(sorted(BLENDS))),
        "cover": draw(st.one_of(st.floats(0, 1), st.sampled_from(NUMBERS))),
        "hides_below": draw(st.booleans()), "least_on": draw(seconds),
        "priority": draw(st.integers(-2, 2)), "canvas": draw(st.sampled_from(["", "", "desk"])),
        "scene": draw(st.sampled_from([[], "one", "two", ["one", "three"]])),
        "level": draw(st.one_of(st.floats(0, 1), st.sampled_from(NUMBERS))),
        "rhythm": draw(st.sampled_from(["", "", "beat"])),
        "fade_in": draw(seconds), "fade_out": draw(seconds), **keys,
    }  # fmt: skip


fades = st.sampled_from([0.0, 0.1, 0.7])
ceilings = st.sampled_from([None, None, 0.0, 0.4, "s", "0.3 + 0.5 * along"])
WHITES = [{}, {"ws2812b": {"white": [1.0, 0.8, 0.6]}, "sk6812-rgbw": {"white_point": [0.28, 0.3]}}]
rhythms = st.fixed_dictionaries(
    {"when": st.one_of(st.booleans(), st.sampled_from(TRUTHS))},
    optional={"rate": st.sampled_from([0.0, 1.5, "s", "1 + s * s"])},
)


@st.composite
def designs(draw):
    lines, names = [], ["all"]
    for i in range(draw(st.integers(1, 3))):
        part_names = [f"part-{i}-{j}" for j in range(draw(st.integers(1, 3)))]
        names += part_names
        made = [draw(parts(name)) for name in part_names]
        if draw(st.booleans()):
            made.insert(0, {"name": f"hidden-{i}", "shape": "hidden", "count": 2})
        led, supply = draw(st.sampled_from(sorted(LED_TYPES))), draw(st.sampled_from("ab"))
        lines.append({"name": f"line-{i}", "led": led, "supply": supply, "part": made,
                      "most": draw(ceilings)})  # fmt: skip
    groups = {
        "some": draw(
            st.sampled_from(
                [
                    "x > 0",
                    "index % 3 == 1",
                    "part == 'part-0-0'",
                    "z < -5000",
                    ["part-0-0[0]", "facing_up"],
                    {"of": "all", "without": "y < 0", "outermost": 5},
                    {"of": "all", "nearest": 7, "near": [0.0, 0.0], "most": "0.5 * s"},
                ]
            )
        )
    }
    by = draw(st.sampled_from(["x", "-y", "abs(x) + z", "sqrt(x * x + y * y)", "1"]))
    names += ["some", "way"]
    made = draw(st.lists(layers(names), max_size=5))
    return {
        "supplies": {
            name: {"budget": draw(st.floats(0.02, 3.0)), "amps": 4.0, "limiter": draw(st.booleans())}
            for name in "ab"
        },
        "line": lines, "groups": groups, "trails": {"way": {"of": "some", "by": by}},
        "rhythms": {"beat": draw(rhythms)}, "leds": draw(st.sampled_from(WHITES)),
        "most": draw(ceilings), "dither": draw(st.booleans()), "rate": draw(st.sampled_from([25.0, 50.0, 125.0])),
        "level": draw(st.sampled_from([1.0, 0.3, "s"])), "units": draw(st.sampled_from(["mm", "in"])),
        "signals": {
            "s": {"smooth": draw(st.sampled_from([0.0, 0.2])), "lost_after": draw(st.sampled_from([None, 0.1]))},
            "t": {"of": "s * 0.5 + 0.1", "range": [0.0, 1.0]},
            "on": {"kind": "switch", "hold": draw(st.sampled_from([0.0, 0.3]))},
            "mode": {"kind": "choice", "choices": {"calm": 0, "wild": 3}},
        },
        "canvases": {"desk": {"part-0-0": {"at": [50.0, 20.0], "turn": 30.0, "scale": 2.5}}},
        "scene": [
            {"name": "one", "when": draw(st.sampled_from(TRUTHS)), "fade": draw(fades)},
            {"name": "two", "when": "mode == 'wild'", "button": draw(st.sampled_from(["", "on"]))},
            {"name": "three", "fade": draw(fades), "button": draw(st.sampled_from(["", "on"])),
             "when": draw(st.sampled_from([True, "not lost(all)"]))},
        ],
        "layer": [{**layer, "name": f"{i}"} for i, layer in enumerate(made)],
    }  # fmt: skip


news = st.lists(st.tuples(st.integers(0, 400), st.floats(-1e9, 1e9), st.booleans()), max_size=8)
"""Milliseconds to the next frame, and what comes with it of the signals `s` and `on`."""


GUARDS = {
    "div": lambda tracer, a, b: (a, tracer.apply("select", tracer.apply("equal", b, 0.0), 1.0, b)),
    "sqrt": lambda tracer, a: (tracer.apply("max", a, 0.0),),
    "uint_div": lambda tracer, a, b: (
        a, tracer.apply("uint_select", tracer.apply("uint_less", b, 1), 1, b)
    ),
    "uint_mod": lambda tracer, a, b: (
        a, tracer.apply("uint_select", tracer.apply("uint_less", b, 1), 1, b)
    ),
    "uint_shift": lambda tracer, a, b: (a, tracer.apply("uint_mod", b, 32)),
    "to_uint": lambda tracer, a: (
        tracer.apply("min", tracer.apply("max", a, 0.0), LARGEST_UINT_FLOAT),
    ),
}  # fmt: skip
"""How arguments are brought to where the operation may be asked for."""

TABLES = [
    (Kind.FLOAT, [0.5, 0.25, 1.0]), (Kind.FLOAT, [0.1, -7.3]), (Kind.FLOAT, [3.0]),
    (Kind.UINT, [7, 300, 4_000_000_000]), (Kind.UINT, [200, 9]),
]  # fmt: skip
"""Tables that numbers are looked up in: small, in fractions, and of any size."""

FLOATS = st.sampled_from([0.0, -0.0, 1.0, -1.0, 0.5, 2.0, 3.0, 255.0, 1e9, -1e9, 1e-40, 0.1])


@st.composite
def plans(draw):
    """A plan of any graph at all, each operation of the table in reach."""
    spots = {
        "all": np.arange(40),
        "some": np.array([1, 4, 9, 16, 25, 36]),
        "rest": np.arange(7, 31),
    }
    columns = {
        (space, name): values[places]
        for space, places in spots.items()
        for name, values in (("x", np.arange(40) * 2.5 - 30), ("rank", np.arange(40.0)))
    }
    tracer, spaces = Tracer(), []
    for number in range(draw(st.integers(1, 3))):
        space = draw(st.sampled_from(sorted(spots)))
        cells = [tracer.state(f"{kind}.{number}", 0, kind) for kind in Kind]
        pool = [
            tracer.column("x", space), tracer.column("rank", space), *cells,
            tracer.input(f"{VALUE}s", Kind.FLOAT), tracer.input(f"{NEWS}s", Kind.TRUTH),
            tracer.input("now_ms", Kind.UINT), tracer.input("dt_ms", Kind.UINT),
            tracer.input("first", Kind.TRUTH), tracer.const((0.0, 0.5, 1.0)),
            *(tracer.const(draw(FLOATS)) for _ in range(3)), tracer.const(True),
            tracer.const(draw(st.integers(0, 2**32 - 1)), Kind.UINT),
        ]  # fmt: skip
        for name in draw(st.lists(st.sampled_from(sorted(OPS)), min_size=4, max_size=25)):
            args = [
                draw(st.sampled_from([value for value in reversed(pool) if value.kind is kind]))
                for kind in OPS[name].takes
            ]
            args = GUARDS[name](tracer, *args) if name in GUARDS else args
            pool.append(tracer.apply(name, *args))
            if draw(st.integers(0, 9)) == 0:
                uints = [v for v in reversed(pool) if v.kind is Kind.UINT and v.width == 1]
                place = draw(st.sampled_from(uints))
                kind, values = draw(st.sampled_from(TABLES))
                pool.append(tracer.take(Lookup(values, kind), place))
            if draw(st.integers(0, 9)) == 0:
                colour = draw(st.sampled_from([v for v in reversed(pool) if v.kind is Kind.FLOAT]))
                pool.append(tracer.channel(colour, draw(st.integers(0, 2))))
        for cell in cells:
            numbers = [v for v in pool if v.kind is cell.kind and v.rate in (0, 2) and v.width == 1]
            value = draw(st.sampled_from(numbers[::-1]))
            tracer.remember(cell, tame(value) if value.kind is Kind.FLOAT else value)
        floats = [value for value in reversed(pool) if value.kind is Kind.FLOAT]
        paint, rest = (tame(draw(st.sampled_from(floats))) for _ in range(2))
        beneath = tracer.beneath(number, space)
        name = draw(st.sampled_from(["over", "alone", "add", "max", "min", "twice", "either"]))
        light = {
            "over": beneath * rest + paint, "alone": paint, "add": beneath + paint,
            "max": maximum(paint, beneath), "min": minimum(paint, beneath),
            "twice": beneath * rest + minimum(beneath, paint) * 0.5,
            "either": select(paint < rest, beneath * rest, (paint + beneath) * 0.5),
        }[name]  # fmt: skip
        tracer.roots[f"layer:{number}:light"] = light.place
        truths = [v for v in pool if v.kind is Kind.TRUTH and v.rate in (0, 2) and v.width == 1]
        tracer.roots[f"layer:{number}:on"] = draw(st.sampled_from(truths)).place
        spaces.append(space)
    tracer.roots["master"] = tracer.const(0.5).place
    graph = simplify(tracer.graph())
    paints = [
        Paint(i, space, *(graph.roots[f"layer:{i}:{root}"] for root in ("on", "light")))
        for i, space in enumerate(spaces)
    ]
    steps = (*paints, Master(graph.roots["master"]))
    layers = [{"name": f"{i}", "on": "bar", "effect": "solid"} for i in range(len(paints))]
    line = [{"name": "a", "part": [strip(count=40)]}]
    kinds = {"s": {}, "on": {"kind": "switch"}}
    made = fd.Design.from_values({"line": line, "signals": kinds, "layer": layers})
    return Plan(made, made.layout(), graph, steps, columns, spots, 40, ("s", "on"))
