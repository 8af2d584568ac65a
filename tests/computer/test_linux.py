"""Linux as it is: a real X server, a real bus with a logind and a player of our own, a real sound
server."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import threading
import time

import pytest
from PIL import Image

import fendra as fd
from fendra.computer.parts import CannotTell

pytest.importorskip("jeepney")
if sys.platform != "linux" or os.environ.get("FENDRA_TESTS_WITHOUT_UNIX"):
    pytest.skip("for Linux", allow_module_level=True)

from jeepney import DBusAddress, HeaderFields, MessageType, new_error, new_method_return, new_signal
from jeepney.bus_messages import message_bus
from jeepney.io.blocking import open_dbus_connection

from fendra.computer import linux


@pytest.fixture
def screen(monkeypatch, need):
    need([] if shutil.which("Xvfb") else ["Xvfb"], "xvfb")
    with subprocess.Popen(
        ["Xvfb", "-displayfd", "1", "-screen", "0", "640x480x24"],
        stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
    ) as server:  # fmt: skip
        monkeypatch.setenv("DISPLAY", f":{server.stdout.readline().decode().strip()}")
        monkeypatch.delenv("WAYLAND_DISPLAY", raising=False)
        from Xlib.display import Display

        display = Display()
        yield display
        display.close()
        server.kill()


def shown(display, width, height, pid):
    """A window in front, as a window manager tells it."""
    from Xlib import Xatom

    window = display.screen().root.create_window(
        0, 0, width, height, 0, display.screen().root_depth
    )
    atom = display.intern_atom
    window.change_property(atom("_NET_WM_PID"), Xatom.CARDINAL, 32, [pid])
    window.map()
    root = display.screen().root
    root.change_property(atom("_NET_ACTIVE_WINDOW"), Xatom.WINDOW, 32, [window.id])
    display.sync()
    return window


def test_the_program_in_front_and_a_full_screen(screen):
    part = linux.Window()
    assert part.read() == {"front": "", "full_screen": False}
    shown(screen, 300, 200, os.getpid())
    told = part.read()
    assert told["front"].startswith("python") or told["front"].startswith("pytest")
    assert told["full_screen"] is False
    shown(screen, 640, 480, os.getpid())
    assert part.read()["full_screen"] is True
    small = shown(screen, 100, 100, os.getpid())
    from Xlib import Xatom

    state = screen.intern_atom("_NET_WM_STATE_FULLSCREEN")
    small.change_property(screen.intern_atom("_NET_WM_STATE"), Xatom.ATOM, 32, [state])
    screen.sync()
    assert part.read()["full_screen"] is True
    part.close()


def test_idle_counts_from_the_last_key(screen):
    from Xlib import X
    from Xlib.ext import xtest

    part = linux.Idle()
    time.sleep(0.3)
    before = part.read()["idle"]
    assert 0.25 <= before < 60
    xtest.fake_input(screen, X.KeyPress, 38)
    xtest.fake_input(screen, X.KeyRelease, 38)
    screen.sync()
    assert part.read()["idle"] < before
    part.close()


def test_without_a_screen_and_on_wayland_it_says_why(monkeypatch):
    monkeypatch.delenv("DISPLAY", raising=False)
    monkeypatch.delenv("WAYLAND_DISPLAY", raising=False)
    with pytest.raises(CannotTell, match="DISPLAY is not set"):
        linux.Window()
    monkeypatch.setenv("WAYLAND_DISPLAY", "wayland-0")
    with pytest.raises(CannotTell, match="Wayland tells other programs nothing of its windows"):
        linux.Window()
    with pytest.raises(CannotTell, match="Wayland does not tell"):
        linux.Idle()


@pytest.fixture
def bus(monkeypatch, tmp_path, need):
    """A bus of its own, which stands for the system's and the session's."""
    need([] if shutil.which("dbus-daemon") else ["dbus-daemon"], "dbus-daemon")
    where = f"unix:path={tmp_path}/bus"
    with subprocess.Popen(
        ["dbus-daemon", "--session", "--nofork", "--print-address=1", f"--address={where}"],
        stdout=subprocess.PIPE,
    ) as daemon:
        address = daemon.stdout.readline().decode().strip()
        monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", address)
        monkeypatch.setenv("DBUS_SYSTEM_BUS_ADDRESS", address)
        yield
        daemon.kill()


class Service(threading.Thread):
    """Answers on the bus. answers: for a member, or a property's name, the signature and values."""

    def __init__(self, name, answers):
        super().__init__(daemon=True)
        self.answers = answers
        self.line = open_dbus_connection(bus="SESSION")
        self.line.send_and_get_reply(message_bus.RequestName(name))
        self.start()

    def run(self):
        while True:
            try:
                message = self.line.receive(timeout=0.2)
            except TimeoutError:
                continue
            except Exception:
                return
            if message.header.message_type != MessageType.method_call:
                continue
            member = message.header.fields[HeaderFields.member]
            asked = message.body[1] if member == "Get" else member
            if asked not in self.answers:
                self.line.send(new_error(message, "org.freedesktop.DBus.Error.Failed"))
                continue
            signature, values = self.answers[asked]
            if member == "Get":
                signature, values = "v", ((signature, values),)
            self.line.send(new_method_return(message, signature, values))

    def tell(self, interface, member, signature, *values):
        where = DBusAddress("/org/freedesktop/login1", interface=interface)
        self.line.send(new_signal(where, member, signature, values))


