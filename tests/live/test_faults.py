"""Faults, each with the real thing: the light goes on, and all is well again without a restart."""

from __future__ import annotations

import gc
import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
import time
from contextlib import contextmanager
from itertools import pairwise
from pathlib import Path

import pytest

import fendra as fd
from contract.test_sources import wait_for_port
from fendra.core.engines.numpy.engine import NumpyEngine
from fendra.demo.controller import Receiver
from fendra.live.connect import Connected, connect
from fendra.live.process import stopped_by_signals, undisturbed
from fendra.live.reload import Reloader
from fendra.live.session import Session
from fendra.outputs import make_output
from fendra.outputs.memory import MemoryOutput
from helpers import design, free_port, layer, pipe_like_a_port, until

PATIENCE_S = 15.0


def lit(**keys) -> fd.Design:
    signals = {"s": {"lost_after": 0.4, "fallback": 0.25}}
    return design(layer(level="s"), signals=signals, rate=100.0, **keys)


@contextmanager
def running(made: fd.Design, sources=(), outputs=(), **more):
    """A session in a thread of its own; gives it and what it told."""
    told: list[str] = []
    connected = connect(made, sources=list(sources), outputs=list(outputs) or ["null:"])
    with going(Session(made.compile(), connected, tell=told.append, **more)) as session:
        yield session, told


@contextmanager
def going(session):
    """The session, which runs in a thread of its own until the block is over."""
    thread = threading.Thread(target=session.run)
    thread.start()
    try:
        yield session
    finally:
        session.loop.stop()
        thread.join(PATIENCE_S)
        assert not thread.is_alive()


class Controller:
    """A controller on a pseudo-terminal behind a name that stays, which can be unplugged."""

    def __init__(self, link: Path) -> None:
        self.link, self.receiver = link, Receiver([24])
        self.is_reading = True
        self.plug()

    def plug(self) -> None:
        self.ours, theirs = pipe_like_a_port()
        self.link.unlink(missing_ok=True)
        self.link.symlink_to(os.ttyname(theirs))
        self._theirs = theirs
        self._reader = threading.Thread(target=self._read, args=(self.ours,), daemon=True)
        self._reader.start()

    def _read(self, handle: int) -> None:
        while handle == self.ours:
            if not self.is_reading:
                time.sleep(0.01)
                continue
            try:
                self.receiver.feed(os.read(handle, 4096))
            except OSError:
                time.sleep(0.01)

    def unplug(self) -> None:
        handle, self.ours = self.ours, -1
        self.link.unlink()
        os.close(self._theirs)
        os.close(handle)

    def shown(self) -> int:
        return self.receiver.frames


@pytest.fixture
def controller(tmp_path):
    made = Controller(tmp_path / "port")
    yield made
    if made.ours >= 0:
        made.unplug()


@pytest.mark.unix
def test_a_serial_device_is_unplugged_and_back(controller):
    port = f"serial:{controller.link},baud=115200"
    with running(lit(), outputs=[port, "memory:"]) as (session, told):
        until(lambda: controller.shown() > 10, "the first frames")
        controller.unplug()
        until(lambda: any("is gone" in text for text in told), "the word that it is gone")
        other = session.senders[1]
        before = other.sent
        until(lambda: other.sent > before + 50, "the other output's frames")
        shown = controller.shown()
        controller.plug()
        until(lambda: controller.shown() > shown + 10, "frames after it is back")
        until(lambda: any("works again" in text for text in told), "the word that it is back")
    assert sum("is gone" in text for text in told) == 1
    assert sum("works again" in text for text in told) == 1


