"""The contract, held against each shipped source, with its stand-in."""

from __future__ import annotations

import shutil
import socket
import subprocess
import time

import can
import pytest

from contract.source_contract import SourceContract
from fendra.core.layout import place
from fendra.demo import demo_file
from fendra.demo.stand_ins.flight import Flight
from fendra.demo.stand_ins.game import Game
from fendra.demo.stand_ins.gamepad import Gamepad
from fendra.demo.stand_ins.lines import Lines
from fendra.demo.stand_ins.osc import Osc
from fendra.demo.stand_ins.pins import Pins
from fendra.demo.stand_ins.screen import Screen
from fendra.demo.stand_ins.simulator import Shared
from fendra.demo.stand_ins.song import Song
from fendra.demo.stand_ins.typing import Typing
from fendra.demo.stand_ins.vehicle import Vehicle
from fendra.demo.stand_ins.web import Web
from fendra.sources import DRIVERS, SOURCES
from helpers import design, free_port, layer, strip, until


def send(port: int, data: bytes) -> None:
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        there.sendto(data, ("127.0.0.1", port))


class ByStandIn(SourceContract):
    @pytest.fixture(autouse=True)
    def teller(self, tmp_path, monkeypatch):
        monkeypatch.chdir(tmp_path)
        self.stand_in = self.make_stand_in()
        self.hint = self.stand_in.start()
        self.at_s = 0.0
        yield
        self.stand_in.close()

    def tell(self):
        self.at_s += 0.05
        self.stand_in.say(self.at_s, self.values)

    def make(self):
        return DRIVERS.from_text(self.hint.split(" ")[0])


class TestUdp(ByStandIn):
    def make_stand_in(self):
        self.port = free_port()
        return Game(f"127.0.0.1:{self.port}")

    def disturb(self):
        for data in (b"\xff\xfe", b"{", b"", b"[1, 2]", b'{"a":' * 3000):
            send(self.port, data)
        return True


class TestMemory(ByStandIn):
    values = {"speed": 25.6, "rpm": 3000.0, "left": 1.0}

    def make_stand_in(self):
        return Shared(f"fendra-{free_port()}")

    def tell(self):
        self.at_s += 0.02
        self.stand_in.say(self.at_s, self.values)

    def make(self):
        return DRIVERS.from_text(self.hint.replace("rally.toml", str(demo_file("rally.toml"))))

    def disturb(self):
        self.stand_in._memory.buf[:2] = b"\1\xff"
        return True


class TestOsc(ByStandIn):
    def make_stand_in(self):
        self.port = free_port()
        return Osc(f"127.0.0.1:{self.port}")

    def disturb(self):
        for data in (b"", b"/a", b"#bundle\0", b"/a\0\0,f\0\0\1", b"\xff" * 100):
            send(self.port, data)
        return True


class TestHttp(ByStandIn):
    def make_stand_in(self):
        return Web("127.0.0.1:0")

    def tell(self):
        super().tell()
        self.stand_in.values.update(self.values)  # it stays what it is, however often it is asked

    def disturb(self):
        self.stand_in.say(0.0, {"nested": {"a": [[[1]]]}})
        return False

    def test_it_asks_no_more_often_than_it_was_told_to(self, source):
        self.hear(source, {*self.values})
        asked, begun_s = self.stand_in.asked, time.monotonic()
        for _ in range(12):
            source.read(0.1)
        passed_s = time.monotonic() - begun_s
        assert 1 <= self.stand_in.asked - asked <= passed_s / 0.5 + 1


class TestLines(ByStandIn):
    def make_stand_in(self):
        return Lines()

    def disturb(self):
        self.stand_in._end.give(b"\xff\n{\nnothing\n" + b"x" * 3000)
        return True


class TestCan(ByStandIn):
    values = {"speed": 25.6, "rpm": 3000.0, "left": 1.0, "lean": -12.5, "battery": 48.2}

    def make_stand_in(self):
        return Vehicle(f"virtual:{self.channel}")

    @pytest.fixture(autouse=True)
    def channel_name(self, request):
        self.channel = request.node.name

    @pytest.fixture(autouse=True)
    def teller(self, channel_name, tmp_path, monkeypatch):
        monkeypatch.chdir(tmp_path)
        (tmp_path / "heron.dbc").write_bytes(demo_file("heron.dbc").read_bytes())
        self.stand_in = self.make_stand_in()
        self.hint = self.stand_in.start()
        self.at_s = 0.0
        yield
        self.stand_in.close()

    def disturb(self):
        with can.Bus(interface="virtual", channel=self.channel) as bus:
            bus.send(can.Message(arbitration_id=0x120, data=b"\1", is_extended_id=False))
        return True


