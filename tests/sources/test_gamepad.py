"""Game controllers: what evdev and SDL say of one becomes -1 to 1, 0 to 1 and switches."""

from __future__ import annotations

import sys
from types import SimpleNamespace

import pytest

import fendra as fd
from fendra.sources import DRIVERS
from fendra.sources.gamepad import EvdevPad, SdlPad
from fendra.sources.linux_events import EVENT
from fendra.system.devices import NamedPipe
from helpers import design, layer


class FakeWheel:
    """A wheel with a pedal and a lever that rests in its middle, as evdev tells it."""

    name = "Maker Wheel 3"

    def __init__(self, path):
        self.path = path

    def capabilities(self):
        def info(low, high, value):
            return SimpleNamespace(min=low, max=high, value=value)

        axes = [(0, info(0, 65535, 32768)), (2, info(0, 255, 0)), (5, info(0, 1023, 500)),
                (16, info(-1, 1, 0))]  # fmt: skip
        return {3: axes, 1: [0x130, 0x131, 0x2C2, 30]}  # 30 is a key of a keyboard

    def active_keys(self):
        return [0x131]

    def close(self):
        pass


@pytest.mark.unix
def test_a_wheel_s_axes_are_scaled_by_what_they_say_and_where_they_rest(tmp_path, monkeypatch):
    evdev = pytest.importorskip("evdev")
    monkeypatch.setattr(evdev, "InputDevice", FakeWheel)
    pipe = NamedPipe(tmp_path / "event7")
    pad = EvdevPad(str(tmp_path / "event7"))
    first = dict(pad.take(0.0))
    assert first["x"] == pytest.approx(0.0, abs=1e-4)
    assert (first["z"], first["rz"], first["hat_x"]) == (0.0, pytest.approx(-0.0225, abs=1e-3), 0.0)
    assert (first["south"], first["east"], first["button 2"]) == (False, True, True)
    assert "button 4" not in first
    for kind, code, value in ((3, 0, 65535), (3, 2, 51), (3, 16, -1), (1, 0x130, 1), (1, 0x130, 2)):
        pipe.give(EVENT.pack(0, 0, kind, code, value))
    told = dict(pad.take(1.0))
    assert told == {
        "x": 1.0, "axis 1": 1.0, "z": 0.2, "axis 2": 0.2, "hat_x": -1.0, "axis 4": -1.0,
        "south": True, "button 1": True,
    }  # fmt: skip
    pad.close()
    pipe.close()


@pytest.mark.unix
def test_one_is_found_by_its_name_and_others_are_told(monkeypatch, tmp_path):
    evdev = pytest.importorskip("evdev")
    monkeypatch.setattr(evdev, "InputDevice", FakeWheel)
    monkeypatch.setattr(evdev, "list_devices", lambda: [str(tmp_path / "event7")])
    pipe = NamedPipe(tmp_path / "event7")
    EvdevPad("wheel").close()
    with pytest.raises(
        fd.SourceError, match=r"no game controller like 'yoke'\. Here are: Maker Wheel 3"
    ):
        EvdevPad("yoke")
    monkeypatch.setattr(evdev, "list_devices", list)
    with pytest.raises(fd.SourceError, match=r"There are none\. Is it plugged in"):
        EvdevPad("")
    pipe.close()


class FakeStick:
    """A controller that SDL knows, as pygame tells it."""

    def __init__(self, number):
        self.axes, self.buttons, self.hat, self.is_there = [0.25, -1.0], [False, True], (1, 1), True

    def get_name(self):
        return "Maker Pad"

    def __getattr__(self, name):
        answers = {
            "get_numaxes": lambda: len(self.axes), "get_axis": lambda n: self.axes[n],
            "get_numbuttons": lambda: 2, "get_button": lambda n: self.buttons[n],
            "get_numhats": lambda: 1, "get_hat": lambda _: self.hat,
            "get_init": lambda: self.is_there, "quit": lambda: None,
        }  # fmt: skip
        return answers[name]


@pytest.fixture
def sdl(monkeypatch):
    stick = FakeStick(0)
    nothing = SimpleNamespace(init=lambda: None, pump=lambda: None)
    joystick = SimpleNamespace(init=lambda: None, get_count=lambda: 1, Joystick=lambda _: stick)
    known = SimpleNamespace(
        attached=lambda: stick.is_there, get_axis=lambda n: 32767 if n == 5 else 0,
        get_button=lambda n: n == 0,
    )  # fmt: skip
    controller = SimpleNamespace(
        init=lambda: None, is_controller=lambda _: True, Controller=lambda _: known
    )
    pygame = SimpleNamespace(display=nothing, joystick=joystick, event=nothing)
    monkeypatch.setitem(sys.modules, "pygame", pygame)
    monkeypatch.setitem(sys.modules, "pygame._sdl2.controller", controller)
    monkeypatch.setattr("importlib.import_module", lambda name: sys.modules[name])
    return stick


def test_sdl_s_controller_has_the_same_names(sdl):
    pad = SdlPad("maker")
    told = dict(pad.take(0.0))
    assert (told["axis 1"], told["axis 2"], told["button 2"]) == (0.25, -1.0, True)
    assert (told["rz"], told["south"], told["hat_x"], told["hat_y"]) == (1.0, True, 1, -1)
    sdl.axes[0] = 0.5
    assert pad.take(0.0) == [("axis 1", 0.5)]  # only what changed
    sdl.is_there = False
    with pytest.raises(OSError, match="unplugged"):
        pad.take(0.0)
    with pytest.raises(fd.SourceError, match=r"like 'yoke'\. Here are: Maker Pad"):
        SdlPad("yoke")


def test_a_stranger_s_controller_is_not_reached():
    source = DRIVERS.from_table({"type": "gamepad", "address": "socket://127.0.0.1:1"})
    with pytest.raises(fd.SourceError, match="cannot be opened"):
        source.open(design(layer()), None)
