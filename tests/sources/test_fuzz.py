"""Whatever comes: no crash, counted and told, and what makes sense is heard after it."""

from __future__ import annotations

import contextlib
import json
import struct
from types import SimpleNamespace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pymavlink.dialects.v20 import common

from fendra.core.document.design import Design
from fendra.demo.stand_ins.osc import bundle, message
from fendra.live.inbox import Inbox
from fendra.sources import DRIVERS
from fendra.sources.gpio import GpioSource
from fendra.sources.keyboards import DeviceKeys
from fendra.sources.lines import LONGEST, LineCutter
from fendra.sources.linux_events import EventFile
from fendra.sources.mavlink import news_of
from fendra.sources.mqtt import MqttSource
from fendra.sources.obd import Replies
from fendra.sources.osc import OscSource
from fendra.sources.texts import parse_text
from fendra.sources.udp import UdpSource
from helpers import design, layer

SIGNALS = {
    "s": {"range": [0, 1]}, "on": {"kind": "switch"}, "tint": {"kind": "colour"},
    "mode": {"kind": "choice", "choices": ["calm", "wild"]}, "hit": {"kind": "event"},
    "bands": {"kind": "vector", "size": 3},
}  # fmt: skip

anything = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(max_size=20),
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(st.text(max_size=8), inner, max_size=4),
    max_leaves=12,
)  # fmt: skip
nearly_json = st.dictionaries(st.sampled_from([*SIGNALS, "other"]), anything).map(
    lambda values: json.dumps(values).encode()
)
packets = st.lists(
    st.binary(max_size=200)
    | nearly_json
    | st.tuples(nearly_json, st.integers(0, 40)).map(lambda item: item[0][: item[1]]),
    max_size=8,
)


class Fed:
    """In the place of a port: gives packets once."""

    skipped = 0

    def __init__(self, given):
        self.given = list(given)

    def take(self, _wait_s):
        given, self.given = self.given, []
        return given

    def close(self):
        pass


def lit() -> Design:
    return design(layer(), signals=SIGNALS)


def heard(source, made, packets):
    """A frame's news after all of that, and what was refused."""
    box = Inbox(made)
    for name, raw in source.read(0):
        box.put("fuzz", name, raw)
    program = made.compile()
    program.frame({n: v for n, v in box.take().items() if n in program.takes}, at=0)
    return box


MADE = lit()


@settings(max_examples=150)
@given(packets)
def test_udp_takes_anything(given):
    source = UdpSource("9400")
    source._datagrams = Fed([*given, b'{"s": 0.5}'])
    box = heard(source, MADE, given)
    assert box.heard["s"].raw == 0.5
    assert source.refused <= len(given)


@settings(max_examples=150)
@given(st.lists(st.binary(max_size=120) | st.builds(
    lambda address, value, cut: bundle([message(f"/{address}", value)])[:cut],
    st.sampled_from([*SIGNALS]), st.floats(width=32), st.integers(0, 60)), max_size=8))  # fmt: skip
def test_osc_takes_anything(given):
    source = OscSource("9000")
    source._packets = __import__("pythonosc.osc_packet").osc_packet
    source._datagrams = Fed([*given, message("/s", 0.5)])
    assert heard(source, MADE, given).heard["s"].raw == 0.5


@settings(max_examples=200)
@given(st.lists(st.binary(max_size=60), max_size=10))
def test_lines_are_cut_the_same_in_whatever_pieces_they_come(pieces):
    whole = b"".join(pieces) + b"\ns=0.5\n"
    cutter = LineCutter()
    found = [line for piece in pieces for line in cutter.feed(piece)] + cutter.feed(b"\ns=0.5\n")
    expected = [line.rstrip(b"\r") for line in whole.split(b"\n")[:-1]]
    assert found == [line for line in expected if line]
    for line in found:
        with contextlib.suppress(ValueError):
            assert isinstance(parse_text(line.decode()), dict)


def test_a_line_without_an_end_is_thrown_away_and_the_next_one_heard():
    cutter = LineCutter()
    assert cutter.feed(b"x" * (LONGEST + 1)) == []
    assert cutter.feed(b"y" * 100_000) == []
    assert cutter.feed(b"still\ns=1\n") == [b"s=1"]
    assert cutter.too_long == 1


