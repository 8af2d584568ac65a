"""The firmware of an RP2040 as a whole image in an emulator of the chip: what its pins are told, and
what comes out of them."""

from __future__ import annotations

import sys

import numpy as np
import pytest

import fendra as fd
from every_kind import assert_told, every_kind, happenings
from fendra.core.layout.wire import LineBytes
from fendra.firmware.write import write_project
from fendra.outputs.packets import Answers, ask, frame_to_packets
from helpers import strip
from rp2040 import MODULE, emulate, outs_of, uf2_of
from targets import film_of, make, project_of

TOLERANCE_NS = {"zero": (250, 380), "one": (650, 750), "bit": (1225, 1275)}
"""What every one-wire type takes: see docs/firmware.md."""


@pytest.fixture(scope="module", autouse=True)
def rp2040(need, arm):
    need([] if MODULE.exists() else ["rp2040js"], "npm; then npm ci in web/")


def frames_of(board):
    """The bytes of all lines, frame after frame, and when each began, ms. Its pulses are right."""
    for line in board["lines"]:
        for what, (low, high) in TOLERANCE_NS.items():
            shortest, longest = line["pulses"][what]
            assert longest == 0 or low <= shortest <= longest <= high, what
    rows = zip(*(line["frames"] for line in board["lines"]), strict=True)
    return [(row[0][0] / 1000, b"".join(bytes.fromhex(data) for _, data in row)) for row in rows]


def test_what_leaves_the_pins_is_the_film_on_every_line_at_once(tmp_path):
    """Heron hears nothing: two seconds of its light, 50 frames a second, dark first, all three lines
    in the same microseconds."""
    project = project_of("heron", None)
    assert project.chip.name == "rp2040"
    (board,) = emulate({"uf2": str(uf2_of(project, tmp_path)), "outs": outs_of(project)}, seconds=2)
    frames = frames_of(board)
    assert not any(frames[0][1])
    assert frames[0][0] < 40
    assert np.diff([ms for ms, _ in frames[1:]]) == pytest.approx(20, abs=1.1)
    assert len(frames) in (100, 101)
    starts = np.array([[us for us, _ in line["frames"]] for line in board["lines"]])
    assert np.ptp(starts, axis=0).max() < 5
    design, _ = film_of("heron")
    program = design.compile(engine="numpy")
    wire, rgb = LineBytes(program.layout, design), np.empty((158, 3), np.uint8)

    def film(start_ms):
        program.engine.reset()
        found = []
        for number in range(len(frames) - 1):
            program.engine.frame(start_ms + 20 * number, {}, rgb)
            found.append(b"".join(wire.bytes(rgb)))
        return found

    shown = [data for _, data in frames[1:]]
    assert any(any(data) for data in shown)
    assert shown in [film(start_ms) for start_ms in range(4)]


PINS = {
    "bar": ["GP2"], "keys": ["GP9"], "rpm": ["GP10"], "throttle": ["GP11"], "volume": ["GP12", "GP13"],
    "mode": ["GP14"], "dial": ["GP27"], "rows": ["GP16", "GP17"], "columns": ["GP18", "GP19", "GP20"],
    "horn": ["GP22"],
}  # fmt: skip


def test_every_kind_of_input_tells_what_its_design_says(tmp_path):
    """And the thermometer: count 848 of 4095 is 40.2 degrees."""
    design = every_kind(
        "rp2040", PINS, {"heat": {"range": [0, 100], "pin": {"kind": "temperature"}}}
    )
    project = design.firmware()
    events = [
        [ms * 1000, what, *([[which[0], which[1]], value] if what == "key" else [which, value])]
        for ms, what, which, value in happenings(
            {name: [int(pin.removeprefix("GP")) for pin in pins] for name, pins in PINS.items()}
        )
    ]
    events = [[us, "adc", 1, round(value * 4095)] if what == "share" else [us, what, which, value]
              for us, what, which, value in events]  # fmt: skip
    (board,) = emulate(
        {"uf2": str(uf2_of(project, tmp_path)), "outs": outs_of(project),
         "events": [[0, "adc", 4, 848], *events]}, seconds=1.3,
    )  # fmt: skip
    shown = assert_told(design, frames_of(board))
    assert shown[1, 1] == pytest.approx(0.402, abs=0.006)


