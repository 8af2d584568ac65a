"""The Windows forms, in the run without what Windows lacks: a console and timers made up."""

from __future__ import annotations

import ctypes
import os
import re
import sys
import time
from threading import Event, Thread
from types import SimpleNamespace

import pytest

if not os.environ.get("FENDRA_TESTS_WITHOUT_UNIX"):
    pytest.skip("for the run without Unix: pytest -p no_unix.plugin", allow_module_level=True)

import fendra as fd
from fendra.computer import windows as windows_parts
from fendra.demo.lamp_array import DESCRIPTOR, LampArrayDevice
from fendra.live.process import stopped_by_signals, undisturbed
from fendra.sources import DRIVERS
from fendra.system import windows
from fendra.system.ends import SocketEnd, far_end
from fendra.system.process import NAME
from fendra.system.terminal import enter_pressed, make_ready, typed
from helpers import design, layer


def named(console):
    return [name for name, _ in console.calls]


def test_this_is_the_windows_form():
    assert NAME == "windows"
    assert "fendra.system.unix" not in sys.modules
    end = far_end()
    assert isinstance(end, SocketEnd)
    end.close()


def test_a_run_has_timers_of_a_millisecond_while_it_lasts(console):
    with undisturbed():
        assert ("timeBeginPeriod", (1,)) in console.calls
        assert "timeEndPeriod" not in named(console)
        assert "SetProcessInformation" in named(console)
    assert console.calls[-1] == ("timeEndPeriod", (1,))


def test_a_closed_console_waits_until_the_run_has_ended_dark(console):
    """Windows ends the process when the handler returns: it returns after the run's last frame."""
    steps, stop, asked = [], Event(), Event()
    with stopped_by_signals(stop.set):
        (handler,) = console.handlers

        def close():
            asked.set()
            assert handler(2) == 1  # the user closes the window
            steps.append("gone")

        closing = Thread(target=close)
        closing.start()
        assert asked.wait(5)
        assert stop.wait(5)
        time.sleep(0.05)
        steps.append("dark")
    closing.join(5)
    assert steps == ["dark", "gone"]
    assert console.handlers == []


def test_ctrl_c_and_ctrl_break_are_left_to_their_signals(console):
    with stopped_by_signals(lambda: None):
        (handler,) = console.handlers
        assert (handler(0), handler(1)) == (0, 0)


def test_the_console_shows_colours(console):
    make_ready()
    modes = [words for name, words in console.calls if name == "SetConsoleMode"]
    assert [mode & 0x4 for _, mode in modes] == [0x4, 0x4]


def test_keys_come_as_they_are_pressed_and_arrows_are_left_out(console, monkeypatch):
    monkeypatch.setattr("sys.stdin.isatty", lambda: True, raising=False)
    console.keys.extend(["b", "\xe0", "H", "r", "\0", ";", "\r"])
    with typed() as keys:
        assert keys(0.1) == "br\r"
        assert keys(0.01) == ""


def test_enter_is_waited_for(console):
    console.keys.extend("x\r")
    assert enter_pressed(0.5)
    assert not enter_pressed(0.03)


def test_a_file_that_somebody_has_open_is_replaced_once_it_is_free(tmp_path, monkeypatch):
    new, old = tmp_path / "new", tmp_path / "old"
    new.write_text("new")
    usual, tries = type(new).replace, []

    def busy(self, target):
        tries.append(target)
        if len(tries) < 3:
            raise PermissionError(13, "in use")
        return usual(self, target)

    monkeypatch.setattr(type(new), "replace", busy)
    windows.replace(new, old)
    assert (old.read_text(), len(tries)) == ("new", 3)


def test_a_loaded_library_is_put_aside(tmp_path, monkeypatch):
    path = tmp_path / "light.dll"
    path.write_text("loaded")

    def loaded(self, missing_ok=False):
        raise PermissionError(13, "loaded")

    monkeypatch.setattr(type(path), "unlink", loaded)
    windows.remove_loaded(path)
    assert [each.name for each in tmp_path.iterdir()] == ["light.old"]


