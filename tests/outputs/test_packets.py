"""The serial stream: what is sent is what a receiver, written from the page alone, shows."""

from __future__ import annotations

import binascii
import re
from pathlib import Path

import pytest
from cobs import cobs
from hypothesis import given, settings
from hypothesis import strategies as st

import fendra as fd
from fendra.demo.controller import Receiver, crc16, unstuff
from fendra.outputs.packets import PIXELS, SHOW, checksum, frame_to_packets, packet

PAGE = Path(__file__).parents[2] / "docs" / "serial-protocol.md"

sizes = st.lists(st.integers(1, 120), min_size=1, max_size=5)


@st.composite
def streams(draw):
    """Line sizes and some frames that fit them."""
    leds = draw(sizes)
    frames = [
        [draw(st.binary(min_size=3 * n, max_size=3 * n)) for n in leds]
        for _ in range(draw(st.integers(1, 4)))
    ]
    return leds, frames


def test_both_checksums_have_the_check_value_of_the_standard():
    """CRC-16/CCITT-FALSE of "123456789" is 0x29B1."""
    assert checksum(b"123456789") == crc16(b"123456789") == 0x29B1


def test_the_page_s_example_is_what_is_sent():
    first, second = re.findall(r"stuffed\s+([0-9a-f ]+)\n", PAGE.read_text(encoding="utf-8"))
    sent = frame_to_packets(1, [bytes([0, 255, 0, 0, 0, 0])])
    assert sent == bytes.fromhex(first) + bytes.fromhex(second)


@given(st.binary(max_size=700))
def test_the_receiver_s_own_unstuffing_undoes_the_sender_s(content):
    assert unstuff(cobs.encode(content)) == content


@given(streams(), st.integers(0, 0xFFFF), st.integers(1, 50))
def test_the_stream_decodes_to_the_same_frames_in_pieces_of_any_size(stream, first, piece):
    leds, frames = stream
    receiver, shown = Receiver([3 * count for count in leds]), []
    for number, lines in enumerate(frames, start=first):
        sent = frame_to_packets(number, lines)
        for i in range(0, len(sent), piece):
            receiver.feed(sent[i : i + piece])
        shown.append(receiver.shown)
    assert shown == frames
    assert (receiver.frames, receiver.lost, receiver.damaged, receiver.incomplete) == (
        len(frames),
        0,
        0,
        0,
    )


def shown_by_the_book(leds: list[int], stream: bytes) -> list[list[bytes]]:
    """All frames that may be shown: another reading of the page, with other tools."""
    shown, waiting, waiting_number = [], {}, None
    for stuffed in stream.split(b"\0")[:-1]:
        try:
            content = cobs.decode(stuffed)
        except cobs.DecodeError:
            continue
        if len(content) < 6 or binascii.crc_hqx(content[:-2], 0xFFFF) != int.from_bytes(
            content[-2:], "little"
        ):
            continue
        kind, number, body = content[0], content[1:3], content[3:-2]
        if kind == PIXELS and body[0] < len(leds) and len(body) - 1 == 3 * leds[body[0]]:
            if number != waiting_number:
                waiting, waiting_number = {}, number
            waiting[body[0]] = body[1:]
        elif kind == SHOW:
            if number == waiting_number and len(waiting) == len(leds) == body[0]:
                shown.append([waiting[i] for i in range(len(leds))])
            waiting = {}
    return shown


damage = st.lists(
    st.tuples(st.sampled_from(["flip", "drop", "insert", "cut"]), st.floats(0, 1), st.integers(0, 255)),
    min_size=1, max_size=8,
)  # fmt: skip


@settings(max_examples=150)
@given(streams(), damage)
def test_a_damaged_stream_shows_no_bad_frame_and_falls_into_step_again(stream, hits):
    """Bytes flipped, dropped, inserted, cut off: only frames that pass their checksums are shown,
    and the first whole frame after the damage is."""
    leds, frames = stream
    sent = bytearray(b"".join(frame_to_packets(n, lines) for n, lines in enumerate(frames)))
    for how, where, byte in hits:
        i = min(int(where * len(sent)), len(sent) - 1) if sent else 0
        if how == "flip" and sent:
            sent[i] ^= byte
        elif how == "drop" and sent:
            del sent[i]
        elif how == "insert":
            sent.insert(i, byte)
        elif how == "cut":
            del sent[i : i + byte]
    after = [bytes(3 * n) for n in leds]
    sent += b"\0" + frame_to_packets(900, after)
    expected = shown_by_the_book(leds, bytes(sent))
    receiver, shown, seen = Receiver([3 * count for count in leds]), [], 0
    for i in range(len(sent)):
        receiver.feed(sent[i : i + 1])
        if receiver.frames > seen:
            seen = receiver.frames
            shown.append(receiver.shown)
    assert shown == expected
    assert shown[-1] == after


def test_lost_frames_are_counted_across_the_wrap():
    receiver = Receiver([3])
    for number in (65_534, 65_535, 0, 3):
        receiver.feed(frame_to_packets(number, [b"abc"]))
    assert (receiver.frames, receiver.lost) == (4, 2)


def test_a_frame_without_all_lines_is_not_shown():
    receiver = Receiver([3, 3])
    receiver.feed(packet(PIXELS, 1, b"\0abc") + packet(SHOW, 1, b"\2"))
    receiver.feed(
        packet(PIXELS, 2, b"\0abc") + packet(PIXELS, 3, b"\1abc") + packet(SHOW, 3, b"\2")
    )
    assert (receiver.shown, receiver.incomplete) == (None, 2)


def test_more_lines_than_the_stream_carries_are_refused():
    with pytest.raises(fd.OutputError, match="carries at most 255 lines"):
        frame_to_packets(0, [b"abc"] * 256)