@pytest.mark.unix
def test_a_controller_stops_reading_and_goes_on(controller):
    made = design(layer(), count=2000, rate=100.0)
    controller.receiver = Receiver([6000])
    port = f"serial:{controller.link},baud=4000000,timeout=0.2"
    with running(made, outputs=[port, "memory:"]) as (session, told):
        until(lambda: controller.shown() > 5, "the first frames")
        controller.is_reading = False
        until(lambda: any("has taken no bytes" in text for text in told), "the word of it")
        other = session.senders[1]
        before = other.sent
        until(lambda: other.sent > before + 50, "the other output's frames")
        controller.is_reading = True
        shown = controller.shown()
        until(lambda: controller.shown() > shown + 5, "frames once it reads again")
        assert session.senders[0].mailbox.replaced > 0


@pytest.mark.unix
def test_two_processes_want_one_port(controller):
    hold = f"""import serial, sys
port = serial.Serial({str(controller.link)!r}, exclusive=True)
print('held', flush=True)
sys.stdin.readline()
port.close()"""
    with subprocess.Popen(
        [sys.executable, "-c", hold], stdin=subprocess.PIPE, stdout=subprocess.PIPE
    ) as holder:
        holder.stdout.readline()
        with running(lit(), outputs=[f"serial:{controller.link}"]) as (_, told):
            until(lambda: any("is busy" in text for text in told), "the word that it is busy")
            if sys.platform == "linux":
                assert f"(process {holder.pid})" in told[0]
            holder.stdin.write(b"\n")
            holder.stdin.flush()
            until(lambda: controller.shown() > 10, "frames once it is free")


@pytest.mark.skipif(shutil.which("mosquitto") is None, reason="mosquitto is not installed")
def test_a_broker_is_killed_and_restarted():
    """The signal falls back while there is none, and follows again after; retained values are heard
    at once, and the broker tells who is gone."""
    import paho.mqtt.client as paho

    port = free_port()

    def broker():
        process = subprocess.Popen(["mosquitto", "-p", str(port)], stderr=subprocess.DEVNULL)
        wait_for_port(port)
        return process

    def publish(topic, text):
        client = paho.Client(paho.CallbackAPIVersion.VERSION2)
        client.connect("127.0.0.1", port)
        client.loop_start()
        client.publish(topic, text, qos=1, retain=True).wait_for_publish(5)
        client.disconnect()
        client.loop_stop()

    def level(session):
        return session.loop.frame is not None and int(session.loop.frame.rgb[0, 0])

    process = broker()
    try:
        publish("t/s", "1")
        with running(lit(), [f"mqtt:127.0.0.1:{port},root=t,keepalive=2"]) as (session, told):
            until(lambda: level(session) == 255, "the retained value")
            process.kill()
            process.wait()
            until(lambda: 0 < level(session) < 30, "the fallback")
            assert any("is gone" in text for text in told)
            process = broker()
            publish("t/s", "1")
            until(lambda: level(session) == 255, "the value after the restart")
            until(lambda: any("works again" in text for text in told), "the word that it is back")
        words = ["mosquitto_sub", "-p", str(port), "-t", "t/state/online", "-C", "1", "-W", "3"]
        if shutil.which("mosquitto_sub"):
            assert (
                subprocess.run(words, capture_output=True, text=True, check=False).stdout.strip()
                == "off"
            )
    finally:
        process.kill()
        process.wait()


def test_a_source_sends_garbage():
    port = free_port()
    with (
        running(lit(), [f"udp:127.0.0.1:{port}"]) as (session, _),
        socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there,
    ):

        def send(data):
            there.sendto(data, ("127.0.0.1", port))

        def disturb():
            send(b"\xff\xfe garbage {")
            send(b'{"s": "fast", "t": [[[1]]], "": {}}')
            return source.refused >= 10

        source = session.feeders[0].source
        until(disturb, "the count of what makes no sense")
        send(b'{"s": 1}')
        until(lambda: session.inbox.heard["s"].count == 1, "the value after it")
        assert session.inbox.heard["s"].refused >= 9


