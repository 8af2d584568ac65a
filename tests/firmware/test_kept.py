"""What a controller knows again after it was off: a knob, and the scene that a button chose."""

from __future__ import annotations

import numpy as np

import fendra as fd
from fendra.firmware.write import write_project
from helpers import strip
from rp2040 import MODULE, emulate, outs_of, uf2_of
from targets import AVR_HZ, make


def design_of(chip, line, knob, other, button):
    return fd.Design.from_values({
        "name": "kept", "controllers": {"main": {"type": chip}},
        "line": [{"name": "a", "pin": line, "order": "RGB", "part": [strip("a", 2)]}],
        "signals": {
            "volume": {"range": [0, 1], "keep": True,
                       "pin": {"name": knob, "kind": "knob", "other": other, "step": 0.1}},
            "hand": {"kind": "switch", "keep": True, "pin": button},
        },
        "scene": [{"name": "one", "button": "hand", "fade": 0}, {"name": "two", "button": "hand", "fade": 0}],
        "layer": [
            {"name": "v", "on": "a[0]", "effect": "solid", "colour": "rgb(volume, 0, 0)"},
            {"name": "s", "on": "a[1]", "effect": "solid", "colour": "rgb(0, 1, 0)", "scene": "two"},
        ],
    })  # fmt: skip


def clicks(at_ms, count):
    """A knob that clicks on so often: rows of ms, which of its pins, level."""
    states = [(0, 1), (0, 0), (1, 0), (1, 1)] * count
    return [
        (at_ms + 2 * i, pin, level)
        for i, pair in enumerate(states)
        for pin, level in enumerate(pair)
    ]


def test_an_rp2040_keeps_it_in_its_flash_also_when_a_record_is_torn_off(need, arm, tmp_path):
    """Three clicks of 0.1, and the second scene; kept after two seconds. The power goes: it is there
    again. Two clicks more, and the power goes while they are written: the three are there. One click more
    is kept as well."""
    need([] if MODULE.exists() else ["rp2040js"], "npm; then npm ci in web/")
    design = design_of("rp2040", "GP2", "GP10", "GP11", "GP12")
    assert not [f for f in design.check() if f.code == "no-effect"]
    project = design.firmware()
    rows = [*clicks(100, 3), *clicks(3300, 2), *clicks(6500, 1)]
    events = [[ms * 1000, "pin", 10 + pin, level] for ms, pin, level in rows]
    events += [[0, "pin", pin, 1] for pin in (10, 11, 12)]
    events += [[200_000, "pin", 12, 0], [260_000, "pin", 12, 1]]
    events += [[3_000_000, "cut", 0, 0], [9_200_000, "cut", 0, 0]]
    (board,) = emulate(
        {
            "uf2": str(uf2_of(project, tmp_path)),
            "outs": outs_of(project),
            "events": events,
            "torn": 1,
        },
        seconds=9.6,
    )
    frames = [(us / 1e6, bytes.fromhex(data)) for us, data in board["lines"][0]["frames"]]

    def at(s):
        data = next(data for us, data in frames if us >= s)
        return round(data[0] / 25.5), data[4] > 0

    starts = [us / 1e6 for us in board["powered"]]
    assert len(starts) == 4
    assert 5.3 < starts[2] < 5.6
    assert at(0.15) == (3, False)
    assert at(2.9) == (3, True)
    assert at(3.05) == (3, True)
    assert at(5.2) == (5, True)
    assert at(starts[2] + 0.06) == (3, True)
    assert at(9.1) == (4, True)
    assert at(9.3) == (4, True)
    assert board["written"] == 3


def test_an_8_bit_part_keeps_it_in_its_eeprom(board, tmp_path):
    """Each time it goes to another place; of a record that was torn off the one before is there."""
    project = design_of("atmega328p", "D6", "D8", "D9", "D10").firmware()
    write_project(project.files, tmp_path)
    make(tmp_path)
    memory = tmp_path / "eeprom"

    def run(rows, seconds):
        text = ["1 pin B 0 1", "1 pin B 1 1", "1 pin B 2 1"]
        text += [f"{round(ms / 1000 * AVR_HZ)} pin B {pin} {level}" for ms, pin, level in rows]
        text.append(f"{round(seconds * AVR_HZ)} end")
        words = ["out=D6:6", "timed", f"eeprom={memory}"]
        frames, _, _ = board(tmp_path / "kept.elf", words, "\n".join(text).encode())
        return [(round(data[0] / 25.5), bool(data[4])) for data in frames["bytes"]]

    first = run([*clicks(100, 3), (300, 2, 0), (360, 2, 1)], 3)
    assert (first[3], first[-1]) == ((0, False), (3, True))
    after_one = memory.read_bytes()
    second = run(clicks(100, 2), 3)
    assert (second[2], second[-1]) == ((3, True), (5, True))
    after_two = memory.read_bytes()
    changed = np.flatnonzero(
        np.frombuffer(after_one, np.uint8) != np.frombuffer(after_two, np.uint8)
    )
    assert run([], 0.3)[-1] == (5, True)
    torn = bytearray(after_two)
    torn[changed[-1]] ^= 0xFF
    memory.write_bytes(bytes(torn))
    assert run([], 0.3)[-1] == (3, True)
    memory.write_bytes(b"\xff" * 1024)
    assert run([], 0.3)[-1] == (0, False)


def test_what_cannot_be_kept_is_told():
    design = design_of("stm32f103", "PA8", "PB12", "PB13", "PB14")
    (note,) = design.firmware().notes
    assert "an STM32F103 (Cortex-M3 at 72 MHz) cannot keep values" in note
    signals = {"dial": {"pin": "A0", "range": [0, 1], "keep": True}}
    other = fd.Design.from_values({
        "name": "dial", "controllers": {"main": {"type": "atmega328p"}}, "signals": signals,
        "line": [{"name": "a", "pin": "D6", "part": [strip("a", 2)]}],
        "layer": [{"name": "v", "on": "a", "effect": "solid", "level": "dial"}],
    })  # fmt: skip
    assert [f.path for f in other.check() if f.code == "no-effect"] == [("signals", "dial", "keep")]