@settings(max_examples=150)
@given(st.lists(st.tuples(st.text(max_size=20), st.binary(max_size=80) | nearly_json), max_size=8))
def test_mqtt_takes_anything(given):
    source = MqttSource("localhost", root="r")
    source._root, source._is_connected = "r", True
    for topic, payload in [*given, ("r/s", b"0.5")]:
        source._came.append((topic, payload))
    assert heard(source, MADE, given).heard["s"].raw == 0.5


def flight(**keys):
    link = common.MAVLink(None, srcSystem=1)
    return common.MAVLink.vfr_hud_encode(link, 1.0, 2.0, 3, 50, 4.0, 5.0).pack(link)


@settings(max_examples=100)
@given(
    st.lists(
        st.binary(max_size=80) | st.integers(0, 40).map(lambda cut: flight()[:cut]), max_size=8
    )
)
def test_mavlink_takes_anything(given):
    source = DRIVERS.from_text("mavlink:14550")
    source._parser = common.MAVLink(None)
    source._parser.robust_parsing = True
    # what was cut may swallow what follows; by the third the reader is in step again
    source._datagrams = Fed([*given, *[flight()] * 30])
    box = Inbox(design(layer(), signals={"throttle": {}}))
    for name, raw in source.read(0):
        box.put("fuzz", name, raw)
    assert box.heard["throttle"].raw == 0.5


@given(st.lists(st.tuples(st.sampled_from([0x7E8, 0x7E9]), st.binary(max_size=8)), max_size=30))
def test_replies_of_a_vehicle_are_put_together_or_dropped(frames):
    replies = Replies()
    for sender, data in frames:
        reply = replies.feed(sender, data)
        assert reply is None or len(reply) <= 4095


def test_a_long_reply_comes_in_several_frames():
    """ISO 15765-2: 20 bytes, six in the first frame, seven in each that follows."""
    data = bytes(range(20))
    replies = Replies()
    assert replies.feed(0x7E8, b"\x10\x14" + data[:6]) is None
    assert replies.flow == 0x7E0
    assert replies.feed(0x7E8, b"\x21" + data[6:13]) is None
    assert replies.feed(0x7E8, b"\x22" + data[13:]) == data


@given(st.binary(max_size=200))
def test_keys_take_any_bytes(data):
    source = DRIVERS.from_table({"type": "keys", "address": "socket://127.0.0.1:1"})
    source._places = {}
    pieces = iter([data[: len(data) // 2], data[len(data) // 2 :]])
    keys = DeviceKeys.__new__(DeviceKeys)
    keys._codes = {30: "KEY_A"}
    keys._events = EventFile.__new__(EventFile)
    keys._events._rest = b""
    keys._events._device = SimpleNamespace(take=lambda _: next(pieces))
    for source._keys in (keys, keys):
        for name, _ in source._read(0.0):
            assert isinstance(name, str)


@given(st.lists(st.binary(max_size=60), max_size=5))
def test_made_up_pins_take_anything(given):
    pytest.importorskip("gpiozero")
    source = GpioSource(inputs={"a": {"pin": 4}}, mock=0)
    source.open(MADE, None)
    source._set_mock([*given, b'{"4": 0}'])
    assert dict(source.read(0.001))["a"] == 1.0
    source.close()


@given(
    st.sampled_from(
        ["HEARTBEAT", "ATTITUDE", "VFR_HUD", "SYS_STATUS", "BATTERY_STATUS", "RC_CHANNELS"]
    ),
    st.binary(min_size=60, max_size=60),
)
def test_any_content_of_a_message_is_numbers(name, data):
    kind = next(k for k in common.mavlink_map.values() if k.msgname == name)
    size = kind.unpacker.size
    values = list(kind.unpacker.unpack(data[:size].ljust(size, b"\0")))
    fields = []
    at = 0
    for count in kind.array_lengths:
        n = count or 1
        fields.append(values[at] if n == 1 else values[at : at + n])
        at += n
    try:
        made = kind(*[fields[i] for i in kind.orders[: len(fields)]])
    except (TypeError, IndexError, struct.error):
        return
    assert isinstance(news_of(made), dict)
