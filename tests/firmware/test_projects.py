"""Whole projects: they build without a warning, and on the emulated controller light comes out of pins."""

from __future__ import annotations

import re
import subprocess
from pathlib import Path

import numpy as np
import pytest

import fendra as fd
from fendra.core.errors import FirmwareError
from fendra.core.layout.wire import LineBytes
from fendra.firmware import project as project_module
from fendra.firmware.chips import CHIPS
from fendra.firmware.project import make_project
from fendra.firmware.write import write_project
from fendra.outputs.packets import Answers, ask, frame_to_packets
from helpers import strip
from targets import TAPES, assert_pulses, make, project_of

STRICT = "-Wall -Wextra -Wconversion -Wshadow -Wstrict-prototypes -Werror"


@pytest.mark.parametrize(
    ("name", "receiver"), [("swift", True), ("drone", False), ("heron", False), ("heron", True)]
)
def test_the_project_for_an_atmega328p_builds_without_a_warning(avr, tmp_path, name, receiver):
    project = project_of(name, "avr", receiver=receiver)
    write_project(project.files, tmp_path)
    done = make(tmp_path, f"AVR_CFLAGS=-mmcu=atmega328p -DF_CPU=16000000UL -std=gnu99 -Os "
                f"-mcall-prologues -ffp-contract=off {STRICT}")  # fmt: skip
    assert done.stderr == ""
    assert (tmp_path / f"{project.name}.hex").stat().st_size > 10_000


@pytest.mark.parametrize(
    ("name", "receiver"),
    [("swift", False), ("drone", True), ("heron", False), ("heron", True), ("pad", False)],
)
def test_the_project_for_an_stm32f103_builds_without_a_warning(arm, tmp_path, name, receiver):
    project = project_of(name, "arm", receiver=receiver)
    write_project(project.files, tmp_path)
    flags = "-mcpu=cortex-m3 -mthumb -std=c99 -Os -ffp-contract=off -ffreestanding"
    done = make(tmp_path, f"ARM_CFLAGS={flags} {STRICT}")
    assert done.stderr == ""
    image = (tmp_path / f"{project.name}.bin").read_bytes()
    stack, reset = np.frombuffer(image[:8], "<u4")
    assert stack == 0x2000_5000  # the end of 20 KB of RAM
    assert 0x0800_0000 < reset < 0x0800_0000 + len(image)


@pytest.mark.parametrize(
    ("name", "receiver"),
    [(name, receiver) for name, chip in CHIPS.items() for receiver in (False, True)
     if (chip.serial or not receiver) and chip.words["tool"] != "idf.py"],
)  # fmt: skip
def test_every_chip_of_the_table_builds_with_all_that_it_can_do(avr, arm, tmp_path, name, receiver):
    """Three lines of one-wire data, clocked LEDs, a voltage, a switch and an event."""
    chip = CHIPS[name]
    links = {pin for link in chip.serial for pin in (link.tx, link.rx)}
    clocks = {data: clock for data, (clock, _) in (chip.clocked or {}).items()}
    clocked = next((pin for pin in chip.inputs[5:] if chip.clocked is None or pin in clocks), None)
    clock = clocks.get(clocked) or next((pin for pin in chip.inputs[6:] if pin != clocked), None)
    data = [pin for pin in chip.outputs if pin not in {*links, clocked, clock}]
    data = data[: 3 if clocked else 2]
    analogue = next(pin for pin in chip.channels if pin not in {*data, clocked, clock})
    others = [pin for pin in chip.inputs if pin not in {*data, *links, analogue, clocked, clock}]
    hit, switch = others[:2]
    design = fd.Design.from_values({
        "name": "All of it", "controllers": {"main": {"type": name}},
        "line": [
            {"name": f"line {pin}", "pin": pin, "part": [strip(f"part {pin}", 3)]} for pin in data
        ] + ([{"name": "clocked", "led": "apa102", "pin": clocked, "clock": clock,
               "part": [strip("last", 5)]}] if clocked else []),
        "signals": {
            "dial": {"pin": analogue}, "hit": {"kind": "event", "pin": hit},
            "on": {"kind": "switch", "pin": {"name": switch, "pull": "none"}},
        },
        "layer": [{"name": "x", "on": "all", "effect": "ripple", "trigger": "hit", "level": "dial",
                   "when": "on"}],
    })  # fmt: skip
    project = design.firmware(name, receiver=receiver)
    assert project.notes == ()
    write_project(project.files, tmp_path)
    assert make(tmp_path).stderr == ""
    assert (tmp_path / f"{project.name}.{chip.words['product']}").stat().st_size > 2000


