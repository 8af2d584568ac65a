"""The firmware for STM32 on models of their registers: what their timers' pins send is the film."""

from __future__ import annotations

import numpy as np
import pytest

import fendra as fd
from fendra.core.layout.wire import LineBytes
from fendra.firmware.write import write_project
from stm32 import Stm32, Stm32F405, Stm32F411
from targets import make, project_of


def frames_from(chip, pin, size):
    """Each frame's bytes from the pulses of a pin, and when it began in ms. The lengths of all zeros
    and of all ones are within what the LEDs take."""
    pulses, tick_ns = chip.pulses[pin], 1e9 / chip.core_hz
    slow = chip.slow_timers if pin[0] == "B" else 1
    lengths = np.array([length for length, _ in pulses]) * tick_ns * slow
    is_one = lengths > 500
    assert 250 <= lengths[~is_one].min() <= lengths[~is_one].max() <= 380
    if is_one.any():
        assert 650 <= lengths[is_one].min() <= lengths[is_one].max() <= 750
    since = np.array([at for _, at in pulses]) * tick_ns / 1000
    starts = [0, *(np.flatnonzero(np.diff(since) > 280) + 1)]
    whole = [start for start in starts if start + 8 * size <= len(pulses)]
    for start in whole:  # a bit every 1.25 us, without a gap
        gaps = np.diff(since[start : start + 8 * size])
        assert np.allclose(gaps, 1.25, atol=0.05)
    data = [np.packbits(is_one[start : start + 8 * size]).tobytes() for start in whole]
    return data, [since[start] / 1000 for start in whole]


@pytest.mark.parametrize(
    ("chip_name", "kind", "has_crystal"),
    [("stm32f103", Stm32, True), ("stm32f103", Stm32, False), ("stm32f405", Stm32F405, True),
     ("stm32f411", Stm32F411, True)],
)  # fmt: skip
def test_what_the_timers_send_is_the_film_of_what_the_pins_told(
    arm, tmp_path, chip_name, kind, has_crystal
):
    """Switches at two pins and voltages at three go in; at first all is dark; 50 frames a second. Where
    no crystal swings, pulses are as long at 64 MHz."""
    project = project_of("swift", chip_name)
    write_project(project.files, tmp_path)
    make(tmp_path)
    at = {what.split()[1].rstrip(":"): pin for pin, what in project.pins}
    assert (at["wings"], at["belly"]) == ("PA8", "PB6")
    swift, glide = fd.load(fd.demo_file("swift.toml")), fd.read_tape(fd.demo_file("glide.csv"))
    program = swift.compile(engine="numpy")
    chip = kind((tmp_path / "swift.bin").read_bytes(), has_crystal=has_crystal)
    wire, rgb, counts = LineBytes(program.layout, swift), np.empty((40, 3), np.uint8), []
    chip.run(0.010)
    count = 40 if has_crystal else 8
    for number in range(count):
        values, _ = glide.heard(program.fed, np.array([number * 0.45]))
        row = dict(zip(program.fed, values[0], strict=True))
        for name in ("armed", "returning"):
            chip.levels["B", int(at[name].removeprefix("PB"))] = row[name] < 0.5
        for name in ("throttle", "roll", "battery"):
            chip.volts[int(at[name].removeprefix("PA"))] = 3.3 * row[name]
        counts.append({name: round(value * 4095) for name, value in row.items()})
        chip.run(0.020)
    (wings, began), (belly, _) = (
        frames_from(chip, pin, size) for pin, size in ((("A", 8), 84), (("B", 6), 36))
    )
    frames = [*zip(wings, belly, strict=False)]
    assert not any(frames[0][0] + frames[0][1])
    assert began[0] < (5 if has_crystal else 30)
    assert len(frames) >= count
    assert np.diff(began[2:]).mean() == pytest.approx(20, abs=0.3)
    if not has_crystal:
        return  # its pulses are right, which is what differs

    def film(start_ms):
        """What must come, if the board's clock showed this at its first frame."""
        program.engine.reset()
        found = []
        for number in range(40):
            told = counts[number - 1] if number else dict.fromkeys(program.fed, 0)
            heard = {name: float(np.float32(told[name]) * np.float32(1.0 / 4095.0))
                     for name in ("throttle", "roll", "battery")}  # fmt: skip
            heard |= {name: float(told[name] > 2000) for name in ("armed", "returning")}
            program.engine.frame(start_ms + 20 * number, heard, rgb)
            found.append(tuple(wire.bytes(rgb)))
        return found

    assert frames[1:41] in [film(start_ms) for start_ms in range(4)]
