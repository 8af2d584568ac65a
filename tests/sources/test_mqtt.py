"""MQTT against a real broker: who may come in, who is gone, and nodes that show one picture."""

from __future__ import annotations

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
import time

import numpy as np
import pytest

import fendra as fd
from contract.test_sources import wait_for_port
from fendra.core.layout import place
from fendra.live.connect import connect
from fendra.live.loop import Loop, memory_of, recall, told_by
from fendra.live.session import Session
from fendra.sources.mqtt import MqttSource
from helpers import design, free_port, layer, strip, until

pytestmark = pytest.mark.skipif(
    shutil.which("mosquitto") is None, reason="mosquitto is not installed"
)


@pytest.fixture
def broker(tmp_path):
    """Starts a broker with a configuration; gives its port."""
    running = []

    def start(*lines):
        port = free_port()
        path = tmp_path / "mosquitto.conf"
        own = ["user root"] if os.geteuid() == 0 else []  # else it may not read files of the test
        path.write_text("\n".join([*own, f"listener {port} 127.0.0.1", *lines, ""]))
        process = subprocess.Popen(["mosquitto", "-c", str(path)], stderr=subprocess.DEVNULL)
        running.append(process)
        wait_for_port(port)
        return port

    yield start
    for process in running:
        process.kill()
        process.wait()


def listening(port, topic, count, seconds=15):
    """Collects what is published on a topic, in a thread: the list, and what waits for it and ends."""
    import paho.mqtt.client as paho

    found, done = [], threading.Event()

    def take(_client, _data, message):
        found.append(message.payload.decode())
        if len(found) >= count:
            done.set()

    client = paho.Client(paho.CallbackAPIVersion.VERSION2)
    client.on_message = take
    client.on_connect = lambda c, *_: c.subscribe(topic)
    client.connect("127.0.0.1", port)
    client.loop_start()

    def get():
        done.wait(seconds)
        client.disconnect()
        client.loop_stop()
        return found

    return found, get


def test_user_and_password_come_from_the_environment(broker, tmp_path, monkeypatch):
    if shutil.which("mosquitto_passwd") is None:
        pytest.skip("mosquitto_passwd is not installed")
    path = tmp_path / "passwords"
    subprocess.run(["mosquitto_passwd", "-b", "-c", str(path), "me", "secret"], check=True)
    path.chmod(0o644)
    port = broker("allow_anonymous false", f"password_file {path}")
    made = design(layer())

    def opened():
        source = MqttSource(f"127.0.0.1:{port}")
        source.open(made, place(made))
        try:
            for _ in range(20):
                source.read(0.1)
        finally:
            source.close()

    with pytest.raises(fd.SourceError, match="refuses the login: Not authorized"):
        opened()
    monkeypatch.setenv("FENDRA_MQTT_USER", "me")
    monkeypatch.setenv("FENDRA_MQTT_PASSWORD", "secret")
    opened()


@pytest.mark.filterwarnings("ignore::pytest.PytestUnraisableExceptionWarning")  # of the package
def test_a_line_that_is_encrypted(broker, tmp_path):
    if shutil.which("openssl") is None:
        pytest.skip("openssl is not installed")
    key, certificate = tmp_path / "key.pem", tmp_path / "cert.pem"
    subprocess.run(
        ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj",
         "/CN=localhost", "-addext", "subjectAltName=DNS:localhost", "-keyout", str(key), "-out",
         str(certificate)], check=True, capture_output=True,
    )  # fmt: skip
    key.chmod(0o644)
    port = broker("allow_anonymous true", f"certfile {certificate}", f"keyfile {key}")
    made = design(layer(), signals={"s": {}})
    source = MqttSource(f"localhost:{port}", tls=True, ca=str(certificate), root="t")
    source.open(made, place(made))
    until_s, found = time.monotonic() + 10, {}
    while time.monotonic() < until_s and "s" not in found:
        source._client.publish("t/s", "0.5")
        found |= dict(source.read(0.1))
    source.close()
    assert found["s"] == 0.5
    stranger = MqttSource(f"localhost:{port}", tls=True)
    with pytest.raises(fd.SourceError, match="certificate"):
        stranger.open(made, place(made))
    stranger.close()


def test_the_broker_says_who_is_gone(broker, tmp_path):
    port = broker("allow_anonymous true")
    path = tmp_path / "d.toml"
    path.write_text('name = "T"\nline = [{ name = "a", part = [{ name = "bar", shape = "strip", '
                    'start = [0, 0], end = [70, 0], count = 8 }] }]\n')  # fmt: skip
    heard, get = listening(port, "t/state/online", 2)
    run = subprocess.Popen(
        [sys.executable, "-m", "fendra", "run", str(path), "--from", f"mqtt:127.0.0.1:{port},root=t",
         "--to", "null:"], stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
    )  # fmt: skip
    until(lambda: heard, "the word that it is there")
    os.kill(run.pid, signal.SIGKILL)
    run.wait()
    assert get() == ["on", "off"]


