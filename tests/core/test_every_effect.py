"""What holds for every effect of the registry: colour, range, seed, and no jump for a little change."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.effects import EFFECTS
from helpers import layer, strip

RING = {"name": "ring", "shape": "ring", "centre": [40.0, 90.0], "radius": 33.0, "count": 16}
WALL = {
    "name": "wall",
    "shape": "grid",
    "columns": 12,
    "rows": 8,
    "pitch": 10.0,
    "at": [300.0, 20.0],
}
SIGNALS = {"s": {}, "go": {"kind": "switch"}, "t": {"kind": "colour"}}

PICTURE = {"file": "wink.gif"}
BUSY = {
    "bands": {"levels": ["0.3", "0.8", "0.55"]}, "each": {"levels": ["0.3", "0.8 * go", "0.55"]},
    "gauge": {"value": 0.63, "peak": True, "threshold": 0.9},
    "gradient": {"rate": 0.13}, "pattern": {"rate": 1.7}, "picture": PICTURE,
    "push": {"trigger": "go"}, "ripple": {"trigger": "go", "x": 70, "y": 10}, "run-up": {"trigger": "go"},
    "text": {"rate": 4.3}, "turn": {"steer": 0.4, "rate_hard": 2.2, "length_hard": 0.6},
    "field": {"amount": "0.2 + 0.6 * along"},
}  # fmt: skip
"""What makes an effect show something, where its defaults do not."""

USUAL = {
    ("gradient", "rate"): 0.3, ("pattern", "rate"): 3.1, ("text", "rate"): 3.1, ("bands", "levels"): 0.7, ("each", "levels"): 0.7,
    ("gauge", "value"): 0.63, ("gauge", "low"): 0.1, ("gauge", "origin"): 0.4, ("gauge", "threshold"): 0.9,
    ("turn", "steer"): 0.4, ("turn", "length_hard"): 0.7, ("spin", "soft"): 0.3, ("text", "pixel"): 11.0,
    ("text", "ground_cover"): 0.3, ("hue-drift", "start"): 40.0, ("cloud", "heading"): 33.0,
    ("field", "hue"): 77.0, ("field", "red"): 0.3, ("field", "green"): 0.3, ("field", "blue"): 0.3,
    ("blink", "phase"): 0.2, ("gradient", "at"): 0.3,
    **{(name, axis): 60.0 for name in ("beam", "ripple") for axis in "xyz"},
}  # fmt: skip
"""What somebody would turn from, where the default is 0 or none."""

WHOLE = {
    ("flicker", "flames"): "how many flames there are", ("pattern", "run"): "whole LEDs",
    ("march", "run"): "whole LEDs", ("march", "gap"): "whole LEDs",
    ("beacon", "flashes"): "whole flashes",
    **{(name, "seed"): "another seed is another look" for name, item in EFFECTS.items()
       if "seed" in item.parameters},
}  # fmt: skip
"""Parameters that cannot change a little, and why: each effect's docstring says so."""


def program(name, **keys):
    made = fd.Design.from_values(
        {
            "line": [{"name": "a", "part": [strip("bar", 40), RING, WALL]}],
            "signals": SIGNALS, "rate": 25, "layer": [layer(name, **{**BUSY.get(name, {}), **keys})],
        },
        folder=fd.demo_file("heart.png").parent,
    )  # fmt: skip
    return made.compile(engine="numpy")


def film_of(name, seconds=6.0, news=None, **keys):
    """The light, (frames, LEDs, 3), of an effect that is triggered each 2.3 s."""
    engine, frames = program(name, **keys).engine, []
    for i in range(round(seconds * 25)):
        light, _ = engine.light(i * 40, {"go": float(i % 58 == 2), **(news or {})})
        frames.append(light.T.copy())
    return np.array(frames)


def numbers_of(effect):
    return [key for key, item in effect.parameters.items() if item.kind in ("number", "numbers")]


PARAMETERS = [(name, key) for name, effect in EFFECTS.items() for key in numbers_of(effect)]


def jumps(name, key, usual, factor=1.001):
    """In which share of the moments such a change changes more than 4 % of the light at once."""
    item = EFFECTS[name].parameters[key]
    text = ["s", "1 - s"] if item.kind == "numbers" else "s"
    first, second = (program(name, **{key: text}) for _ in range(2))
    value = min(max(usual, item.low), item.high)
    found, now_ms = [], 0
    for i in range(25 * 14):
        news = {"go": float(i % 58 == 2), "s": value}
        is_tried = i > 100 and i % 7 == 0
        now_ms += 1 if is_tried else 40  # at once: nothing has time to move
        light = first.engine.light(now_ms, news)[0].copy()
        other = min(max(value * factor, item.low), item.high)
        other = other if other != value else value / factor
        changed = second.engine.light(now_ms, {**news, "s": other if is_tried else value})[0]
        if is_tried:
            found.append(np.abs(light - changed).mean(axis=0).mean() > 0.04)
        second.engine.recall(first.engine.memory(), now_ms)
    return sum(found) / len(found)


