"""Keyboards of each system: the same key has the same name, wherever it is pressed."""

from __future__ import annotations

import ctypes
import sys
import time
from types import SimpleNamespace

import pytest

import fendra as fd
from fendra.sources import DRIVERS, keyboards
from fendra.sources.key_names import FAR_SCAN_CODES, MAC_CODES, SCAN_CODES
from helpers import design, layer

PAD = [{"name": "pad", "shape": "keys", "columns": [{"keys": 3}], "names": ["x", "right", "q"]}]


@pytest.fixture
def lit():
    """Three keys in a column, 19.05 mm apart: Q is 38.1 mm below the first."""
    return design(layer(), line=[{"name": "a", "part": PAD}], signals={"press": {"kind": "event"}})


def opened(address, lit):
    source = DRIVERS.from_text(address)
    source.open(lit, lit.layout())
    return source


def test_windows_counts_most_places_as_linux_does():
    """Linux' first codes are scan code set 1. Three keys differ: set 1 tells Pause, NumLock and
    Print from others by a prefix.
    """
    ecodes = pytest.importorskip("evdev").ecodes
    differ = {
        code for code, name in SCAN_CODES.items() if code <= 88 and ecodes.ecodes[name] != code
    }
    assert differ == {0x45, 0x54}
    every = {*SCAN_CODES.values(), *FAR_SCAN_CODES.values(), *MAC_CODES.values()}
    assert {name for name in every if name not in ecodes.ecodes} == set()


class MadeUp:
    """macOS' listener: a test presses its keys."""

    IS_TRUSTED = True
    is_running = True

    def __init__(self, on_press, on_release):
        MadeUp.newest, self.press, self.release = self, on_press, on_release

    def start(self):
        self.is_running = True

    wait = start

    def stop(self):
        self.is_running = False

    def join(self, timeout):
        assert timeout > 0

    def is_alive(self):
        return self.is_running


@pytest.fixture
def mac(monkeypatch):
    monkeypatch.setattr(keyboards, "NAME", "macos")
    monkeypatch.setitem(sys.modules, "pynput.keyboard", SimpleNamespace(Listener=MadeUp))
    on = {"caps": False}
    monkeypatch.setattr(keyboards, "lights", on.copy)
    return on


def other(vk, char):
    return SimpleNamespace(vk=vk, char=char)


def named(name, vk):
    return SimpleNamespace(name=name, value=other(vk, None))


def test_a_key_of_macos_is_named_by_its_place_and_told_once(mac, lit):
    """The key right of Tab, which prints `a` in France; macOS repeats it while it is held."""
    source = opened("keys:", lit)
    assert [*source.read(0)] == [("caps", 0)]
    for _ in range(3):
        MadeUp.newest.press(other(0x0C, "a"), False)
    MadeUp.newest.press(named("media_volume_up", 0), False)
    MadeUp.newest.press(None, False)
    MadeUp.newest.press(named("shift_r", 0x3C), False)
    MadeUp.newest.release(other(0x0C, "a"), False)
    mac["caps"] = True
    news = [*source.read(0)]
    assert [name for name, _ in news] == [
        "KEY_Q", "key", "press", "KEY_RIGHTSHIFT", "press", "KEY_Q", "key", "release", "caps",
    ]  # fmt: skip
    told = dict(news[:3])
    assert (told["KEY_Q"], told["key"], told["press"].strength) == (1, 2, 1.0)
    assert (told["press"].x, told["press"].y) == (pytest.approx(0), pytest.approx(-38.1))
    assert news[5] == ("KEY_Q", 0)
    MadeUp.newest.stop()
    with pytest.raises(
        fd.SourceError, match="keyboard is gone: this system gives no keys any more"
    ):
        source.read(0)


def test_a_release_that_nobody_told_costs_no_later_press(mac, lit, monkeypatch):
    """Lock the computer by a key: its release happens elsewhere. Two seconds later it counts again."""
    now_s = 100.0
    monkeypatch.setattr(keyboards.time, "monotonic", lambda: now_s)
    source = opened("keys:", lit)
    MadeUp.newest.press(other(0x25, "l"), False)
    now_s += 2
    MadeUp.newest.press(other(0x25, "l"), False)
    assert [name for name, _ in source.read(0)].count("KEY_L") == 2


