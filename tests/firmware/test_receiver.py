"""The device side of the serial protocol in C: what it takes, what it answers, when it is alone."""

from __future__ import annotations

import json
import subprocess
import time

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

import fendra as fd
from fendra.core.layout.wire import bytes_of_lines
from fendra.demo.controller import Receiver, report
from fendra.firmware.project import make_project
from fendra.outputs.packets import Answers, ask, frame_to_packets, packet
from helpers import strip
from targets import SANE

SIZES = (9, 12, 780)
VALUES = {
    "name": "Größe",
    "line": [
        {"name": "a", "part": [strip("a", 3)]},
        {"name": "b", "led": "sk6812-rgbw", "part": [strip("b", 3)]},
        {"name": "c", "part": [strip("c", 260)]},
    ],
    "signals": {"s": {"lost_after": 1.0}},
    "layer": [
        {"name": "alone", "on": "a", "effect": "solid", "colour": "red", "when": "lost(s)"}
    ],
}  # fmt: skip


@pytest.fixture(scope="module")
def project():
    return make_project(fd.Design.from_values(VALUES).examined.sound, "generic", is_receiver=True)


@pytest.fixture(scope="module")
def receiver(compiler, project, tmp_path_factory):
    """The receiver compiled for this computer, with the sanitisers."""
    folder = tmp_path_factory.mktemp("receiver")
    for path, text in project.files.items():
        (folder / path).parent.mkdir(exist_ok=True)
        (folder / path).write_text(text, encoding="utf-8")
    sources = ["main.c", f"{project.name}.c", f"{project.name}_receiver.c", "host/board.c"]
    command = [*compiler.command, "-std=c99", *SANE, "-Wall", "-Wextra", "-Wconversion", "-Werror",
               "-ffp-contract=off", f"-I{folder}", *(folder / each for each in sources),
               "-o", folder / "receiver", "-lm"]  # fmt: skip
    done = subprocess.run([*map(str, command)], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    return folder / "receiver"


def played(receiver, stream):
    """What it says at the end of a stream, and what it has answered."""
    done = subprocess.run([receiver], input=stream, capture_output=True, timeout=60, check=False)
    assert done.returncode == 0, done.stderr.decode()
    return json.loads(done.stderr), done.stdout


def lines(value):
    return [bytes([value]) * size for size in SIZES]


def test_a_frame_is_shown_whole_and_its_bytes_are_those_that_were_sent(receiver):
    random = np.random.default_rng(1)
    sent = [random.integers(0, 256, size, np.uint8).tobytes() for size in SIZES]
    seen, _ = played(receiver, b"\0" + frame_to_packets(0, lines(7)) + frame_to_packets(1, sent))
    assert seen == {"frames": 2, "lost": 0, "incomplete": 0, "damaged": 0,
                    "lines": [line.hex() for line in sent]}  # fmt: skip


def test_it_is_dark_until_the_first_frame(receiver):
    seen, _ = played(receiver, b"\0\0")
    assert seen["frames"] == 0
    assert seen["lines"] == ["00" * size for size in SIZES]


@pytest.mark.parametrize(
    ("what", "stream", "counts"),
    [
        ("a jump in numbers", [(0, 3), (5, 3)], {"frames": 2, "lost": 4}),
        ("over the end of numbers", [(65535, 3), (0, 3)], {"frames": 2, "lost": 0}),
        ("a line is missing", [(0, 2)], {"frames": 0, "incomplete": 1}),
        ("a whole frame after it", [(0, 2), (1, 3)], {"frames": 1, "incomplete": 1}),
    ],
)
def test_what_is_missing_is_counted(receiver, what, stream, counts):
    data = b""
    for number, count in stream:
        data += b"".join(packet(0x11, number, bytes([i]) + lines(9)[i]) for i in range(count))
        data += packet(0x12, number, bytes([3]))
    seen, _ = played(receiver, data)
    assert seen | counts == seen, what


BROKEN = st.tuples(
    st.integers(0, 6),
    st.lists(st.tuples(st.integers(0, 4000), st.integers(0, 255)), max_size=6),
    st.lists(st.integers(0, 4000), max_size=3),
    st.binary(max_size=40),
)


@settings(max_examples=60)
@given(BROKEN)
def test_whatever_comes_it_counts_and_shows_what_the_stand_in_in_python_does(receiver, broken):
    """Two programs, both written from the page on the protocol: bytes changed, left out, put in."""
    first, changes, cuts, noise = broken
    data = bytearray(b"".join(frame_to_packets(first + i, lines(i + 1)) for i in range(4)))
    for place, value in changes:
        data[place % len(data)] = value
    for place in sorted(cuts, reverse=True):
        del data[place % len(data)]
    data[len(data) // 2 : len(data) // 2] = noise
    other = Receiver(SIZES)
    other.feed(bytes(data))
    wanted = report(other)
    wanted["lines"] = wanted["lines"] or ["00" * size for size in SIZES]
    seen, _ = played(receiver, bytes(data))
    assert seen == wanted


def test_it_says_who_it_is(receiver, project):
    stream = frame_to_packets(0, lines(1)) + b"\1\1\0" + ask()
    _, answer = played(receiver, stream)
    (identity,) = Answers().feed(answer)
    assert (identity.name, identity.sizes, identity.frames, identity.damaged) == (
        "Größe", SIZES, 1, 1,
    )  # fmt: skip
    assert f"DESIGN_HASH 0x{identity.design_hash:08x}u" in project.emitted.header


def test_the_stand_in_in_python_says_so_too():
    other = Receiver(SIZES)
    other.feed(ask())
    (identity,) = Answers().feed(other.answer)
    assert (identity.name, identity.sizes) == ("stand-in", SIZES)


def alone(receiver, wait_s, before=b"", after=b""):
    """What it says of itself when nothing comes for so long, between this and that."""
    with subprocess.Popen(
        [receiver], stdin=subprocess.PIPE, stderr=subprocess.PIPE, stdout=subprocess.PIPE
    ) as process:
        process.stdin.write(before)
        process.stdin.flush()
        time.sleep(wait_s)
        process.stdin.write(after)
        process.stdin.close()
        return json.loads(process.stderr.read())


def test_alone_for_a_second_it_shows_the_light_of_the_design_and_goes_back_when_frames_come(
    receiver,
):
    """Red, as the design is when nothing is heard, never before a second has passed. A busy machine
    may need longer for that second: then it waits longer, too."""
    frame = frame_to_packets(0, lines(5))
    assert alone(receiver, 0.3, frame)["lines"] == [line.hex() for line in lines(5)]
    for wait_s in (1.3, 3.0, 9.0):
        seen = alone(receiver, wait_s, frame)
        if seen["lines"][0] == "00ff00" * 3:
            break
    assert (seen["lines"][0], seen["frames"]) == ("00ff00" * 3, 1)
    assert alone(receiver, wait_s, after=frame)["lines"] == [line.hex() for line in lines(5)]


def slowly(receiver, data):
    """What it says of bytes that come in pieces while it is alone; and the longest pause between
    two, and how long it took, as the sender saw them, s."""
    with subprocess.Popen(
        [receiver], stdin=subprocess.PIPE, stderr=subprocess.PIPE, stdout=subprocess.PIPE
    ) as process:
        time.sleep(1.5)
        moments = []
        for start in range(0, len(data), 60):
            process.stdin.write(data[start : start + 60])
            process.stdin.flush()
            moments.append(time.monotonic())
            time.sleep(0.006)
        process.stdin.close()
        seen = json.loads(process.stderr.read())
    return seen, max(np.diff(moments)), moments[-1] - moments[0]


def test_a_frame_that_comes_slowly_is_not_painted_over(receiver):
    """At 100,000 baud it takes four periods of the receiver's own light, which waits for it. A pause of
    20 ms is the end of it; so where the machine made the sender pause, it tries again."""
    for _ in range(20):
        seen, pause_s, all_s = slowly(receiver, frame_to_packets(0, lines(5)))
        if pause_s < 0.015 and all_s < 0.25:
            break
    else:
        pytest.fail("this machine is too busy to send a byte every 15 ms")
    assert (seen["frames"], seen["lines"]) == (1, [line.hex() for line in lines(5)])


def test_bytes_of_lines_are_as_the_wire_takes_them(project):
    rgb = np.arange(3 * 266, dtype=np.uint8).reshape(-1, 3)
    data = bytes_of_lines(project.plan.wires, rgb)
    assert [*map(len, (data[:9], data[9:21], data[21:]))] == [*SIZES]
    assert data[:3] == bytes([1, 0, 2])
    assert data[9:13] == bytes([1, 0, 2, 9])  # 9, 10, 11: all have 9 in common
