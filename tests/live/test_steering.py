"""Steering: what hands hold, what sources say meanwhile, and what comes after."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.errors import DesignError, SignalError
from fendra.core.program import compile_design
from fendra.live.connect import Connected
from fendra.live.inbox import Inbox
from fendra.live.session import Session
from fendra.live.steering import LEVEL, SCENE, Steering, steered
from fendra.live.watch import Watch
from fendra.native.choose import choose_engine
from helpers import FakeClock, design, layer, reds, until
from helpers import tape as tape_of

SIGNALS = {
    "speed": {"range": [0, 40], "lost_after": 2.0, "fallback": 8},
    "left": {"kind": "switch"},
    "hit": {"kind": "event"},
    "bands": {"kind": "vector", "size": 2},
    "double": {"of": "speed * 2"},
}


def inbox():
    clock = FakeClock()
    return Inbox(design(layer(), signals=SIGNALS), clock=clock), clock


def test_a_held_signal_has_the_hands_value_in_every_frame_whatever_sources_say():
    box, _ = inbox()
    box.put("udp", "speed", 12)
    box.hold("speed", 30)
    assert box.take() == {"speed": 30.0}
    box.put("udp", "speed", 13)
    assert box.take() == {"speed": 30.0}
    assert box.heard["speed"].raw == 13


def test_let_go_of_it_has_what_a_source_said_last_though_that_was_while_it_was_held():
    box, _ = inbox()
    box.hold("speed", 30)
    box.take()
    box.put("udp", "speed", 13)
    box.take()
    box.release("speed")
    assert box.take() == {"speed": 13.0}
    assert box.take() == {}


def test_let_go_of_before_any_source_spoke_it_falls_back():
    box, _ = inbox()
    box.hold("speed", 30)
    box.take()
    box.release("speed")
    assert box.take() == {"speed": 8.0}


def test_let_go_of_it_has_what_a_tape_said_last():
    box, _ = inbox()
    box.put_number("tape", "speed", 11)
    box.hold("speed", 30)
    box.take()
    box.put_number("tape", "speed", 12)
    assert box.take() == {"speed": 30.0}
    box.release("speed")
    assert box.take() == {"speed": 12.0}


def test_a_signal_whose_news_are_held_back_is_lost_and_a_held_one_never_is():
    box, clock = inbox()
    box.put("udp", "speed", 12)
    box.hold("speed", None)
    assert box.take() == {}
    assert "speed" in box.lost()
    box.hold("speed", 5)
    clock.sleep(100)
    assert "speed" not in box.lost()
    assert "speed" not in box.unfed()


def test_a_vector_is_held_as_a_whole():
    box, _ = inbox()
    box.put("udp", "bands", [0.1, 0.2])
    box.hold("bands", [0.7, 0.9])
    assert box.take() == {"bands[0]": 0.7, "bands[1]": 0.9}
    box.put("udp", "bands[1]", 0.5)
    assert box.take() == {"bands[0]": 0.7, "bands[1]": 0.9}
    box.release("bands")
    assert box.take()["bands[1]"] == 0.5


def test_an_event_by_hand_happens_once():
    box, _ = inbox()
    box.hold("hit", 1)
    assert [box.take().get("hit") for _ in range(3)] == [1.0, None, None]
    assert box.held == {}


@pytest.mark.parametrize(
    ("name", "value", "why"),
    [("sped", 1, "Did you mean 'speed'"), ("double", 1, "computed"), ("left", "maybe", "left")],
)
def test_what_cannot_be_held_is_refused(name, value, why):
    box, _ = inbox()
    with pytest.raises(SignalError, match=why):
        box.hold(name, value)
    assert box.held == {}


def test_a_reloaded_design_keeps_what_is_held_and_fits():
    box, _ = inbox()
    box.hold("speed", 30)
    box.hold("bands", [1, 1])
    box.use(design(layer(), signals={"speed": {}, "bands": {"kind": "vector", "size": 1}}))
    assert box.held == {"speed": {"speed": 30.0}}


# ---- The design that is steered

SCENES = {
    "signals": {"s": {}, "next": {"kind": "switch"}},
    "scene": [
        {"name": "first", "when": "s > 0.5"},
        {"name": "red", "button": "next"},
        {"name": "blue", "button": "next"},
        {"name": "last"},
    ],
}


def scenes(**keys):
    layers = [
        {**layer(colour="white"), "scene": "first"},
        {**layer(colour="red"), "scene": "red"},
        {**layer(colour="blue"), "scene": "blue"},
        {**layer(colour="lime"), "scene": "last"},
    ]
    return design(*layers, **SCENES, **keys)


ENGINES = ("numpy", "native", "wasm")


def program(read, engine="numpy", **presets):
    examined = steered(read.examined, presets)
    return compile_design(examined, engine=lambda plan: choose_engine(plan, engine)[0])


def colour(frame):
    return frame.rgb[0].tolist()


@pytest.mark.parametrize("engine", ENGINES)
def test_a_scene_by_hand_wins_over_conditions_and_buttons_and_gives_way_again(engine):
    run = program(scenes(), engine)
    at = iter(range(1, 100))
    shown = [
        colour(run.frame({"s": 1, SCENE: place}, at=float(next(at))))
        for place in (-1, 2, 3, 1, 0, -1)
    ]
    white, red, blue, lime = [255] * 3, [255, 0, 0], [0, 0, 255], [0, 255, 0]
    assert shown == [white, blue, lime, red, white, white]
    assert colour(run.frame({"s": 0}, at=float(next(at)))) == red


@pytest.mark.parametrize("engine", ENGINES)
def test_the_level_by_hand_is_times_the_designs_own_as_the_eye_sees_it(engine):
    """0.8 of 0.5 is 0.4; lightness 40 is ((40 + 16) / 116) ** 3 = 0.1125 of the light: 29 of 255."""
    run = program(design(layer(colour="white"), level=0.8), engine)
    assert reds(run.frame({LEVEL: 0.5}, at=0.0))[0] == 29
    assert reds(run.frame({LEVEL: 0.5, "hand_on": 0}, at=0.1))[0] == 0
    assert reds(run.frame({LEVEL: 1, "hand_on": 1}, at=0.2))[0] == 145  # (96 / 116) ** 3 = 0.567


@pytest.mark.parametrize("name", ["heron", "drone", "pad", "cabinet"])
def test_a_steered_design_that_nobody_steers_is_the_same_bit_for_bit(name):
    read = fd.load(fd.demo_file(f"{name}.toml"))
    fed = [s for s, signal in read.signals.items() if signal.of is None and signal.kind == "number"]
    waves = {each: (np.sin(np.arange(60) / (i + 2)) * 50).tolist() for i, each in enumerate(fed)}
    played = tape_of(20.0, **(waves or {"hand_level": [1.0] * 60}))
    plain = compile_design(read.examined).film(played) if waves else None
    film = program(read).film(played)
    assert plain is None or np.array_equal(plain.rgb, film.rgb)


def test_a_preset_by_hand_wins_over_what_the_layer_says_itself():
    read = design(
        {**layer(colour="red", level=0.5), "preset": "warm", "effect": "solid"},
        presets={
            "warm": {"effect": "solid", "colour": "#ff8000"},
            "cold": {"effect": "solid", "colour": "#0000ff"},
            "other": {"effect": "blink", "rate": 2},
        },
    )
    name = read.layer[0].name
    assert colour(program(read).frame(at=0.0))[1:] == [0, 0]  # its own red
    changed = compile_design(steered(read.examined, {name: "cold"})).frame(at=0.0)
    assert colour(changed)[:2] == [0, 0]
    assert colour(changed)[2] > 0
    wrong = compile_design(steered(read.examined, {name: "other"})).frame(at=0.0)
    assert colour(wrong) == colour(program(read).frame(at=0.0))  # of another effect: left out


def test_a_signal_of_a_name_that_steering_needs_is_told():
    with pytest.raises(DesignError, match="'hand_on' has a name that steering needs"):
        steered(design(layer(), signals={"hand_on": {}}).examined)


# ---- A run that is steered and watched


@pytest.fixture
def running():
    """A run of Heron without sources, its steering and its watch."""
    from threading import Thread

    read = fd.load(fd.demo_file("heron.toml"))
    steering = Steering(read.examined, compile_design)
    session = Session(steering.program(), Connected())
    steering.steer(session.inbox, session.loop.use)
    watch = Watch(session, steering)
    thread = Thread(target=session.run)
    thread.start()
    yield session, steering, watch
    session.loop.stop()
    thread.join()


def test_the_state_says_what_layers_read_and_who_said_it(running):
    session, steering, watch = running
    watch.look(1)
    session.inbox.put("bus", "speed", 20)
    steering.set("lean", -12)
    steering.scene("parked")
    until(lambda: watch.state()["scene"] == "parked", "the scene")

    def is_near():
        session.inbox.put("bus", "speed", 20)
        return 19 < watch.state()["signals"][0]["value"] <= 20

    until(is_near, "the speed, smoothed")
    state = watch.state()
    signals = {each["name"]: each for each in state["signals"]}
    assert signals["speed"]["source"] == "bus"
    assert signals["speed"]["hand"] is None
    assert (signals["lean"]["hand"], signals["lean"]["held"]) == ("set", [-12.0])
    assert signals["rpm"]["lost"]
    assert signals["rpm"]["age_s"] is None
    assert state["scene_by_hand"] == "parked"
    on = {each["name"] for each in state["layers"] if each["on"]}
    assert {"parked", "running light, front"} <= on  # of this scene, and of every one
    assert "hubs roll with the road" not in on  # of riding alone
    assert state["supplies"][0]["limit_a"] == pytest.approx(4.8)


def test_what_hands_hold_is_kept_and_recalled(running):
    _, steering, _ = running
    steering.set("speed", 21)
    steering.level(0.4)
    steering.scene("riding")
    steering.lose("rpm")
    held = steering.held()
    assert held == {
        "signals": {"speed": [21.0], "rpm": None}, "level": 0.4, "on": True, "scene": "riding",
        "presets": {},
    }  # fmt: skip
    steering.recall({})
    assert steering.held() == {
        "signals": {}, "level": 1.0, "on": True, "scene": None, "presets": {},
    }  # fmt: skip
    steering.recall({**held, "signals": {**held["signals"], "gone": [1.0]}, "scene": "gone"})
    assert steering.held() == {**held, "scene": None}


@pytest.mark.parametrize(
    ("call", "why"),
    [
        (lambda s: s.level(1.2), "from 0 to 1"),
        (lambda s: s.level(True), "from 0 to 1"),
        (lambda s: s.on(1), "true or false"),
        (lambda s: s.scene("ridng"), "Did you mean 'riding'"),
        (lambda s: s.set("sped", 1), "Did you mean 'speed'"),
        (lambda s: s.set("speed", None), "needs a value"),
        (lambda s: s.preset("brake light", "indicator"), "no preset 'indicator'"),
        (lambda s: s.preset("brake", None), "Did you mean 'brake light'"),
    ],
)
def test_what_makes_no_sense_is_refused_in_words(running, call, why):
    with pytest.raises(SignalError, match=why):
        call(running[1])


def test_who_looks_later_sees_what_was_lost_before(running):
    """Heron's speed is lost after half a second without news."""
    session, _, watch = running
    session.inbox.put("bus", "speed", 20)
    session.inbox.put("bus", "lights", True)
    until(lambda: "speed" in session.inbox.lost(), "the loss")
    watch.look(1)
    signals = {each["name"]: each for each in watch.state()["signals"]}
    assert signals["speed"]["lost"]
    assert signals["lights"]["value"] is True


def test_a_tape_that_is_recorded_has_what_hands_set_and_nothing_of_steering_itself(tmp_path):
    read = design(layer(), signals={"s": {}}, rate=100.0)
    steering = Steering(read.examined, compile_design)
    session = Session(steering.program(), Connected(), record=tmp_path / "t.csv", for_s=0.2)
    steering.steer(session.inbox, session.loop.use)
    steering.set("s", 0.25)
    session.run()
    tape = fd.read_tape(tmp_path / "t.csv", read)
    assert {*tape.signals} == {"s"}
    assert np.nanmax(tape.signals["s"]) == 0.25


def test_nothing_is_worked_out_while_nobody_looks(running):
    session, _, watch = running
    session.inbox.put("bus", "speed", 20)
    made = session.loop.stats.rendered
    until(lambda: session.loop.stats.rendered > made + 5, "frames")
    assert not watch._waiting
    watch.look(1)
    until(lambda: len(watch._waiting) > 0, "frames that wait")
    watch.look(-1)
    assert not watch._waiting
