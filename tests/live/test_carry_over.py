"""A design that is changed while it runs: what did not change goes on."""

from __future__ import annotations

import gc
import weakref

import numpy as np
import pytest

import fendra as fd
from fendra.core.composition.carry_over import same_cells
from helpers import strip

ENGINES = ["numpy", "native", "wasm"]


def spinner(*more, colour="white", order=1, rate="rpm / 60") -> fd.Design:
    """A spin whose phase is only known from its whole past, and what stands before or behind it."""
    spin = {
        "name": "spin",
        "on": "bar",
        "effect": "spin",
        "rate": rate,
        "colour": colour,
        "by": "x / 80",
    }
    layers = [spin, *more] if order > 0 else [*more, spin]
    return fd.Design.from_values({
        "name": "Reloaded", "rate": 50.0,
        "line": [{"name": "a", "part": [strip()]}, {"name": "b", "part": [strip("other")]}],
        "signals": {"rpm": {"smooth": 0.3}, "on": {"kind": "switch", "hold": 1.0}},
        "layer": layers,
    })  # fmt: skip


def glow(**keys):
    return {"name": "glow", "on": "other", "effect": "solid", "colour": "red", "fade_in": 0.5,
            "when": "on", **keys}  # fmt: skip


def run(program, frames, start=0):
    """Frames 20 ms apart with a moving rpm; gives the bytes of the bar."""
    found = []
    for i in range(start, start + frames):
        frame = program.frame({"rpm": 40 + 7 * (i % 11), "on": i % 20 < 2}, at=i * 0.02)
        found.append(frame.part("bar").copy())
    return np.array(found)


@pytest.mark.parametrize("engine", ENGINES)
@pytest.mark.parametrize(
    "after",
    [
        lambda: spinner(glow(colour="blue"), glow(name="new", colour="lime", blend="add")),
        lambda: spinner(glow(), glow(name="first", fade_in=2.0), order=-1),
        spinner,
        lambda: spinner(glow(when="on and rpm > 3")),
    ],
)
def test_motion_that_did_not_change_goes_on_as_if_nothing_had_been(compiler, engine, after):
    before, whole = (spinner(glow()).compile(engine=engine) for _ in range(2))
    expected = run(whole, 120)
    run(before, 60)
    program = after().compile(engine=engine)
    program.adopt(before, {"rpm": 40 + 7 * (59 % 11), "on": 0.0})
    assert (run(program, 60, start=60) == expected[60:]).all()


@pytest.mark.parametrize("engine", ENGINES)
def test_a_layer_of_the_same_name_goes_on_from_where_it_is_when_its_rate_changes(compiler, engine):
    """Half a turn a second from where one turn a second was: no jump in between."""
    before = spinner(rate="rpm / 60").compile(engine=engine)
    for i in range(61):
        before.frame({"rpm": 60}, at=i * 0.02)
    light = before.frame(at=1.22).part("bar").astype(int)
    program = spinner(rate="rpm / 120").compile(engine=engine)
    assert program.at_s == 0
    program.adopt(before, {"rpm": 60})
    assert program.at_s == before.at_s == 1.22
    following = program.frame(at=1.24).part("bar").astype(int)
    assert np.abs(following - light).max() < 40
    fresh = spinner(rate="rpm / 120").compile(engine=engine)
    assert np.abs(fresh.frame({"rpm": 60}, at=1.24).part("bar").astype(int) - light).max() > 60


def test_what_begins_anew_begins_with_what_is_known():
    """A new lag is at its value at once, and does not come up from 0."""
    before = spinner().compile()
    before.frame(rpm=60, at=0)
    after = spinner(glow(when=True, fade_in=0, level="lag(rpm, 5) / 60")).compile()
    after.adopt(before, {"rpm": 60})
    assert after.frame(at=0.02).part("other")[0].tolist() == [255, 0, 0]


