"""Binary packets: each type by hand, kinds told apart, a simulator's stream that loses nothing."""

from __future__ import annotations

import math
import re
import socket
import struct
import threading
import time

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

import fendra as fd
from fendra.cli.check import check_on
from fendra.core.senses.raw import Watched
from fendra.demo.stand_ins.simulator import Shared, car, people
from fendra.live.connect import connect
from fendra.live.session import Session
from fendra.sources import DRIVERS
from fendra.sources.binary import CODES, SIGNS, Decoder, PacketLayout, read_layout
from helpers import design, free_port, layer, until

RALLY = fd.demo_file("rally.toml")


def decoder(*packets, **options):
    return Decoder(PacketLayout.model_validate({"packet": [*packets], **options}))


def one(**field):
    return decoder({"fields": {"a": field}})


@pytest.mark.parametrize(
    ("field", "data", "value"),
    [
        ({"byte": 1}, "00 ff", 255.0),
        ({"type": "i8"}, "ff", -1.0),
        ({"type": "u16"}, "b8 0b", 3000.0),
        ({"type": "u16", "order": "big"}, "0b b8", 3000.0),
        ({"type": "i16", "order": "big", "scale": 0.01}, "fb 1e", -12.5),
        ({"type": "u32", "offset": -1}, "01 00 01 00", 65536.0),
        ({"type": "i32"}, "fe ff ff ff", -2.0),
        ({"type": "u64", "order": "big"}, "00 00 00 01 00 00 00 00", 2.0**32),
        ({"type": "i64"}, "ff ff ff ff ff ff ff ff", -1.0),
        ({"type": "f32"}, "00 00 48 41", 12.5),
        ({"type": "f32", "order": "big"}, "41 48 00 00", 12.5),
        ({"type": "f64", "scale": 2, "offset": 0.5}, "00 00 00 00 00 00 29 40", 25.5),
        ({"bit": 5}, "20", True),
        ({"bit": 9, "type": "u16", "order": "big"}, "02 00", True),
        ({"bit": 9, "type": "u16"}, "02 00", False),
        ({"type": "u8", "count": 3, "scale": 0.5}, "01 02 03", [0.5, 1.0, 1.5]),
        ({"type": "text", "length": 6}, "4b 69 6c 6e 00 ff", "Kiln"),
        ({"type": "text", "prefix": "u16", "order": "big"}, "00 02 c3 bc 41", "\u00fc"),
        ({"type": "text", "length": 4, "encoding": "utf-16"}, "4b 00 fc 00", "K\u00fc"),
        ({"type": "text", "length": 6, "encoding": "utf-16", "order": "big"}, "fe ff 00 4b 00 fc", "K\u00fc"),
    ],
)  # fmt: skip
def test_each_type_as_its_bytes_say(field, data, value):
    assert one(**field).decode(bytes.fromhex(data)) == {"a": value}


def test_a_field_s_own_order_comes_before_that_of_its_packet_and_of_the_layout():
    told = decoder(
        {"order": "big", "fields": {"a": {"type": "u16"}, "b": {"type": "u16", "order": "little"}}},
        order="little",
    )
    assert told.decode(bytes([1, 2])) == {"a": 258.0, "b": 513.0}
    plain = decoder({"fields": {"a": {"type": "u16"}}}, order="big")
    assert plain.decode(bytes([1, 2])) == {"a": 258.0}


def test_no_number_is_no_news():
    """A float that is not finite is left out; the others are heard."""
    both = decoder({"fields": {"a": {"type": "f32"}, "b": {"byte": 4}}})
    assert both.decode(struct.pack("<fB", float("nan"), 3)) == {"b": 3.0}
    assert both.decode(struct.pack("<fB", float("inf"), 3)) == {"b": 3.0}
    row = decoder({"fields": {"a": {"type": "f32", "count": 2}, "b": {"byte": 8}}})
    assert row.decode(struct.pack("<ffB", 1.5, float("nan"), 3)) == {"b": 3.0}


def test_kinds_are_told_by_length_by_a_value_and_the_rest_goes_to_the_last():
    told = decoder(
        {"length": 3, "fields": {"short": {"byte": 2}}},
        {
            "mark": {"byte": 0, "type": "u16", "order": "big", "value": 0x0102},
            "fields": {"marked": {"byte": 3}},
        },
        {"fields": {"other": {"byte": 0}}},
    )
    assert told.decode(bytes([1, 2, 9])) == {"short": 9.0}
    assert told.decode(bytes([1, 2, 0, 8])) == {"marked": 8.0}
    assert told.decode(bytes([2, 1, 0, 8])) == {"other": 2.0}
    assert told.decode(bytes([7])) == {"other": 7.0}


def test_a_packet_of_no_kind_and_a_short_one_say_what_came():
    told = decoder({"name": "car", "mark": {"byte": 0, "value": 1},
                    "fields": {"rpm": {"byte": 4, "type": "f32"}}})  # fmt: skip
    with pytest.raises(ValueError, match=r"no packet of the layout fits these 3 bytes: 02 00 00"):
        told.decode(b"\2\0\0")
    with pytest.raises(ValueError, match=r"a packet 'car' of 6 bytes ends before 'rpm'"):
        told.decode(b"\1\0\0\0\0\0")