def test_locked_and_asleep_are_what_logind_says(bus, monkeypatch):
    monkeypatch.delenv("XDG_SESSION_ID", raising=False)
    session = (("c2", os.getuid(), "maker", "seat0", "/org/freedesktop/login1/session/c2"),)
    answers = {"ListSessions": ("a(susso)", ([*session],)), "LockedHint": ("b", False)}
    logind = Service(linux.LOGIN, answers)
    part = linux.Session()
    assert part.read() == {"locked": False, "asleep": False}
    answers["LockedHint"] = ("b", True)
    logind.tell(f"{linux.LOGIN}.Manager", "PrepareForSleep", "b", True)
    time.sleep(0.1)
    assert part.read() == {"locked": True, "asleep": True}
    logind.tell(f"{linux.LOGIN}.Manager", "PrepareForSleep", "b", False)
    time.sleep(0.1)
    assert part.read()["asleep"] is False
    part.close()
    logind.line.close()


def test_music_has_its_title_and_the_colours_of_its_cover(bus, tmp_path):
    cover = Image.new("RGB", (200, 200), "#103070")
    cover.paste("#f0a020", (0, 0, 200, 90))
    path = tmp_path / "a cover.png"
    cover.save(path)
    about = {
        "xesam:title": ("s", "Long Way"), "xesam:artist": ("as", ["Ada", "Bo"]),
        "mpris:artUrl": ("s", path.as_uri()),
    }  # fmt: skip
    answers = {"Metadata": ("a{sv}", about), "PlaybackStatus": ("s", "Playing")}
    player = Service("org.mpris.MediaPlayer2.ours", answers)
    part = linux.Media()
    told = part.read()
    assert (told["playing"], told["title"], told["artist"]) == (True, "Long Way", "Ada, Bo")
    assert {told["cover"], told["cover2"]} == {"#f0a020", "#103070"}
    assert told["cover"] == "#f0a020"
    answers["PlaybackStatus"] = ("s", "Paused")
    about["mpris:artUrl"] = ("s", "https://example.com/cover.png")
    told = part.read()
    assert told["playing"] is False
    assert "cover" not in told  # nothing is fetched from the web
    part.close()
    player.line.close()


def test_a_bus_without_logind_and_no_bus_say_so(bus, monkeypatch):
    with pytest.raises(CannotTell, match="no logind"):
        linux.Session()
    monkeypatch.setenv("DBUS_SESSION_BUS_ADDRESS", "unix:path=/nowhere")
    with pytest.raises(CannotTell, match="there is no session bus"):
        linux.Media()


