"""The 8-bit parts as whole images in simavr: every kind of input on each, and what comes out."""

from __future__ import annotations

import pytest

from every_kind import assert_told, every_kind, happenings
from fendra.core.catalogue.controllers import CONTROLLERS
from fendra.firmware.write import write_project
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