@pytest.mark.parametrize(
    ("fields", "words"),
    [
        ({"a": {"type": "f32", "bit": 1}}, "`bit` is for one whole number"),
        ({"a": {"bit": 8}}, "u8 has no bit 8"),
        ({"a": {"type": "text"}}, "a text needs `length`"),
        ({"a": {"length": 3}}, "are for texts"),
        ({"a": {"type": "text", "length": 3}, "b": {"after": "a"}}, "no text with a prefix above"),
    ],
)
def test_fields_that_make_no_sense_are_refused(fields, words):
    with pytest.raises(ValidationError, match=words):
        decoder({"fields": fields})
    with pytest.raises(fd.SourceError, match=words):
        DRIVERS.from_table({"type": "udp", "fields": fields})


def test_a_packet_that_takes_all_stands_last():
    rest, marked = {"fields": {"a": {}}}, {"length": 4, "fields": {"a": {}}}
    with pytest.raises(ValidationError, match="packet 1 takes every packet"):
        decoder(rest, marked)
    with pytest.raises(fd.SourceError, match="write one of `fields` and `layout`"):
        DRIVERS.from_table({"type": "udp", "fields": {"a": {}}, "layout": "x.toml"})


def test_a_layout_s_mistake_is_told_with_file_and_line(tmp_path):
    path = tmp_path / "game.toml"
    path.write_text("[[packet]]\n[packet.fields]\nrpm = { byt = 4 }\n", encoding="utf-8")
    with pytest.raises(fd.SourceError) as caught:
        read_layout(path)
    assert f"{path}:3: error: packet[1].fields.rpm.byt: there is no key 'byt'" in str(caught.value)
    assert "Did you mean 'byte'?" in str(caught.value)


def test_the_simulator_s_packets_are_what_its_file_says():
    """45 km/h are 12.5 m/s; half throttle is 128 of 255; lean is in hundredths of a degree."""
    values = {
        "speed": 45.0,
        "rpm": 3000,
        "throttle": 0.5,
        "lean": -12.5,
        "right": 1,
        "battery": 47.25,
    }
    found = Decoder(read_layout(RALLY)).decode(car(7, values))
    assert found["speed"] == pytest.approx(45.0)
    assert (found["rpm"], found["lean"], found["battery"], found["frame"]) == (
        3000,
        -12.5,
        47.25,
        7,
    )
    assert found["throttle"] == pytest.approx(128 / 255)
    assert (found["left"], found["right"], found["lights"]) == (False, True, False)
    assert (found["slip"], found["track"], found["gear"]) == (
        [0.5, -0.25, 0.0, 1.5],
        "Kiln Pass",
        4,
    )
    told = Decoder(read_layout(RALLY)).decode(people("J\u00f8rn", "Bo"))
    assert told == {"driver": "J\u00f8rn", "mate": "Bo"}


def test_60_packets_a_second_drive_the_light_and_none_is_lost():
    """Each packet has the next speed: all are heard, in their order, and the light follows."""
    port, count = free_port(), 180
    lit = design(layer(colour="red", level="speed / 45"), signals={"speed": {"range": [0, 45]}})
    source = connect(lit, sources=[f"udp:{port},layout={RALLY}"]).sources["udp"]
    source.open(lit, lit.layout())
    heard, program = [], lit.compile()

    def send():
        with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
            start_s = time.monotonic()
            for number in range(count):
                there.sendto(car(number, {"speed": number / 4}), ("127.0.0.1", port))
                time.sleep(max(start_s + number / 60 - time.monotonic(), 0))

    threading.Thread(target=send, daemon=True).start()
    until_s = time.monotonic() + 20
    while len(heard) < count and time.monotonic() < until_s:
        heard += [(name, value) for name, value in source.read(0.1) if name in ("frame", "speed")][
            1::2
        ]
    source.close()
    speeds = [value for _, value in heard]
    assert speeds == pytest.approx([number / 4 for number in range(count)], rel=1e-5)
    assert (source.skipped, source.refused) == (0, 0)
    reds = [int(program.frame(speed=speed).rgb[0, 0]) for speed in speeds[:3] + speeds[-1:]]
    assert reds == sorted(reds)
    assert reds[-1] > 200


def test_shared_memory_is_read_and_stands_still_when_its_program_does(lit_by_speed):
    shared = Shared(f"fendra-test-{free_port()}")
    text = shared.start()
    source = connect(lit_by_speed, sources=[text.replace("rally.toml", str(RALLY))]).sources[
        "memory"
    ]
    try:
        shared.say(0.0, {"speed": 18.0})
        source.open(lit_by_speed, lit_by_speed.layout())
        first = dict(source.read(0.2))
        assert first["speed"] == pytest.approx(18.0)
        assert dict(source.read(0.2)) == {}  # its count stands still
        shared.say(1.0, {"speed": 27.0})
        assert dict(source.read(0.2))["speed"] == pytest.approx(27.0)
    finally:
        shared.close()
        source.close()
    with pytest.raises(fd.SourceError, match="is not there; is its program running"):
        source.open(lit_by_speed, lit_by_speed.layout())


