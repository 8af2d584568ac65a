"""Every blend: what it makes of the light beneath, on every engine, and what all of them promise."""

from __future__ import annotations

import re

import numpy as np
import pytest

from fendra.core.composition.blends import BLENDS, Blend
from fendra.core.composition.plan import Wire
from fendra.core.engines.c99 import emit
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.core.errors import EngineError
from fendra.core.graph.functions import select
from fendra.core.insight.explain import explain
from fendra.native.engine import NativeEngine
from helpers import design, layer, tape

BENEATH, ABOVE = "#8050ff", "#c0a020"
"""Linear: red 0.216, 0.527; green 0.080, 0.352; blue 1, 0.014."""


def linear(text):
    """By the formula of IEC 61966-2-1."""
    levels = (int(text[i : i + 2], 16) / 255 for i in (1, 3, 5))
    return np.array([v / 12.92 if v <= 0.04045 else ((v + 0.055) / 1.055) ** 2.4 for v in levels])


def as_bytes(light):
    return np.minimum(np.rint(255 * light), 255).astype(int).tolist()


RULES = {
    "over": lambda b, c, k: b * (1 - k) + c * k,
    "add": lambda b, c, k: b + c * k,
    "max": lambda b, c, k: np.maximum(b, c * k),
    "multiply": lambda b, c, k: b * (1 - k + k * c),
    "darken": lambda b, c, k: b * (1 - k) + np.minimum(b, c) * k,
}
"""What the docs promise of each: red, green and blue beneath, of the colour, and the cover."""


def both(blend, **keys):
    """A colour over another one, on LEDs in a row, on every second one, and on none in between."""
    keys = {"colour": ABOVE, "blend": blend} | keys
    above = [layer(keys.get("effect", "solid"), on=on) | keys for on in ("right", "odd")]
    return design(
        layer(colour=BENEATH), *above, count=9,
        groups={"right": "x > 45 and index % 2 == 0 or x > 65", "odd": "index % 2 == 1 and x < 60"},
        signals={"s": {}},
    )  # fmt: skip


def test_every_blend_has_a_rule_here():
    assert RULES.keys() == {*BLENDS}


@pytest.mark.parametrize(("cover", "level"), [(1.0, 1.0), (0.25, 1.0), (0.7, 0.6)])
@pytest.mark.parametrize("name", sorted(BLENDS))
def test_a_blend_gives_what_its_rule_says_on_every_engine(compiler, name, cover, level):
    """A level of 0.6 is ((60 + 16) / 116) ** 3 of the colour's light."""
    made = both(name, cover=cover, level=level)
    above = linear(ABOVE) * ((100 * level + 16) / 116) ** 3
    expected = as_bytes(RULES[name](linear(BENEATH), above, cover))
    plain = as_bytes(linear(BENEATH))
    for engine in ("numpy", *(["native"] if level < 1 else [])):
        rgb = made.compile(engine=engine).frame(at=0).rgb.astype(int)
        for place, seen in enumerate(rgb.tolist()):
            is_covered = place in (1, 3, 5, 6, 7, 8)
            assert np.abs(np.subtract(seen, expected if is_covered else plain)).max() <= 1, place


@pytest.mark.parametrize("name", sorted(BLENDS))
def test_explain_says_what_the_engines_show(name):
    made = both(name, cover="0.2 + 0.5 * along", level="s")
    film = made.compile(engine="numpy").film(tape(s=[0.3, 0.6, 0.9]))
    for place in (0, 3, 8):
        why = film.explain(f"bar:{place}", 0.1)
        light = NumpyEngine(made.examined.sound.plan)
        for i in range(3):
            shown, _ = light.light(i * 50, {"s": [0.3, 0.6, 0.9][i]})
        assert np.float32(why.light).tolist() == shown[:, place].tolist()
        assert [touch.blend for touch in why.touches if touch.is_on][1:] == [name] * (place > 0)


@pytest.mark.parametrize("name", sorted(BLENDS))
@pytest.mark.parametrize("keys", [{"cover": 0.0}, {"cover": "s - s"}, {"cover": "0 * along"}])
def test_where_nothing_is_covered_the_light_stays_to_the_bit(compiler, name, keys):
    made, bare = both(name, **keys), design(layer(colour=BENEATH), count=9)
    for kind in (NumpyEngine, NativeEngine):
        light, _ = kind(made.examined.sound.plan).light(0, {"s": 0.7})
        other, _ = kind(bare.examined.sound.plan).light(0, {})
        assert light.tobytes() == other.tobytes()


@pytest.mark.parametrize("name", sorted(BLENDS))
@pytest.mark.parametrize("keys", [
    {}, {"cover": 0.3}, {"cover": "s"}, {"cover": "along"}, {"cover": "along * s", "level": "s"},
    {"cover": "s", "hides_below": True, "fade_in": 0.1}, {"colour": "mix('red', 'blue', s)"},
])  # fmt: skip
def test_a_blend_gives_the_same_bits_in_numpy_and_in_c(compiler, name, keys):
    keys = {"colour": ABOVE} | keys
    made = design(
        layer(colour=BENEATH, level="s"),
        layer(on="odd", blend=name, **keys), layer(on="left", blend=name, **keys),
        count=9, signals={"s": {"smooth": 0.05}},
        groups={"odd": "index % 2 == 1", "left": "x < 35"},
    )  # fmt: skip
    plan = made.examined.sound.plan
    engines = NumpyEngine(plan), NativeEngine(plan)
    for frame, s in enumerate([0.0, 0.2, 1.0, 0.61, 0.999]):
        light, other = (engine.light(frame * 40, {"s": s})[0] for engine in engines)
        assert light.tobytes() == other.tobytes(), frame