def test_a_chip_without_a_serial_link_is_told():
    design = fd.Design.from_values({"name": "a", "line": [{"name": "a", "part": [strip("b", 3)]}]})
    with pytest.raises(FirmwareError, match="an ATtiny85 at 16 MHz has no serial link"):
        design.firmware("attiny85", receiver=True)


def test_no_template_knows_a_chip_by_name():
    """What differs from chip to chip is in the table."""
    pages = list(Path(project_module.__file__).parent.rglob("*.j2"))
    assert len(pages) > 10
    for page in pages:
        text = page.read_text(encoding="utf-8").casefold()
        assert not [name for name in CHIPS if name in text], page


@pytest.mark.parametrize("name", TAPES)
def test_what_is_tried_on_the_computer_is_the_film(compiler, tmp_path, name):
    """`make check` runs the tape through the same C and compares it with the film's checksum."""
    project = project_of(name, "generic")
    write_project(project.files, tmp_path)
    flags = f"HOST_CFLAGS=-std=c99 -O1 -ffp-contract=off -I. {STRICT}"
    done = make(tmp_path, "check", f"CC={' '.join(compiler.command)}", flags)
    assert "identical to the film, byte for byte" in done.stderr
    tape = tmp_path / "host" / "tape.txt"
    rows = tape.read_text().splitlines()
    rows[-40] = rows[-40].split(" ")[0]  # what was heard then is not
    rows[20:30] = []
    tape.write_text("\n".join(rows))
    program = [tmp_path / f"{project.name}-try", "--check", tape]
    done = subprocess.run(program, capture_output=True, text=True, check=False)
    assert done.returncode == 1
    assert "DIFFER" in done.stderr


def test_shown_in_the_terminal_every_line_is_there(compiler, tmp_path):
    swift = fd.load(fd.demo_file("swift.toml"))
    tape = fd.read_tape(fd.demo_file("glide.csv")).until(0.2)
    project = make_project(swift.examined.sound, "generic", tape=tape)
    write_project(project.files, tmp_path)
    done = make(tmp_path, "try")
    assert done.stdout.count("wings") == done.stdout.count("belly") == 11
    assert "\x1b" not in done.stdout  # a pipe is no terminal
    assert len(re.findall(r" [0-9a-f]{6}\b", done.stdout)) == 11 * 40