class TestObd(TestCan):
    values = {"speed": 25.0, "rpm": 3000.0, "throttle": 0.6}
    heard = {"speed": 25.0, "rpm": 3000.0, "throttle": 60.0, "coolant": 60.0}

    def make(self):
        answers = "ask=speed+rpm+throttle+coolant,pace=0.005"
        source = DRIVERS.from_text(f"obd:{self.channel},interface=virtual,{answers}")
        # The stand-in answers only when it is asked to speak; here it is while the source waits.
        source._sleep = lambda _: self.stand_in.say(0, {})
        return source

    def tell(self):
        self.stand_in._values.update(self.values)

    def disturb(self):
        return False

    @pytest.fixture(autouse=True)
    def answering(self, teller):
        """A thread that answers, as a vehicle does."""
        from threading import Event, Thread

        over = Event()

        def answer():
            while not over.is_set():
                self.stand_in.say(0, {})
                time.sleep(0.002)

        thread = Thread(target=answer, daemon=True)
        thread.start()
        yield
        over.set()
        thread.join(2)


class TestMavlink(ByStandIn):
    values = {"armed": 1.0, "mode": 11.0, "throttle": 0.6, "roll": -30.0, "battery": 15.2}
    heard = {"armed": 1.0, "mode_number": 11.0, "throttle": 0.6, "roll": -30.0, "volts": 15.2,
             "stick_3": 0.2, "rssi": 200 / 254, "amps": 8.5, "left": 0.62}  # fmt: skip

    def make_stand_in(self):
        self.port = free_port()
        return Flight(f"127.0.0.1:{self.port}")

    def tell(self):
        self.at_s += 0.3
        self.stand_in.say(self.at_s, self.values)

    def disturb(self):
        for data in (b"\xfd\xff\0\0", b"garbage" * 40, b"\xfd" + bytes(300)):
            send(self.port, data)
        return True

    def test_the_mode_has_its_word(self, source):
        assert self.hear(source, {"mode"})["mode"] == "rtl"


class TestGpio(ByStandIn):
    values = {"speed": 20.0, "brake": 1.0, "left": 0.0, "throttle": 0.4}
    heard = {"brake": 1.0, "left": 0.0, "throttle": 0.4}

    def make_stand_in(self):
        self.port = free_port()
        return Pins(str(self.port))

    def make(self):
        inputs = {
            "brake": {"pin": 17}, "left": {"pin": 22}, "speed": {"pin": 27, "kind": "pulses"},
            "throttle": {"kind": "analogue"},
        }  # fmt: skip
        return DRIVERS.from_table({"type": "gpio", "mock": self.port, "inputs": inputs})

    def tell(self):
        super().tell()
        time.sleep(0.05)

    def test_it_hears_its_stand_in(self, source):
        until_s = time.monotonic() + 5
        found: dict[str, float] = {}
        while time.monotonic() < until_s and found.get("throttle") != 0.4:
            found = self.hear(source, {"brake"})
        assert {name: found[name] for name in self.heard} == pytest.approx(self.heard)

    def test_pulses_of_a_wheel_are_its_turns_a_second(self, source):
        """20 km/h on 2.1 m are 2.65 turns a second, told in their own time."""
        until_s = time.monotonic() + 8
        start_s = time.monotonic()
        rate = 0.0
        while time.monotonic() < until_s and not 2.3 < rate < 3.0:
            self.stand_in.say(time.monotonic() - start_s, self.values)
            rate = dict(source.read(0.02)).get("speed", 0.0)
        assert 2.3 < rate < 3.0

    def disturb(self):
        send(self.port, b"nonsense")
        return True


class TestKeys(ByStandIn):
    values = {"press": 1.0, "key": 4.0, "caps": 1.0}
    heard = {"key": 1.0, "caps": 1.0, "KEY_F17": 1.0}

    def make_stand_in(self):
        return Typing("keyboard")

    def make(self):
        names = {"KEY_F17": "b"}
        address = self.hint.removeprefix("keys:")
        if not address.startswith("socket:"):
            pytest.importorskip("evdev")
        return DRIVERS.from_table({"type": "keys", "address": address, "names": names})

    @pytest.fixture
    def lit(self):
        keys = {"name": "pad", "shape": "keys", "columns": [{"keys": 2}], "names": ["a", "b"]}
        line = [{"name": "a", "part": [keys]}]
        return design(layer(), line=line, signals={"press": {"kind": "event"}})

    def test_a_press_is_an_event_at_its_led(self, source):
        """The second key of a column lies one step, 19.05 mm, below the first."""
        press = self.hear(source, {"press"})["press"]
        assert (press.strength, press.x) == (1.0, pytest.approx(0.0))
        assert abs(press.y) == pytest.approx(19.05)


class TestGamepad(ByStandIn):
    values = {"throttle": 0.5, "lean": -15.0, "left": 1.0}
    heard = {"rz": 0.5, "x": -0.5, "tl": 1.0}

    def make_stand_in(self):
        return Gamepad()

    def disturb(self):
        self.stand_in._end.give(b"\xff\n=\nx\n")
        return False


