"""sACN: what arrives, by a receiver written from the standard, and by tshark where it is."""

from __future__ import annotations

import re
import shutil
import socket
import struct
import subprocess

import numpy as np
import pytest

import fendra as fd
from fendra.outputs.sacn import SacnOutput
from fendra.outputs.sacn_packets import multicast_group
from helpers import FakeClock, design, layer, strip
from outputs.sacn_receiver import Receiver


@pytest.fixture
def port():
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        there.setsockopt(socket.SOL_SOCKET, socket.SO_RCVBUF, 1 << 22)
        there.bind(("127.0.0.1", 0))
        yield there


def lit(**counts) -> fd.Design:
    """A line for each count, all white."""
    lines = [
        {"name": name, "part": [strip(f"{name}-bar", count)]} for name, count in counts.items()
    ]
    return design(layer(), line=lines)


def opened(port, made, **options):
    clock = FakeClock()
    host, number = port.getsockname()
    output = SacnOutput(f"{host}:{number}", clock=clock, **options)
    output.open(made)
    return output, clock


def test_lines_begin_at_universes_of_their_own_and_no_pixel_is_split(port):
    """400 RGB pixels are 170 + 170 + 60; the next line has the fourth universe to itself."""
    made = lit(a=400, b=10)
    output, _ = opened(port, made, universe=7, priority=150)
    frame = made.compile().frame()
    rgb = np.arange(410 * 3, dtype=np.uint32).reshape(410, 3).astype(np.uint8)
    frame = fd.Frame(0.0, rgb, frame.layout, made)
    output.send(frame)
    output.close()
    seen = Receiver()
    seen.take_from(port)
    sizes = {number: len(universe.slots) for number, universe in seen.universes.items()}
    assert sizes == {7: 510, 8: 510, 9: 180, 10: 30}
    whole = b"".join(seen.universes[number].slots for number in (7, 8, 9))
    assert whole == frame.line_bytes()[0]
    assert seen.universes[10].slots == frame.line_bytes()[1]
    assert output.deal == {"a": range(7, 10), "b": range(10, 11)}
    assert seen.priorities == {150}
    assert seen.names == {"Fendra Test"}
    assert len(seen.senders) == 1


def test_a_stream_says_that_it_ends_three_times(port):
    made = lit(a=2)
    output, _ = opened(port, made)
    output.send(made.compile().frame())
    output.close()
    seen = Receiver()
    seen.take_from(port)
    assert seen.universes[1].ended == 3
    assert seen.universes[1].sequences == [1, 2, 3, 4]


def test_what_does_not_change_is_sent_three_times_and_then_now_and_then(port):
    """50 frames in a second: the first, two repeats, and one more after 0.8 s."""
    made = lit(a=2)
    output, clock = opened(port, made)
    program = made.compile()
    for _ in range(50):
        output.send(program.frame())
        clock.sleep(0.02)
    output.close()
    seen = Receiver()
    seen.take_from(port)
    assert len(seen.universes[1].sequences) - seen.universes[1].ended == 4


def test_what_changes_is_sent_each_time_and_wraps_its_number(port):
    made = design(layer(level="s"), signals={"s": {}})
    output, clock = opened(port, made)
    program = made.compile()
    for i in range(300):
        output.send(program.frame(s=i % 2))
        clock.sleep(0.02)
    output.close()
    seen = Receiver()
    seen.take_from(port)
    assert seen.universes[1].sequences == [(i + 1) % 256 for i in range(303)]


def test_synchronisation_follows_the_data_and_discovery_comes_every_ten_seconds(port):
    made = lit(a=200, b=1)
    output, clock = opened(port, made, sync=99)
    program = made.compile()
    for _ in range(3):
        output.send(program.frame())
        clock.sleep(6)
    output.close()
    seen = Receiver()
    seen.take_from(port)
    assert seen.syncs == [(0, 99), (1, 99), (2, 99)]
    assert seen.sync_addresses == {99}
    assert seen.found == {0: [1, 2, 3]}


def test_each_universe_has_its_group(port):
    assert multicast_group(63_999) == "239.255.249.255"
    made = lit(a=171)
    output = SacnOutput("multicast", interface="127.0.0.1")
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        there.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        there.bind(("", 5568))
        for group in ("239.255.0.1", "239.255.0.2"):
            member = struct.pack("4s4s", socket.inet_aton(group), socket.inet_aton("127.0.0.1"))
            there.setsockopt(socket.IPPROTO_IP, socket.IP_ADD_MEMBERSHIP, member)
        with output:
            output.open(made)
            output.send(made.compile().frame())
            seen = Receiver()
            seen.take_from(there)
    assert {1, 2} <= {*seen.universes}


@pytest.mark.parametrize(
    ("options", "says"),
    [
        ({"universes": {"b": 1}}, "line 'b' shares universe 1"),
        ({"universes": {"c": 1}}, "no line 'c'"),
        ({"universe": 63_999}, "goes beyond universe 63999"),
    ],
)
def test_universes_that_cannot_be_dealt_are_said(port, options, says):
    with pytest.raises(fd.OutputError, match=says):
        opened(port, lit(a=171, b=1), **options)


@pytest.mark.skipif(shutil.which("tshark") is None, reason="tshark is not installed")
def test_packets_dissect_without_error(port, tmp_path):
    """Lines of one LED to several universes, and the end of a stream, in a capture of our own. What
    vector 8 carries (synchronisation, discovery) tshark 4.0 does not know; the receiver does."""
    made = lit(a=171, b=1, c=400)
    output, clock = opened(port, made, sync=99)
    program = made.compile()
    for _ in range(3):
        output.send(program.frame())
        clock.sleep(6)
    output.close()
    packets = []
    port.settimeout(0.3)
    try:
        while True:
            packets.append(port.recv(2000))
    except TimeoutError:
        pass
    data = [packet for packet in packets if packet[18:22] == bytes([0, 0, 0, 4])]
    assert len(data) == 6 * (3 + 3)
    capture = tmp_path / "sacn.pcap"
    capture.write_bytes(pcap(data))
    words = ["tshark", "-r", str(capture), "-V", "--enable-heuristic", "acn"]
    words += ["-o", "acn.dmx_enable:TRUE"]
    told = subprocess.run(words, capture_output=True, text=True, check=True).stdout
    assert told.count("PDU: Streaming DMX, Universe:") == len(data)
    assert not re.search(r"malformed|Expert Info \((Error|Warning)", told, re.I)
    for universe in range(1, 7):
        assert f"Universe: {universe}, Priority: 100" in told
    assert "Source: Fendra Test" in told


def pcap(packets: list[bytes]) -> bytes:
    """A capture of UDP packets to port 5568 (the classic libpcap format, raw IPv4)."""
    written = struct.pack("<IHHiIII", 0xA1B2C3D4, 2, 4, 0, 0, 65_535, 101)
    for number, data in enumerate(packets):
        udp = struct.pack(">HHHH", 40_000, 5568, 8 + len(data), 0) + data
        head = struct.pack(
            ">BBHHHBBH4s4s",
            0x45,
            0,
            20 + len(udp),
            number,
            0,
            64,
            17,
            0,
            b"\x7f\0\0\1",
            b"\x7f\0\0\1",
        )
        total = sum(struct.unpack(">10H", head))
        total = (total & 0xFFFF) + (total >> 16)
        head = head[:10] + struct.pack(">H", ~total & 0xFFFF) + head[12:]
        whole = head + udp
        written += struct.pack("<IIII", number, 0, len(whole), len(whole)) + whole
    return written