@pytest.fixture
def sound(monkeypatch, tmp_path, need):
    """A sound server with one output, which nobody hears."""
    need([] if shutil.which("pulseaudio") else ["pulseaudio"], "pulseaudio")
    pytest.importorskip("pulsectl")
    where = tmp_path / "socket"
    monkeypatch.setenv("XDG_RUNTIME_DIR", str(tmp_path))
    monkeypatch.setenv("HOME", str(tmp_path))
    with subprocess.Popen(
        ["pulseaudio", "-n", "--exit-idle-time=-1", "--disallow-exit",
         f"--load=module-native-protocol-unix auth-anonymous=1 socket={where}",
         "--load=module-null-sink sink_name=desk"],
        stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
    ) as server:  # fmt: skip
        monkeypatch.setenv("PULSE_SERVER", f"unix:{where}")
        until_s = time.monotonic() + 15
        while not where.exists() and time.monotonic() < until_s:
            time.sleep(0.05)
        yield server
        server.kill()


def test_the_volume_is_that_of_the_usual_output(sound):
    import pulsectl

    part = linux.Volume()
    with pulsectl.Pulse("test") as pulse:
        (sink,) = pulse.sink_list()
        pulse.volume_set_all_chans(sink, 0.35)
        told = part.read()
        assert told["volume"] == pytest.approx(0.35, abs=0.01)
        assert told["muted"] is False
        pulse.mute(sink, True)
        assert part.read()["muted"] is True
    part.close()


def test_without_a_sound_server_it_says_so(monkeypatch, tmp_path):
    pytest.importorskip("pulsectl")
    monkeypatch.setenv("PULSE_SERVER", f"unix:{tmp_path}/none")
    with pytest.raises(CannotTell, match="neither PulseAudio nor PipeWire answers"):
        linux.Volume()


TONE = """
import sys; sys.argv = ["tone"]
import numpy as np, soundcard
tone = 0.5 * np.sin(np.arange(48_000 * 20) / 48_000 * 2 * np.pi * 440)
soundcard.default_speaker().play(tone[:, None], 48_000)
"""


def test_what_the_computer_plays_is_heard_and_its_latency_is_told(sound):
    """A tone of 440 Hz through the only output. The package runs in processes of its own: its
    library ends a process whose sound server has gone."""
    from fendra.sources import DRIVERS
    from helpers import design, layer

    lit = design(layer(level="level"), signals={"level": {}})
    source = DRIVERS.from_text("audio:loopback,gain=0,release=0.01")
    with subprocess.Popen([sys.executable, "-c", TONE], stderr=subprocess.DEVNULL) as player:
        source.open(lit, lit.layout())
        assert "a sound becomes a number after about" in source.notice
        assert 0.02 < source.latency_s < 0.08
        until_s, loudest = time.monotonic() + 15, 0.0
        while time.monotonic() < until_s and loudest < 0.5:
            loudest = max(loudest, dict(source.read(0.1)).get("level", 0.0))
        player.kill()
    assert loudest >= 0.5
    with pytest.raises(fd.SourceError, match=r"no output like 'kitchen'; here: Null Output"):
        DRIVERS.from_text("audio:loopback kitchen").open(lit, lit.layout())
    sound.kill()
    with pytest.raises(fd.SourceError, match="is gone"):  # noqa: PT012 - some sound is still held
        for _ in range(100):
            source.read(0.1)
    source.close()


def test_without_a_sound_server_what_it_plays_is_told_in_one_line(monkeypatch, tmp_path):
    from fendra.sources import DRIVERS
    from helpers import design, layer

    monkeypatch.setenv("PULSE_SERVER", f"unix:{tmp_path}/none")
    lit = design(layer(), signals={"level": {}})
    with pytest.raises(
        fd.SourceError, match="cannot be heard: neither PulseAudio nor PipeWire answers"
    ) as no:
        DRIVERS.from_text("audio:loopback").open(lit, lit.layout())
    assert "\n" not in str(no.value)