def test_a_clock_is_stepped(monkeypatch):
    """An hour forward and two back: the program's clock follows, and frames come all the while."""
    shift = [0.0]
    real = time.time
    monkeypatch.setattr(time, "time", lambda: real() + shift[0])
    with running(lit(), in_phase=True) as (session, _):
        for step_s in (3600.0, -7200.0):
            until(lambda: session.loop.stats.rendered > 20, "frames")
            assert abs(session.loop.program.at_s - time.time()) < 1
            shift[0] += step_s
            before = session.loop.stats.rendered
            until(lambda b=before: session.loop.stats.rendered > b + 20, "frames after the step")
            until(lambda: abs(session.loop.program.at_s - time.time()) < 1, "the new time")
    assert session.loop.stats.rendered > 40


def test_a_clock_that_is_stepped_does_not_touch_a_run_that_does_not_go_by_it(monkeypatch):
    real = time.time
    with running(lit()) as (session, _):
        until(lambda: session.loop.stats.rendered > 0, "the first frame")
        monkeypatch.setattr(time, "time", lambda: real() - 86_400)
        before, at_s = session.loop.stats.rendered, session.loop.program.at_s
        until(lambda: session.loop.stats.rendered > before + 50, "frames")
        assert 0.4 < session.loop.program.at_s - at_s < 40


TEXT = """
name = "saved"
rate = 100
line = [{ name = "a", part = [{ name = "bar", shape = "strip", start = [0, 0], end = [70, 0], count = 8 }] }]

[[layer]]
name = "glow"
on = "bar"
effect = "solid"
colour = "COLOUR"
"""


def test_a_reload_ends_before_its_run_does(tmp_path):
    """Python aborts if it ends while another thread is in the C++ of a library."""
    path = tmp_path / "d.toml"
    path.write_text(TEXT.replace("COLOUR", "red"))
    made = fd.load(path)
    used: list[object] = []
    begun, may_end = threading.Event(), threading.Event()

    def slow(read):
        begun.set()
        may_end.wait(5)
        return read

    reloader = Reloader(
        path, made.examined, used.append, used.append, engine=NumpyEngine, prepare=slow
    )
    reloader.start()
    path.write_text(TEXT.replace("COLOUR", "blue"))
    assert begun.wait(5)
    threading.Timer(0.2, may_end.set).start()
    reloader.stop()
    assert not reloader.is_alive()
    assert not used, "nothing is shown or said after the end"


def test_a_design_is_saved_broken_and_mended(tmp_path):
    path = tmp_path / "d.toml"
    path.write_text(TEXT.replace("COLOUR", "red"))
    made = fd.load(path)
    told: list[str] = []
    with running(made, outputs=["memory:"]) as (session, _):
        reloader = Reloader(path, made.examined, session.loop.use, told.append, engine=NumpyEngine)
        reloader.start()

        def colour():
            return [] if session.loop.frame is None else session.loop.frame.rgb[0].tolist()

        until(lambda: colour() == [255, 0, 0], "red")
        path.write_text(TEXT.replace("COLOUR", "rad"))
        until(lambda: reloader.refusals == 1, "the refusal")
        assert "The old design keeps running." in told[-1]
        assert "d.toml:10: error: layer[1].colour: there is no colour 'rad'" in told[-1]
        assert colour() == [255, 0, 0]
        path.write_text(TEXT.replace("COLOUR", "#00ff00"))
        until(lambda: colour() == [0, 255, 0], "lime after it was mended")
        path.unlink()
        time.sleep(0.6)
        assert colour() == [0, 255, 0]
        reloader.stop()
        frames = session.senders[0].output.frames
        late = session.loop.stats.late
        steps = {round((b.at_s - a.at_s) * 1000) for a, b in pairwise(frames)}
    assert steps == {10} or late or session.senders[0].mailbox.replaced