def test_a_receiver_shows_what_comes_over_its_uart_answers_and_is_alone_after_a_second(tmp_path):
    project = project_of("heron", "rp2040", receiver=True)
    random, sent, events, at_us = np.random.default_rng(3), [], [], 50_000.0

    def put(data, pause_us):
        nonlocal at_us
        at_us += pause_us
        for byte in data:
            events.append([at_us, "byte", 0, byte])
            at_us += 20  # 500,000 baud

    put(b"\0", 0)
    for number in range(10):
        lines = [random.integers(0, 256, size, np.uint8).tobytes() for size in (168, 216, 90)]
        sent.append(b"".join(lines))
        put(frame_to_packets(number, lines), 200)
    put(ask(), 5000)
    (board,) = emulate(
        {"uf2": str(uf2_of(project, tmp_path)), "outs": outs_of(project), "events": events},
        seconds=1.4,
    )
    frames = frames_of(board)
    assert board["bauds"][-1] == [0, 500_000]
    assert [data for _, data in frames[1:11]] == sent
    (identity,) = Answers().feed(bytes(byte for _, byte in board["sent"][0]))
    assert (identity.name, identity.sizes, identity.frames) == ("Heron", (168, 216, 90), 10)
    assert 990 < frames[11][0] - frames[10][0] < 1050
    assert any(any(data) for _, data in frames[11:])


def test_a_board_that_hangs_begins_anew_dark_after_two_seconds(tmp_path):
    design = fd.Design.from_values({
        "name": "hangs", "controllers": {"main": {"type": "rp2040"}},
        "line": [{"name": "a", "pin": "GP7", "part": [strip("a", 4)]}],
        "layer": [{"name": "x", "on": "all", "effect": "solid", "colour": "#204060"}],
    })  # fmt: skip
    project = design.firmware()
    (board,) = emulate(
        {"uf2": str(uf2_of(project, tmp_path)), "outs": outs_of(project),
         "events": [[100_000, "stop", 0, 0]]}, seconds=2.4,
    )  # fmt: skip
    assert [round(us / 1e6, 2) for us in board["powered"]] == [0, 2.1]
    frames = frames_of(board)
    after = [data for ms, data in frames if ms > 200]
    assert not any(after[0])
    assert any(after[1])


def test_clocked_leds_come_by_spi(tmp_path):
    """32 zero bits; each LED: a byte of full level, then blue, green, red; zeros at the end."""
    design = fd.Design.from_values({
        "name": "clocked", "controllers": {"main": {"type": "rp2040"}},
        "line": [
            {"name": "a", "pin": "GP2", "part": [strip("a", 3)]},
            {"name": "b", "pin": "GP11", "clock": "GP10", "led": "apa102", "part": [strip("b", 2)]},
        ],
        "layer": [{"name": "x", "on": "all", "effect": "solid", "colour": "rgb(1, 0.5, 0)"}],
    })  # fmt: skip
    project = design.firmware()
    assert ("GP10", "line b: clock") in project.pins
    (board,) = emulate({"uf2": str(uf2_of(project, tmp_path)), "outs": outs_of(project)[:1]},
                       seconds=0.05)  # fmt: skip
    sent = bytes(board["spi"][1])
    size = 4 + 2 * 4 + 5  # half a bit for each LED, and 32 more
    dark, lit = sent[:size], sent[size : 2 * size]
    assert dark[:12] == bytes([0, 0, 0, 0, 255, 0, 0, 0, 255, 0, 0, 0])
    assert lit[:12] == bytes([0, 0, 0, 0, 255, 0, 128, 255, 255, 0, 128, 255])
    assert not any(lit[12:])


@pytest.mark.parametrize(("clock", "words"), [("GP6", "cannot do it"), ("GP10", None)])
def test_pins_of_a_clocked_line_belong_together(clock, words):
    design = fd.Design.from_values({
        "name": "clocked", "controllers": {"main": {"type": "rp2040"}},
        "line": [{"name": "b", "pin": "GP11", "clock": clock, "led": "apa102",
                  "part": [strip("b", 2)]}],
    })  # fmt: skip
    if words is None:
        assert design.firmware().notes == ()
        return
    with pytest.raises(fd.FendraError, match=words):
        design.firmware()


def test_zig_builds_the_image_where_the_usual_compiler_is_not_there(tmp_path):
    """Its image shows the bytes that the other one's does."""
    project = project_of("heron", "rp2040")
    shown = []
    for name, words in (("gcc", ()), ("zig", ("USE_ZIG=1", f"ZIG={sys.executable} -m ziglang"))):
        write_project(project.files, tmp_path / name)
        make(tmp_path / name, *words)
        image = tmp_path / name / "heron.uf2"
        (board,) = emulate({"uf2": str(image), "outs": outs_of(project)}, seconds=0.5)
        shown.append([[data for _, data in line["frames"]] for line in board["lines"]])
    assert shown[0] == shown[1]
    assert len(shown[0][0]) > 24


@pytest.mark.parametrize("name", ["stm32f103", "stm32f405"])
def test_zig_builds_for_other_processors_as_well(tmp_path, name):
    project = project_of("swift", name)
    write_project(project.files, tmp_path)
    make(tmp_path, "USE_ZIG=1", f"ZIG={sys.executable} -m ziglang")
    stack, reset = np.frombuffer((tmp_path / "swift.bin").read_bytes()[:8], "<u4")
    assert stack in (0x2000_5000, 0x2002_0000)
    assert 0x0800_0000 < reset < 0x0801_0000