@pytest.mark.parametrize(("name", "key"), PARAMETERS)
def test_a_parameter_that_changes_a_little_changes_the_light_a_little(name, key):
    if (name, key) in WHOLE:
        return
    item = EFFECTS[name].parameters[key]
    default = item.default if isinstance(item.default, float) else 0.0
    usual = USUAL.get((name, key), default)
    assert usual != 0, "say what is usual"
    for factor in (1.0, 1.37, 0.61):
        assert jumps(name, key, usual * factor) <= 0.15, factor


TIMES = [(name, key) for name, key in PARAMETERS
         if EFFECTS[name].parameters[key].unit in ("s", "Hz", "1/s")]  # fmt: skip


@pytest.mark.parametrize("factor", [2.7, 0.3])
@pytest.mark.parametrize(("name", "key"), TIMES)
def test_a_time_or_rate_that_changes_much_changes_what_comes_and_not_what_is(name, key, factor):
    default = EFFECTS[name].parameters[key].default
    assert jumps(name, key, USUAL.get((name, key), default), factor) <= 0.15


@pytest.mark.parametrize(("name", "key"), WHOLE)
def test_what_cannot_change_a_little_is_said_in_the_docstring(name, key):
    effect = EFFECTS[name]
    said = f"{effect.about} {effect.parameters[key].about}"
    assert "whole" in said or f"same {key}" in said or f"`{key}`" in said


COLOURED = [name for name, effect in EFFECTS.items()
            if any(item.kind in ("colour", "colours") for item in effect.parameters.values())]  # fmt: skip


def in_one_colour(name, colour):
    """Every colour of an effect is the same one."""
    return {
        key: [colour, colour] if item.kind == "colours" else colour
        for key, item in EFFECTS[name].parameters.items()
        if item.kind in ("colour", "colours")
    }


@pytest.mark.parametrize("name", COLOURED)
def test_the_colour_that_goes_in_comes_out(name):
    """Of one lopsided colour nothing but shares of it is shown: #8000ff is (0.2159, 0, 1)."""
    light = film_of(name, **in_one_colour(name, "#8000ff"))
    assert light[..., 2].max() > 0.3
    assert np.abs(light[..., 1]).max() < 1e-4
    assert np.abs(light[..., 0] - 0.21586 * light[..., 2]).max() < 1e-4


@pytest.mark.parametrize("name", COLOURED)
def test_a_live_colour_is_the_same_as_a_written_one(name):
    """To the bit, also of odd numbers above 2**23, in every effect."""
    for text, number in (("#8000ff", 0x8000FF), ("#ff8a01", 0xFF8A01)):
        written = film_of(name, 3.0, **in_one_colour(name, text))
        live = film_of(name, 3.0, {"t": float(number)}, **in_one_colour(name, "t"))
        assert written.tobytes() == live.tobytes()


def at_an_end(name, which):
    """Every number of an effect at its lowest or highest, or going to and fro between them."""
    keys = {}
    for key in numbers_of(EFFECTS[name]):
        item = EFFECTS[name].parameters[key]
        text = {"low": item.low, "high": item.high, "s": f"mix({item.low}, {item.high}, s)"}[which]
        keys[key] = [text, text] if item.kind == "numbers" else text
    if name == "gauge":
        keys["low"] = 0.25  # a gauge without any length is an error
    return keys


@pytest.mark.parametrize("name", EFFECTS)
@pytest.mark.parametrize("which", ["low", "high", "s"])
def test_light_stays_within_0_and_1_whatever_the_numbers_are(name, which):
    engine = program(name, **at_an_end(name, which)).engine
    for i in range(60):
        light, _ = engine.light(i * 97, {"go": float(i % 9 == 2), "s": i / 59})
        assert np.isfinite(light).all()
        assert light.min() >= 0
        assert light.max() <= 1.0001


SEEDED = [name for name, effect in EFFECTS.items() if "seed" in effect.parameters]


@pytest.mark.parametrize("name", SEEDED)
def test_a_seed_gives_the_same_again_and_another_one_something_else_as_bright(name):
    first, again, other = (film_of(name, 12.0, seed=seed) for seed in (7, 7, 8))
    assert first.tobytes() == again.tobytes()
    assert (first != other).any(axis=(1, 2)).mean() > 0.5
    assert other.mean() == pytest.approx(first.mean(), rel=0.35)


@pytest.mark.parametrize("name", EFFECTS)
def test_what_is_on_for_a_month_still_moves(name):
    """A frame each 40 ms on the 31st day after the layer came on, beside one on the first day."""
    engine = program(name, when="s > 0").engine
    first = [engine.light(i * 40, {"s": 1.0, "go": float(i == 2)})[0].copy() for i in range(150)]
    month_ms = 30 * 86_400_000
    for i in range(150, 400):  # steps of three hours
        engine.light((i * 40 + month_ms * (i - 149) // 250) & 0xFFFFFFFF, {"s": 1.0})
    at_ms = 400 * 40 + month_ms
    later = [
        engine.light((at_ms + i * 40) & 0xFFFFFFFF, {"s": 1.0, "go": float(i == 2)})[0].copy()
        for i in range(150)
    ]
    moves = [np.abs(np.diff(np.array(film), axis=0)).mean() for film in (first, later)]
    assert moves[1] == pytest.approx(moves[0], rel=0.5, abs=1e-4)