@pytest.fixture
def lit_by_speed():
    return design(layer(level="speed / 45"), signals={"speed": {"range": [0, 45]}})


@pytest.mark.parametrize("name", ["../etc/passwd", "a/b", "a\0b"])
def test_memory_has_a_name_and_no_path(name, lit_by_speed):
    source = DRIVERS.from_table({"type": "memory", "address": name, "fields": {"a": {}}})
    with pytest.raises(fd.SourceError, match="is no name of memory"):
        source.open(lit_by_speed, lit_by_speed.layout())


NUMBERS = st.sampled_from(sorted(CODES))


@given(
    NUMBERS, st.sampled_from(sorted(SIGNS)), st.integers(0, 5), st.binary(min_size=14, max_size=14)
)
def test_any_bytes_are_the_number_that_struct_reads(kind, order, byte, data):
    (value,) = struct.unpack_from(SIGNS[order] + CODES[kind], data, byte)
    found = one(type=kind, order=order, byte=byte).decode(data)
    assert found == ({"a": float(value)} if math.isfinite(value) else {})


@given(st.binary(max_size=80))
def test_any_packet_gives_values_or_a_word(data):
    try:
        assert all(isinstance(name, str) for name in Decoder(read_layout(RALLY)).decode(data))
    except ValueError as exc:
        assert re.search(r"\d+ bytes", str(exc))  # noqa: PT017 - either is right


def test_guesses_find_what_the_simulator_sends_and_what_the_throttle_moves():
    """60 packets at rest, then 60 in which the throttle and the speed rise."""
    watched = Watched(60)
    for number in range(60):
        watched.take(car(number, {"battery": 47.0 + number % 3 / 7, "rpm": 900 + 20 * number}))
    watched.rest()
    for number in range(60):
        values = {"battery": 47.1, "rpm": 950, "throttle": number / 60, "speed": number / 3}
        watched.take(car(60 + number, values))
    found = {guess.byte: guess for guess in watched.guesses()}
    assert {byte: found[byte].type for byte in (8, 12, 14, 20, 44)} == {
        8: "f32",
        12: "u16",
        14: "u8",
        20: "f64",
        44: "text",
    }
    assert (found[12].order, found[44].now) == ("big", "Kiln Pass")
    assert found[8].high == pytest.approx(59 / 3 / 3.6)
    moved = {byte for byte, guess in found.items() if guess.moved > 0.2}
    assert moved - {4, 19} == {8, 14}  # 4 is the count of packets, 19 the gear


def test_check_tells_of_a_layout_that_is_missing_or_wrong(tmp_path):
    """Before the run: the place in the design, and the line of the layout."""
    path = tmp_path / "rig.toml"
    text = fd.demo_file("bare.toml").read_text(encoding="utf-8")
    path.write_text(
        f"{text}\n[sources.sim]\ntype = 'udp'\nlayout = 'game.toml'\n", encoding="utf-8"
    )
    checked, _ = check_on(path, None)
    assert "there is no file" in str(checked.findings[0])
    wrong = tmp_path / "game.toml"
    wrong.write_text("[[packet]]\n[packet.fields]\nrpm = { byte = 70000 }\n", encoding="utf-8")
    checked, _ = check_on(path, None)
    (finding,) = [each for each in checked.findings if each.severity == "error"]
    assert finding.path == ("sources", "sim")
    assert "game.toml:3: error: packet[1].fields.rpm.byte: 70000 is out of range" in finding.message


def test_a_run_hears_each_of_60_packets_a_second_and_its_light_follows():
    """120 packets in two seconds, the speed rising: all are heard, and red only grows."""
    port, count = free_port(), 120
    lit = design(layer(colour="red", level="speed / 45"), signals={"speed": {"range": [0, 45]}})
    connected = connect(lit, sources=[f"udp:{port},layout={RALLY}"], outputs=["memory:"])
    session = Session(lit.compile(), connected)
    running = threading.Thread(target=session.run, daemon=True)
    running.start()
    until(lambda: session.loop.stats.rendered > 2, "the first frames")
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as there:
        start_s = time.monotonic()
        for number in range(count):
            there.sendto(car(number, {"speed": 45 * number / (count - 1)}), ("127.0.0.1", port))
            time.sleep(max(start_s + (number + 1) / 60 - time.monotonic(), 0))
    until(lambda: session.inbox.heard["speed"].count == count, "every packet")
    until(lambda: session.loop.frame.rgb[0, 0] == 255, "full light")
    session.loop.stop()
    running.join(10)
    reds = [int(frame.rgb[0, 0]) for frame in connected.outputs["memory"].frames]
    rising = reds[: reds.index(255) + 1]
    assert rising == sorted(rising)
    assert len({*rising}) > 20
    assert connected.sources["udp"].skipped == 0