def test_macos_has_to_allow_it(mac, lit, monkeypatch):
    monkeypatch.setattr(MadeUp, "IS_TRUSTED", False)
    with pytest.raises(fd.SourceError, match="Allow the terminal in System Settings"):
        opened("keys:", lit)
    assert not MadeUp.newest.is_running


def test_elsewhere_than_on_linux_no_keyboard_has_a_name(mac, lit):
    with pytest.raises(fd.SourceError, match=r"not of '/dev/input/event3'\. Leave out the address"):
        opened("keys:/dev/input/event3", lit)


@pytest.fixture
def linux(monkeypatch):
    """A power button, a keyboard, a macro pad without letters, a mouse."""
    evdev = pytest.importorskip("evdev")
    code = evdev.ecodes.ecodes
    every = {
        "/dev/input/event0": ("Power Button", {"KEY_POWER"}),
        "/dev/input/event3": ("Tiny Board", {"KEY_A", "KEY_ENTER", "KEY_F5"}),
        "/dev/input/event4": ("Macro Pad", {"KEY_F13"}),
        "/dev/input/event5": ("Mouse", {"BTN_LEFT"}),
    }

    class Device:
        def __init__(self, path):
            self.path, (self.name, self.keys) = path, every[path]

        def capabilities(self):
            return {evdev.ecodes.EV_KEY: [code[name] for name in self.keys]}

        def close(self):
            pass

    monkeypatch.setattr(keyboards, "NAME", "linux")
    monkeypatch.setattr(evdev, "InputDevice", Device)
    monkeypatch.setattr(evdev, "list_devices", lambda: [*every])
    opens = []
    monkeypatch.setattr(keyboards, "EventFile", lambda path: opens.append(path.as_posix()))
    return opens


def test_linux_takes_the_first_with_letters_or_one_by_its_name(linux, lit):
    opened("keys:", lit)
    opened("keys:pad", lit)
    assert linux == ["/dev/input/event3", "/dev/input/event4"]
    with pytest.raises(fd.SourceError, match=r"no keyboard like 'huge'\. Here are: Power Button, "):
        opened("keys:huge", lit)


def test_linux_without_one_says_how_to_be_allowed(linux, lit, monkeypatch):
    monkeypatch.setattr("evdev.list_devices", list)
    with pytest.raises(fd.SourceError, match=r"there is no keyboard\. If one is plugged in, join"):
        opened("keys:", lit)


@pytest.mark.skipif(sys.platform != "win32", reason="presses keys of Windows")
def test_windows_tells_keys_by_their_places(lit):
    """The system's own calls press: the code of a place, 1 for a far key, 2 to let it go."""
    user = ctypes.windll.user32

    def tap(vk, place, far=0):
        user.keybd_event(vk, place, far, 0)
        user.keybd_event(vk, place, far | 2, 0)

    source = opened("keys:", lit)
    found, until_s = [], time.monotonic() + 20
    while "KEY_F13" not in dict(found) and time.monotonic() < until_s:  # the desktop starts
        tap(0x7C, 0x64)
        found += source.read(0.1)
    while found:
        found = [*source.read(0.2)]
    for vk, place, far in ((0x51, 0x10, 0), (0x27, 0x4D, 1), (0x66, 0x4D, 0), (0x14, 0x3A, 0)):
        tap(vk, place, far)
    while len(found) < 19 and time.monotonic() < until_s:
        found += source.read(0.1)
    source.close()
    pressed = [name for name, value in found if name.startswith("KEY_") and value]
    assert pressed == ["KEY_Q", "KEY_RIGHT", "KEY_KP6", "KEY_CAPSLOCK"]
    assert [value for name, value in found if name == "key"] == [2, 2, 1, 1]
    assert ("caps", 1) in found
    assert next(value for name, value in found if name == "press").y == pytest.approx(-38.1)