@pytest.mark.posix
@pytest.mark.skipif(not Path("/dev/full").exists(), reason="there is no /dev/full")
def test_the_disk_is_full_while_it_records():
    made = lit()
    told: list[str] = []
    connected = Connected(outputs={"memory": MemoryOutput()})
    from fendra.core.signals.courses import written
    from fendra.sources.hand import HandSource

    courses, _ = written(made, sweeps=["s=0:1:1s"])
    session = Session(
        made.compile(), connected, polled=[HandSource(made, courses)], tell=told.append,
        record=Path("/dev/full"),
    )  # fmt: skip
    with going(session):
        until(lambda: session.recorder.lost > 10, "what is lost")
        before = session.loop.stats.rendered
        until(lambda: session.loop.stats.rendered > before + 20, "frames all the same")
    assert told == [
        "'/dev/full' cannot be written: No space left on device. The light continues; the tape has a gap."
    ]


def test_an_output_of_somebody_s_own_may_fail_in_any_way():
    class Wild(MemoryOutput):
        fails = 3

        def _send(self, frame):
            if self.fails:
                self.fails -= 1
                raise ZeroDivisionError("oh")
            super()._send(frame)

    made = lit()
    told: list[str] = []
    session = Session(made.compile(), Connected(outputs={"wild": Wild()}), tell=told.append)
    with going(session):
        until(lambda: told[-1:] == ["memory works again."], "the word that it is back")
    assert "ZeroDivisionError: oh" in told[0]
    assert told[-1] == "memory works again."
    assert len(told) == 2


def test_the_leaving_look_reaches_every_output():
    """Dark; or as with every signal lost: a quarter of the level, which is 4.4 % of the light."""
    for leaving, expected in (("dark", 0), ("standby", 11), ("keep", 255)):
        made = lit(leaving=leaving)
        output = make_output("memory:")
        session = Session(
            made.compile(), Connected(outputs={"m": output, "n": make_output("memory:")}), for_s=0.2
        )  # fmt: skip
        session.inbox.put("test", "s", 1.0)
        session.run()
        for sender in session.senders:
            assert int(sender.output.frames[-1].rgb[0, 0]) == pytest.approx(expected, abs=1), (
                leaving
            )


def test_a_run_of_a_library_leaves_the_process_as_it_is():
    """Handlers and settings are those of whoever owns the process, while it runs and after."""
    kept = [signal.getsignal(number) for number in (signal.SIGINT, signal.SIGTERM)]
    switch_s, frozen = sys.getswitchinterval(), gc.get_freeze_count()
    seen = []

    class Looking(MemoryOutput):
        def _send(self, frame):
            now = [signal.getsignal(number) for number in (signal.SIGINT, signal.SIGTERM)]
            seen.append((now, sys.getswitchinterval(), gc.get_freeze_count()))

    Session(lit().compile(), Connected(outputs={"l": Looking()}), for_s=0.1).run()
    assert seen
    assert all(each == (kept, switch_s, frozen) for each in seen)


def test_a_process_of_one_s_own_is_asked_for_quiet_and_for_a_clean_end():
    session = Session(lit().compile(), Connected(outputs={"m": MemoryOutput()}), for_s=30)
    switch_s, kept = sys.getswitchinterval(), signal.getsignal(signal.SIGTERM)
    with stopped_by_signals(session.loop.stop), undisturbed():
        assert sys.getswitchinterval() < switch_s
        signal.raise_signal(signal.SIGTERM)
        session.run()
    assert (sys.getswitchinterval(), signal.getsignal(signal.SIGTERM)) == (switch_s, kept)
    assert gc.get_freeze_count() == 0


def test_a_signal_that_comes_while_the_loop_holds_its_lock_ends_it_all_the_same():
    """The handler runs wherever the main thread is just then, and must wait for nothing."""
    lock, over = threading.Lock(), threading.Event()

    def stop():
        with lock:
            over.set()

    with stopped_by_signals(stop):
        with lock:
            signal.raise_signal(signal.SIGTERM)
            assert not over.wait(0.05)
        assert over.wait(20)
