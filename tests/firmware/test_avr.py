"""The 8-bit parts as whole images in simavr: every kind of input on each, and what comes out."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from every_kind import assert_told, every_kind, happenings
from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.core.engines.c99.cost import most_baud
from fendra.core.layout.wire import LineBytes
from fendra.firmware.write import write_project
from fendra.outputs.packets import Answers, ask, frame_to_packets
from helpers import strip
from targets import AVR_HZ, assert_pulses, make

PINS = {
    "atmega328p": {
        "bar": ["D6"], "keys": ["D7"], "rpm": ["D2"], "throttle": ["D3"], "volume": ["D4", "D5"],
        "mode": ["D8"], "dial": ["A0"], "rows": ["D9", "D10"], "columns": ["A1", "A2", "D11"],
        "horn": ["D12"],
    },
    "atmega2560": {
        "bar": ["D22"], "keys": ["D23"], "rpm": ["D53"], "throttle": ["D52"], "volume": ["D51", "D50"],
        "mode": ["D10"], "dial": ["A1"], "rows": ["D48", "D49"], "columns": ["D2", "D3", "D38"],
        "horn": ["D30"],
    },
    "atmega32u4": {
        "bar": ["D6"], "keys": ["D7"], "rpm": ["PB1"], "throttle": ["PB2"], "volume": ["PB3", "D8"],
        "mode": ["D9"], "dial": ["A0"], "rows": ["D2", "D3"], "columns": ["A1", "A2", "D4"],
        "horn": ["D5"],
    },
}  # fmt: skip


def own(chip, pin):
    """The port and the place of a pin, as the emulator has them."""
    name = CONTROLLERS[chip].own_name(pin)
    return name[1], int(name[2:])


@pytest.mark.parametrize("chip", PINS)
def test_every_kind_of_input_tells_what_its_design_says(board, tmp_path, chip):
    """While it sends, an 8-bit part sees no edge: pulses of a servo are right all the same, and the
    number of slow ones is right to two in a hundred."""
    pins = PINS[chip]
    design = every_kind(chip, pins)
    project = design.firmware()
    assert project.notes == ()
    write_project(project.files, tmp_path)
    assert make(tmp_path).stderr == ""
    at = {pin: own(chip, pin) for each in pins.values() for pin in each}
    dial = next(
        each for each in project.files["board.c"].split("read_analogue(") if each[0].isdigit()
    )
    channel = int(dial.partition("u")[0])
    rows = []
    for ms, what, which, value in happenings(pins):
        cycle = round(ms / 1000 * AVR_HZ) + 1
        if what == "pin":
            rows.append(f"{cycle} pin {at[which][0]} {at[which][1]} {value}")
        elif what == "share":
            rows.append(f"{cycle} adc {channel % 32 + 8 * (channel >= 32)} {round(value * 5000)}")
        else:
            (row, column) = (at[pin] for pin in which)
            rows.append(f"{cycle} key {row[0]} {row[1]} {column[0]} {column[1]} {value}")
    rows.append(f"{round(1.3 * AVR_HZ)} end")
    (bar, bar_bit), (keys, keys_bit) = at[pins["bar"][0]], at[pins["keys"][0]]
    words = [f"mcu={chip}", f"out={bar}{bar_bit}:18", f"out={keys}{keys_bit}:20", "timed"]
    frames, pulses, _ = board(tmp_path / "every_kind.elf", words, "\n".join(rows).encode())
    assert_pulses(pulses)
    assert not frames["bytes"][0].any()
    assert_told(design, [(us / 1000, data.tobytes()) for us, data in frames], loose=0.02)


def receiver(folder, *, chip="atmega328p", pin="D6", leds=72, baud=500_000, effect="cloud"):
    """A receiver, built: its image, and the bytes of a frame."""
    design = fd.Design.from_values({
        "name": "far", "controllers": {"main": {"type": chip, "link": {"baud": baud}}},
        "line": [{"name": "a", "pin": pin, "part": [strip("a", leds)]}],
        "layer": [{"name": "own", "on": "all", "effect": effect, "colour": "#404040"}],
    })  # fmt: skip
    project = design.firmware(receiver=True)
    write_project(project.files, folder)
    assert make(folder).stderr == ""
    return folder / "far.elf", 3 * leds


class Sender:
    """What goes over the link: bytes, each behind the cycles to wait before it."""

    def __init__(self):
        self.given = bytearray()
        self.random = np.random.default_rng(5)
        self.sent = []

    def wait(self, seconds):
        """A zero after a while, as a sender begins."""
        self.put(b"\0", seconds * AVR_HZ, 0)

    def put(self, data, before, spacing):
        for place, byte in enumerate(data):
            wait = round(spacing if place else before)
            self.given += wait.to_bytes(4, "little") + bytes([byte])

    def frames(self, size, count, rate_hz, spacing):
        """So many frames, so often; each byte follows the one before after so many cycles."""
        for number in range(count):
            line = self.random.integers(0, 256, size, np.uint8).tobytes()
            packets = frame_to_packets(number, [line])
            took = spacing * (len(packets) - 1)
            self.put(packets, AVR_HZ / rate_hz - (took if number else 0), spacing)
            self.sent.append(line)


@pytest.mark.parametrize("rate_hz", [5, 10, 20, 30, 40, 60])
def test_a_receiver_takes_over_again_at_every_rate(board, tmp_path, rate_hz):
    """72 LEDs whose own light takes the part 40 ms a frame. After 1.5 s of it frames come: of two
    seconds of them all are shown but the first three at the most."""
    elf, size = receiver(tmp_path)
    sender, count = Sender(), max(2 * rate_hz, 14)
    sender.wait(1.5)
    sender.frames(size, count, rate_hz, 320)
    sender.put(ask(), AVR_HZ / rate_hz, 320)
    sender.wait(0.05)
    frames, pulses, back = board(elf, [f"out=D6:{size}", "serial"], bytes(sender.given))
    assert_pulses(pulses)
    shown = [data.tobytes() for data in frames["bytes"]]
    assert shown.index(sender.sent[3]) > 10  # its own light was there before
    assert shown[-len(sender.sent[3:]) :] == sender.sent[3:]
    (identity,) = Answers().feed(back)
    assert count - 3 <= identity.frames <= count


@pytest.mark.parametrize(
    ("chip", "pin", "out", "uart", "leds"),
    [("atmega328p", "D6", "D6", 0, 300), ("atmega2560", "D22", "A0", 0, 900),
     ("atmega32u4", "D6", "D7", 1, 300)],
)  # fmt: skip
def test_a_receiver_takes_bytes_as_fast_as_it_is_told(board, tmp_path, chip, pin, out, uart, leds):
    """Long lines, so that no buffer helps; at the highest rate that `check` tells, and slower."""
    elf, size = receiver(tmp_path, chip=chip, pin=pin, leds=leds, baud=1_000_000, effect="solid")
    kind = CONTROLLERS[chip]
    fastest = kind.mhz * 1e6 * 10 / most_baud(kind)
    for spacing in (fastest, 320, 700):
        sender = Sender()
        sender.wait(0.02)
        sender.frames(size, 5, 1 / (size * (spacing + 160) * 1.1 / AVR_HZ + 0.001), spacing)
        sender.wait(0.2)
        words = [f"mcu={chip}", f"uart={uart}", f"out={out}:{size}", "serial"]
        frames, _, _ = board(elf, words, bytes(sender.given))
        assert [data.tobytes() for data in frames["bytes"][1:]] == sender.sent


def test_noise_does_not_keep_the_own_light_away(board, tmp_path):
    """Bytes that are no frame, without a break: the light stands still for half a second of every two
    and a half at the most."""
    elf, size = receiver(tmp_path, leds=6, effect="cloud")
    sender = Sender()
    sender.wait(1.2)
    sender.put(bytes(sender.random.integers(0, 256, 60_000, np.uint8)), 960, 960)
    frames, _, _ = board(elf, [f"out=D6:{size}", "serial"], bytes(sender.given))
    began = frames["us"][frames["us"] > 1_300_000] / 1e6
    pauses = np.diff(began)
    assert pauses.max() < 0.5
    assert (pauses > 0.1).sum() <= 3
    assert len(began) > 50 * 0.7 * (began[-1] - began[0])


def test_the_smallest_part_shows_its_film_as_well(board, tmp_path):
    """An ATtiny85: one line, a voltage and a switch, a second of it."""
    design = fd.Design.from_values({
        "name": "tiny", "controllers": {"main": {"type": "attiny85"}},
        "line": [{"name": "a", "pin": "PB0", "part": [strip("a", 9)]}],
        "signals": {"dial": {"range": [0, 1], "pin": "PB4"},
                    "on": {"kind": "switch", "pin": {"name": "PB3", "pull": "none"}}},
        "layer": [{"name": "x", "on": "all", "effect": "sweep", "level": "0.2 + dial / 2",
                   "colour": "#4080ff"},
                  {"name": "y", "on": "a[4]", "effect": "solid", "colour": "red", "when": "on"}],
    })  # fmt: skip
    project = design.firmware()
    write_project(project.files, tmp_path)
    assert make(tmp_path).stderr == ""
    rows = ["1 pin B 3 0", "1 adc 2 2000", f"{8_000_000} pin B 3 1", f"{16_000_000} end"]
    words = ["mcu=attiny85", "out=B0:27", "timed"]
    frames, pulses, _ = board(tmp_path / "tiny.elf", words, "\n".join(rows).encode())
    assert_pulses(pulses)
    program = design.compile(engine="numpy")
    dial = float(np.float32(2000 * 1023 // 5000) * np.float32(1 / 1023))
    wire, rgb = LineBytes(program.layout, design), np.empty((9, 3), np.uint8)

    def film(start_ms):
        program.engine.reset()
        found = []
        for number in range(len(frames) - 1):
            on = float(frames["us"][number + 1] >= 500_500)
            program.engine.frame(start_ms + 20 * number, {"dial": dial, "on": on}, rgb)
            found.append(b"".join(wire.bytes(rgb)))
        return found

    shown = [data.tobytes() for data in frames["bytes"][1:]]
    assert len(shown) > 45
    assert shown in [film(start_ms) for start_ms in range(4)]


def test_a_servo_that_is_not_plugged_in_costs_no_frames(board, tmp_path):
    """Its pin is high then. A second after power-up there is one frame every 20 ms, but for one a second."""
    design = fd.Design.from_values({
        "name": "bare", "controllers": {"main": {"type": "atmega328p"}},
        "line": [{"name": "a", "pin": "D6", "part": [strip("a", 4)]}],
        "signals": {"s": {"range": [0, 1], "lost_after": 0.5, "pin": {"name": "D3", "kind": "servo"}}},
        "layer": [{"name": "x", "on": "all", "effect": "solid", "level": "s"}],
    })  # fmt: skip
    project = design.firmware()
    write_project(project.files, tmp_path)
    assert make(tmp_path).stderr == ""
    rows = ["1 pin D 3 1", f"{round(4 * AVR_HZ)} end"]
    frames, _, _ = board(tmp_path / "bare.elf", ["out=D6:12", "timed"], "\n".join(rows).encode())
    began = frames["us"][frames["us"] > 1_200_000] / 1000
    late = np.abs(np.diff(began) - 20) > 1.5
    assert len(began) > 0.95 * (began[-1] - began[0]) / 20
    assert late.sum() <= 6