@pytest.mark.parametrize("name", sorted(BLENDS))
def test_a_little_more_cover_changes_the_light_a_little(name):
    program = both(name, cover="s").compile(engine="numpy")
    shown = [program.frame(s=s / 200, at=s / 50).rgb.astype(int) for s in range(201)]
    assert np.abs(np.diff(shown, axis=0)).max() <= 3


@pytest.mark.parametrize("name", sorted(BLENDS))
def test_hides_below_does_something_where_a_blend_covers_and_nothing_elsewhere(name):
    """Half a cover of #c0a020 on #8050ff; with `hides_below` nothing of #8050ff is left."""
    plain, hiding = (
        both(name, effect="field", amount=0.5, **keys)
        .compile(engine="numpy")
        .frame(s=0, at=0)
        .rgb[8]
        .tolist()
        for keys in ({}, {"hides_below": True})
    )
    expected = as_bytes(linear(ABOVE) / 2) if BLENDS[name].covers else plain
    assert np.abs(np.subtract(hiding, expected)).max() <= 1
    assert (hiding != plain) == BLENDS[name].covers


def test_a_blend_that_there_is_not_is_a_finding_and_stops_the_design():
    made = design(layer(colour="red", blend="darkn"))
    (found,) = made.check()
    assert (found.code, found.path) == ("wrong-value", ("layer", 0, "blend"))
    assert "Did you mean 'darken'?" in found.remedy


def turned(beneath, stroke):
    """Red of the layers below becomes green, green blue, and blue red."""
    red, green, blue = (beneath.tracer.channel(beneath, i) for i in range(3))
    first, second, third = (beneath.tracer.const(row) for row in np.eye(3).tolist())
    there = first * blue + second * red + third * green
    return beneath * (1.0 - stroke.cover) + there * stroke.cover


def on_little_red(beneath, stroke):
    """The layer where little red is beneath; where there is more after it, that changes nothing."""
    return select(beneath.tracer.channel(beneath, 0) < 0.3, stroke.paint, beneath)


@pytest.mark.parametrize(("draw", "expected"), [
    (turned, [255, 55, 20]),  # of 55, 20, 255
    (on_little_red, [134, 90, 4]),  # 0.216 is less than 0.3, and the layer's 0.527 is not
], ids=["turned", "on little red"])  # fmt: skip
def test_a_blend_may_read_any_channel_for_any_other(compiler, monkeypatch, draw, expected):
    """A channel that has been painted is not read as what is beneath the next."""
    monkeypatch.setitem(BLENDS._things, "try", Blend("try", draw))
    made = both("try")
    engines = [made.compile(engine=engine) for engine in ("numpy", "native", "wasm")]
    for program in engines:
        assert program.frame(s=0, at=0).rgb[[0, 1]].tolist() == [[55, 20, 255], expected]
    why = engines[0].film(tape(s=[0, 0])).explain("bar:1", 0)
    assert as_bytes(np.array(why.light)) == expected


def fails(beneath, stroke):
    return beneath.brightness * stroke.cover


@pytest.mark.parametrize(("draw", "message"), [
    (fails, "AttributeError: 'Value' object has no attribute 'brightness'."),
    (lambda *_: 0.5, "it gives no light, and that is its only purpose."),
    (lambda beneath, _: beneath > 0.5, "it gives no light, and that is its only purpose."),
    (lambda beneath, stroke: beneath & stroke.cover,
     "a condition is needed here, and this is a number."),
])  # fmt: skip
def test_a_blend_that_fails_is_a_finding(monkeypatch, draw, message):
    monkeypatch.setitem(BLENDS._things, "try", Blend("try", draw))
    found = [finding for finding in both("try").check() if finding.severity == "error"]
    assert [(f.code, f.path) for f in found] == [
        ("wrong-value", ("layer", number, "blend")) for number in (1, 2)
    ]
    line = draw.__code__.co_firstlineno
    where = rf"blend 'try' \(test_blends\.py:({line}|{line + 1})\): "
    assert re.fullmatch(where + re.escape(message), found[0].message), found[0].message


class Sparkle:
    """A step that nobody knows."""


@pytest.mark.parametrize("run", [
    NumpyEngine, emit, lambda plan: explain(plan, both("add").compile().film(tape(s=[1.0])), 0, 0.0),
], ids=["numpy", "c99", "explain"])  # fmt: skip
def test_an_interpreter_that_does_not_know_a_step_says_so(run):
    from dataclasses import replace

    plan = both("add").examined.subject.recorded.reasons
    assert isinstance(plan.steps[-1], Wire)
    run(plan)
    with pytest.raises(EngineError, match="does not know the step Sparkle"):
        run(replace(plan, steps=(*plan.steps, Sparkle())))
