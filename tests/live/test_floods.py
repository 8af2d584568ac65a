"""Floods: whatever comes, and however much, frames keep their rate and the run ends when told to."""

from __future__ import annotations

import json
import subprocess
import sys
import time

import pytest

import fendra as fd
from fendra.core.signals.kinds import kind_of
from fendra.live.connect import connect
from fendra.live.inbox import Inbox
from fendra.live.session import Session
from fendra.sources.texts import parse_text
from helpers import design, free_port, layer

WORST = {
    "letters": b"a" * 60_000,
    "blanks": b"a" + b" " * 60_000 + b"b",
    "pairs": b" ".join(b"n%d=1" % i for i in range(7_000)),
    "commas": b"a=" + b"1," * 30_000,
    "signs": b"=" * 60_000,
    "names": json.dumps({f"n{i}": 1 for i in range(1_900)}).encode(),
    "nested": json.dumps({f"n{i}": {"a": {"b": i}} for i in range(600)}).encode(),
    "brackets": b'{"s":' + b"[" * 60_000,
    "depth": b'{"a":' * 900 + b"1" + b"}" * 900,
    "digits": b'{"s": ' + b"9" * 4_200 + b"}",
    "word": json.dumps({"mode": "calmm" * 12_000}).encode(),
    "list": json.dumps({"bands": [0] * 1_900}).encode(),
    "escapes": json.dumps({"\x1b[2J" * 2_000: "\x07" * 5_000}).encode(),
}
SENDER = """
import socket, sys, time
port, rate = int(sys.argv[1]), float(sys.argv[2])
packets = [bytes.fromhex(line) for line in sys.stdin.read().split()]
out = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
begun, sent = time.monotonic(), 0
while True:
    for packet in packets:
        try:
            out.sendto(packet, ("127.0.0.1", port))
        except OSError:
            pass
        sent += 1
    time.sleep(max(begun + sent / rate - time.monotonic(), 0))
"""
SIGNALS = {
    "s": {"range": [0, 1]}, "mode": {"kind": "choice", "choices": ["calm", "wild"]},
    "bands": {"kind": "vector", "size": 3},
}  # fmt: skip


@pytest.fixture
def flood():
    """Begins to send packets to a port, so many a second, until the test ends."""
    running = []

    def begin(port, packets, rate=10_000):
        process = subprocess.Popen(
            [sys.executable, "-c", SENDER, str(port), str(rate)], stdin=subprocess.PIPE, text=True
        )
        process.stdin.write("\n".join(packet.hex() for packet in packets))
        process.stdin.close()
        running.append(process)

    yield begin
    for process in running:
        process.kill()
        process.wait()


@pytest.mark.parametrize("name", WORST)
def test_one_packet_is_read_in_a_moment_or_refused(name):
    """Not measured tightly: what was quadratic took from 11 to 100 s for one of these."""
    made = design(layer(), signals=SIGNALS)
    box, said, begun = Inbox(made), [], time.process_time()
    for _ in range(10):
        try:
            news = parse_text(WORST[name].decode())
        except ValueError as exc:
            said.append(str(exc))
            continue
        for key, raw in news.items():
            box.put("udp", key, raw)
    assert time.process_time() - begun < 5
    assert all(len(text) < 200 for text in said)
    assert len(box.unused) <= 501
    assert all(len(key) <= 800 and "\x1b" not in key for _, key in box.unused)
    assert all(len(heard.problem) < 300 for heard in box.heard.values())


def test_frames_keep_their_rate_under_a_flood_and_the_light_still_hears(flood):
    port = free_port()
    made = design(layer(level="s"), signals=SIGNALS, rate=50.0)
    told = []

    def run():
        connected = connect(made, sources=[f"udp:{port}"], outputs=["null:"])
        session = Session(made.compile(), connected, tell=told.append, for_s=3.0)
        begun = time.monotonic()
        report = session.run()
        assert time.monotonic() - begun < 8
        return session, report.rendered

    _, in_peace = run()  # 150, on a machine with nothing else to do
    flood(port, [*WORST.values(), b'{"s": 1}'])
    session, rendered = run()
    assert rendered > in_peace * 2 / 3
    assert session.inbox.heard["s"].count > 0
    assert len(told) < 10


def test_kinds_of_signals_say_little_of_a_long_word():
    signal = design(layer(), signals=SIGNALS).signals["mode"]
    with pytest.raises(fd.SignalError) as caught:
        kind_of(signal).numbers(signal, "mode", "calmm" * 12_000)
    assert len(str(caught.value)) < 200