def test_an_event_of_long_ago_does_not_happen_again():
    """A ripple that is new in the design waits for the next press; its place is as it was."""
    ripple = {"name": "press", "on": "other", "effect": "ripple", "trigger": "hit", "life": 2,
              "x": "hit.x", "y": "hit.y", "speed": 100, "width": 30}  # fmt: skip

    def made(*layers):
        values = spinner(*layers).model_dump(mode="json", exclude_defaults=True)
        return fd.Design.from_values(
            {**values, "signals": {**values["signals"], "hit": {"kind": "event"}}}
        )

    before = made().compile()
    known = {"hit": 1.0, "hit.x": 35.0, "hit.y": 0.0}
    before.frame(known, at=0.0)
    for at_s in (0.02, 5.0):
        before.frame(at=at_s)
    after = made(ripple).compile()
    after.adopt(before, known)
    for at_s in (5.02, 5.2, 5.4):
        assert not after.frame(at=at_s).part("other").any()
    after.frame(hit=1.0, at=5.42)
    assert after.frame(at=5.5).part("other").any()


def test_cells_are_matched_by_what_they_compute_and_then_by_whose_they_are():
    old, new = spinner(glow()), spinner(glow(fade_in=1.5), order=-1)
    before, after = (made.compile().plan for made in (old, new))
    pairs = same_cells(before, after)
    assert {*pairs} == {*after.graph.start}
    assert len({*pairs.values()}) == len(pairs)


def test_a_scene_of_the_same_name_goes_on_though_another_one_stands_before_it_now():
    """rpm was 1 and is 0 now. What the condition smooths was 1; 20 ms later it is still above 0.9, and
    a scene that began anew would begin at 0."""

    def made(*scenes):
        glows = [glow(scene="calm", when=True, fade_in=0), glow(name="dim", level=0, scene="rest")]
        values = spinner(*glows).model_dump(mode="json", exclude_defaults=True)
        return fd.Design.from_values({**values, "scene": [*scenes, {"name": "rest"}]})

    before = made({"name": "calm", "when": "lag(rpm, 2) > 0.5"}).compile()
    for i in range(10):
        before.frame(rpm=1, at=i * 0.02)
    more = {"name": "more", "when": "lag(rpm * 2, 2) > 9"}
    after = made(more, {"name": "calm", "when": "lag(rpm, 3) > 0.5"}).compile()
    after.adopt(before, {"rpm": 0})
    assert after.frame(at=0.2).part("other")[0].tolist() == [255, 0, 0]
    assert after.scene == "calm"


@pytest.mark.parametrize("engine", ENGINES)
def test_memory_can_be_taken_to_another_program(compiler, engine):
    """What one node remembers another goes on with, whatever it did before."""
    leader, follower = (spinner(glow()).compile(engine=engine) for _ in range(2))
    run(leader, 60)
    follower.frame(rpm=500, at=0.5)
    follower.recall(leader.engine.memory(), leader.at_s)
    assert (run(follower, 30, start=60) == run(leader, 30, start=60)).all()


def test_a_clock_that_is_set_back_is_followed():
    program = spinner().compile()
    program.frame(rpm=60, at=100.0)
    program.move_clock(40.0)
    assert program.frame(at=40.02).at_s == 40.02


def test_the_scene_is_told(compiler):
    design = fd.load(fd.demo_file("heron.toml"))
    for engine in ENGINES:
        program = design.compile(engine=engine)
        program.frame(at=0.0)
        assert program.scene == "no news"
        for i in range(1, 100):
            program.frame(speed=20, rpm=2000, throttle=0.5, at=i * 0.02)
        assert program.scene == "riding"


def test_a_program_that_another_one_has_followed_is_let_go():
    """A design that is saved a hundred times a day leaves no hundred programs in memory."""
    before, program = spinner().compile(), spinner(glow()).compile()
    before.frame(rpm=60, at=0)
    program.adopt(before, {"rpm": 60})
    old = weakref.ref(before)
    del before
    gc.collect()
    assert old() is None