class TestAudio(ByStandIn):
    values = {"level": 0.0}
    heard = None

    def make_stand_in(self):
        return Song("song.wav")

    def make(self):
        return DRIVERS.from_text("audio:song.wav,bands=4")

    def test_it_hears_its_stand_in(self, source):
        """A drum every half second, a bell and a hiss between; and a loud low band."""
        onsets, loud = [], []
        start_s = time.monotonic()
        while len(onsets) < 4 and time.monotonic() < start_s + 15:
            for name, value in source.read(0.05):
                if name == "onset":
                    onsets.append(value.strength)
                elif name == "bands":
                    loud.append(value)
        took_s = time.monotonic() - start_s
        assert 4 <= len(onsets) <= 4 * (took_s + 0.5)
        assert max(bands[0] for bands in loud) > 0.7
        assert all(0 <= level <= 1 for bands in loud for level in bands)
        assert 0.01 < source.latency_s < 0.04


class TestScreen(ByStandIn):
    values = {"level": 0.0}

    def make_stand_in(self):
        return Screen("pictures")

    def make(self):
        return DRIVERS.from_text("screen:pictures,rate=100,step=1")

    @pytest.fixture
    def lit(self):
        frame = {"name": "rim", "shape": "frame", "width": 320, "height": 180, "top": 8, "right": 5,
                 "bottom": 8, "left": 5}  # fmt: skip
        picture = {"kind": "picture", "on": "rim"}
        line = [{"name": "a", "part": [frame, strip("bar")]}]
        return design(layer(), line=line, signals={"screen": picture})

    def test_it_hears_its_stand_in(self, source, lit):
        """The sky above is warm, the sea below is blue, the bars are left out, and LEDs that are not
        round the screen get nothing."""
        light = self.hear(source, {"screen"})["screen"]
        layout = place(lit)
        y, rim = layout.position[:, 1], layout.spots_of_part("rim")
        top, bottom = light[rim][y[rim] > 80].mean(axis=0), light[rim][y[rim] < -80].mean(axis=0)
        assert bottom[2] > 2 * bottom[0]
        assert top.max() > 0.05
        assert not light[layout.spots_of_part("bar")].any()


class TestClock(SourceContract):
    values = {"hour": 20.0}
    heard = {"hour": 20.0, "minute": 0.0, "weekday": 6.0, "day": 172.0}

    def make(self):
        return DRIVERS.from_text("clock:,at=2026-06-21 20:00,latitude=52.5,rate=50")


class TestMachine(SourceContract):
    values = {"load": 0.0}

    def make(self):
        return DRIVERS.from_text("machine:,rate=20,programs=nobody+python")

    def test_it_hears_its_stand_in(self, source):
        found = self.hear(source, {"load", "memory", "running nobody"})
        assert 0 <= found["load"] <= 1
        assert 0 < found["memory"] < 1
        assert found["running nobody"] is False


@pytest.mark.skipif(shutil.which("mosquitto") is None, reason="mosquitto is not installed")
class TestMqtt(ByStandIn):
    @pytest.fixture(autouse=True)
    def broker(self, tmp_path):
        self.port = free_port()
        with subprocess.Popen(
            ["mosquitto", "-p", str(self.port)], stderr=subprocess.DEVNULL
        ) as run:
            wait_for_port(self.port)
            yield
            run.kill()  # what it is asked while it starts it does not hear

    @pytest.fixture(autouse=True)
    def teller(self, broker, tmp_path, monkeypatch):
        self.stand_in = self.make_stand_in()
        self.hint = self.stand_in.start()
        self.at_s = 0.0
        yield
        self.stand_in.close()

    def make_stand_in(self):
        from fendra.demo.stand_ins.broker import Broker

        return Broker(f"localhost:{self.port}")

    def disturb(self):
        self.stand_in._client.publish("heron/speed", b"\xff\xfe")
        return True


def wait_for_port(port: int) -> None:
    def answers() -> bool:
        with socket.socket() as there:
            return there.connect_ex(("127.0.0.1", port)) == 0

    until(answers, f"somebody who listens at {port}")


def test_every_source_is_held_to_the_contract():
    held = {kind.__name__.removeprefix("Test").lower() for kind in _all(SourceContract)}
    assert {*SOURCES} <= held


def _all(kind):
    return {kind, *(sub for child in kind.__subclasses__() for sub in _all(child))}


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("udpp:9400", "Did you mean 'udp'"),
        ("udp:127.0.0.1:port", "'port' is not a port"),
        ("udp:9400,rate=3", "there is no option 'rate' here"),
        ("lines:", "address"),
        ("obd:can0,ask=sped", "'sped' cannot be requested"),
        ("clock:,at=noon", "at: "),
        ("gpio:", "inputs"),
    ],
)
def test_a_wrong_source_is_said_with_the_cure(text, says):
    import fendra as fd

    with pytest.raises(fd.SourceError, match=says):
        DRIVERS.from_text(text)


def test_a_package_that_is_missing_names_its_extra(monkeypatch):
    import builtins

    import fendra as fd
    from fendra.sources import package

    real = builtins.__import__

    def refuse(name, *rest):
        if name.startswith("mss"):
            raise ModuleNotFoundError(f"No module named '{name}'", name=name)
        return real(name, *rest)

    monkeypatch.setattr("importlib.import_module", refuse)
    with pytest.raises(fd.SourceError, match=r"pip install 'fendra\[screen\]'"):
        package("mss")