def test_a_board_that_is_not_filled_in_does_not_compile(compiler, tmp_path):
    write_project(project_of("heron", "generic").files, tmp_path)
    done = subprocess.run(
        [*compiler.command, "-c", tmp_path / "board.c", "-o", tmp_path / "x"],
        capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert done.returncode != 0
    assert "fill in board.c" in done.stderr


def test_what_comes_out_of_the_pins_is_the_film_of_what_went_in(board, tmp_path):
    """Switches and voltages in, pulses out, each measured; 50 frames a second, dark at first."""
    project = project_of("swift", "avr")
    write_project(project.files, tmp_path)
    make(tmp_path)
    swift, glide = fd.load(fd.demo_file("swift.toml")), fd.read_tape(fd.demo_file("glide.csv"))
    program = swift.compile(engine="numpy")
    values, _ = glide.heard(program.fed, np.arange(250) / 12.5)  # the tape runs four times as fast
    given = np.zeros(250, [("level", "u1", (2,)), ("mv", "<u2", (3,))])
    given["level"] = values[:, :2] < 0.5  # pulled up: on at ground
    given["mv"] = np.rint(values[:, 2:] * 5000)
    words = ["out=D6:84", "out=D7:36", "in=D2", "in=D3", "adc=0", "adc=1", "adc=2"]
    frames, pulses, _ = board(tmp_path / "swift.elf", words, given.tobytes())
    assert_pulses(pulses)
    assert not frames["bytes"][0].any()
    assert frames["us"][0] < 1000
    took_us = int(frames["us"][-1]) - int(frames["us"][2])
    assert took_us == pytest.approx(
        20_000 * (len(frames) - 3), abs=2500
    )  # none came twice, or never
    counts = given["mv"].astype(np.uint32) * 1023 // 5000
    shares = counts.astype(np.float32) * np.float32(1.0 / 1023.0)
    wire, rgb = LineBytes(program.layout, swift), np.empty((40, 3), np.uint8)
    for number, frame in enumerate(frames["bytes"][1:]):
        news = [*(1.0 - given["level"][number]), *shares[number]]
        heard = dict(zip(program.fed, map(float, news), strict=True))
        program.engine.frame(1 + 20 * number, heard, rgb)
        assert frame.tobytes() == b"".join(wire.bytes(rgb)), number
    assert number == 249


def test_a_receiver_on_an_8_bit_part_shows_what_is_sent_and_answers(board, tmp_path):
    """At 500,000 baud, a pause after each frame; a second after the last one it is alone."""
    project = project_of("swift", "avr", receiver=True)
    write_project(project.files, tmp_path)
    make(tmp_path)
    random, sent, given = np.random.default_rng(2), [], bytearray()

    def put(data, pause):
        for place, byte in enumerate(data):
            given.extend((320 if place else pause).to_bytes(4, "little") + bytes([byte]))

    put(b"\0", 200_000)
    for number in range(20):
        lines = [random.integers(0, 256, size, np.uint8).tobytes() for size in (84, 36)]
        sent.append(b"".join(lines))
        put(frame_to_packets(number, lines), 100_000)
    put(ask(), 100_000)
    put(b"\0\0", 16_000_000 * 3 // 2)
    words = ["out=D6:84", "out=D7:36", "serial"]
    frames, pulses, back = board(tmp_path / "swift.elf", words, bytes(given))
    assert_pulses(pulses)
    (identity,) = Answers().feed(back)
    assert (identity.name, identity.sizes, identity.frames) == ("Swift", (84, 36), 20)
    assert not frames["bytes"][0].any()
    assert [frame.tobytes() for frame in frames["bytes"][1:21]] == sent
    alone = frames[21:]
    assert 1.0 < (int(alone["us"][0]) - int(frames["us"][20])) / 1e6 < 1.05
    assert alone["bytes"].any()


def test_what_was_changed_by_hand_stays(tmp_path):
    files = {"board.c": "one", "host/main.c": "two"}
    assert write_project(files, tmp_path).kept == ()
    (tmp_path / "board.c").write_text("mine")
    written = write_project({"board.c": "three", "host/main.c": "four"}, tmp_path)
    assert written.kept == ("board.c",)
    assert (tmp_path / "board.c").read_text() == "mine"
    assert (tmp_path / "board.c.new").read_text() == "three"
    assert (tmp_path / "host" / "main.c").read_text() == "four"
    write_project({"board.c": "five", "host/main.c": "four"}, tmp_path)
    assert (tmp_path / "board.c").read_text() == "mine"


PINS = {
    "name": "pins",
    "controllers": {"main": {"type": "atmega328p"}},
    "line": [{"name": "a", "pin": "D6", "part": [strip("a", 4)]}],
    "signals": {
        "ground": {"kind": "switch", "pin": "D2"},
        "driven": {"kind": "switch", "pin": {"name": "D3", "pull": "none"}},
        "hit": {"kind": "event", "pin": "D4"},
        "dial": {"pin": "A1"},
        "bus": {},
    },
    "layer": [{"name": "x", "on": "a", "effect": "solid", "level": "dial",
               "when": "ground or driven or bus > 0.5 or starts(pulse(hit, 0.1))"}],
}  # fmt: skip


def pinned(**changes):
    values = {**PINS, "signals": {**PINS["signals"], **changes}}
    return make_project(fd.Design.from_values(values).examined.sound)


def test_every_kind_of_input_is_read_from_its_pin():
    text = pinned().files["board.c"]
    assert "signals->ground.value = (PIND & (1u << 2)) == 0u ? 1.0f : 0.0f;" in text
    assert "signals->driven.value = (PIND & (1u << 3)) != 0u ? 1.0f : 0.0f;" in text
    assert "signals->hit.is_new = hit_is && !hit_was;" in text
    assert "signals->dial.value = read_analogue(1u);" in text
    assert "PORTD |= _BV(2); /* ground: pulled up */" in text
    assert "PORTD |= _BV(3)" not in text
    assert "signals->bus" in text.partition("No pin feeds these")[2]


@pytest.mark.parametrize(
    ("target", "words"), [("avrr", "Did you mean 'avr'"), ("espp", "Did you mean .esp")]
)  # fmt: skip
def test_a_target_that_there_is_not_names_those_that_there_are(target, words):
    with pytest.raises(FirmwareError, match=words):
        make_project(fd.Design.from_values(PINS).examined.sound, target)


def test_pins_of_another_chip_become_others_and_are_told():
    project = make_project(fd.Design.from_values(PINS).examined.sound, "arm")
    assert ("PA8", "line a: ws2812b") in project.pins
    assert len(project.notes) == 5
    assert "line 'a' is at PA8: D6 cannot do this on this chip." in project.notes


def test_two_controllers_have_their_own_lines_each():
    """Each LED has the light that it has in the whole, and firmware holds no LED of the other's."""
    values = {
        "name": "two",
        "controllers": {"one": {"type": "atmega328p"}, "two": {"type": "stm32f103"}},
        "supplies": {"s": {"volts": 5, "budget": 0.2}},
        "line": [
            {"name": "a", "pin": "D6", "controller": "one", "supply": "s", "part": [strip("a", 7)]},
            {"name": "b", "pin": "PA8", "controller": "two", "part": [strip("b", 9)]},
            {"name": "c", "pin": "D7", "controller": "one", "supply": "s", "part": [strip("c", 4)]},
        ],
        "signals": {"s": {}},
        "groups": {"odd": "index % 2 == 1"},
        "layer": [
            {"name": "1", "on": "all", "effect": "gauge", "value": "s", "level": 0.4},
            {"name": "2", "on": "odd", "effect": "sweep", "rate": "s", "blend": "add", "level": 0.3},
        ],
    }  # fmt: skip
    design = fd.Design.from_values(values)
    with pytest.raises(FirmwareError, match="one and two"):
        design.firmware()
    whole = design.compile(engine="numpy")
    for name, rows in (("one", [*range(7), *range(16, 20)]), ("two", [*range(7, 16)])):
        project = design.firmware(controller=name)
        engine = type(whole.engine)(project.plan)
        whole.engine.reset()
        for step in range(12):
            news = {"s": step / 12}
            light, _ = whole.engine.light(step * 40, news)
            assert engine.light(step * 40, news)[0].tobytes() == light[:, rows].tobytes()
        assert Path(project.files["README.md"].splitlines()[0]).name
        assert f"#define TWO_LEDS {len(rows)}" in project.emitted.header


ODD = {
    "no signals, a name of C": {
        "name": "int", "rate": 60, "line": [{"name": "int", "part": [strip("a", 1)]}],
        "layer": [{"name": "x", "on": "a", "effect": "sweep"}],
    },
    "white, clocked, odd names, every kind of signal": {
        "name": 'Größe "x" ??/ */', "controllers": {"main": {"type": "atmega328p"}},
        "line": [
            {"name": "ei ns", "pin": "D6", "led": "sk6812-rgbw", "part": [strip("a", 5)]},
            {"name": "2.-nd", "pin": "D7", "clock": "D8", "led": "apa102",
             "part": [{"name": "h", "shape": "hidden", "count": 2}, strip("b", 4)]},
        ],
        "signals": {
            "s": {"pin": "A0"}, "hit": {"kind": "event", "pin": "D2"}, "tint": {"kind": "colour"},
            "mode": {"kind": "choice", "choices": ["a", "b"]}, "v": {"kind": "vector", "size": 2},
        },
        "layer": [
            {"name": "x", "on": "all", "effect": "ripple", "trigger": "hit", "level": "s",
             "colour": "tint"},
            {"name": "y", "on": "all", "effect": "solid", "level": "v[0]", "when": "mode == 'b'"},
        ],
    },
}  # fmt: skip


@pytest.mark.parametrize("receiver", [False, True])
@pytest.mark.parametrize("values", ODD.values(), ids=ODD)
def test_odd_designs_build_everywhere(avr, arm, compiler, tmp_path, values, receiver):
    design = fd.Design.from_values(values)
    host = f"HOST_CFLAGS=-std=c99 -O1 -ffp-contract=off -I. {STRICT}"
    for target, tool in (("avr", "hex"), ("arm", "bin"), ("generic", "")):
        project = design.firmware(target, receiver=receiver)
        folder = tmp_path / target
        write_project(project.files, folder)
        if tool:
            assert make(folder, f"{project.name}.{tool}").stderr == ""
        if receiver:
            assert make(folder, f"{project.name}-receiver", host).stderr == ""
        assert "byte for byte" in make(folder, "check", host).stderr


def test_clocked_leds_have_two_pins():
    project = fd.Design.from_values(
        ODD["white, clocked, odd names, every kind of signal"]
    ).firmware()
    assert "CLOCKED(send_n2_nd, PORTD, 7, PORTB, 0, 3)" in project.files["board.c"]
    assert ("D8 (PB0)", "line 2.-nd: clock") in project.pins