def test_nodes_show_one_motion_though_its_rate_moves_and_they_began_at_other_times(broker):
    """A spin whose phase is only known from its whole past: a second node follows the first."""
    port = broker("allow_anonymous true")
    spin = layer("spin", rate="rpm / 60", by="x / 80")
    made = [
        design(
            spin, line=[{"name": "a", "part": [strip(count=30)]}], signals={"rpm": {}}, rate=50.0
        )
        for _ in range(2)
    ]
    sessions = []
    for number, each in enumerate(made):
        connected = connect(each, sources=[f"mqtt:127.0.0.1:{port},root=t"], outputs=["memory:"])
        sessions.append(Session(each.compile(), connected, in_phase=True, leads=number == 0))
    threads = [threading.Thread(target=session.run) for session in sessions]
    import paho.mqtt.client as paho

    client = paho.Client(paho.CallbackAPIVersion.VERSION2)
    client.connect("127.0.0.1", port)
    client.loop_start()
    client.publish("t/rpm", "20", retain=True).wait_for_publish(5)
    threads[0].start()
    first, second = (session.loop for session in sessions)
    until(lambda: first.stats.rendered > 35, "the first node's frames")
    heard = []  # how many frames the second had made when it heard of the first's memory

    def hear(memory):
        heard.append(second.stats.rendered)
        Loop.recall(second, memory)

    second.recall = hear
    threads[1].start()

    def has_turned_for_some_seconds():
        client.publish("t/rpm", f"{20 + 40 * (time.monotonic() % 1):.2f}", retain=True)
        return bool(heard) and second.stats.rendered > heard[0] + 120

    until(has_turned_for_some_seconds, "frames of both", step_s=0.05)
    for session, thread in zip(sessions, threads, strict=True):
        session.loop.stop()
        thread.join(10)
    client.disconnect()
    client.loop_stop()
    films = [
        {round(f.at_s * 1000): f.rgb[:, 0].astype(int) for f in s.senders[0].output.frames}
        for s in sessions
    ]
    last = max(films[1])
    common = [at for at in {*films[0]} & {*films[1]} if at > last - 2000]
    assert len(common) > 20
    apart = [np.abs(films[0][at] - films[1][at]).mean() for at in common]
    # A value may reach one node a frame or two before the other: two of 30 LEDs at the most.
    assert np.median(apart) <= 17
    turned = [np.abs(films[0][at] - np.roll(films[1][at], 8)).mean() for at in common]
    assert np.median(turned) > 40


def test_a_broker_that_says_nothing_is_told_of(monkeypatch):
    monkeypatch.setattr("fendra.sources.mqtt.CONNECT_S", 0.3)
    with socket.create_server(("127.0.0.1", 0)) as silent:
        made = design(layer(level="s"), signals={"s": {}})
        told = []
        port = silent.getsockname()[1]
        connected = connect(made, sources=[f"mqtt:127.0.0.1:{port}"], outputs=["null:"])
        Session(made.compile(), connected, tell=told.append, for_s=1.5).run()
    assert [text for text in told if "does not answer" in text] == [
        f"MQTT broker 127.0.0.1:{port} does not answer. Retrying."
    ]


def test_what_a_broker_sends_is_bounded_and_no_topic_ends_it():
    """300 messages, of which the newest 256 wait; a long one, a long name, a topic that is no text."""
    from paho.mqtt.client import MQTTMessage

    source = MqttSource("localhost", root="r")
    source._root, source._is_connected = "r", True

    def come(topic, payload):
        message = MQTTMessage(topic=topic)
        message.payload = payload
        source._on_message(None, None, message)

    come(b"r/\xff\xfe", b"1")
    assert source.problem == "a topic that is not UTF-8"
    come(b"r/s", b"x" * 65_537)
    come(b"r/" + b"n" * 500, b"1")
    assert source.refused == 3
    for number in range(300):
        come(b"r/s", str(number).encode())
    assert source.skipped == 44
    assert [value for _, value in source.read(0)] == list(range(44, 300))
    for odd in (b"[" * 60_000, b"9" * 5_000, json.dumps([0] * 3_000).encode()):
        come(b"r/s", odd)
    assert list(source.read(0)) == []
    assert source.refused == 6


@pytest.mark.parametrize("cells", [
    {"nobody": 1.0}, {"CELL": 1e39}, {"CELL": 10**400}, {"CELL": "x"}, {"CELL": float("nan")}, [],
])  # fmt: skip
def test_what_a_leading_node_is_said_to_remember_is_taken_only_where_it_fits(cells):
    program = design(layer("sweep", rate="s"), signals={"s": {}}).compile()
    program.frame(s=1, at=1.0)
    told = memory_of(program)
    cell = next(iter(told["cells"]))
    assert recall(program, told_by(told), 1.0)
    if isinstance(cells, dict):
        cells = {name.replace("CELL", cell): value for name, value in cells.items()}
    assert not recall(program, told_by({**told, "cells": cells}), 1.0)
    assert not recall(program, told_by({**told, "at_s": 10**400}), 1.0)
    program.frame(s=1, at=1.1)