@pytest.fixture
def desktop(monkeypatch):
    """Calls of Windows about windows, input and sessions, as their documentation says them."""
    state = SimpleNamespace(shown=5, at_ms=1_000, now_ms=4_500, desktop="Default")

    def window_process(_window, process):
        process._obj.value = os.getpid()

    def shown(value):
        value._obj.value = state.shown

    def last_input(info):
        assert info._obj.size == 8
        info._obj.at_ms = state.at_ms

    def named(_desktop, what, name, _size, _needed):
        assert what == 2
        name.value = state.desktop

    def subscribe(kind, _asks, _handle):
        assert kind == 2
        return 0

    user = SimpleNamespace(
        GetForegroundWindow=lambda: 7, GetWindowThreadProcessId=window_process,
        GetLastInputInfo=last_input, OpenInputDesktop=lambda *_: 9,
        GetUserObjectInformationW=named, CloseDesktop=lambda _: 1,
    )  # fmt: skip
    monkeypatch.setattr(ctypes, "windll", SimpleNamespace(
        user32=user, shell32=SimpleNamespace(SHQueryUserNotificationState=shown),
        kernel32=SimpleNamespace(GetTickCount=lambda: state.now_ms),
        powrprof=SimpleNamespace(PowerRegisterSuspendResumeNotification=subscribe,
                                 PowerUnregisterSuspendResumeNotification=lambda _: 0)))  # fmt: skip
    return state


def test_the_window_in_front_and_a_full_screen(desktop):
    part = windows_parts.Window()
    told = part.read()
    assert told["front"].startswith(("python", "pytest"))
    assert told["full_screen"] is False  # 5: it takes notifications
    desktop.shown = 3
    assert part.read()["full_screen"] is True


def test_idle_is_the_time_since_the_last_input_also_where_the_clock_wraps(desktop):
    part = windows_parts.Idle()
    assert part.read() == {"idle": 3.5}
    desktop.at_ms, desktop.now_ms = 2**32 - 500, 250
    assert part.read() == {"idle": 0.75}


def test_a_locked_session_and_one_that_goes_to_sleep(desktop):
    part = windows_parts.Session()
    assert part.read() == {"locked": False, "asleep": False}
    desktop.desktop = "Winlogon"
    part._callback(None, 4, None)  # the system suspends
    assert part.read() == {"locked": True, "asleep": True}
    part._callback(None, 18, None)  # and is back
    assert part.read()["asleep"] is False
    part.close()


class FakeHid:
    """The package hidapi with a mouse and a lamp array."""

    def __init__(self):
        self.opened = []
        self.stand_in = LampArrayDevice()

    def enumerate(self):
        return [
            {"path": b"HID-mouse", "usage_page": 1, "product_string": "Mouse"},
            {"path": b"HID-lamps", "usage_page": 0x59, "product_string": "Glow Keys"},
        ]

    def device(self):
        stand_in, opened = self.stand_in, self.opened
        return SimpleNamespace(
            open_path=opened.append, close=lambda: None, error=lambda: "",
            get_report_descriptor=lambda: [*DESCRIPTOR],
            get_feature_report=lambda report, _: [*(stand_in.get(report) or b"")],
            send_feature_report=lambda data: len(data) if stand_in.set(bytes(data)) else -1,
        )  # fmt: skip


def test_lamp_arrays_by_hidapi_and_no_other_device_is_opened(monkeypatch):
    fake = FakeHid()
    monkeypatch.setitem(sys.modules, "hid", fake)
    from fendra.outputs.lamps import lamp_arrays, open_array

    assert [each.name for each in lamp_arrays()] == ["Glow Keys"]
    array, _ = open_array("glow")
    array.take()
    assert not fake.stand_in.is_autonomous
    array.give_back()
    assert fake.stand_in.is_autonomous
    assert {*fake.opened} == {b"HID-lamps"}
    assert fake.stand_in.wrong == []


@pytest.mark.parametrize(
    ("source", "cure"),
    [
        ("can:can0", "SocketCAN is for Linux. Name the adapter, as in can:COM3,interface=slcan"),
        ("keys:/dev/input/event3", "Leave out the address: keys:"),
    ],
)
def test_what_only_linux_has_says_what_to_do_elsewhere(source, cure):
    lit = design(layer())
    with pytest.raises(fd.SourceError, match=re.escape(cure)):
        DRIVERS.from_text(source).open(lit, lit.layout())
